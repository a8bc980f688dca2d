<?php

declare(strict_types=1);

namespace Magpie\Core\Choice;

use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Need;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Money\Exchange;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/**
 * The candidates for one need side by side, each inspected in place: the whole build is judged with it, and nothing of
 * the build is changed. A preference of the builder's orders those that do; it never lifts one that fails.
 *
 * @phpstan-type Cell array{value: string, alike: string|null, size: float|null, evidence: string, source: string|null,
 *     verdict: string|null, finding: string|null, says: string|null}
 * @phpstan-type Candidate array{part: string, price: string|null, landed: string|null,
 *     lead_days: int|null, mass: string|null, watts: string|null, barred: bool, blocked: list<string>,
 *     read: array<string, Finding>, ...}
 */
final readonly class Comparison
{
    private Need $need;

    private Inspection $inspection;

    public function __construct(private Standing $standing, string $need)
    {
        $this->inspection = $standing->inspection();
        $this->need = $standing->build()->needs[$need];
    }

    /**
     * The build as it stands with another part chosen for the need, inspected whole.
     */
    public function inspectWith(string $part): Inspection
    {
        return $this->need->choice === $part
            ? $this->inspection
            : $this->standing->after($this->standing->build()->choosing($this->need->ref, $part))->inspection();
    }

    /**
     * Money as decimal texts in the build's currency.
     *
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        $build = $this->inspection->survey->build;
        $refs = array_values(array_unique(array_filter([$this->need->choice, ...$this->need->candidates])));
        $parts = array_map(static fn (string $ref): Part => $build->parts[$ref], $refs);
        $without = Money::of(
            (new MoneyLedger($build->choosing($this->need->ref, null)))->toArray(false)['planned'],
            $build->plan->currency,
        );
        $candidates = array_map(fn (Part $part): array => $this->candidate($build, $part, $without), $parts);
        $rows = $this->rows($parts, $candidates);
        $scores = (new Preference($this->need->weights))->scores($rows, $candidates);

        return [
            'need' => $this->need->ref,
            'role' => $this->need->role,
            'family' => $this->need->family,
            'quantity' => $this->need->quantity,
            'currency' => $build->plan->currency,
            'chosen' => $this->need->choice,
            'rows' => $rows,
            'ratios' => $this->ratios($parts),
            'weights' => (object) $this->need->weights,
            'candidates' => array_map(
                static fn (array $c): array => array_diff_key($c, ['read' => 0]) + ['score' => $scores[$c['part']]],
                $candidates,
            ),
            'order' => Preference::order($candidates, $scores),
        ];
    }

    /**
     * @return Candidate
     */
    private function candidate(Build $build, Part $part, Money $without): array
    {
        $knockOns = new KnockOns($build, $this->need);
        $inspection = $this->inspectWith($part->ref);
        $tally = $inspection->tally();
        $with = MoneyLedger::of($inspection->survey);
        $total = Money::of($with->toArray(false)['planned'], $build->plan->currency);
        $line = null;
        foreach ($with->lines() as $one) {
            $line = $one->part === $part->ref ? $one : $line;
        }
        $read = [];
        foreach ($inspection->findings as $finding) {
            foreach ($finding->inputs as $input) {
                // Worst first: the first finding that reads a value is the worst that does.
                $read[$input->where] ??= $finding;
            }
        }
        $own = array_values(
            array_filter(
                $inspection->findings,
                fn (Finding $f): bool => in_array($this->need->ref, $f->subject->needs, true),
            ),
        );

        return [
            'part' => $part->ref,
            'name' => $part->name,
            'chosen' => $this->need->choice === $part->ref,
            'example' => str_starts_with($part->library ?? '', 'example-'),
            'price' => $line?->cost === null ? null : ($line->reason === null ? $line->cost->amount() : null),
            'landed' => $line?->reason === null ? $total->minus($without)->amount() : null,
            'price_date' => $line?->offer?->date,
            'supplier' => $line?->offer === null ? null : $build->suppliers[$line->offer->supplier]->name,
            'lead_days' => $line?->offer === null ? null : $build->suppliers[$line->offer->supplier]->leadDays,
            'mass' => ($mass = $part->spec('mass')?->nominal()) === null
                    ? null
                    : (string) $mass->times($this->need->quantity)->to('g'),
            'watts' => ($watts = self::watts($part)) === null ? null : (string) $watts->times($this->need->quantity)->to('W'),
            'tally' => $tally,
            'worst' => ($own[0] ?? null)?->verdict->value,
            'barred' => $this->bars($own),
            'own' => array_map(static fn (Finding $f): array => $f->summary(), array_slice($own, 0, 12)),
            'changes' => $this->changes($inspection),
            'forces' => $knockOns->of($part),
            'blocked' => $knockOns->blocking($part),
            'facts' => (object) Facts::ofPart($inspection, $this->need->ref, $part),
            'read' => $read,
        ];
    }

    /**
     * @param  list<Finding>  $own
     */
    private function bars(array $own): bool
    {
        return array_filter(
            $own,
            static fn (Finding $f): bool => $f->verdict === Verdict::Danger || $f->verdict === Verdict::Fails,
        ) !== [];
    }

    /**
     * Findings another choice turns, worst first.
     *
     * @return list<array<string, mixed>>
     */
    private function changes(Inspection $inspection): array
    {
        $now = [];
        foreach ($this->inspection->findings as $finding) {
            $now[$finding->key()] = $finding;
        }
        $changes = [];
        foreach ($inspection->findings as $finding) {
            $was = $now[$finding->key()] ?? null;
            if ($was?->verdict !== $finding->verdict) {
                $changes[] = [
                    'key' => $finding->key(),
                    'title' => $finding->card->title,
                    'subject' => $finding->subject->label,
                    'from' => $was?->verdict->value,
                    'to' => $finding->verdict->value,
                    'headline' => $finding->headline,
                ];
            }
        }

        return $changes;
    }

    /**
     * @param  list<Part>  $parts
     * @param  list<Candidate>  $candidates
     * @return list<array{key: string, label: string, unit: string, better: string|null, cells: list<Cell|null>,
     *     best: list<string>, worst: list<string>}>
     */
    private function rows(array $parts, array $candidates): array
    {
        $rows = [];
        foreach ($parts === [] ? [] : $parts[0]->family->sheet() as $field) {
            $cells = array_map(
                fn (Part $p, array $c): ?array => self::cell(
                    $field,
                    $p,
                    $c['read']["parts/{$p->ref}/specs/{$field->key}"] ?? null,
                ),
                $parts,
                $candidates,
            );
            if (array_filter($cells) === []) {
                continue;
            }
            $sizes = [];
            foreach ($parts as $part) {
                $size = $part->spec($field->key)?->nominal();
                $sizes += $size === null ? [] : [$part->ref => $size];
            }
            [$best, $worst] = self::ends($sizes, $field->better);
            $rows[] = [
                'key' => $field->key,
                'label' => $field->label,
                'unit' => $field->unit,
                'better' => $field->better,
                'cells' => $cells,
                'best' => $best,
                'worst' => $worst,
            ];
        }

        return $rows;
    }

    /**
     * @return Cell|null
     */
    private static function cell(SpecField $field, Part $part, ?Finding $finding): ?array
    {
        $spec = $part->spec($field->key);

        return $spec === null
            ? null
            : [
                'value' => $spec->printed(),
                'alike' => self::alike($field, $spec),
                'size' => $spec->nominal()?->in($field->unit),
                'evidence' => $spec->evidence->value,
                'source' => $spec->source,
                'verdict' => $finding?->verdict->value,
                'finding' => $finding?->key(),
                'says' => $finding?->headline,
            ];
    }

    /** The same in the unit of the sheet, where it was written in another. */
    private static function alike(SpecField $field, Spec $spec): ?string
    {
        $size = $spec->nominal();

        return $size === null || $size->unit->symbol === $field->unit ? null : (string) $size->to($field->unit);
    }

    /**
     * @param  array<string, Quantity>  $sizes  by part
     * @return array{list<string>, list<string>} parts with the best and the worst; none when all are alike or neither
     * way is better
     */
    private static function ends(array $sizes, ?string $better): array
    {
        if ($better === null || count($sizes) < 2) {
            return [[], []];
        }
        [$least, $most] = [Quantity::min(...array_values($sizes)), Quantity::max(...array_values($sizes))];
        if ($least->compare($most) === 0) {
            return [[], []];
        }
        $at = static fn (Quantity $end): array => array_map(
            strval(...),
            array_keys(array_filter($sizes, static fn (Quantity $q): bool => $q->compare($end) === 0)),
        );

        return $better === 'more' ? [$at($most), $at($least)] : [$at($least), $at($most)];
    }

    /** What one piece costs where it costs the least, in the build's currency: of a pack its share, however many are needed. */
    private function pieceOf(Part $part): ?float
    {
        $build = $this->inspection->survey->build;
        $exchange = new Exchange($build->rates, $build->plan->currency);
        $prices = [];
        foreach ($build->offers as $offer) {
            $cost = $offer->part === $part->ref ? $exchange->convert($offer->price) : null;
            if ($cost !== null) {
                $prices[] = (float) $cost->exactAmount() / $offer->pack;
            }
        }

        return $prices === [] ? null : min($prices);
    }

    /**
     * Each with both its terms named; none of them ranks.
     *
     * @param  list<Part>  $parts
     * @return list<array{label: string, values: list<float|null>}>
     */
    private function ratios(array $parts): array
    {
        $ratios = [];
        $currency = $this->inspection->survey->build->plan->currency;
        foreach ($parts === [] ? [] : $parts[0]->family->ratios() as [$of, $for]) {
            $top = $parts[0]->family->field($of);
            $bottom = $for === 'price' ? null : $parts[0]->family->field($for);
            $unit = $for === 'price' ? $currency : ($for === 'mass' ? 'kg' : $bottom->unit ?? '');
            $values = array_map(
                function (Part $part) use ($of, $for, $top, $unit): ?float {
                    $value = $part
                        ->spec($of)
                        ?->nominal()
                        ?->in($top->unit ?? '');
                    $by =
                        $for === 'price'
                            ? $this->pieceOf($part)
                            : $part->spec($for)?->nominal()?->in($unit);

                    return $value === null || $by === null || $by <= 0 ? null : round($value / $by, 3);
                },
                $parts,
            );
            $ratios[] = [
                'label' => ($top->label ?? $of).', '.($top->unit ?? '').' per '.$unit,
                'values' => $values,
            ];
        }

        return $ratios;
    }

    private static function watts(Part $part): ?Quantity
    {
        $power = $part->spec('rated_power')?->nominal();
        $volts = $part->spec('rated_voltage')?->nominal();
        $amps = $part->spec('rated_current')?->nominal();

        return $power ?? ($volts === null || $amps === null ? null : $volts->times($amps));
    }
}
