<?php

declare(strict_types=1);

namespace Magpie\Core\Thermal\Rules;

use Magpie\Core\Electrical\HeaterPower;
use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Materials;

/** T01: how long a heated plate takes, and whether it gets there. */
final class HeatUp implements Check
{
    /** What both faces of a bare plate give to still air, W/m²K: common practice, no source. */
    private const AIR = 12;

    public function card(): Card
    {
        return new Card(
            'T01',
            'Heat-up',
            'Does this heater bring its plate to temperature, and in what time?',
            Trade::Thermal,
            't = m·c·ΔT/(P − losses); specific heats from memory; 12 W/m²K from both faces: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Heats) as $ref => $fitted) {
            if (in_array($fitted->part->spec('place')?->choice(), ['bed', 'chamber'], true)) {
                yield new Subject('need', $ref, $fitted->need->role, [$ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $heater = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $inquiry->tryChoice($heater, 'place');
        [$mass, $target] = $inquiry->readAll($heater, ['m' => 'plate_mass', 'T' => 'target'], Bound::Nominal);
        $power = HeaterPower::planned($inquiry, $survey, $heater, Bound::Lowest)->gives;
        $material =
            $inquiry->tryChoice($heater, 'plate_material') ??
            $inquiry->lack("material of the plate {$heater->need->role} heats");
        $heat = Materials::specificHeat($material) ?? $inquiry->lack("specific heat of {$material}");
        $air = $inquiry->given(
            'air around the machine',
            'T_a',
            $inquiry->build->site->ambient,
            Evidence::Measured,
            'site/ambient',
        );
        $rise = $inquiry->work('Rise', 'ΔT = T − T_a', ['T' => $target, 'T_a' => $air], $target->minus($air), 'K');
        $bare = Quantity::of(($mass->in('kg') * $heat * $rise->in('K')) / $power->in('W'), 's');
        $inquiry->work(
            'Without losses',
            't_0 = m × c × ΔT / P',
            ['m' => $mass, 'ΔT' => $rise, 'P' => $power],
            $bare,
            's',
        );
        [$width, $depth] = [
            $inquiry->tryRead($heater, 'heated_width', 'w'),
            $inquiry->tryRead($heater, 'heated_depth', 'd'),
        ];
        if ($width === null || $depth === null) {
            $inquiry->lack("heated width and depth of {$heater->need->role}");
        }
        $lost = $inquiry->work(
            'Lost at the end, both faces',
            'P_l = 2 × w × d × h × ΔT',
            ['w' => $width, 'd' => $depth, 'ΔT' => $rise],
            Quantity::of(2 * $width->in('m') * $depth->in('m') * self::AIR * $rise->in('K'), 'W'),
            'W',
        );
        if (! $lost->isBelow($power)) {
            return $inquiry->conclude(
                Verdict::Fails,
                "It never gets to {$target}: {$lost} leave the plate there, and it has {$power}.",
                $inquiry->margin($lost, $power),
                "{$power}",
            );
        }
        // A plate that loses in proportion to its rise: t = −(m·c/h·A)·ln(1 − P_l/P).
        $time = Quantity::of(
            ((-$mass->in('kg') * $heat * $rise->in('K')) / $lost->in('W')) * log(1 - $lost->in('W') / $power->in('W')),
            's',
        );
        $time = $inquiry->work(
            'With losses',
            't = −m·c·ΔT/P_l × ln(1 − P_l/P)',
            ['m' => $mass, 'ΔT' => $rise, 'P_l' => $lost, 'P' => $power],
            $time,
            'min',
        );
        $inquiry->figure('time', 'Time to its target', $time);
        $verdict = match (true) {
            $time->exceeds(Quantity::of(30, 'min')) => Verdict::Tight,
            default => Verdict::Holds,
        };

        return $inquiry->conclude(
            $verdict,
            "{$target} in about {$time}".
                ($verdict === Verdict::Tight
                    ? ', which is long; a cover or insulation below helps.'
                    : '. Slower than that is a fault.'),
            null,
            '30 min',
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $power): array => self::bed([
            'rated_power' => $power,
            'rated_voltage' => '24 V',
            'plate_mass' => '1.94 kg',
            'plate_material' => 'aluminium',
            'target' => '100 °C',
            'heated_width' => '300 mm',
            'heated_depth' => '300 mm',
        ]);

        return new Examples(static fn (): array => $file('120 W'), static fn (): array => $file('600 W'), Verdict::Fails);
    }

    /**
     * A bed on a supply of its own voltage, or on the mains of 230 V.
     *
     * @param  array<string, string|bool>  $sheet
     * @return array<string, mixed>
     */
    public static function bed(array $sheet, ?string $volts = null): array
    {
        $volts ??= $sheet['rated_voltage'] ?? '24 V';
        $mains = $volts === '230 V';

        return Examples::file(
            [
                Examples::part('bed', 'heater', $sheet + ['place' => 'bed']),
                $mains
                    ? Examples::part('feed', 'mains_inlet', [])
                    : Examples::part('feed', 'power_supply', ['output_voltage' => $volts]),
            ],
            ['leads' => [['ref' => 'W1', 'from' => 'feed.out', 'to' => 'bed.power']]],
        );
    }
}
