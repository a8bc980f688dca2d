<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Machine\Acceptance;

/**
 * All findings of a build, what matters most first.
 */
final readonly class Inspection
{
    /** @var list<Finding> */
    public array $findings;

    /** @var array<string, Acceptance> finding that is accepted as it stands → by what */
    public array $accepted;

    /**
     * @param  list<Finding>  $findings
     * @param  string|null  $today  day by which an acceptance may be over
     */
    public function __construct(public Survey $survey, array $findings, ?string $today = null)
    {
        $order = array_map(
            static fn (Finding $f): array => [$f->verdict->rank(), $f->margin?->in('') ?? 0.0, $f->key()],
            $findings,
        );
        array_multisort($order, $findings);
        $this->findings = $findings;
        $this->accepted = self::standing($survey->build->accepted, $findings, $today);
    }

    /** The same as on a day: an acceptance may be over by then. */
    public function on(string $day): self
    {
        return new self($this->survey, $this->findings, $day);
    }

    /**
     * @return array<string, int> verdict → number of findings, every verdict present
     */
    public function tally(): array
    {
        $tally = array_fill_keys(array_map(static fn (Verdict $v): string => $v->value, Verdict::cases()), 0);
        foreach ($this->open() as $finding) {
            $tally[$finding->verdict->value]++;
        }

        return $tally;
    }

    /**
     * @return list<Finding> those that ask for something now: neither accepted, nor to be told later
     */
    public function open(): array
    {
        return array_values(
            array_filter(
                $this->findings,
                fn (Finding $f): bool => $f->later === null && ! isset($this->accepted[$f->key()]),
            ),
        );
    }

    /**
     * @return list<Finding> of which nothing can be told before the build is further
     */
    public function later(): array
    {
        return array_values(
            array_filter(
                $this->findings,
                fn (Finding $f): bool => $f->later !== null && ! isset($this->accepted[$f->key()]),
            ),
        );
    }

    /**
     * Acceptances that stand: of findings that say what they said then, on the same grounds.
     *
     * @param  array<string, Acceptance>  $accepted
     * @param  list<Finding>  $findings
     * @return array<string, Acceptance> by finding
     */
    private static function standing(array $accepted, array $findings, ?string $today): array
    {
        if ($accepted === []) {
            return [];
        }
        $digests = [];
        foreach ($findings as $finding) {
            $digests[$finding->key()] = $finding;
        }
        $standing = [];
        foreach ($accepted as $one) {
            $over = $today !== null && $one->until !== null && $one->until <= $today;
            $finding = $digests[$one->finding] ?? null;
            if ($finding !== null && ! $over && ! $finding->verdict->isSound() && $finding->digest() === $one->of) {
                $standing[$one->finding] = $one;
            }
        }

        return $standing;
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
        return ($this->open()[0] ?? null)->verdict ?? Verdict::Holds;
    }
}
