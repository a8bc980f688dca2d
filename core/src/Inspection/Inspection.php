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
    public function __construct(public Survey $survey, array $findings)
    {
        $order = array_map(
            static fn (Finding $f): array => [$f->verdict->rank(), $f->margin?->in('') ?? 0.0, $f->key()],
            $findings,
        );
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

    /**
     * Findings that another inspection of this build, changed, says worse things of.
     *
     * @return list<array{key: string, title: string, label: string, from: string|null, to: string, headline: string}>
     */
    public function worseIn(self $other): array
    {
        $now = [];
        foreach ($this->findings as $finding) {
            $now[$finding->key()] = $finding->verdict;
        }
        $worse = [];
        foreach ($other->findings as $finding) {
            $was = $now[$finding->key()] ?? null;
            if (
                $was === null
                    ? $finding->verdict->rank() < Verdict::Unproven->rank()
                    : $finding->verdict->rank() < $was->rank()
            ) {
                $worse[] = [
                    'key' => $finding->key(),
                    'title' => $finding->card->title,
                    'label' => $finding->subject->label,
                    'from' => $was?->value,
                    'to' => $finding->verdict->value,
                    'headline' => $finding->headline,
                ];
            }
        }

        return $worse;
    }

    public function worst(): Verdict
    {
        return ($this->findings[0] ?? null)->verdict ?? Verdict::Holds;
    }
}
