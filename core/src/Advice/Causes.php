<?php

declare(strict_types=1);

namespace Magpie\Core\Advice;

use Magpie\Core\Electrical\PowerBehind;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Trade;

/**
 * What a builder has to look at: findings that share a cause are one line. Worst consequence first: what can burn or hurt,
 * by the power behind it; what breaks; what stops the work; then what is not known, by what may come of it and what it
 * holds up.
 */
final class Causes
{
    /** Trades in which what fails breaks nothing: it costs, or stops the work. */
    private const STOPS = [Trade::Supply, Trade::Workshop];

    /**
     * @return list<Cause>
     */
    public static function of(Inspection $inspection): array
    {
        $wrong = $doubts = $bad = [];
        foreach ($inspection->open() as $finding) {
            if ($finding->verdict === Verdict::Unproven) {
                $doubts[$finding->key()] = $finding;
            } elseif ($finding->verdict !== Verdict::Holds) {
                $bad[$finding->key()] = $finding;
            }
        }
        $roots = self::roots($inspection->findings, $bad);
        foreach ($roots as $where) {
            foreach ($bad as $key => $finding) {
                if ($finding->cause === $where || self::reads($finding, $where)) {
                    $wrong[$where][] = $finding;
                    unset($bad[$key]);
                }
            }
        }
        foreach ($bad as $finding) {
            $wrong[self::shared($finding)][] = $finding;
        }
        $causes = [];
        foreach ($wrong as $findings) {
            $causes[] = new Cause(
                $findings,
                self::together($findings),
                null,
                max(array_map(static fn (Finding $f): float => PowerBehind::of($inspection->survey, $f), $findings)),
            );
        }
        array_push($causes, ...self::unknown($doubts));
        usort($causes, static fn (Cause $a, Cause $b): int => self::order($a) <=> self::order($b));

        return $causes;
    }

    /**
     * Values of parts that are wrong themselves: most of what a rule says because of one is bad. All else that is bad and
     * reads it follows from it.
     *
     * @param  list<Finding>  $all
     * @param  array<string, Finding>  $bad
     * @return list<string> where they stand, those first from which most follows
     */
    private static function roots(array $all, array $bad): array
    {
        $said = $wrong = [];
        foreach ($all as $finding) {
            if ($finding->cause !== null && str_starts_with($finding->cause, 'parts/')) {
                $said[$finding->cause] = ($said[$finding->cause] ?? 0) + 1;
                if (isset($bad[$finding->key()])) {
                    $wrong[$finding->cause] = ($wrong[$finding->cause] ?? 0) + 1;
                }
            }
        }
        arsort($wrong);

        return array_map(
            strval(...),
            array_keys(
                array_filter(
                    $wrong,
                    static fn (int $n, string $where): bool => 2 * $n > $said[$where],
                    ARRAY_FILTER_USE_BOTH,
                ),
            ),
        );
    }

    private static function reads(Finding $finding, string $where): bool
    {
        foreach ($finding->inputs as $input) {
            if ($input->where === $where) {
                return true;
            }
        }

        return false;
    }

    /** What findings that are wrong for one reason have in common: the same rule, on the same values of parts. */
    private static function shared(Finding $finding): string
    {
        if ($finding->cause !== null && ! str_starts_with($finding->cause, 'parts/')) {
            return $finding->cause;
        }
        $on = [];
        foreach ($finding->inputs as $input) {
            if (! str_starts_with($input->where, 'leads/')) {
                $on[$input->where] = true;
            }
        }
        ksort($on);

        return $finding->card->id.'|'.($on === [] ? $finding->headline : implode(' ', array_keys($on)));
    }

    /**
     * @param  non-empty-list<Finding>  $findings
     */
    private static function together(array $findings): string
    {
        $first = $findings[0];
        $others = array_map(
            static fn (Finding $f): string => $f->subject->label === $first->subject->label
                ? lcfirst($f->card->title)
                : $f->subject->label,
            array_slice($findings, 1, 3),
        );
        $more = count($findings) - 1 - count($others);

        return $others === []
            ? "{$first->subject->label}: {$first->headline}"
            : "{$first->subject->label}: {$first->headline} So too: ".
                    implode(', ', $others).
                    ($more > 0 ? " and {$more} more" : '').
                    '.';
    }

    /**
     * Each doubt under the one unknown that holds up most: of what is asked, the fewest answers that settle all.
     *
     * @param  array<string, Finding>  $doubts
     * @return list<Cause>
     */
    private static function unknown(array $doubts): array
    {
        $waiting = $labels = $left = [];
        foreach ($doubts as $key => $finding) {
            $asked = self::asked($finding);
            $left[$key] = count($asked);
            foreach ($asked as $unknown => $label) {
                $waiting[$unknown][$key] = true;
                $labels[$unknown] ??= $label;
            }
        }
        $causes = [];
        while ($doubts !== []) {
            $most = null;
            foreach ($waiting as $unknown => $keys) {
                if ($most === null || count($keys) > count($waiting[$most])) {
                    $most = (string) $unknown;
                }
            }
            if ($most === null) {
                break;
            }
            $findings = array_values(array_intersect_key($doubts, $waiting[$most]));
            $doubts = array_diff_key($doubts, $waiting[$most]);
            $taken = $waiting[$most];
            foreach ($waiting as $unknown => $keys) {
                $waiting[$unknown] = array_diff_key($keys, $taken);
                if ($waiting[$unknown] === []) {
                    unset($waiting[$unknown]);
                }
            }
            if ($findings !== []) {
                $causes[] = self::doubt($findings, $most, $labels[$most]);
            }
        }

        return $causes;
    }

    /**
     * @param  non-empty-list<Finding>  $findings
     */
    private static function doubt(array $findings, string $unknown, string $label): Cause
    {
        usort($findings, static fn (Finding $a, Finding $b): int => self::rank($a->could) <=> self::rank($b->could));
        $labels = array_map(
            static fn (Finding $f): string => "{$f->card->title} of {$f->subject->label}",
            array_slice($findings, 0, 3),
        );
        $more = count($findings) - count($labels);
        $says =
            "Not known well enough: {$label}. ".
            implode(', ', $labels).
            ($more > 0 ? " and {$more} more" : '').
            (count($findings) === 1 ? ' waits for it.' : ' wait for it.');

        return new Cause(
            $findings,
            $says,
            str_contains($unknown, '/') && ! str_contains($unknown, ' ') ? $unknown : null,
            0.0,
        );
    }

    /**
     * What a doubt waits for.
     *
     * @return array<string, string> where it would be written, or what it is → what it is
     */
    private static function asked(Finding $finding): array
    {
        $asked = [];
        foreach ($finding->missing as $what) {
            $where = $finding->wanted[$what] ?? $what;
            [$key, $label] = self::alike($where) ?? [$where, $what];
            $asked[$key] = $label;
        }
        foreach ($asked === [] ? $finding->inputs : [] as $input) {
            if ($input->evidence->isWeakerThan($finding->card->asks)) {
                $asked[$input->where] = lcfirst($input->label)." ({$input->evidence->label()})";
            }
        }

        return $asked === [] ? [$finding->key() => lcfirst($finding->card->title)] : $asked;
    }

    /**
     * What is asked in one go: every setting of a machine that is read back, every joint that is looked at.
     *
     * @return array{string, string}|null key and what it is
     */
    private static function alike(string $where): ?array
    {
        return match (true) {
            str_starts_with($where, 'settings/') => ['settings', 'the settings, as they are on the machine'],
            str_ends_with($where, '/strain_relief') => [
                'strain relief',
                'strain relief at the ends of leads that move',
            ],
            str_ends_with($where, '/termination') => ['terminations', 'what the ends of some leads are made with'],
            default => null,
        };
    }

    /**
     * @return list<int|float|string>
     */
    private static function order(Cause $cause): array
    {
        $first = $cause->findings[0];
        $margin = $first->margin?->in('') ?? 0.0;

        return match ($cause->verdict()) {
            Verdict::Danger => [0, -$cause->watts, $margin, $first->key()],
            Verdict::Fails => [in_array($first->card->trade, self::STOPS, true) ? 2 : 1, 0, $margin, $first->key()],
            Verdict::Unproven => $cause->could() === null || $cause->could() === Verdict::Tight
                ? [5, 0, -count($cause->findings), $first->key()]
                : [3, self::rank($cause->could()), -count($cause->findings), $first->key()],
            default => [4, 0, $margin, $first->key()],
        };
    }

    private static function rank(?Verdict $verdict): int
    {
        return $verdict === null ? Verdict::Holds->rank() : $verdict->rank();
    }
}
