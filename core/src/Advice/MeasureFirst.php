<?php

declare(strict_types=1);

namespace Magpie\Core\Advice;

use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\PortSheet;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Instruments;

/**
 * What to measure first: values of the build ranked by what their uncertainty could do to verdicts. A missing value
 * that leaves a check without a verdict comes with them. Each value is put to both ends of its uncertainty and the
 * findings that read it are judged again.
 *
 * @phpstan-type Flip array{key: string, title: string, subject: string, from: string, to: string|null, with: int}
 * @phpstan-type Row array{where: string, label: string, part: string|null, key: string|null, unit: string,
 *     port: string|null, value: string|null, evidence: string|null, low: string|null, high: string|null,
 *     instrument: string, method: string, within: string, flips: list<Flip>, weight: float}
 */
final readonly class MeasureFirst
{
    /**
     * How far a value of each evidence may be off, either way, where it has no tolerance. Common practice, no source.
     */
    private const UNCERTAINTY = [
        'measured' => 1,
        'datasheet' => 3,
        'standard' => 2,
        'manual' => 10,
        'listing' => 20,
        'assumed' => 30,
    ];

    /** The same for a temperature, in kelvin. */
    private const UNCERTAIN_KELVIN = [
        'measured' => 1,
        'datasheet' => 3,
        'standard' => 3,
        'manual' => 5,
        'listing' => 10,
        'assumed' => 15,
    ];

    /**
     * A finding with more margin than so many times the uncertainty of a value is not judged again: none turns on more
     * than its fourth power, as inertia does on a diameter.
     */
    private const REACH = 4.0;

    private const WEIGHT = ['danger' => 100, 'fails' => 60, 'unproven' => 25, 'tight' => 15, 'holds' => 10];

    public function __construct(private Standing $standing)
    {
    }

    /**
     * @return list<Row> what matters most first
     */
    public function toArray(): array
    {
        $build = $this->standing->build();
        $rows = [...$this->missing($build), ...$this->uncertain($build)];
        usort(
            $rows,
            static fn (array $a, array $b): int => $b['weight'] <=> $a['weight'] ?: strcmp($a['where'], $b['where']),
        );

        return $rows;
    }

    /**
     * @return list<Row>
     */
    private function missing(Build $build): array
    {
        $blocked = $labels = [];
        foreach ($this->standing->inspection()->findings as $finding) {
            foreach ($finding->wanted as $what => $where) {
                $blocked[$where][] = $finding;
                $labels[$where] = $what;
            }
        }
        $rows = [];
        foreach ($blocked as $where => $findings) {
            $spec = self::specAt($build, $where);
            $rows[] = $this->row(
                $where,
                ucfirst($labels[$where]),
                null,
                null,
                null,
                null,
                $spec,
                array_map(
                    static fn (Finding $f): array => [
                        'key' => $f->key(),
                        'title' => $f->card->title,
                        'subject' => $f->subject->label,
                        'from' => $f->verdict->value,
                        'to' => null,
                        'with' => count($f->missing) - 1,
                    ],
                    $findings,
                ),
                count($findings) * self::WEIGHT['unproven'] * 2,
            );
        }

        return $rows;
    }

    /**
     * @return list<Row>
     */
    private function uncertain(Build $build): array
    {
        $readers = $weak = [];
        foreach ($this->standing->inspection()->findings as $finding) {
            foreach ($finding->inputs as $input) {
                $readers[$input->where][$finding->key()] = $finding;
                if ($input->evidence->isWeakerThan($finding->card->asks)) {
                    $weak[$finding->key()][] = $input->where;
                }
            }
        }
        $rows = [];
        foreach ($readers as $where => $findings) {
            [$part, $spec, $field, $port] = self::specAt($build, $where) ?? [null, null, null, null];
            if ($part === null || ! ($spec instanceof Spec) || $spec->evidence === Evidence::Measured) {
                continue;
            }
            $flips = self::settled(array_intersect_key($findings, $weak), $weak, $where);
            $low = $high = null;
            if ($spec->value instanceof Quantity) {
                [$low, $high, $off] = self::ends($spec, $spec->value, $field);
                foreach (
                    $this->swung(
                        $build,
                        $part,
                        $spec,
                        $port,
                        [$low, $high],
                        array_filter(
                            $findings,
                            static fn (Finding $f): bool => ! $f->card->informs &&
                                $f->card->supposes &&
                                ($f->margin === null || abs($f->margin->in('')) <= self::REACH * $off),
                        ),
                        $where,
                    ) as $flip
                ) {
                    // At its worst it counts once.
                    $flips = [...array_filter($flips, static fn (array $f): bool => $f['key'] !== $flip['key']), $flip];
                }
            }
            if ($flips !== []) {
                $label = ($field === null ? str_replace('_', ' ', $spec->key) : $field->label).' of '.$part->name;
                $weight = array_sum(
                    array_map(
                        static fn (array $f): float => self::WEIGHT[$f['to'] ?? 'unproven'] / (1 + $f['with']),
                        $flips,
                    ),
                );
                $rows[] = $this->row(
                    $where,
                    $label,
                    $spec->printed(),
                    $spec->evidence->value,
                    $low === null ? null : (string) $low,
                    $high === null ? null : (string) $high,
                    [$part, $spec, $field, $port],
                    $flips,
                    $weight,
                );
            }
        }

        return $rows;
    }

    /**
     * Both ends of what a value may really be, and how far that is as a share of it.
     *
     * @return array{Quantity, Quantity, float}
     */
    private static function ends(Spec $spec, Quantity $value, ?SpecField $field): array
    {
        if ($spec->tolerance === null && $value->unit->measures(Dimension::Temperature)) {
            $off = Quantity::of(self::UNCERTAIN_KELVIN[$spec->evidence->value], 'K');

            // A margin in kelvin is small beside a temperature: whatever reads one is judged again.
            return [$value->minus($off)->to($value->unit->symbol), $value->plus($off)->to($value->unit->symbol), 1.0];
        }
        $off = $spec->tolerance ?? Quantity::ratio(self::UNCERTAINTY[$spec->evidence->value] / 100);

        $at = static fn (Quantity $end): Quantity => ($field === null ? $end : $field->nearest($end))->to(
            $value->unit->symbol,
        );

        return [
            $at($value->times(Quantity::ratio(1)->minus($off))),
            $at($value->times(Quantity::ratio(1)->plus($off))),
            $off->in(''),
        ];
    }

    /**
     * Findings that would pass if only this value, among others perhaps, rested on more.
     *
     * @param  array<string, Finding>  $findings
     * @param  array<string, list<string>>  $weak  by finding: where its weak inputs stand
     * @return list<Flip>
     */
    private static function settled(array $findings, array $weak, string $where): array
    {
        $flips = [];
        foreach ($findings as $key => $finding) {
            $others = array_filter($weak[$key], static fn (string $other): bool => $other !== $where);
            if ($finding->otherwise !== null && $finding->missing === [] && count($others) < count($weak[$key])) {
                $flips[] = [
                    'key' => $key,
                    'title' => $finding->card->title,
                    'subject' => $finding->subject->label,
                    'from' => 'unproven',
                    'to' => $finding->otherwise->value,
                    'with' => count($others),
                ];
            }
        }

        return $flips;
    }

    /**
     * Findings whose verdict is another at one end of the value's uncertainty.
     *
     * @param  list<Quantity>  $ends
     * @param  array<string, Finding>  $findings
     * @return iterable<Flip>
     */
    private function swung(
        Build $build,
        Part $part,
        Spec $spec,
        ?string $port,
        array $ends,
        array $findings,
        string $where,
    ): iterable {
        if ($findings === []) {
            return;
        }
        $flips = [];
        foreach ($ends as $end) {
            $other = $build->with([
                'parts' => array_replace($build->parts, [$part->ref => $part->reading($spec->at($end), $port)]),
            ]);
            foreach ($this->standing->trial($other, array_keys($findings)) as $key => $finding) {
                [$was, $is] = [
                    $findings[$key]->otherwise ?? $findings[$key]->verdict,
                    // What goes has nothing left to find.
                    $finding === null ? Verdict::Holds : $finding->otherwise ?? $finding->verdict,
                ];
                if ($was !== $is && (! isset($flips[$key]) || $is->rank() < $flips[$key][1]->rank())) {
                    $flips[$key] = [$was, $is];
                }
            }
        }
        foreach ($flips as $key => [$was, $is]) {
            yield [
                'key' => $key,
                'title' => $findings[$key]->card->title,
                'subject' => $findings[$key]->subject->label,
                'from' => $was->value,
                'to' => $is->value,
                'with' => 0,
            ];
        }
    }

    /**
     * @param  array{Part, Spec|null, SpecField|null, string|null}|null  $spec
     * @param  list<Flip>  $flips
     * @return Row
     */
    private function row(
        string $where,
        string $label,
        ?string $value,
        ?string $evidence,
        ?string $low,
        ?string $high,
        ?array $spec,
        array $flips,
        float $weight,
    ): array {
        $key = basename($where);
        usort(
            $flips,
            static fn (array $a, array $b): int => [self::WEIGHT[$b['to'] ?? ''] ?? 50, $a['with']] <=> [
                self::WEIGHT[$a['to'] ?? ''] ?? 50,
                $b['with'],
            ],
        );
        [$instrument, $method, $within] = Instruments::of(
            $key,
            ($spec[2] ?? null)?->dimension,
            ($spec[0] ?? null)?->can(Ability::RatedByMaker) === true,
        );

        return [
            'where' => $where,
            'label' => $label,
            'part' => ($spec[0] ?? null)?->ref,
            'key' => ($spec[2] ?? null)?->key,
            'unit' => ($spec[2] ?? null)->unit ?? '',
            'port' => $spec[3] ?? null,
            'value' => $value,
            'evidence' => $evidence,
            'low' => $low,
            'high' => $high,
            'instrument' => $instrument,
            'method' => $method,
            'within' => $within,
            'flips' => $flips,
            'weight' => round($weight, 2),
        ];
    }

    /**
     * @return array{Part, Spec|null, SpecField|null, string|null}|null part, spec, its line of the sheet, the port it
     * is said of
     */
    private static function specAt(Build $build, string $where): ?array
    {
        $path = explode('/', $where);
        $part = $path[0] === 'parts' ? $build->parts[$path[1] ?? ''] ?? null : null;

        return match (true) {
            $part === null => null,
            ($path[2] ?? '') === 'specs' => [
                $part,
                $part->specs[$path[3]] ?? null,
                $part->family->field($path[3]),
                null,
            ],
            default => [
                $part,
                ($part->ports[$path[3] ?? ''] ?? null)?->specs[$path[5] ?? ''] ?? null,
                PortSheet::field($path[5] ?? ''),
                $path[3] ?? '',
            ],
        };
    }
}
