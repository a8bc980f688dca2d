<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

/**
 * All findings of a build, what matters most first.
 */
final readonly class Inspection
{
    /** @var list<Finding> */
    public array $findings;

    /**
     * @param  list<Finding>  $findings
     */
    public function __construct(public Bench $bench, array $findings)
    {
        $order = array_map(static fn (Finding $f): array => [$f->verdict->rank(), $f->margin?->in('') ?? 0.0, $f->key()], $findings);
        array_multisort($order, $findings);
        $this->findings = $findings;
    }

    /**
     * @return array<string, int> verdict → number of findings, every verdict present
     */
    public function tally(): array
    {
        $tally = array_fill_keys(array_map(static fn (Verdict $v): string => $v->value, Verdict::cases()), 0);
        foreach ($this->findings as $finding) {
            $tally[$finding->verdict->value]++;
        }

        return $tally;
    }

    public function worst(): Verdict
    {
        return ($this->findings[0] ?? null)->verdict ?? Verdict::Holds;
    }
}
