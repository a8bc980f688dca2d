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
        usort($findings, static fn (Finding $a, Finding $b): int => [$a->verdict->rank(), $a->margin?->in('') ?? 0.0, $a->key()] <=> [$b->verdict->rank(), $b->margin?->in('') ?? 0.0, $b->key()]);
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
