<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\EnergyUse;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;

/** E25: energy of a scenario by run and by year, and what it costs. */
final class Energy implements Check
{
    public function card(): Card
    {
        return new Card(
            'E25',
            'Energy and running cost',
            'What does a run take from the wall, and what does a year of it cost?',
            Trade::Electrical,
            'E = P × t; the part of the time each load is on is the builder\'s',
            informs: true,
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->scenarios as $scenario) {
            yield new Subject('scenario', $scenario->ref, $scenario->name);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $scenario = $inquiry->build->scenarios[$inquiry->subject->ref];
        $inquiry->in($scenario->name);
        $use = EnergyUse::of(Circuits::of($survey), $scenario);
        $inquiry->absorb($use->inputs);
        foreach ($use->missing as $missing) {
            $inquiry->miss($missing);
        }
        $duration = $inquiry->given(
            "duration of \"{$scenario->name}\"",
            't',
            $scenario->duration,
            Evidence::Measured,
            "scenarios/{$scenario->ref}/duration",
        );
        $run = $inquiry->work(
            'One run',
            'E = P × t',
            ['P' => $use->average, 't' => $duration],
            $use->average->times($duration),
            'W h',
        );
        $says = "{$use->average} from the wall on average: {$run} a run";
        $tariff = $inquiry->build->site->tariff;
        if ($tariff === null) {
            $inquiry->miss('price of a kilowatt-hour');
        } else {
            $inquiry->remark("A run costs {$use->cost($duration, $tariff)} at {$tariff} a kilowatt-hour.");
            $says .= ", {$use->cost($duration, $tariff)}";
            if ($scenario->runsPerYear !== null) {
                $says .= "; {$scenario->runsPerYear} runs a year cost {$use->cost(
                    $duration->times($scenario->runsPerYear),
                    $tariff,
                )}";
            }
        }

        return $inquiry->conclude(Verdict::Holds, "{$says}.");
    }

    public function examples(): Examples
    {
        $file = static fn (array $scenario): array => Examples::file(
            [
                Examples::part('inlet', 'mains_inlet', ['rated_current' => '10 A']),
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '20 A',
                    'efficiency' => '90 %',
                    'power_factor' => '0.95',
                ]),
                Examples::part('bed', 'heater', ['rated_power' => '288 W', 'rated_voltage' => '24 V']),
            ],
            [
                'leads' => [
                    ['ref' => 'W0', 'from' => 'inlet.out', 'to' => 'psu.mains'],
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power'],
                ],
                'scenarios' => [['ref' => 'print', 'name' => 'Print', 'loads' => ['bed' => '50 %']] + $scenario],
            ],
        );

        return new Examples(
            static fn (): array => $file([]),
            static fn (): array => $file(['duration' => '4 h', 'runs_per_year' => 100]),
            Verdict::Unproven,
        );
    }
}
