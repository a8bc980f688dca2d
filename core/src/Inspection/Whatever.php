<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Quantity\Quantity;

/**
 * A doubt that does not matter: where every value that what is unknown may plausibly have leads to one verdict, that verdict
 * stands, and says so.
 */
final class Whatever
{
    /** Unknown values tried in all their combinations; with more of them a doubt stays one. */
    private const TRIED = 4;

    /**
     * @param  callable(Supposition): Finding  $judging
     * @return Finding|null null where it does matter
     */
    public static function of(Finding $finding, Survey $survey, callable $judging): ?Finding
    {
        $unknown = self::unknown($finding, $survey);
        if ($unknown === [] || ! $finding->card->supposes) {
            return null;
        }
        $first = new Supposition(array_column($unknown, 'from', 'where'), Supposition::MOST);
        $judging($first);
        $direct = array_values(array_filter($unknown, static fn (array $u): bool => isset($first->used()[$u['where']])));
        if (count($direct) > self::TRIED) {
            return null;
        }
        $found = [];
        foreach (self::corners($direct) as $corner) {
            foreach ([Supposition::MOST, Supposition::LEAST] as $lean) {
                $supposed = new Supposition($corner + array_column($unknown, 'from', 'where'), $lean);
                $then = $judging($supposed);
                if ($then->verdict === Verdict::Unproven || array_diff_key($supposed->used(), $corner) !== []) {
                    return null;
                }
                $found[] = $then;
            }
        }
        usort($found, static fn (Finding $a, Finding $b): int => self::badness($a) <=> self::badness($b));
        $worst = $found[0];
        if (
            array_unique(array_map(static fn (Finding $f): string => $f->verdict->value, $found)) !== [
                $worst->verdict->value,
            ]
        ) {
            return $worst->verdict->rank() < Verdict::Tight->rank() ? $finding->coming($worst->verdict) : null;
        }
        // Where all of it is known if only roughly, it is shown as it is said; else as it is at worst.
        $shown = $finding->missing === [] && $finding->otherwise === $worst->verdict ? $finding : $worst;

        return new Finding(
            $finding->card,
            $finding->subject,
            $worst->verdict,
            ($shown->said ?? $shown->headline).self::whatever($unknown, $shown === $worst),
            $shown->margin,
            $shown->limit,
            $shown->working,
            $finding->inputs,
            [],
            $shown->scenario,
            figures: $shown->figures,
            leads: $shown->leads,
            whatever: $unknown,
            said: $shown->said,
        );
    }

    /**
     * @param  non-empty-list<array{label: string, where: string, from: Quantity, to: Quantity}>  $unknown
     */
    private static function whatever(array $unknown, bool $atWorst): string
    {
        $names = array_map(
            static fn (array $u): string => lcfirst($u['label'])." is, from {$u['from']} to {$u['to']}",
            array_slice($unknown, 0, 2),
        );
        $more = count($unknown) - count($names);

        return ($atWorst ? ' So at worst, whatever ' : ' So it is whatever ').
            implode(', and whatever ', $names).
            ($more > 0 ? ', and so for '.($more === 1 ? 'one more value' : "{$more} more") : '').
            '.';
    }

    /**
     * @return array{int, float} worse first
     */
    private static function badness(Finding $finding): array
    {
        return [$finding->verdict->rank(), $finding->margin?->in('') ?? 1.0];
    }

    /**
     * @return list<array{label: string, where: string, from: Quantity, to: Quantity}> none when one of them is not bounded
     */
    private static function unknown(Finding $finding, Survey $survey): array
    {
        $unknown = [];
        foreach ($finding->missing as $what) {
            $where = isset($finding->sizes[$what]) ? $finding->wanted[$what] ?? null : null;
            $bounds = $where === null ? null : Plausible::of($survey->build, $where, null);
            if ($where === null || $bounds === null) {
                return [];
            }
            $unknown[] = ['label' => $what, 'where' => $where, 'from' => $bounds[0], 'to' => $bounds[1]];
        }
        foreach ($finding->inputs as $input) {
            if ($finding->card->informs || ! $input->evidence->isWeakerThan($finding->card->asks)) {
                continue;
            }
            $bounds = Plausible::of($survey->build, $input->where, $input);
            if ($bounds === null) {
                return [];
            }
            $unknown[] = ['label' => $input->label, 'where' => $input->where, 'from' => $bounds[0], 'to' => $bounds[1]];
        }

        return $unknown;
    }

    /**
     * @param  list<array{label: string, where: string, from: Quantity, to: Quantity}>  $unknown
     * @return list<array<string, Quantity>>
     */
    private static function corners(array $unknown): array
    {
        $corners = [[]];
        foreach ($unknown as ['where' => $where, 'from' => $from, 'to' => $to]) {
            $next = [];
            foreach ($corners as $corner) {
                $next[] = [$where => $from] + $corner;
                $next[] = [$where => $to] + $corner;
            }
            $corners = $next;
        }

        return $corners;
    }
}
