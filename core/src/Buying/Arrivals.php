<?php

declare(strict_types=1);

namespace Magpie\Core\Buying;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Purchase;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\FieldKind;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Instruments;
use Magpie\Core\Reference\Tables;

/**
 * What came, and how it is tried before anything is built with it: counted, looked at, and measured where a size, a mass or
 * a resistance can be told on the bench. A reading is held against what was claimed.
 *
 * @phpstan-type ArrivalCheck array{key: string|null, what: string, how: string, with: string, claimed: string|null,
 *     between: string|null, read: string|null, unit: string, verdict: string|null,
 *     looked: array{good: bool, date: string, pieces: int|null, notes: string|null, photos: list<string>}|null}
 * @phpstan-type Line array{part: string, name: string, family: string, pieces: int, here: int, unseen: int, short: int,
 *     returned: int, purchases: list<string>, checks: list<ArrivalCheck>, lots: list<array{lot: string, bad: int, others: int}>}
 */
final readonly class Arrivals
{
    /** What can be told of a part that lies cold and alone on a bench. */
    private const COLD = [Dimension::Length, Dimension::Mass, Dimension::Resistance, Dimension::Inductance];

    /** How far from a claim a reading may lie where no tolerance is said, beside what the instrument is good to. */
    private const CLAIM = 0.03;

    public function __construct(private Build $build)
    {
    }

    /**
     * @return list<Line> what has not been looked at first
     */
    public function toArray(): array
    {
        $bought = [];
        foreach ($this->build->purchases as $purchase) {
            if ($purchase->received > 0) {
                $bought[$purchase->part][] = $purchase;
            }
        }
        $lines = [];
        foreach ($bought as $ref => $purchases) {
            $lines[] = self::line($this->build->parts[$ref], $purchases);
        }
        usort(
            $lines,
            static fn (array $a, array $b): int => [$a['unseen'] === 0, $a['name']] <=> [$b['unseen'] === 0, $b['name']],
        );

        return $lines;
    }

    /**
     * @param  list<Purchase>  $purchases
     * @return Line
     */
    private static function line(Part $part, array $purchases): array
    {
        $sum = static fn (callable $of): int => array_sum(array_map($of, $purchases));

        return [
            'part' => $part->ref,
            'name' => $part->name,
            'family' => $part->family->key(),
            'pieces' => $sum(static fn (Purchase $p): int => $p->pieces),
            'here' => $sum(static fn (Purchase $p): int => $p->here()),
            'unseen' => $sum(static fn (Purchase $p): int => $p->unseen()),
            'short' => $sum(static fn (Purchase $p): int => $p->onTheWay()),
            'returned' => $sum(static fn (Purchase $p): int => $p->returned),
            'purchases' => array_map(static fn (Purchase $p): string => $p->ref, $purchases),
            'checks' => self::looked(self::checks($part), $purchases),
            'lots' => self::lots($purchases),
        ];
    }

    /**
     * What was found last of each check, on any of the purchases.
     *
     * @param  list<ArrivalCheck>  $checks
     * @param  list<Purchase>  $purchases
     * @return list<ArrivalCheck>
     */
    private static function looked(array $checks, array $purchases): array
    {
        $last = [];
        foreach ($purchases as $purchase) {
            foreach ($purchase->looks as $look) {
                // A bad finding stays until a later day's good one; of one day the bad one counts.
                $before = $last[$look->what] ?? null;
                if ($before === null || [$look->date, ! $look->good] >= [$before->date, ! $before->good]) {
                    $last[$look->what] = $look;
                }
            }
        }

        return array_map(static function (array $check) use ($last): array {
            $look = $last[$check['what']] ?? null;
            $check['looked'] =
                $look === null
                    ? null
                    : [
                        'good' => $look->good,
                        'date' => $look->date,
                        'pieces' => $look->pieces,
                        'notes' => $look->notes,
                        'photos' => $look->photos,
                    ];

            return $check;
        }, $checks);
    }

    /**
     * Lots with a bad piece: the others of them are looked at again.
     *
     * @param  list<Purchase>  $purchases
     * @return list<array{lot: string, bad: int, others: int}>
     */
    private static function lots(array $purchases): array
    {
        $lots = [];
        foreach ($purchases as $purchase) {
            if ($purchase->lot === null) {
                continue;
            }
            $bad = $purchase->bad();
            $lots[$purchase->lot] ??= ['lot' => $purchase->lot, 'bad' => 0, 'others' => 0];
            $lots[$purchase->lot]['bad'] += $bad;
            $lots[$purchase->lot]['others'] += max(0, $purchase->received - $bad);
        }

        return array_values(array_filter($lots, static fn (array $l): bool => $l['bad'] > 0));
    }

    /**
     * @return list<ArrivalCheck>
     */
    public static function checks(Part $part): array
    {
        /** @var array{every: list<array{string, string, string}>, families: array<string, list<array{string, string, string}>>} $table */
        $table = Tables::named('arrivals');
        $checks = [];
        foreach ([...$table['every'], ...$table['families'][$part->family->key()] ?? []] as [$what, $how, $with]) {
            $checks[] = [
                'key' => null,
                'what' => $what,
                'how' => $how,
                'with' => $with,
                'claimed' => null,
                'between' => null,
                'read' => null,
                'unit' => '',
                'verdict' => null,
                'looked' => null,
            ];
        }
        foreach ($part->family->sheet() as $field) {
            $check = self::measured($part, $field);
            if ($check !== null) {
                $checks[] = $check;
            }
        }

        return $checks;
    }

    /**
     * @return ArrivalCheck|null null where it is not told on the bench, or nothing is claimed of it
     */
    private static function measured(Part $part, SpecField $field): ?array
    {
        [$with, $how, $within] = Instruments::of($field->key, $field->dimension);
        if (
            $field->kind !== FieldKind::Quantity ||
            ! in_array($field->dimension, self::COLD, true) ||
            $within === '0 %'
        ) {
            return null;
        }
        $spec = $part->specs[$field->key] ?? null;
        $read = $spec?->evidence === Evidence::Measured ? $spec->nominal() : null;
        $claim = $read === null ? $spec : self::claim($spec);
        $claimed = $claim?->nominal() ?? self::worked($part, $field->key);
        if ($claimed === null && $read === null) {
            return null;
        }
        $off = ($claim->tolerance ?? Quantity::ratio(self::CLAIM))->plus(Quantity::parse($within, Dimension::Ratio));
        $end = static fn (Quantity $claim, Quantity $share): Quantity => $claim->times($share)->to($claim->unit->symbol);
        $low = $claimed === null ? null : $end($claimed, Quantity::ratio(1)->minus($off));
        $high = $claimed === null ? null : $end($claimed, Quantity::ratio(1)->plus($off));

        return [
            'key' => $field->key,
            'what' => mb_strtolower($field->label),
            'how' => $how,
            'with' => $with,
            'claimed' => $claimed === null ? null : (string) $claimed,
            'between' => $low === null || $high === null ? null : "{$low} to {$high}",
            'read' => $read === null ? null : (string) $read,
            'unit' => $field->unit,
            'verdict' => match (true) {
                $read === null || $low === null || $high === null => null,
                $read->exceeds($high) || $low->exceeds($read) => 'off',
                default => 'as claimed',
            },
            'looked' => null,
        ];
    }

    /** What was claimed before it was measured. */
    private static function claim(?Spec $spec): ?Spec
    {
        foreach ($spec->rivals ?? [] as $rival) {
            if ($rival->evidence !== Evidence::Measured) {
                return $rival;
            }
        }

        return null;
    }

    /** What a part that claims something else must read: a heater by its power at its voltage. */
    private static function worked(Part $part, string $key): ?Quantity
    {
        $power = ($part->specs['rated_power'] ?? null)?->nominal();
        $volts = ($part->specs['rated_voltage'] ?? null)?->nominal();

        return $key !== 'cold_resistance' || $power === null || $volts === null || ! $power->isPositive()
            ? null
            : Quantity::of(round($volts->in('V') ** 2 / $power->in('W'), 3), 'Ω');
    }
}
