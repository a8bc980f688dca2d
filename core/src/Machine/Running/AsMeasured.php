<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Running;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Quantity\Quantity;

/**
 * A build as it was measured: where a reading says what a sheet says, the reading counts, and the sheet stays beside it. A part
 * that fills several places is as it was measured in that place alone; one of several pieces of one place keeps its sheet, as a
 * reading of one says nothing of the others. A reading
 * that was struck leaves a doubt behind, so taking it away never makes anything safer: until it is taken again, the value is
 * as good as assumed.
 */
final class AsMeasured
{
    private const READING = 'reading ';

    public static function of(Build $build): Build
    {
        $readings = self::counting($build);
        $struck = self::struck($build, $readings);
        if ($readings === [] && $struck === []) {
            return $build;
        }
        $users = [];
        foreach ($build->needs as $need) {
            $users[$need->choice ?? ''] = ($users[$need->choice ?? ''] ?? 0) + $need->quantity;
        }
        $parts = $build->parts;
        $stands = [];
        foreach ([...array_values($readings), ...array_values($struck)] as $reading) {
            $need = $build->needs[$reading->need ?? ''] ?? null;
            $part = $parts[$need->choice ?? ''] ?? null;
            if ($need === null || $part === null || $need->quantity !== 1 || $reading->what->field() === null) {
                continue;
            }
            $read = static fn (Part $was): Part => $reading->struck === null
                ? self::measured($was, $reading)
                : self::doubted($was, $reading);
            if ($users[$part->ref] === 1) {
                $parts[$part->ref] = $read($part);
            } else {
                $stands[$need->ref] = $read($stands[$need->ref] ?? $part);
            }
        }
        $axes = $build->axes;
        foreach ($readings as $reading) {
            $axis = $axes[$reading->axis ?? ''] ?? null;
            if ($axis !== null && $reading->what === Measured::TurningTorque) {
                $axes[$axis->ref] = $axis->turningAt($reading->value);
            } elseif ($axis !== null && $reading->what === Measured::Backlash) {
                $axes[$axis->ref] = $axis->losing($reading->value);
            }
        }

        return $build->with(['parts' => $parts, 'stands' => $stands, 'axes' => $axes]);
    }

    /**
     * Readings that count: the last of each thing, on the part that stands there now.
     *
     * @return array<string, Reading> by what it is a reading of
     */
    public static function counting(Build $build): array
    {
        $counting = [];
        foreach ($build->readings as $reading) {
            if (
                $reading->struck === null &&
                self::isOfWhatStands($build, $reading) &&
                ($reading->at ?? 0) >= ($counting[$reading->of()]->at ?? 0)
            ) {
                $counting[$reading->of()] = $reading;
            }
        }

        return $counting;
    }

    /** Whether it was taken on the part that fills its place now. */
    public static function isOfWhatStands(Build $build, Reading $reading): bool
    {
        return $reading->need === null ||
            $reading->part === null ||
            $reading->part === ($build->needs[$reading->need]->choice ?? null);
    }

    /** A value of a part as its sheet has it, whatever was measured. */
    public static function sheet(Part $part, string $key): ?Spec
    {
        $spec = $part->spec($key);

        return $spec !== null && self::isReading($spec) ? $spec->sheet : $spec;
    }

    private static function isReading(Spec $spec): bool
    {
        return str_starts_with($spec->source ?? '', self::READING);
    }

    /** Whether this was read of an axis once, struck, and not read again: then nobody knows it. */
    public static function isStruck(Build $build, Measured $what, string $axis): bool
    {
        return isset(self::struck($build, self::counting($build))[Reading::key($what, $axis)]);
    }

    /**
     * @param  array<string, Reading>  $counting
     * @return array<string, Reading> struck, and not taken again
     */
    private static function struck(Build $build, array $counting): array
    {
        $struck = [];
        foreach ($build->readings as $reading) {
            if (
                $reading->struck !== null &&
                ! isset($counting[$reading->of()]) &&
                self::isOfWhatStands($build, $reading)
            ) {
                $struck[$reading->of()] = $reading;
            }
        }

        return $struck;
    }

    private static function measured(Part $part, Reading $reading): Part
    {
        return self::put($part, (string) $reading->what->field(), $reading->value, $reading);
    }

    private static function put(Part $part, string $key, Quantity $value, Reading $reading): Part
    {
        $sheet = self::sheet($part, $key);
        $doubt = $value->isZero() || $reading->value->isZero() ? null : $reading->doubt()->over($reading->value);

        return $part->reading(
            new Spec(
                $key,
                $value,
                Evidence::Measured,
                self::READING.$reading->ref.($reading->instrument === null ? '' : ", {$reading->instrument}"),
                $doubt === null ? null : Quantity::ratio(abs($doubt->in(''))),
                true,
                $sheet->rivals ?? [],
                $sheet,
            ),
        );
    }

    private static function doubted(Part $part, Reading $reading): Part
    {
        foreach ([(string) $reading->what->field(), 'rated_power'] as $key) {
            $spec = $key === 'rated_power' && $reading->what !== Measured::ColdResistance ? null : $part->spec($key);
            if ($spec !== null) {
                $part = $part->reading(
                    new Spec(
                        $key,
                        $spec->value,
                        Evidence::Assumed,
                        "{$reading->ref} was struck and not taken again",
                        $spec->tolerance,
                        $spec->confirmed,
                        $spec->rivals,
                    ),
                );
            }
        }

        return $part;
    }
}
