<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\PowerLeads;
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

/** E24: a computer supply in a machine. */
final class StartLine implements Check
{
    public function card(): Card
    {
        return new Card(
            'E24',
            'Start line',
            'Does this supply switch on in a machine, and stay within its limits when little hangs on it?',
            Trade::Electrical,
            'Start line tied to common; a least load where the sheet asks for one: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Supplies) as $ref => $fitted) {
            if (in_array($fitted->part->spec('start_line')?->choice(), ['open', 'tied to common'], true)) {
                yield new Subject('need', $ref, $fitted->need->role, [$ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $supply = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $line = $inquiry->tryChoice($supply, 'start_line');
        $inquiry->remark(
            "Its start line is {$line}. Each output has a limit of its own, and each contact of its plugs: both are judged where the leads are.",
        );
        if ($line === 'open') {
            return $inquiry->conclude(
                Verdict::Fails,
                'Its start line is open: it never switches on. Tie it to common, through the main switch if you like.',
            );
        }
        $least = $inquiry->tryRead($supply, 'least_load', 'I_min', Bound::Highest);
        if ($least === null) {
            $inquiry->miss("least load of {$supply->need->role}", "parts/{$supply->part->ref}/specs/least_load");

            return $inquiry->conclude(Verdict::Holds, 'It starts.');
        }
        $taken = null;
        foreach (Circuits::of($survey)->flows() as $flow) {
            foreach (Circuits::of($survey)->topology->nodesOf($inquiry->subject->ref) as $node) {
                $out = $flow->delivered($node);
                foreach ($flow->demands($node) as $demand) {
                    $inquiry->absorb($demand->inputs);
                }
                PowerLeads::missing($inquiry, [$flow->demands($node)]);
                $taken = $out !== null && ($taken === null || $out->isBelow($taken)) ? $out : $taken;
            }
        }
        $taken ?? $inquiry->lack("what {$supply->need->role} gives in its quietest scenario");
        $inquiry->work('Least it ever gives', 'I = min I_out', ['I_out' => $taken], $taken, 'A');

        return $taken->isBelow($least)
            ? $inquiry->conclude(
                Verdict::Tight,
                "At its quietest {$taken} are taken; it wants {$least} to hold its voltages. A load resistor, or another supply.",
                $inquiry->margin($least, $taken),
                "at least {$least}",
            )
            : $inquiry->conclude(
                Verdict::Holds,
                "It starts, and {$taken} at the least keep its voltages in place.",
                $inquiry->margin($least, $taken),
                "at least {$least}",
            );
    }

    public function examples(): Examples
    {
        $file = static fn (string $line): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '12 V',
                    'rated_current' => '30 A',
                    'start_line' => $line,
                    'least_load' => '0.5 A',
                ]),
                Examples::part('lamp', 'lamp', ['rated_voltage' => '12 V', 'rated_current' => '1 A']),
            ],
            ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'lamp.power']]],
        );

        return new Examples(
            static fn (): array => $file('open'),
            static fn (): array => $file('tied to common'),
            Verdict::Fails,
        );
    }
}
