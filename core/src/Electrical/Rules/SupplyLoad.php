<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Cures\OtherSource;
use Magpie\Core\Electrical\Flow;
use Magpie\Core\Electrical\PowerLeads;
use Magpie\Core\Electrical\SupplyLimit;
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
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E05: what a supply output delivers against what it may. */
final class SupplyLoad implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E05',
            'Supply load',
            'Is this supply output large enough for all that runs at once?',
            Trade::Electrical,
            '80 % continuous and derating of fanless supplies by 2 %/K above 50 °C are common practice, no source',
            [
                'holds' => Threshold::share('share of its rating that holds for continuous use', 0.8),
                'tight' => Threshold::share('share above which it fails', 1.0),
            ],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $topology = Circuits::of($survey)->topology;
        foreach ($topology->listed() as [$need, $role, $port]) {
            // An output nothing hangs on has nothing to carry.
            $used =
                $port->kind === PortKind::Source && ! $port->mains && $topology->countAt("{$need}.{$port->name}") > 0;
            if ($used) {
                yield new Subject('port', "{$need}.{$port->name}", "{$role}, output {$port->name}", [$need]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $circuits = Circuits::of($survey);
        $node = $circuits->topology->node($inquiry->subject->ref) ?? $inquiry->lack('this port');
        [$fitted, $port] = $circuits->topology->at($node);
        $limit = SupplyLimit::of($inquiry, $fitted, $port);
        $worst = $load = null;
        foreach ($circuits->flows() as $flow) {
            $delivered = $this->read($inquiry, $survey, $flow, $fitted, $node) ?? $flow->delivered($node);
            if ($delivered !== null && ($load === null || $delivered->exceeds($load))) {
                [$worst, $load] = [$flow, $delivered];
            }
        }
        if ($worst === null || $load === null) {
            $inquiry->lack($circuits->flows()[0]->whyUnsolved($node) ?? 'what it feeds');
        }
        $inquiry->in($worst->scenario->name);
        PowerLeads::missing($inquiry, array_map(static fn (Flow $f): array => $f->demands($node), $circuits->flows()));
        $symbols = [];
        $names = [];
        foreach ($worst->demands($node) as $demand) {
            $inquiry->absorb($demand->inputs);
            $taken = $worst->taken($demand);
            if ($taken !== null && $taken->isPositive()) {
                $symbols['I_'.(count($symbols) + 1)] = $taken;
                $names[] = $inquiry->build->roleOf($demand->need);
            }
        }
        if ($symbols === []) {
            if ($inquiry->isIncomplete()) {
                return $inquiry->unproven();
            }
            $inquiry->lack('a load that runs on it in some scenario');
        }
        $load = $inquiry->leaning($load, static fn (): array => PowerLeads::shares($worst, $worst->demands($node)));
        $inquiry->work(
            "Load in \"{$worst->scenario->name}\": ".implode(', ', $names),
            'I = '.implode(' + ', array_keys($symbols)),
            $symbols,
            $load,
            'A',
        );
        $share = $inquiry->work(
            'Share of what it may give',
            's = I / I_max',
            ['I' => $load, 'I_max' => $limit],
            $load->over($limit),
            '%',
        );
        $verdict = $inquiry->band(
            $load,
            $limit,
            $inquiry->threshold('holds'),
            $inquiry->threshold('tight'),
            Verdict::Fails,
        );

        $volts = $circuits->heldBy($node);
        if ($volts !== null) {
            $inquiry->figure('usable', 'Usable, whatever its label says', $limit->times($volts)->to('W'));
        }
        $inquiry->figure('left', 'Left', $limit->minus($load));

        return $inquiry->conclude(
            $verdict,
            "{$load} of {$limit} in \"{$worst->scenario->name}\": {$share} used, ".
                ($load->exceeds($limit) ? "{$load->minus($limit)} too much." : "{$limit->minus($load)} left."),
            $inquiry->margin($load, $limit),
            "{$inquiry->threshold('holds')->to('%')} of {$limit} holds, above {$limit} fails",
        );
    }

    /**
     * What it gave by the meter at the wall, where a scenario was measured and this is the only supply behind it; null
     * when that is no more than what is worked out.
     */
    private function read(Inquiry $inquiry, Survey $survey, Flow $flow, Fitted $supply, int $node): ?Quantity
    {
        $measured = $flow->scenario->measured;
        if ($measured === null) {
            return null;
        }
        $worked = $flow->delivered($node);
        $volts = Circuits::of($survey)->heldBy($node);
        $alone = count([...$survey->build->fittedThat(Ability::Supplies)]) === 1;
        $outputs = count(array_filter($supply->part->ports, static fn (Port $p): bool => $p->kind === PortKind::Source));
        if ($volts === null || ! $supply->part->can(Ability::Supplies) || ! $alone || $outputs > 1) {
            return null;
        }
        $efficiency = $inquiry->tryRead($supply, 'efficiency', 'η', Bound::Highest) ?? Quantity::ratio(1);
        $gave = $measured->times($efficiency)->over($volts)->to('A');
        if ($worked !== null && ! $gave->exceeds($worked)) {
            return null;
        }

        return $inquiry->work(
            "Given in \"{$flow->scenario->name}\", by the meter at the wall",
            'I = P × η / V',
            ['P' => $measured, 'η' => $efficiency, 'V' => $volts],
            $gave,
            'A',
        );
    }

    public function cures(): array
    {
        return [new OtherSource, new OtherPart];
    }

    public function examples(): Examples
    {
        $on = static fn (string $amps): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => $amps]),
                Examples::part('bed', 'heater', ['rated_power' => '288 W', 'rated_voltage' => '24 V']),
            ],
            ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power']]],
        );

        return new Examples(static fn (): array => $on('10 A'), static fn (): array => $on('16 A'), Verdict::Fails);
    }
}
