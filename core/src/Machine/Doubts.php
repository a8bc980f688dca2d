<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Quantity\Range;
use WeakMap;

/**
 * Magnitudes to ask about before they are believed: sizes nobody has seen, and watts written for amps.
 */
final class Doubts
{
    /** @var WeakMap<Spec, Doubt|false>|null what was asked of each spec */
    private static ?WeakMap $asked = null;

    /**
     * @return list<Doubt>
     */
    public static function about(Part $part): array
    {
        $doubts = [];
        foreach ($part->specs as $spec) {
            $doubt = $spec->confirmed ? null : self::aboutSpec($part, $spec);
            if ($doubt !== null) {
                $doubts[] = $doubt;
            }
        }

        return $doubts;
    }

    /**
     * @return list<Doubt>
     */
    public static function aboutAll(Build $build): array
    {
        return array_merge([], ...array_values(array_map(self::about(...), $build->parts)));
    }

    public static function aboutSpec(Part $part, Spec $spec): ?Doubt
    {
        self::$asked ??= new WeakMap;
        $doubt = self::$asked[$spec] ??= self::ask($part, $spec) ?? false;

        return $doubt === false ? null : $doubt;
    }

    private static function ask(Part $part, Spec $spec): ?Doubt
    {
        $slip = $spec->key === 'rated_power' ? self::wattsForAmps($part) : null;
        if ($slip !== null) {
            return $slip;
        }
        $field = $part->family->field($spec->key);
        foreach (
            $spec->value instanceof Range ? [$spec->value->low, $spec->value->high] : [$spec->nominal()] as $value
        ) {
            $question = $value === null ? null : $field?->doubt($value);
            if ($question !== null) {
                return new Doubt($part->ref, $spec->key, "{$question} Is it right?");
            }
        }

        return null;
    }

    /**
     * A supply of 30 W that sells as 30 A: watts that disagree with volts × amps, or that are too few to feed a
     * machine and would make sense as amps.
     */
    private static function wattsForAmps(Part $part): ?Doubt
    {
        $power = $part->spec('rated_power')?->nominal();
        $volts = ($part->spec('output_voltage') ?? $part->spec('rated_voltage'))?->nominal();
        if (
            $power === null ||
            $volts === null ||
            ! $volts->isPositive() ||
            $part->family->field('output_voltage') === null
        ) {
            return null;
        }
        $asAmps = Quantity::of($power->in('W'), 'A');
        $meant = $volts->times($asAmps)->to('W');
        $amps = $part->spec('rated_current')?->nominal();
        if ($amps !== null) {
            $stated = $volts->times($amps)->to('W');
            $ratio = $power->isPositive() ? $stated->over($power) : Quantity::ratio(100);

            return $ratio->exceeds(Quantity::ratio(1.6)) && $amps->compare($asAmps) === 0
                ? new Doubt(
                    $part->ref,
                    'rated_power',
                    "{$power} does not go with {$volts} and {$amps}; was {$amps} written twice ({$stated} is meant)?",
                    ['rated_power' => $stated->text()],
                )
                : null;
        }
        if (
            $power->isBelow(Quantity::of(60, 'W')) &&
            $meant->exceeds(Quantity::of(100, 'W')) &&
            $meant->isBelow(Quantity::of(2, 'kW'))
        ) {
            return new Doubt(
                $part->ref,
                'rated_power',
                "{$power} is little for a machine: was {$asAmps} meant ({$meant} at {$volts})?",
                ['rated_current' => $asAmps->text(), 'rated_power' => $meant->text()],
            );
        }

        return null;
    }
}
