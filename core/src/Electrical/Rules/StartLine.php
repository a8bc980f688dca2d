<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Demand;
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
use Magpie\Core\Quantity\Quantity;

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
        if ($least->isZero()) {
            return $inquiry->conclude(Verdict::Holds, 'It starts, and needs nothing to hang on it.');
        }
        [$most, $surely, $others] = $this->quietest($inquiry, $survey);
        $inquiry->work('Least it gives by what always takes as much', 'I = Σ I_n', ['I_n' => $surely], $surely, 'A');
        if ($most->isBelow($least) || ($others === [] && $surely->isBelow($least))) {
            $taken = Quantity::min($most, $others === [] ? $surely : $most);

            return $inquiry->conclude(
                Verdict::Tight,
                "At its quietest {$taken} are taken; it wants {$least} to hold its voltages. A load resistor, or another supply.",
                $inquiry->margin($least, $taken),
                "at least {$least}",
            );
        }
        if ($inquiry->build->scenarios === []) {
            $inquiry->lack('a scenario of the machine at rest');
        }
        if ($surely->isBelow($least)) {
            $inquiry->lack(...array_map(static fn (string $role): string => "what {$role} takes at rest", $others));
        }

        return $inquiry->conclude(
            Verdict::Holds,
            "It starts, and {$surely} at the least keep its voltages in place.",
            $inquiry->margin($least, $surely),
            "at least {$least}",
        );
    }

    /**
     * What it gives in the scenario in which it gives least.
     *
     * @return array{Quantity, Quantity, list<string>} at the most, as loads are worked; by those that take no less than their sheets
     *     say; and what may take less
     */
    private function quietest(Inquiry $inquiry, Survey $survey): array
    {
        $circuits = Circuits::of($survey);
        $most = $surely = null;
        $others = [];
        foreach ($circuits->flows() as $flow) {
            foreach ($circuits->topology->nodesOf($inquiry->subject->ref) as $node) {
                $given = $flow->delivered($node);
                PowerLeads::missing($inquiry, [$flow->demands($node)]);
                [$steady, $may] = $this->steady($inquiry, $flow->demands($node));
                if ($given === null) {
                    continue;
                }
                $most = $most === null ? $given : Quantity::min($most, $given);
                if ($surely === null || $steady->isBelow($surely)) {
                    [$surely, $others] = [$steady, $may];
                }
            }
        }
        if ($most === null || $surely === null) {
            $inquiry->lack("what {$inquiry->subject->label} gives in its quietest scenario");
        }

        return [$most, $surely, $others];
    }

    /**
     * @param  list<Demand>  $demands
     * @return array{Quantity, list<string>} what is taken at the least, and by what it may be less
     */
    private function steady(Inquiry $inquiry, array $demands): array
    {
        $steady = Quantity::of(0, 'A');
        $others = [];
        foreach ($demands as $demand) {
            $inquiry->absorb($demand->inputs);
            $load = $inquiry->build->fitted($demand->need);
            $takes =
                $load?->part->can(Ability::Steady) === true
                    ? $inquiry->tryRead($load, 'rated_current', 'I_n', Bound::Lowest)
                    : null;
            if ($load !== null && $takes !== null) {
                $steady = $steady->plus($takes->times($demand->share)->times($load->need->quantity));
            } elseif (! $demand->share->isZero()) {
                $others[] = $inquiry->build->roleOf($demand->need);
            }
        }

        return [$steady, $others];
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
            [
                'leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'lamp.power']],
                'scenarios' => [['ref' => 'rest', 'name' => 'At rest', 'loads' => ['lamp' => '100 %']]],
            ],
        );

        return new Examples(
            static fn (): array => $file('open'),
            static fn (): array => $file('tied to common'),
            Verdict::Fails,
        );
    }
}
