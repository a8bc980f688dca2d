<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Views;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Flow;
use Magpie\Core\Electrical\Joint;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\PortKind;

/**
 * All that a drawing of the wiring shows: ports, leads with what they carry and how full they are, the way to each
 * load.
 */
final readonly class WiringMap
{
    public function __construct(private Inspection $inspection)
    {
    }

    /**
     * Currents in A and voltages in V, by scenario.
     *
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        $circuits = Circuits::of($this->inspection->survey);
        $flows = $circuits->flows();
        $build = $this->inspection->survey->build;
        $fill = [];
        foreach ($this->inspection->findings as $finding) {
            if (in_array(Topic::Conductors, $finding->card->topics, true)) {
                $fill[$finding->subject->ref] = $finding;
            }
        }
        $volts = $why = [];
        foreach ($flows as $flow) {
            $volts[$flow->scenario->ref] = (object) array_map(
                static fn (float $volts): float => round($volts, 3),
                $this->named($flow->allVolts()),
            );
            foreach ($flow->reasons() as $reason) {
                $why[] = "{$flow->scenario->name}: {$reason}";
            }
        }

        return [
            'scenarios' => array_map(
                static fn (Flow $f): array => ['ref' => $f->scenario->ref, 'name' => $f->scenario->name],
                $flows,
            ),
            'ports' => $this->ports(),
            'leads' => array_values(
                array_map(
                    fn ($lead): array => [
                        'ref' => $lead->ref,
                        'from' => $lead->from->text(),
                        'to' => $lead->to->text(),
                        'use' => Harness::useOf($build, $lead),
                        'amps' => (object) array_filter(
                            array_combine(
                                array_map(static fn (Flow $f): string => $f->scenario->ref, $flows),
                                array_map(
                                    static fn (Flow $f): ?float => ($a = $f->current($lead->ref)) === null
                                        ? null
                                        : round($a->in('A'), 3),
                                    $flows,
                                ),
                            ),
                            static fn (?float $a): bool => $a !== null,
                        ),
                        'fill' => self::fill($fill[$lead->ref] ?? null),
                        'load' => self::load($fill[$lead->ref] ?? null),
                        'proven' => isset($fill[$lead->ref]) && $fill[$lead->ref]->verdict !== Verdict::Unproven,
                    ],
                    $build->leads,
                ),
            ),
            'seats' => $this->seats($flows),
            'loads' => $this->loads($flows),
            'volts' => (object) $volts,
            'unsolved' => array_values(array_unique($why)),
        ];
    }

    /** How full a lead is, as its check judges it: holds, tight or danger; null when it cannot be told. */
    private static function load(?Finding $finding): ?string
    {
        return $finding?->margin === null ? null : ($finding->otherwise ?? $finding->verdict)->value;
    }

    private static function fill(?Finding $finding): ?float
    {
        return $finding?->margin === null ? null : round(1 - $finding->margin->in(''), 4);
    }

    /**
     * @return list<array{ref: string, need: string, port: string, kind: string, mains: bool}>
     */
    private function ports(): array
    {
        $ports = [];
        $build = $this->inspection->survey->build;
        $used = [];
        foreach ($build->leads as $lead) {
            $used[$lead->from->text()] = $used[$lead->to->text()] = true;
        }
        foreach ($this->seated() as [$from, $to]) {
            $used[$from] = $used[$to] = true;
        }
        foreach ($build->allFitted() as $ref => $fitted) {
            foreach ($fitted->part->ports as $port) {
                if (isset($used["{$ref}.{$port->name}"])) {
                    $ports[] = [
                        'ref' => "{$ref}.{$port->name}",
                        'need' => $ref,
                        'port' => $port->name,
                        'kind' => $port->kind->value,
                        'mains' => $port->mains,
                    ];
                }
            }
        }

        return $ports;
    }

    /**
     * What is fed through the slot it sits in.
     *
     * @return array<string, array{string, string}> joint → port it is fed from, its own
     */
    private function seated(): array
    {
        $topology = Circuits::of($this->inspection->survey)->topology;
        $name = static function (int $node) use ($topology): string {
            [$fitted, $port] = $topology->at($node);

            return "{$fitted->need->ref}.{$port->name}";
        };

        return array_map(
            static fn (Joint $joint): array => [$name($joint->a), $name($joint->b)],
            array_filter($topology->joints, static fn (Joint $joint): bool => $joint->seat),
        );
    }

    /**
     * @param  list<Flow>  $flows
     * @return list<array{ref: string, from: string, to: string, amps: object}>
     */
    private function seats(array $flows): array
    {
        $seats = [];
        foreach ($this->seated() as $joint => [$from, $to]) {
            $amps = [];
            foreach ($flows as $flow) {
                $current = $flow->current((string) $joint);
                $amps += $current === null ? [] : [$flow->scenario->ref => round($current->in('A'), 3)];
            }
            $seats[] = ['ref' => (string) $joint, 'from' => $from, 'to' => $to, 'amps' => (object) $amps];
        }

        return $seats;
    }

    /**
     * @param  list<Flow>  $flows
     * @return list<array<string, mixed>> every load with the leads from its source to it, nearest the source first
     */
    private function loads(array $flows): array
    {
        $topology = Circuits::of($this->inspection->survey)->topology;
        $loads = [];
        foreach ($topology->each() as $node => [$fitted, $port]) {
            $way = $topology->wayBack($node);
            if ($port->kind !== PortKind::Inlet || $port->draw === null || $way === []) {
                continue;
            }
            $leads = array_values(array_filter(array_map(static fn (Joint $j): ?string => $j->lead, $way)));
            $volts = $amps = [];
            foreach ($flows as $flow) {
                $held = $flow->volts($node);
                $taken = $leads === [] ? null : $flow->current($leads[0]);
                $volts += $held === null ? [] : [$flow->scenario->ref => round($held->in('V'), 3)];
                $amps += $taken === null ? [] : [$flow->scenario->ref => round($taken->in('A'), 3)];
            }
            $loads[] = [
                'port' => "{$fitted->need->ref}.{$port->name}",
                'role' => $fitted->need->role,
                'way' => array_reverse($leads),
                'volts' => (object) $volts,
                'amps' => (object) $amps,
            ];
        }

        return $loads;
    }

    /**
     * @template T
     *
     * @param  array<int, T>  $byNode
     * @return array<string, T> by port
     */
    private function named(array $byNode): array
    {
        $named = [];
        foreach ($byNode as $node => $value) {
            [$fitted, $port] = Circuits::of($this->inspection->survey)->topology->at($node);
            $named["{$fitted->need->ref}.{$port->name}"] = $value;
        }

        return $named;
    }
}
