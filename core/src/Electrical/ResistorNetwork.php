<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Quantity\Quantity;

/**
 * Solves a DC network of resistors, steady loads and one or more fixed voltages by nodal analysis.
 *
 * Nodes are whole numbers. Leaves are eliminated first, so a tree costs time in proportion to its size; meshes go by
 * least degree. Kirchhoff's laws in sparse symmetric form: G·v = i. Loads of constant power are met by going round: each
 * takes the current its power asks at the voltage found before, with the same elimination, until nothing moves.
 */
final class ResistorNetwork
{
    /** @var array<int, array<int, float>> conductance between nodes */
    private array $links = [];

    /** @var array<int, float> conductance to the return */
    private array $shunts = [];

    /** @var array<int, float> current drawn out */
    private array $drains = [];

    /** @var array<int, float> power drawn out, whatever the voltage */
    private array $powers = [];

    /** @var array<int, float> */
    private array $fixed = [];

    /** Times round, at the most. Near the most that can arrive it goes slowly, and beyond it never ends. */
    private const ROUNDS = 200;

    /** Below this share of the highest voltage held, a line gives less the more is asked of it. */
    private const LEAST = 0.5;

    public function connect(int $a, int $b, Quantity $resistance): void
    {
        $g = 1 / $resistance->in('Ω');
        $this->links[$a][$b] = ($this->links[$a][$b] ?? 0.0) + $g;
        $this->links[$b][$a] = ($this->links[$b][$a] ?? 0.0) + $g;
    }

    public function hold(int $node, Quantity $voltage): void
    {
        $this->fixed[$node] = $voltage->in('V');
        $this->links[$node] ??= [];
    }

    public function drain(int $node, Quantity $current): void
    {
        $this->drains[$node] = ($this->drains[$node] ?? 0.0) + $current->in('A');
        $this->links[$node] ??= [];
    }

    /** A load that takes so many watts at whatever voltage arrives. */
    public function power(int $node, Quantity $power): void
    {
        $this->powers[$node] = ($this->powers[$node] ?? 0.0) + $power->in('W');
        $this->links[$node] ??= [];
    }

    public function shunt(int $node, Quantity $resistance): void
    {
        $this->shunts[$node] = ($this->shunts[$node] ?? 0.0) + 1 / $resistance->in('Ω');
        $this->links[$node] ??= [];
    }

    /**
     * Voltage of every node, V: not a number where sizes in it cannot be. A part of the network that no fixed voltage
     * reaches is at nought and must carry no drain.
     *
     * @return array<int, float>
     *
     * @throws VoltageCollapses when loads of constant power or current ask for more than can arrive
     */
    public function solve(): array
    {
        $links = $this->links;
        $diagonal = [];
        $right = [];
        foreach ($links as $node => $row) {
            if (isset($this->fixed[$node])) {
                continue;
            }
            $diagonal[$node] = array_sum($row) + ($this->shunts[$node] ?? 0.0);
            $right[$node] = -($this->drains[$node] ?? 0.0);
            foreach ($row as $other => $g) {
                if (isset($this->fixed[$other])) {
                    $right[$node] += $g * $this->fixed[$other];
                    unset($links[$node][$other]);
                }
            }
        }
        foreach (array_keys($this->fixed) as $node) {
            unset($links[$node]);
        }
        $order = $this->eliminate($links, $diagonal);
        $volts = $this->round($order, $diagonal, $right);
        foreach ($this->fixed === [] || max($this->fixed) <= 0.0 ? [] : $this->drains as $node => $amps) {
            if ($amps > 0.0 && $volts[$node] <= 0.0) {
                throw new VoltageCollapses($node);
            }
        }

        return $volts;
    }

    /**
     * @param  list<array{int, array<int, float>}>  $order
     * @param  array<int, float>  $diagonal
     * @param  array<int, float>  $right  currents into each node, those of constant power apart
     * @return array<int, float>
     */
    private function round(array $order, array $diagonal, array $right): array
    {
        $powers = array_diff_key(array_filter($this->powers), $this->fixed);
        if ($powers === []) {
            return $this->substitute($order, $diagonal, $right);
        }
        $top = $this->fixed === [] ? 0.0 : max($this->fixed);
        $volts = array_fill_keys(array_keys($powers), $top);
        for ($i = 0; $i < self::ROUNDS; $i++) {
            $with = $right;
            foreach ($powers as $node => $watts) {
                if ($volts[$node] <= self::LEAST * $top) {
                    throw new VoltageCollapses($node);
                }
                $with[$node] = ($with[$node] ?? 0.0) - $watts / $volts[$node];
            }
            $next = $this->substitute($order, $diagonal, $with);
            $moved = 0.0;
            foreach ($powers as $node => $_) {
                $moved = max($moved, abs($next[$node] - $volts[$node]));
            }
            if ($moved <= 1e-12 * $top) {
                return $next;
            }
            $volts = $next;
        }
        throw new VoltageCollapses((int) array_key_first($powers));
    }

    /**
     * @param  list<array{int, array<int, float>}>  $order
     * @param  array<int, float>  $diagonal  as elimination left it
     * @param  array<int, float>  $right
     * @return array<int, float>
     */
    private function substitute(array $order, array $diagonal, array $right): array
    {
        foreach ($order as [$node, $row]) {
            foreach ($diagonal[$node] > 0.0 ? $row : [] as $other => $g) {
                $right[$other] += ($g / $diagonal[$node]) * $right[$node];
            }
        }
        $volts = $this->fixed;
        foreach (array_reverse($order) as [$node, $row]) {
            $sum = $right[$node];
            foreach ($row as $other => $g) {
                $sum += $g * $volts[$other];
            }
            $volts[$node] = $diagonal[$node] > 0.0 ? $sum / $diagonal[$node] : 0.0;
        }

        return $volts;
    }

    /**
     * @param  array<int, array<int, float>>  $links
     * @param  array<int, float>  $diagonal
     * @return list<array{int, array<int, float>}> nodes in order of elimination with what they still hung on
     */
    private function eliminate(array $links, array &$diagonal): array
    {
        $order = [];
        $leaves = [];
        foreach ($links as $node => $row) {
            if (count($row) <= 1) {
                $leaves[] = $node;
            }
        }
        while ($links !== []) {
            $node = array_pop($leaves);
            if ($node === null) {
                $least = PHP_INT_MAX;
                foreach ($links as $candidate => $row) {
                    if (count($row) < $least) {
                        [$node, $least] = [$candidate, count($row)];
                    }
                }
            }
            if ($node === null || ! isset($links[$node])) {
                continue;
            }
            $row = $links[$node];
            unset($links[$node]);
            $order[] = [$node, $row];
            foreach ($row as $other => $g) {
                unset($links[$other][$node]);
                if ($diagonal[$node] <= 0.0) {
                    continue;
                }
                $share = $g / $diagonal[$node];
                $diagonal[$other] -= $share * $g;
                foreach ($row as $third => $h) {
                    if ($third !== $other) {
                        $links[$other][$third] = ($links[$other][$third] ?? 0.0) + $share * $h;
                    }
                }
            }
            foreach ($row as $other => $g) {
                if (isset($links[$other]) && count($links[$other]) <= 1) {
                    $leaves[] = $other;
                }
            }
        }

        return $order;
    }
}
