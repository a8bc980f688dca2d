<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Demand;
use Magpie\Core\Electrical\Flow;
use Magpie\Core\Electrical\PowerLeads;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/**
 * E15: what the machine takes from its wall circuit, with what else hangs on it, against what the outlet is rated for.
 */
final class MainsCircuit implements Check
{
    public function card(): Card
    {
        return new Card(
            'E15',
            'Mains circuit',
            'Can this outlet carry the machine, and what else runs on its circuit?',
            Trade::Electrical,
            '80 % of the outlet for continuous use: common practice in line with NFPA 70 §210.20 (from memory); local code decides',
            [
                'holds' => Threshold::share('share of the outlet that holds for continuous use', 0.8),
                'tight' => Threshold::share('share above which the breaker must be expected to open', 1.0),
            ],
            topics: [Topic::Scope],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        if (self::inlets($survey) === [] && [...$survey->build->fittedThat(Ability::HasOwnPlug)] === []) {
            return;
        }
        foreach (Circuits::of($survey)->scenarios() as $scenario) {
            yield new Subject('scenario', $scenario->ref, $scenario->name);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $circuits = Circuits::of($survey);
        $site = $inquiry->build->site;
        $flow = null;
        foreach ($circuits->flows() as $one) {
            $flow = $one->scenario->ref === $inquiry->subject->ref ? $one : $flow;
        }
        $flow ?? $inquiry->lack('this scenario');
        $inquiry->in($flow->scenario->name);
        $outlet = $inquiry->given('rating of the outlet', 'I_o', $site->outlet, Evidence::Measured, 'site/outlet');
        $volts = $inquiry->given(
            'mains voltage of the site',
            'V',
            $site->mainsVoltage,
            Evidence::Measured,
            'site/mains_voltage',
        );
        $sum = Quantity::of(0, 'A');
        $symbols = [];
        foreach (self::inlets($survey) as $node => $role) {
            $demands = self::asked($inquiry, $flow, $node);
            $taken = $inquiry->leaning(
                $flow->delivered($node) ?? $inquiry->lack("what {$role} takes"),
                static fn (): array => PowerLeads::shares($flow, $demands),
            );
            $symbols['I_'.(count($symbols) + 1)] = $taken;
            $sum = $sum->plus($taken);
        }
        foreach ($survey->build->fittedThat(Ability::HasOwnPlug) as $fitted) {
            $taken = self::plugged($inquiry, $circuits, $flow, $fitted, $volts);
            $symbols['I_'.(count($symbols) + 1)] = $taken;
            $sum = $sum->plus($taken);
        }
        if ($site->otherLoad !== null) {
            $symbols['I_other'] = $inquiry->given(
                'what else runs on the circuit',
                'I_other',
                $site->otherLoad,
                Evidence::Measured,
                'site/other_load',
            );
            $sum = $sum->plus($site->otherLoad);
        } else {
            $inquiry->miss('what else runs on this circuit (0 A when nothing does)', 'site/other_load');
        }
        $sum = $inquiry->work('On the circuit', 'I = '.implode(' + ', array_keys($symbols)), $symbols, $sum, 'A');
        $power = $inquiry->work('Apparent power', 'S = I × V', ['I' => $sum, 'V' => $volts], $sum->times($volts), 'W');
        $limit = $inquiry->work(
            'For continuous use',
            'I_max = k × I_o',
            ['k' => $inquiry->threshold('holds'), 'I_o' => $outlet],
            $outlet->times($inquiry->threshold('holds')),
            'A',
        );
        $verdict = $inquiry->band(
            $sum,
            $outlet,
            $inquiry->threshold('holds'),
            $inquiry->threshold('tight'),
            Verdict::Fails,
        );
        $inquiry->remark("{$power} here is volts times amps (VA).");
        $inquiry->figure('left', 'Left for continuous use', $limit->minus($sum));
        $says =
            "{$flow->scenario->name}: {$sum} on a {$outlet} outlet, {$limit} for continuous use.".
            ($verdict === Verdict::Fails
                ? ' Its breaker opens, or the outlet overheats: another circuit is needed.'
                : '');

        return $inquiry->conclude(
            $verdict,
            "{$says} A licensed electrician and local code decide on mains work.",
            $inquiry->margin($sum, $outlet),
            "{$limit} for continuous use, {$outlet} at the most",
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $watts): array => Examples::file(
            [
                Examples::part('inlet', 'mains_inlet', ['rated_current' => '16 A']),
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '48 V',
                    'rated_current' => '60 A',
                    'efficiency' => '90 %',
                    'power_factor' => '0.95',
                ]),
                Examples::part('bed', 'heater', ['rated_voltage' => '48 V', 'rated_power' => $watts]),
            ],
            [
                'leads' => [
                    ['ref' => 'W0', 'from' => 'inlet.out', 'to' => 'psu.mains'],
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power'],
                ],
                'scenarios' => [['ref' => 'run', 'name' => 'Run', 'loads' => ['bed' => '100 %']]],
                'site' => ['mains_voltage' => '230 V', 'outlet' => '13 A', 'other_load' => '2 A', 'ambient' => '30 °C'],
            ],
        );

        return new Examples(
            static fn (): array => $file('2700 W'),
            static fn (): array => $file('480 W'),
            Verdict::Fails,
        );
    }

    /**
     * What is asked of a source, with what that rests on, and what of it is not known.
     *
     * @return list<Demand>
     */
    private static function asked(Inquiry $inquiry, Flow $flow, int $node): array
    {
        $why = $flow->whyUnsolved($node);
        if ($why !== null) {
            $inquiry->lack($why);
        }
        foreach ($flow->demands($node) as $demand) {
            $inquiry->absorb($demand->inputs);
            array_map($inquiry->miss(...), $demand->missing);
        }

        return $flow->demands($node);
    }

    /** What a supply with a plug of its own takes at the wall, taken to hang on the same circuit. */
    private static function plugged(
        Inquiry $inquiry,
        Circuits $circuits,
        Flow $flow,
        Fitted $supply,
        Quantity $mains,
    ): Quantity {
        $out = Quantity::of(0, 'W');
        foreach ($circuits->topology->nodesOf($supply->need->ref) as $node) {
            $demands = self::asked($inquiry, $flow, $node);
            if ($demands === []) {
                continue;
            }
            [$held, $given] = [$circuits->heldBy($node), $flow->delivered($node)];
            if ($held === null || $given === null) {
                $inquiry->lack("what {$supply->need->role} gives");
            }
            $inquiry->absorb($circuits->restOf($node));
            $out = $out->plus($held->times($given));
        }
        [$factor, $inputs, $unknown] = $circuits->losses($supply, true);
        $inquiry->absorb($inputs);
        array_map($inquiry->miss(...), $unknown);

        return $inquiry->work(
            "What {$supply->need->role} takes at the wall",
            'I = P / (η × λ × V)',
            ['P' => $out, 'η × λ' => $factor, 'V' => $mains],
            $out->over($factor)->over($mains)->to('A'),
            'A',
        );
    }

    /**
     * @return array<int, string> node → role of every way in from the wall
     */
    private static function inlets(Survey $survey): array
    {
        $found = [];
        $topology = Circuits::of($survey)->topology;
        foreach ($topology->mains() as $node) {
            $found[$node] = $topology->roleAt($node);
        }

        return $found;
    }
}
