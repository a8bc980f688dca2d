<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Cures\SwitchingModuleBetween;
use Magpie\Core\Electrical\Flow;
use Magpie\Core\Electrical\PowerLeads;
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
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/**
 * E07: what a board or module passes on at one output, against what that output may, and the sum against its way in.
 */
final class BoardOutput implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E07',
            'Board output',
            'Can this output, and the input behind it, carry what hangs on it?',
            Trade::Electrical,
            "Maker's rating of the channel, fuse and terminal; 80 % continuous is common practice, no source",
            [
                'holds' => Threshold::share('share of its rating that holds for continuous use', 0.8),
                'tight' => Threshold::share('share above which it is a danger', 1.0),
            ],
            mayGo: true,
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $topology = Circuits::of($survey)->topology;
        foreach ($topology->each() as $node => [$fitted, $port]) {
            $used = $port->kind === PortKind::Outlet && count($topology->around($node)) > 1;
            $feeds = $port->kind === PortKind::Inlet && $fitted->part->family->field('input_fuse') !== null;
            if ($used || $feeds) {
                yield new Subject(
                    'port',
                    "{$fitted->need->ref}.{$port->name}",
                    "{$fitted->need->role}, ".($used ? 'output' : 'input')." {$port->name}",
                    [$fitted->need->ref],
                );
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $circuits = Circuits::of($survey);
        $node = $circuits->topology->node($inquiry->subject->ref) ?? $inquiry->lack('this port');
        [$fitted, $port] = $circuits->topology->at($node);
        $inward = $port->kind === PortKind::Inlet;
        $feeding = $circuits->topology->upstream($node);
        $joints = array_values(
            array_filter(
                $circuits->topology->outward($node),
                static fn (string $joint): bool => $inward === ($joint === $feeding),
            ),
        );
        if ($joints === []) {
            $inquiry->lack($inward ? "a lead that feeds {$fitted->need->role}" : 'a lead at this output');
        }
        [$load, $symbols, $flow] = $this->worst($inquiry, $survey, $node, $joints);
        $inquiry->in($flow->scenario->name);
        $load = $inquiry->work('Through it', 'I = '.implode(' + ', array_keys($symbols)), $symbols, $load, 'A');
        $limit = null;
        $limits = $inward
            ? [
                'its input terminal' => $inquiry->read($fitted, 'input_terminal_rating', 'I_t', Bound::Lowest),
                'its input fuse' => $inquiry->tryRead($fitted, 'input_fuse', 'I_f', Bound::Lowest),
            ]
            : ['the output' => $inquiry->port($fitted, $port, 'rated_current', 'I_r', Bound::Lowest)];
        $by = '';
        foreach ($limits as $what => $one) {
            if ($one !== null && ($limit === null || $one->isBelow($limit))) {
                [$limit, $by] = [$one, $what];
            }
        }
        $verdict = $inquiry->band(
            $load,
            $limit,
            $inquiry->threshold('holds'),
            $inquiry->threshold('tight'),
            Verdict::Danger,
        );
        $cure =
            $verdict === Verdict::Holds
                ? ''
                : match (true) {
                    $inward => ' Take loads off the board.',
                    $fitted->part->can(Ability::HasChannels) => ' A switching module takes the load, and the board only signals it.',
                    default => ' One that is rated for more, or less load on it.',
                };

        return $inquiry->conclude(
            $verdict,
            "{$load} through {$inquiry->subject->label}; {$by} is rated {$limit}.{$cure}",
            $inquiry->margin($load, $limit),
            "{$inquiry->threshold('holds')->to('%')} of {$limit}",
        );
    }

    public function cures(): array
    {
        return [new SwitchingModuleBetween, new OtherPart];
    }

    public function examples(): Examples
    {
        $file = static fn (string $watts): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']),
                Examples::part('module', 'switching_module', ['rated_current' => '10 A']),
                Examples::part('bed', 'heater', ['rated_voltage' => '24 V', 'rated_power' => $watts]),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'module.in'],
                    ['ref' => 'W2', 'from' => 'module.out', 'to' => 'bed.power'],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('288 W'), static fn (): array => $file('150 W'));
    }

    /**
     * @param  non-empty-list<string>  $joints  leads, and slots that something sits in
     * @return array{Quantity, array<string, Quantity>, Flow}
     */
    private function worst(Inquiry $inquiry, Survey $survey, int $node, array $joints): array
    {
        $circuits = Circuits::of($survey);
        $worst = null;
        foreach ($circuits->flows() as $flow) {
            $sum = Quantity::of(0, 'A');
            $symbols = [];
            foreach ($joints as $joint) {
                $current = $flow->current($joint);
                if ($current !== null) {
                    $at = $circuits->topology->joints[$joint];
                    $symbols['I_'.($at->lead ?? $circuits->topology->needs[$at->b])] = $current;
                    $sum = $sum->plus($current);
                }
                foreach ($flow->behind($joint) as $demand) {
                    $inquiry->absorb($demand->inputs);
                }
            }
            if ($symbols !== [] && ($worst === null || $sum->exceeds($worst[0]))) {
                $worst = [$sum, $symbols, $flow];
            }
        }
        PowerLeads::missing(
            $inquiry,
            array_map(
                static fn (Flow $f): array => array_merge(...array_map($f->behind(...), $joints)),
                $circuits->flows(),
            ),
        );

        if ($worst !== null) {
            [$sum, $symbols, $flow] = $worst;
            $demands = array_merge(...array_map($flow->behind(...), $joints));

            return [
                $inquiry->leaning($sum, static fn (): array => PowerLeads::shares($flow, $demands)),
                $symbols,
                $flow,
            ];
        }

        return $inquiry->lack($circuits->flows()[0]->whyUnsolved($node) ?? 'what it feeds');
    }
}
