<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\HeaterPower;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\OtherPart;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E01: a heater at the voltage that really reaches it. */
final class HeaterAtItsVoltage implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E01',
            'Heater at its real voltage',
            'What does this heater give on the supply it is joined to?',
            Trade::Electrical,
            "Ohm's law; bands are common practice, no source",
            [
                'weak' => Threshold::share('least share of its rated power that still does the job', 0.8),
                'cold' => Threshold::share('share below which it does not work', 0.6),
            ],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->allFitted() as $ref => $fitted) {
            foreach ($fitted->part->ports as $port) {
                if ($port->draw === Draw::Resistive) {
                    yield new Subject('need', $ref, $fitted->need->role, [$ref]);
                }
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $heater = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $real = HeaterPower::of($inquiry, $survey, $heater);
        [$power, $rated, $held, $gives] = [$real->rated, $real->ratedVoltage, $real->held, $real->gives];
        $share = $inquiry->work(
            'Share of its rating',
            's = P / P_r',
            ['P' => $gives, 'P_r' => $power],
            $gives->over($power),
            '%',
        );
        $verdict = match (true) {
            $share->exceeds(Quantity::ratio(1.3)) => Verdict::Danger,
            $share->exceeds(Quantity::ratio(1.15)) => Verdict::Tight,
            $share->isBelow($inquiry->threshold('cold')) => Verdict::Fails,
            $share->isBelow($inquiry->threshold('weak')) => Verdict::Tight,
            default => Verdict::Holds,
        };
        if (in_array($verdict, [Verdict::Danger, Verdict::Fails], true)) {
            $inquiry->because("parts/{$heater->part->ref}/specs/rated_voltage");
        }
        $says = "Rated {$power} at {$rated}; on {$real->supply} ({$held}) it gives {$gives}, {$share} of that.";
        $says .= match (true) {
            $verdict === Verdict::Danger => ' Far too much: it burns.',
            $verdict === Verdict::Fails => ' Far too little: it will not reach temperature.',
            default => '',
        };

        return $inquiry->conclude(
            $verdict,
            $says,
            Quantity::ratio(1)
                ->minus(Quantity::max($share->minus(Quantity::ratio(1)), Quantity::ratio(1)->minus($share))->over(0.3))
                ->to('%'),
            'holds from 80 % to 115 % of rated power, danger above 130 %',
        );
    }

    public function cures(): array
    {
        return [new OtherPart];
    }

    public function examples(): Examples
    {
        $on = static fn (string $volts): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => $volts, 'rated_current' => '20 A']),
                Examples::part('bed', 'heater', ['rated_power' => '288 W', 'rated_voltage' => '24 V']),
            ],
            ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power']]],
        );

        return new Examples(static fn (): array => $on('12 V'), static fn (): array => $on('24 V'), Verdict::Fails);
    }
}
