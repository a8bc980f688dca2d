<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Reads;
use Magpie\Core\Machine\Same;
use Magpie\Core\Machine\Scenario;
use Magpie\Core\Quantity\Quantity;

/**
 * Works out the flows of one scenario: island by island, those behind a supply before those in front of it. Islands of
 * an earlier solution are taken over where nothing they follow from has changed.
 */
final class FlowSolver
{
    /** Volts past which an answer is the rounding of a network that has none. */
    private const MOST = 1e12;

    /** @var array<int, IslandFlow> */
    private array $solved = [];

    /** @var array<int, true> islands under way */
    private array $under = [];

    /** @var array<int, string> island → why it has no answer */
    private array $unsolved = [];

    /** @var array<int, true> islands that came out otherwise than before */
    private array $different = [];

    /** @var list<string> cells of the flow that differ from the earlier one's */
    private array $differences = [];

    /** Whether some supply feeds itself: then islands follow from each other, and none is taken over. */
    private bool $tangled = false;

    /**
     * @param  Flow|null  $before  an earlier solution
     * @param  array<string, true>  $changed  cells of the build that have changed since
     * @param  Topology|null  $then  how it hung together then, where that was otherwise
     */
    public function __construct(
        private readonly Topology $topology,
        private readonly Circuits $circuits,
        private readonly Scenario $scenario,
        private readonly ?Reads $reads = null,
        private readonly ?Flow $before = null,
        private readonly array $changed = [],
        private readonly ?Topology $then = null,
    ) {
    }

    public function solve(): Flow
    {
        foreach (array_keys($this->topology->members()) as $island) {
            $this->island($island);
        }
        $islands = $this->solved;
        if ($this->then !== null && $this->before !== null) {
            // Of what is laid otherwise, what was known of its nodes and leads is held against what is.
            $otherwise = fn (int $i): bool => ! $this->topology->isLaidAs($this->then, $i);
            $now = IslandFlow::together(array_filter($islands, $otherwise, ARRAY_FILTER_USE_KEY));
            $was = IslandFlow::together(array_filter($this->before->islands, $otherwise, ARRAY_FILTER_USE_KEY));
            array_push($this->differences, ...$now->differencesFrom($was));
        }
        if ($this->tangled) {
            $islands = array_map(
                static fn (IslandFlow $i): IslandFlow => new IslandFlow(
                    ...['cells' => [Reads::ALWAYS => true] + $i->cells] + get_object_vars($i),
                ),
                $islands,
            );
        }

        return new Flow($this->scenario, $this->topology, $islands, $this->reads);
    }

    /**
     * @return list<string> cells of the flow that differ from the earlier one's
     */
    public function differences(): array
    {
        return $this->differences;
    }

    private function island(int $island): void
    {
        if (isset($this->solved[$island]) || isset($this->under[$island])) {
            return;
        }
        $laid = $this->then === null || $this->topology->isLaidAs($this->then, $island);
        $before = $laid ? $this->before?->islands[$island] ?? null : null;
        if ($before !== null && $this->stands($before)) {
            $this->solved[$island] = $before;

            return;
        }
        $this->under[$island] = true;
        if ($this->reads === null) {
            [$found, $cells] = [$this->work($island, $before), []];
        } else {
            [$found, $cells] = $this->reads->during(fn (): array => $this->work($island, $before));
        }
        unset($this->under[$island]);
        $this->solved[$island] = new IslandFlow(...$found, cells: $cells);
        if ($before === null && $this->before !== null) {
            $this->different[$island] = true;
        }
        if ($before !== null) {
            $differences = $this->solved[$island]->differencesFrom($before);
            if ($differences !== []) {
                $this->different[$island] = true;
                array_push($this->differences, ...$differences);
            }
        }
    }

    /** Whether an island came out of what is as it was. */
    private function stands(IslandFlow $before): bool
    {
        foreach ($before->inner as $inner) {
            $this->island($inner);
            if (isset($this->different[$inner])) {
                return false;
            }
        }

        return ! Reads::meet($before->cells, $this->changed);
    }

    /**
     * @return array{volts: array<int, float>, currents: array<string, float>, delivered: array<int, float>,
     *     behind: array<string, list<Demand>>, demands: array<int, list<Demand>>, taking: array<int, Demand>,
     *     unsolved: string|null, inner: list<int>, ofNode: array<int, array<string, true>>}
     */
    private function work(int $island, ?IslandFlow $before): array
    {
        $nothing = [
            'volts' => [],
            'currents' => [],
            'delivered' => [],
            'behind' => [],
            'demands' => [],
            'taking' => [],
            'unsolved' => null,
            'inner' => [],
            'ofNode' => [],
        ];
        $sources = $this->topology->sourcesOf($island);
        if (count($sources) > 1) {
            $names = array_map($this->topology->roleAt(...), $sources);

            return ['unsolved' => 'it is fed from '.implode(' and ', $names).' at once'] + $nothing;
        }
        if ($sources === []) {
            return $nothing;
        }
        [$source] = $sources;
        $demands = $inner = $ofNode = [];
        foreach ($this->topology->members()[$island] as $node) {
            $shape = $this->topology->shapes[$node];
            if ($shape->kind !== PortKind::Inlet || $shape->draw === null) {
                continue;
            }
            $fed = $shape->draw === Draw::Converter ? $this->fedBy($node) : [];
            [$demand, $ofNode[$node]] = $this->known($node, $source, $fed) ?? $this->told(
                fn (): Demand => $this->demand($node, $source, $shape->draw),
            );
            $this->reads?->noteAll($ofNode[$node]);
            array_push($inner, ...$fed);
            $was = $before?->taking[$node] ?? $demand;
            $demands[] = Same::values($was, $demand) ? $was : $demand;
        }
        if (isset($this->unsolved[$island])) {
            return ['unsolved' => $this->unsolved[$island], 'inner' => $inner] + $nothing;
        }
        $taking = [];
        foreach ($demands as $demand) {
            $taking[$demand->node] = $demand;
        }
        $found = [
            'demands' => [$source => $demands],
            'taking' => $taking,
            'behind' => $this->behind($demands),
            'inner' => $inner,
            'ofNode' => $ofNode,
        ] + $nothing;
        $held = $this->circuits->heldBy($source);

        return ($held === null
            ? ['unsolved' => 'the voltage of '.$this->topology->roleAt($source).' is not known']
            : $this->run($island, $source, $held, $demands)) + $found;
    }

    /** What one part takes at one inlet; what a heater takes follows from the voltage it is given. */
    private function demand(int $node, int $source, Draw $draw): Demand
    {
        $demand =
            $draw === Draw::Converter
                ? $this->converter($node)
                : $this->circuits->demand($node, $this->scenario);

        return $demand->resistance === null && $demand->power === null
            ? $demand
            : $demand->resting($this->circuits->restOf($source));
    }

    /**
     * @return list<int> islands behind the outputs of the converter whose inlet this is
     */
    private function fedBy(int $node): array
    {
        $islands = [];
        foreach ($this->topology->nodesOf($this->topology->needs[$node]) as $out) {
            if ($this->topology->shapes[$out]->kind === PortKind::Source) {
                $islands[] = $this->topology->islands[$out];
            }
        }

        return $islands;
    }

    /**
     * A demand as it was, where nothing it follows from has changed.
     *
     * @param  list<int>  $fed  islands it feeds
     * @return array{Demand, array<string, true>}|null and the cells it was worked out from
     */
    private function known(int $node, int $source, array $fed): ?array
    {
        $then = ($this->then ?? $this->topology)->islands[$node] ?? null;
        $was = $then === null ? null : $this->before?->islands[$then];
        $cells = $was->ofNode[$node] ?? null;
        if ($was === null || $cells === null || ! isset($was->demands[$source]) || Reads::meet($cells, $this->changed)) {
            return null;
        }
        foreach ($fed as $island) {
            if (isset($this->under[$island])) {
                return null;
            }
            $this->island($island);
            if (isset($this->different[$island])) {
                return null;
            }
        }

        return [$was->taking[$node], $cells];
    }

    /**
     * @param  callable(): Demand  $work
     * @return array{Demand, array<string, true>} and the cells it was worked out from
     */
    private function told(callable $work): array
    {
        return $this->reads === null ? [$work(), []] : $this->reads->during($work);
    }

    /**
     * @param  list<Demand>  $demands
     * @return array<string, list<Demand>> by joint that leads to them
     */
    private function behind(array $demands): array
    {
        $behind = [];
        foreach ($demands as $demand) {
            $node = $demand->node;
            while (($index = $this->topology->upstream($node)) !== null) {
                $behind[$index][] = $demand;
                $joint = $this->topology->joints[$index];
                $node = $joint->a === $node ? $joint->b : $joint->a;
            }
        }

        return $behind;
    }

    /**
     * @param  list<Demand>  $demands
     * @return array{unsolved: string}|array{volts: array<int, float>, currents: array<string, float>,
     *     delivered: array<int, float>}
     */
    private function run(int $island, int $source, Quantity $held, array $demands): array
    {
        $network = new ResistorNetwork;
        $network->hold($source, $held);
        $joints = [];
        foreach ($this->topology->members()[$island] as $node) {
            foreach ($this->topology->around($node) as $index => $other) {
                $joints[$index] ??= $this->circuits->resistanceOf($index);
            }
        }
        foreach ($joints as $index => $resistance) {
            $network->connect($this->topology->joints[$index]->a, $this->topology->joints[$index]->b, $resistance);
        }
        foreach ($demands as $demand) {
            if ($demand->resistance !== null) {
                $network->shunt($demand->node, $demand->resistance);
            } elseif ($demand->power !== null) {
                $network->power($demand->node, $demand->power);
            } elseif ($demand->current !== null) {
                $network->drain($demand->node, $demand->current);
            }
        }
        try {
            $volts = self::within($network);
        } catch (VoltageCollapses $e) {
            $role = $this->topology->roleAt($e->node);

            return ['unsolved' => Flow::COLLAPSES." before {$role}: more is asked of the way to it than can arrive"];
        }
        if ($volts === null) {
            return ['unsolved' => 'its currents come to no number: look for a size in it that cannot be'];
        }
        $currents = [];
        $out = 0.0;
        foreach ($joints as $index => $resistance) {
            $joint = $this->topology->joints[$index];
            $current = ($volts[$joint->a] - $volts[$joint->b]) / $resistance->in('Ω');
            if ($joint->isOutward()) {
                $currents[(string) $index] = abs($current);
            }
            if ($joint->a === $source || $joint->b === $source) {
                $out += $joint->a === $source ? $current : -$current;
            }
        }

        return ['volts' => $volts, 'currents' => $currents, 'delivered' => [$source => $out]];
    }

    /**
     * @return array<int, float>|null voltages of the network, V, when they are voltages that can be
     *
     * @throws VoltageCollapses
     */
    private static function within(ResistorNetwork $network): ?array
    {
        $volts = $network->solve();
        foreach ($volts as $volt) {
            if (! (abs($volt) <= self::MOST)) {
                return null;
            }
        }

        return $volts;
    }

    /**
     * What a supply takes in for what its outputs give, over efficiency and, on the mains, power factor.
     */
    private function converter(int $node): Demand
    {
        [$fitted, $inlet] = $this->topology->at($node);
        $need = $fitted->need->ref;
        $power = Quantity::of(0, 'W');
        $inputs = $missing = [];
        foreach ($fitted->part->ports as $port) {
            if ($port->kind !== PortKind::Source) {
                continue;
            }
            $out = $this->topology->node("{$need}.{$port->name}");
            if ($out === null) {
                continue;
            }
            $island = $this->topology->islands[$out];
            if (isset($this->under[$island]) && ! isset($this->unsolved[$island])) {
                $this->unsolved[$island] = "{$fitted->need->role} would feed itself: its output leads back to its own input";
                $this->tangled = true;
            }
            $this->island($island);
            $inner = $this->solved[$island] ?? null;
            $held = $this->circuits->heldBy($out);
            if ($inner === null || $inner->unsolved !== null || $held === null) {
                $missing[] = "what {$fitted->need->role} delivers";

                continue;
            }
            $power = $power->plus($held->times(Quantity::of($inner->delivered[$out] ?? 0.0, 'A')));
            array_push($inputs, ...$this->circuits->restOf($out));
            foreach ($inner->demands[$out] ?? [] as $demand) {
                array_push($inputs, ...$demand->inputs);
                array_push($missing, ...$demand->missing);
            }
        }
        [$factor, $ofSheet, $unknown] = $this->circuits->losses($fitted, $inlet->mains);
        array_push($inputs, ...$ofSheet);
        array_push($missing, ...$unknown);

        return new Demand($need, $node, null, null, Quantity::ratio(1), $inputs, $missing, $power->over($factor)->to('W'));
    }
}
