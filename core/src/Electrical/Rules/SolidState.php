<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Air;
use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Cooling;
use Magpie\Core\Electrical\PowerLeads;
use Magpie\Core\Electrical\SwitchKind;
use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\OtherPart;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E16: a switching part of the right kind for its current, and cool enough. */
final class SolidState implements Curable
{
    /** What its case stands, °C, and how much warmer than the air it is let become, K. Common practice, no source. */
    private const CASE = 80;

    private const RISE = 40;

    public function card(): Card
    {
        return new Card(
            'E16',
            'Solid-state switching',
            'Does this module switch the kind of current it is fed, and get rid of its heat?',
            Trade::Electrical,
            'An AC type on DC never opens; 1.2 V across an AC type, I²·R across a DC type, 40 K rise: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Switches) as $ref => $fitted) {
            // Contacts open whatever goes through them; a part that says nothing of its kind is asked.
            if (! in_array($fitted->part->spec('kind')?->choice(), ['mechanical', 'contactor', 'safety'], true)) {
                yield new Subject('need', $ref, $fitted->need->role, [$ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $fitted = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $kind = SwitchKind::of($inquiry, $fitted) ?? $inquiry->lack("kind of {$fitted->need->role}");
        $topology = Circuits::of($survey)->topology;
        $node = $topology->node("{$fitted->need->ref}.in");
        $source = $node === null ? null : $topology->sourceOf($node);
        $torch = $source === null && $this->closesTorch($survey, $fitted);
        if ($source === null && ! $torch) {
            $inquiry->lack('a supply that feeds it');
        }
        $alternating = $source !== null && $topology->shapes[$source]->mains;
        if ($torch) {
            $inquiry->remark('It closes the torch circuit of an arc source.');
        }
        $inquiry->remark($alternating ? 'Fed with alternating current from the mains.' : 'Fed with direct current.');
        if ($kind === SwitchKind::AlternatingSolidState && ! $alternating) {
            return $inquiry->conclude(
                Verdict::Danger,
                'An AC type on direct current never opens again once it has closed: the load stays on.',
            );
        }
        if ($alternating && in_array($kind, [SwitchKind::DirectSolidState, SwitchKind::Transistor], true)) {
            return $inquiry->conclude(
                Verdict::Danger,
                'A DC type on the mains conducts one half-wave always, and breaks down on the other.',
            );
        }
        if ($torch) {
            return $kind === SwitchKind::Contacts
                ? $inquiry->conclude(Verdict::Holds, 'Contacts that open.')
                : $inquiry->conclude(
                    Verdict::Fails,
                    'The torch circuit wants contacts: a solid-state type conducts one way, leaks when it is off, and fails closed.',
                );
        }
        if ($kind === SwitchKind::Contacts) {
            return $inquiry->conclude(Verdict::Holds, 'Contacts that open: either kind of current.');
        }
        $current = $this->current($inquiry, $survey);
        $heat =
            $kind === SwitchKind::AlternatingSolidState
                ? $inquiry->work(
                    'Heat',
                    'P = 1.2 V × I',
                    ['I' => $current],
                    Quantity::of(1.2, 'V')->times($current),
                    'W',
                )
                : $inquiry->work(
                    'Heat',
                    'P = I² × R',
                    ['I' => $current, 'R' => $inquiry->read($fitted, 'on_resistance', 'R', Bound::Highest)],
                    $current->squared()->times($inquiry->read($fitted, 'on_resistance', 'R', Bound::Highest)),
                    'W',
                );
        $air = Air::between($inquiry->build, $fitted->need->ref);
        $rise = $this->rise($inquiry, $air);
        $cooling = Cooling::of($inquiry, $fitted);
        $sink = $cooling->fitted;
        if ($heat->exceeds(Quantity::of(2, 'W'))) {
            $air->askFor($inquiry);
            if (! $rise->isPositive()) {
                return $inquiry->conclude(
                    Verdict::Fails,
                    "The air about it is as hot as it may be itself: no sink takes {$heat} away there. Put it where it is cooler.",
                );
            }
            $needed = $inquiry->work(
                'Heat sink for that rise',
                'R_th = ΔT / P',
                ['ΔT' => $rise, 'P' => $heat],
                $rise->over($heat),
                'K/W',
            );
            if ($sink === null) {
                $inquiry->miss(
                    "whether {$fitted->need->role} has a heat sink",
                    "parts/{$fitted->part->ref}/specs/heat_sink",
                );
            }

            if ($cooling->resistance?->exceeds($needed) === true) {
                return $inquiry->conclude(
                    Verdict::Fails,
                    "{$heat} of heat on a sink of {$cooling->resistance}: it needs one of at most {$needed}.",
                    $inquiry->margin($cooling->resistance, $needed),
                );
            }

            return $sink === false
                ? $inquiry->conclude(
                    Verdict::Fails,
                    "{$heat} of heat and no heat sink: it needs one of at most {$needed}.",
                )
                : $inquiry->conclude(
                    Verdict::Holds,
                    "{$heat} of heat; its heat sink must be at most {$needed}. It fails closed: a heater behind it needs a cut-off of its own.",
                );
        }

        return $inquiry->conclude(
            Verdict::Holds,
            "{$heat} of heat. It fails closed: a heater behind it needs a cut-off of its own.",
        );
    }

    /** How much warmer than the air about it it may be: its case stands so much, and above the usual rise nobody wants to touch it. */
    private function rise(Inquiry $inquiry, Air $air): Quantity
    {
        $usual = Quantity::of(self::RISE, 'K');
        if ($air->known === null) {
            // In air of 40 °C, which electrical equipment is made for (IEC 60204-1 §4.4.3), that is the usual rise.
            return $usual;
        }
        $left = Quantity::of(self::CASE, '°C')->minus($air->given($inquiry))->to('K');

        return $inquiry->work(
            'Rise above the air about it',
            'ΔT = min(80 °C − T_a, 40 K)',
            ['T_a' => $air->known],
            $left->exceeds($usual) ? $usual : $left,
            'K',
        );
    }

    private function closesTorch(Survey $survey, Fitted $fitted): bool
    {
        foreach (['in', 'out'] as $port) {
            $here = "{$fitted->need->ref}.{$port}";
            $leads = [
                ...Circuits::of($survey)->topology->leadsFrom($here),
                ...Circuits::of($survey)->topology->leadsTo($here),
            ];
            foreach ($leads as $lead) {
                $other = $lead->from->need === $fitted->need->ref ? $lead->to : $lead->from;
                if ($survey->build->fitted($other->need)?->part->can(Ability::Arcs) === true) {
                    return true;
                }
            }
        }

        return false;
    }

    public function cures(): array
    {
        return [new OtherPart];
    }

    public function examples(): Examples
    {
        $file = static fn (string $kind): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']),
                Examples::part('module', 'switching_module', [
                    'kind' => $kind,
                    'rated_current' => '25 A',
                    'on_resistance' => '6 mΩ',
                    'heat_sink' => true,
                ]),
                Examples::part('bed', 'heater', ['rated_voltage' => '24 V', 'rated_power' => '240 W']),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'module.in'],
                    ['ref' => 'W2', 'from' => 'module.out', 'to' => 'bed.power'],
                ],
            ],
        );

        return new Examples(
            static fn (): array => $file('AC solid-state'),
            static fn (): array => $file('DC solid-state'),
        );
    }

    private function current(Inquiry $inquiry, Survey $survey): Quantity
    {
        $most = null;
        $topology = Circuits::of($survey)->topology;
        foreach ($topology->leadsFrom("{$inquiry->subject->ref}.out") as $lead) {
            if ($topology->carries($lead->ref)) {
                $current = PowerLeads::current($inquiry, $survey, $lead);
                $most = $most === null ? $current : $most->plus($current);
            }
        }

        return $most ?? $inquiry->lack('a load behind it');
    }
}
