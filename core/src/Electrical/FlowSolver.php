<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Input;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Scenario;
use Magpie\Core\Quantity\Exception\NotFinite;
use Magpie\Core\Quantity\Quantity;

/**
 * Works out one Flow: island by island, those behind a supply before those in front of it.
 */
final class FlowSolver
{
    /** Volts past which an answer is the rounding of a network that has none. */
    private const MOST = 1e12;

    /** @var array<int, Quantity> */
    private array $volts = [];

    /** @var array<string, Quantity> */
    private array $currents = [];

    /** @var array<int, Quantity> */
    private array $delivered = [];

    /** @var array<int, list<Demand>> */
    private array $behind = [];

    /** @var array<int, list<Demand>> */
    private array $demands = [];

    /** @var array<int, string> */
    private array $unsolved = [];

    /** @var array<int, bool> island → true when done, false while under way */
    private array $done = [];

    /** @var array<int, list<int>> */
    private array $members = [];

    public function __construct(
        private readonly Topology $topology,
        private readonly Circuits $circuits,
        private readonly Scenario $scenario,
    ) {
        foreach ($topology->islands as $node => $island) {
            $this->members[$island][] = $node;
        }
    }

    public function solve(): Flow
    {
        foreach (array_keys($this->members) as $island) {
            $this->island($island);
        }

        $byNeed = [];
        foreach ($this->demands as $demands) {
            foreach ($demands as $demand) {
                $byNeed[$demand->need][] = $demand;
            }
        }

        return new Flow(
            $this->scenario,
            $this->topology,
            $this->volts,
            $this->currents,
            $this->delivered,
            $this->behind,
            $this->demands,
            $this->unsolved,
            $byNeed,
        );
    }

    private function island(int $island): void
    {
        if (isset($this->done[$island])) {
            return;
        }
        $this->done[$island] = false;
        $sources = $this->topology->sources[$island];
        if (count($sources) > 1) {
            $names = array_map(fn (int $n): string => $this->topology->ports[$n][0]->need->role, $sources);
            $this->giveUp($island, 'it is fed from '.implode(' and ', $names).' at once');

            return;
        }
        if ($sources === []) {
            $this->done[$island] = true;

            return;
        }
        [$source] = $sources;
        $demands = [];
        foreach ($this->members[$island] as $node) {
            [, $port] = $this->topology->ports[$node];
            if ($port->kind === PortKind::Inlet && $port->draw !== null) {
                $demand =
                    $port->draw === Draw::Converter
                        ? $this->converter($node, $source)
                        : $this->circuits->demand($node, $this->scenario);
                // What a heater takes follows from the voltage it is given.
                $demands[] =
                    $demand->resistance === null ? $demand : $demand->resting($this->circuits->restOf($source));
            }
        }
        if (isset($this->unsolved[$island])) {
            return;
        }
        $this->demands[$source] = $demands;
        foreach ($demands as $demand) {
            $node = $demand->node;
            while (isset($this->topology->upstream[$node])) {
                $index = $this->topology->upstream[$node];
                $this->behind[$index][] = $demand;
                $joint = $this->topology->joints[$index];
                $node = $joint->a === $node ? $joint->b : $joint->a;
            }
        }
        $held = $this->circuits->heldBy($source);
        if ($held === null) {
            $this->giveUp(
                $island,
                'the voltage of '.$this->topology->ports[$source][0]->need->role.' is not known',
            );

            return;
        }
        $this->run($island, $source, $held, $demands);
        $this->done[$island] = true;
    }

    /**
     * @param  list<Demand>  $demands
     */
    private function run(int $island, int $source, Quantity $held, array $demands): void
    {
        $network = new ResistorNetwork;
        $network->hold($source, $held);
        $joints = [];
        foreach ($this->members[$island] as $node) {
            foreach ($this->topology->around[$node] as $index => $other) {
                $joints[$index] = $this->circuits->resistanceOf($index);
            }
        }
        foreach ($joints as $index => $resistance) {
            $network->connect($this->topology->joints[$index]->a, $this->topology->joints[$index]->b, $resistance);
        }
        foreach ($demands as $demand) {
            if ($demand->resistance !== null) {
                $network->shunt($demand->node, $demand->resistance);
            } elseif ($demand->current !== null) {
                $network->drain($demand->node, $demand->current);
            }
        }
        $volts = self::within($network);
        if ($volts === null) {
            $this->giveUp($island, 'its currents come to no number: look for a size in it that cannot be');

            return;
        }
        $this->volts += $volts;
        $out = Quantity::of(0, 'A');
        foreach ($joints as $index => $resistance) {
            $joint = $this->topology->joints[$index];
            $current = $volts[$joint->a]->minus($volts[$joint->b])->over($resistance)->to('A');
            if ($joint->lead !== null) {
                $this->currents[$joint->lead->ref] = Quantity::max($current, $current->times(-1));
            }
            if ($joint->a === $source || $joint->b === $source) {
                $out = $out->plus($joint->a === $source ? $current : $current->times(-1));
            }
        }
        $this->delivered[$source] = $out;
    }

    /**
     * @return array<int, Quantity>|null voltages of the network, when they are voltages that can be
     */
    private static function within(ResistorNetwork $network): ?array
    {
        try {
            $volts = $network->solve();
        } catch (NotFinite) {
            return null;
        }
        foreach ($volts as $volt) {
            if (abs($volt->in('V')) > self::MOST) {
                return null;
            }
        }

        return $volts;
    }

    /** What a supply takes in for what its outputs give, over efficiency and, on the mains, power factor. */
    private function converter(int $node, int $source): Demand
    {
        [$fitted] = $this->topology->ports[$node];
        $need = $fitted->need->ref;
        $one = Quantity::ratio(1);
        $power = Quantity::of(0, 'W');
        $inputs = [];
        $missing = [];
        foreach ($fitted->part->ports as $port) {
            if ($port->kind !== PortKind::Source) {
                continue;
            }
            $out = $this->topology->nodes["{$need}.{$port->name}"];
            $island = $this->topology->islands[$out];
            if (($this->done[$island] ?? null) === false && ! isset($this->unsolved[$island])) {
                $this->giveUp(
                    $island,
                    "{$fitted->need->role} would feed itself: its output leads back to its own input",
                );
            }
            $this->island($island);
            $held = $this->circuits->heldBy($out);
            if (isset($this->unsolved[$island]) || $held === null) {
                $missing[] = "what {$fitted->need->role} delivers";

                continue;
            }
            $power = $power->plus($held->times($this->delivered[$out] ?? Quantity::of(0, 'A')));
            array_push($inputs, ...$this->circuits->restOf($out));
            foreach ($this->demands[$out] ?? [] as $demand) {
                array_push($inputs, ...$demand->inputs);
                array_push($missing, ...$demand->missing);
            }
        }
        $factor = $one;
        foreach ($this->topology->ports[$node][1]->mains ? ['efficiency', 'power_factor'] : ['efficiency'] as $key) {
            $spec = $fitted->part->spec($key);
            $value = $spec?->lowest();
            $label = $fitted->part->family->field($key)->label ?? $key;
            if ($spec === null || $value === null || ! $value->isPositive()) {
                $missing[] = lcfirst($label).' of '.$fitted->need->role;
            } else {
                $factor = $factor->times($value);
                $inputs[] = Input::ofSpec($fitted->part, $spec, $label, "parts/{$fitted->part->ref}/specs/{$key}");
            }
        }
        $held = $this->circuits->heldBy($source);
        $current = $held === null || ! $held->isPositive() ? null : $power->over($factor)->over($held)->to('A');

        return new Demand($need, $node, $current, null, $one, $inputs, $missing);
    }

    private function giveUp(int $island, string $why): void
    {
        $this->unsolved[$island] = $why;
        $this->done[$island] = true;
    }
}
