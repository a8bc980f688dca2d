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
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** T02: watts to the square centimetre of a heater. */
final class WattDensity implements Check
{
    public function card(): Card
    {
        return new Card(
            'T02',
            'Watt density',
            'Does this heater put no more into a square centimetre than its glue and its plate take?',
            Trade::Thermal,
            'To 0.6 W/cm² usual on low-voltage beds, to about 1 on mains mats: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Heats) as $ref => $fitted) {
            if ($fitted->part->spec('place')?->choice() === 'bed') {
                yield new Subject('need', $ref, $fitted->need->role, [$ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $heater = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $inquiry->tryChoice($heater, 'place');
        [$width, $depth] = $inquiry->readAll($heater, ['w' => 'heated_width', 'd' => 'heated_depth'], Bound::Lowest);
        $real = HeaterPower::planned($inquiry, $survey, $heater);
        [$power, $volts] = [$real->gives, $real->held];
        $density = $power->in('W') / ($width->in('cm') * $depth->in('cm'));
        $inquiry->work(
            'Watts to the square centimetre',
            'q = P / (w × d)',
            ['P' => $power, 'w' => $width, 'd' => $depth],
            Quantity::ratio(round($density, 3)),
        );
        $mains = $volts->in('V') > 60;
        $usual = $mains ? 1.0 : 0.6;
        $verdict = match (true) {
            $density > 1.5 => Verdict::Danger,
            $density > $usual => Verdict::Tight,
            default => Verdict::Holds,
        };
        $says =
            round($density, 2).
            " W/cm²; up to {$usual} is usual on a ".
            ($mains ? 'mains mat' : 'low-voltage bed').
            '.'.
            ($verdict === Verdict::Danger
                ? ' Where it lifts off the plate it burns.'
                : ($density < 0.25
                    ? ' It warms up slowly.'
                    : ''));

        return $inquiry->conclude(
            $verdict,
            $says,
            $inquiry->margin(Quantity::ratio($density), Quantity::ratio(1.5)),
            "{$usual} W/cm²",
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $power): array => HeatUp::bed([
            'rated_power' => $power,
            'rated_voltage' => '24 V',
            'heated_width' => '120 mm',
            'heated_depth' => '120 mm',
        ]);

        return new Examples(static fn (): array => $file('300 W'), static fn (): array => $file('75 W'));
    }
}
