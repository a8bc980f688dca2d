<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Quantity\Quantity;

/**
 * Solves a DC network of resistors, steady loads and one or more fixed voltages by nodal analysis.
 *
 * Nodes are whole numbers. Leaves are eliminated first, so a tree costs time in proportion to its size; meshes go by
 * least degree. Kirchhoff's laws in sparse symmetric form: G·v = i.
 */
final class ResistorNetwork
{
    /** @var array<int, array<int, float>> conductance between nodes */
    private array $links = [];

    /** @var array<int, float> conductance to the return */
    private array $shunts = [];

    /** @var array<int, float> current drawn out */
    private array $drains = [];

    /** @var array<int, float> */
    private array $fixed = [];

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

    public function shunt(int $node, Quantity $resistance): void
    {
        $this->shunts[$node] = ($this->shunts[$node] ?? 0.0) + 1 / $resistance->in('Ω');
        $this->links[$node] ??= [];
    }

    /**
     * Voltage of every node. A part of the network that no fixed voltage reaches is at nought and must carry no drain.
     *
     * @return array<int, Quantity>
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
        $order = $this->eliminate($links, $diagonal, $right);
        $volts = $this->fixed;
        foreach (array_reverse($order) as [$node, $row]) {
            $sum = $right[$node];
            foreach ($row as $other => $g) {
                $sum += $g * $volts[$other];
            }
            $volts[$node] = $diagonal[$node] > 0.0 ? $sum / $diagonal[$node] : 0.0;
        }

        return array_map(static fn (float $v): Quantity => Quantity::of($v, 'V'), $volts);
    }

    /**
     * @param  array<int, array<int, float>>  $links
     * @param  array<int, float>  $diagonal
     * @param  array<int, float>  $right
     * @return list<array{int, array<int, float>}> nodes in order of elimination with what they still hung on
     */
    private function eliminate(array $links, array &$diagonal, array &$right): array
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
                $right[$other] += $share * $right[$node];
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
