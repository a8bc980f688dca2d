<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Inspection\Bound;
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
        [$rated, $power] = $inquiry->readAll($heater, ['V_r' => 'rated_voltage', 'P_r' => 'rated_power']);
        if (! $rated->isPositive() || ! $power->isPositive()) {
            $inquiry->lack('a rated voltage and power above nought');
        }
        $topology = Circuits::of($survey)->topology;
        $node = null;
        foreach ($heater->part->ports as $port) {
            $node = $port->draw === Draw::Resistive ? $topology->node("{$heater->need->ref}.{$port->name}") : $node;
        }
        $source = $node === null ? null : $topology->sourceOf($node);
        if ($node === null || $source === null) {
            $inquiry->lack('one supply that feeds it');
        }
        [$supply, $out] = $topology->at($source);
        $held = $out->mains
            ? $inquiry->given(
                'mains voltage of the site',
                'V',
                $inquiry->build->site->mainsVoltage,
                $inquiry->build->site->mainsVoltage === null ? null : \Magpie\Core\Machine\Evidence::Standard,
                'site/mains_voltage',
            )
            : $inquiry->port($supply, $out, 'voltage', 'V', Bound::Highest);
        $resistance = $inquiry->work(
            'Resistance of the heater',
            'R = V_r² / P_r',
            ['V_r' => $rated, 'P_r' => $power],
            $rated->squared()->over($power),
            'Ω',
        );
        $inquiry->work('Current', 'I = V / R', ['V' => $held, 'R' => $resistance], $held->over($resistance), 'A');
        $gives = $inquiry->work(
            'Power it gives',
            'P = V² / R',
            ['V' => $held, 'R' => $resistance],
            $held->squared()->over($resistance),
            'W',
        );
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
        $says = "Rated {$power} at {$rated}; on {$supply->need->role} ({$held}) it gives {$gives}, {$share} of that.";
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
