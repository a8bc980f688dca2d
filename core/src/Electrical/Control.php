<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\PortRef;

/**
 * The control circuits, solved: what is fed and what is commanded with these stops pressed, after what went before. A
 * stop opens its own way through; a module or relay opens when what commands it is dead. What remembers stays off until
 * somebody resets it: a stop with a reset of its own, a safety relay, a contactor that holds itself, and the program of
 * a board that was without power. Everything else is taken as commanded on, which is the worst a stop can meet.
 */
final readonly class Control
{
    /** Ports by which something is commanded; any of those that is wired is enough. */
    private const COMMANDS = ['control', 'coil', 'run', 'torch'];

    /**
     * @param  array<int, true>  $fed  nodes that some source feeds, and those behind a supply that is fed itself
     * @param  array<string, true>  $dropped  what remembers and waits for its reset: stops, relays, boards
     * @param  array<string, list<array{string, string, PortRef}>>  $orders  need → lead, port it commands, where it
     *     comes from
     * @param  array<string, true>  $broken  leads that are broken
     */
    private function __construct(
        private Topology $topology,
        private array $fed,
        private array $dropped,
        private array $orders,
        private array $broken = [],
    ) {
    }

    /** Everything runs. */
    public static function running(Topology $topology): self
    {
        return (new self($topology, [], [], self::orders($topology)))->settled([], [], []);
    }

    /**
     * The same a moment later.
     *
     * @param  list<string>  $pressed  stops that are pressed
     * @param  list<string>  $welded  switches whose contact no longer opens
     * @param  list<string>  $broken  leads that are broken
     */
    public function with(array $pressed, array $welded = [], array $broken = []): self
    {
        $held = array_filter($pressed, fn (string $stop): bool => $this->stays($stop));

        return $this->dropping(array_fill_keys($held, true))->settled($pressed, $welded, $broken);
    }

    /** After the power was away. */
    public function powerBack(): self
    {
        $forgets = [];
        foreach ($this->topology->build()->allFitted() as $ref => $fitted) {
            if (
                self::remembers($fitted) ||
                ($fitted->part->can(Ability::HasChannels) && $this->inlets($fitted) !== [])
            ) {
                $forgets[(string) $ref] = true;
            }
        }

        return $this->dropping($forgets)->settled([], [], []);
    }

    /** A driver reports a fault: it stands, and a board that hears of it halts. */
    public function faulted(string $driver): self
    {
        $halted = [$driver => true];
        foreach ($this->topology->build()->linked() as [$from, $to]) {
            foreach ([[$from, $to], [$to, $from]] as [$one, $other]) {
                if ($one->need === $driver && $one->port === 'fault' && $this->isBoard($other->need)) {
                    $halted[$other->need] = true;
                }
            }
        }

        return $this->dropping($halted)->settled([], [], []);
    }

    public function isFed(Fitted $fitted): bool
    {
        return array_filter($this->inlets($fitted), fn (int $node): bool => isset($this->fed[$node])) !== [];
    }

    /** Whether something that is alive still commands it; a part without a command is taken as commanded. */
    public function commands(Fitted $fitted): bool
    {
        if (isset($this->dropped[$fitted->need->ref])) {
            return false;
        }
        // What sits in a board goes by its program.
        $commanded = $this->isHalted((string) $fitted->need->host()) ? false : null;
        foreach ($this->orders[$fitted->need->ref] ?? [] as [$lead, $port, $from]) {
            $speaks = ! isset($this->broken[$lead]) && $this->speaks($from);
            if ($port === 'enable' && ! $speaks) {
                return false;
            }
            if ($port !== 'enable') {
                $commanded = $commanded === true || $speaks;
            }
        }

        return $commanded ?? true;
    }

    /** Whether a board is fed and has its program. */
    public function runs(Fitted $board): bool
    {
        return $this->isFed($board) && ! isset($this->dropped[$board->need->ref]);
    }

    /**
     * @param  list<string>  $pressed
     * @param  list<string>  $welded
     * @param  list<string>  $broken
     */
    private function settled(array $pressed, array $welded, array $broken): self
    {
        $broken = array_fill_keys($broken, true);
        $dropped = $this->dropped;
        $open = [];
        do {
            $before = count($open) + count($dropped);
            $now = new self(
                $this->topology,
                $this->reached(array_fill_keys($pressed, true) + $open + $dropped, $broken),
                $dropped,
                $this->orders,
                $broken,
            );
            foreach ($this->topology->build()->fittedThat(Ability::Switches) as $ref => $fitted) {
                // A contact that is closed at rest closes when its command dies: nothing is stopped by it.
                $closes = $fitted->part->spec('normally')?->choice() === 'closed';
                if ($closes || in_array((string) $ref, $welded, true) || $now->commands($fitted)) {
                    continue;
                }
                $open[(string) $ref] = true;
                $dropped += self::remembers($fitted) ? [(string) $ref => true] : [];
            }
            foreach ($this->topology->build()->fittedThat(Ability::HasChannels) as $ref => $board) {
                if ($this->inlets($board) !== [] && ! $now->isFed($board)) {
                    $dropped[(string) $ref] = true;
                }
            }
        } while (count($open) + count($dropped) > $before);

        return new self($this->topology, $now->fed, $dropped, $this->orders, $broken);
    }

    /**
     * What waits for its reset, and more of it; what is fed then is not worked out yet.
     *
     * @param  array<string, true>  $more
     */
    private function dropping(array $more): self
    {
        return new self($this->topology, [], $this->dropped + $more, $this->orders);
    }

    private static function remembers(Fitted $fitted): bool
    {
        return $fitted->part->can(Ability::Switches) &&
            ($fitted->part->spec('kind')?->choice() === 'safety' ||
                $fitted->part->spec('holds_itself')?->flag() === true);
    }

    /** Whether a stop stays off when it is released. */
    private function stays(string $stop): bool
    {
        return $this->topology->build()->fitted($stop)?->part->spec('separate_reset')?->flag() === true;
    }

    private function isHalted(string $need): bool
    {
        return isset($this->dropped[$need]) && $this->isBoard($need);
    }

    private function isBoard(string $need): bool
    {
        return $this->topology->build()->fitted($need)?->part->can(Ability::HasChannels) === true;
    }

    /**
     * @param  array<string, true>  $shut  parts that pass nothing on
     * @param  array<string, true>  $broken
     * @return array<int, true>
     */
    private function reached(array $shut, array $broken): array
    {
        $fed = $queue = $sources = [];
        foreach ($this->topology->each() as $node => [$fitted, $port]) {
            if ($port->kind !== PortKind::Source) {
                continue;
            }
            // A source without an inlet of its own is the wall; others wait until their inlet is fed.
            if ($this->inlets($fitted) === []) {
                $queue[] = $node;
            } else {
                $sources[$fitted->need->ref][] = $node;
            }
        }
        while ($queue !== []) {
            $node = array_pop($queue);
            if (isset($fed[$node])) {
                continue;
            }
            $fed[$node] = true;
            $need = $this->topology->needs[$node];
            foreach ($this->topology->around($node) as $index => $other) {
                $joint = $this->topology->joints[$index];
                $passes = match (true) {
                    $joint->lead !== null => ! isset($broken[$joint->lead]),
                    $joint->seat => true,
                    ! isset($shut[$need]) => true,
                    default => $this->isBoard($need) && ! $this->isSwitched($joint),
                };
                if ($passes) {
                    $queue[] = $other;
                }
            }
            if ($this->topology->shapes[$node]->kind === PortKind::Inlet) {
                array_push($queue, ...$sources[$need] ?? []);
            }
        }

        return $fed;
    }

    /** Whether the way through a board is one that its program opens; one of which nothing is said is not. */
    private function isSwitched(Joint $inside): bool
    {
        [$fitted, $outlet] = $this->topology->at($inside->b);
        $how = $fitted->part->portSpec($outlet, 'control')?->choice();
        $use = $fitted->part->portSpec($outlet, 'use')?->choice();

        return $how === null ? in_array($use, ['heater', 'fan', 'light'], true) : $how !== 'always on';
    }

    /**
     * @return array<string, list<array{string, string, PortRef}>> need → lead, port it commands, where it comes from
     */
    private static function orders(Topology $topology): array
    {
        $orders = [];
        $listens = static fn (PortRef $at): bool => in_array($at->port, ['enable', ...self::COMMANDS], true) &&
            $topology->build()->port($at)?->kind === PortKind::Signal;
        foreach ($topology->build()->linked() as $ref => [$from, $to]) {
            foreach ([[$from, $to], [$to, $from]] as [$one, $other]) {
                // Two that listen on one terminal say nothing to each other.
                if ($listens($one) && ! $listens($other)) {
                    $orders[$one->need][] = [(string) $ref, $one->port, $other];
                }
            }
        }

        return $orders;
    }

    /**
     * Whether a command can come from a port: one that passes power on, such as the far side of a stop in the circuit of
     * a coil, only while it is fed; a signal while whatever gives it is, and has its program.
     */
    private function speaks(PortRef $from): bool
    {
        $node = $this->topology->node($from->text());
        if ($node !== null) {
            return isset($this->fed[$node]);
        }
        $fitted = $this->topology->build()->fitted($from->need);
        if ($fitted === null || $this->isHalted($from->need)) {
            return $fitted === null;
        }

        // A commander with no power inlet, such as a plain switch, is never dead.
        return $this->inlets($fitted) === [] || $this->isFed($fitted);
    }

    /**
     * @return list<int> nodes of its power inlets that some lead or slot feeds
     */
    private function inlets(Fitted $fitted): array
    {
        $inlets = [];
        foreach ($fitted->part->ports as $port) {
            $node = $this->topology->node("{$fitted->need->ref}.{$port->name}");
            if ($port->kind === PortKind::Inlet && $node !== null && $this->topology->isReached($node)) {
                $inlets[] = $node;
            }
        }

        return $inlets;
    }
}
