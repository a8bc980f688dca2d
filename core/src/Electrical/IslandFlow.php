<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\Same;

/** Voltages and currents of one island of the network in one scenario: what hangs together behind one source. */
final readonly class IslandFlow
{
    /**
     * @param  array<int, float>  $volts  V, by node
     * @param  array<string, float>  $currents  A, by lead ref, from source to load
     * @param  array<int, float>  $delivered  A, out of its source, by node
     * @param  array<string, list<Demand>>  $behind  demands beyond a joint
     * @param  array<int, list<Demand>>  $demands  by source node
     * @param  array<int, Demand>  $taking  the same, by the node that takes it
     * @param  string|null  $unsolved  why it has no answer
     * @param  list<int>  $inner  islands its converters feed, which it follows from
     * @param  array<string, true>  $cells  what was read of the build to work it out
     * @param  array<int, array<string, true>>  $ofNode  of these, what each demand alone was worked out from
     */
    public function __construct(
        public array $volts,
        public array $currents,
        public array $delivered,
        public array $behind,
        public array $demands,
        public array $taking,
        public ?string $unsolved,
        public array $inner,
        public array $cells,
        public array $ofNode = [],
    ) {
    }

    /**
     * Several as one, to be compared with what they were.
     *
     * @param  array<int, self>  $islands
     */
    public static function together(array $islands): self
    {
        $volts = $currents = $delivered = $behind = $demands = $taking = $why = [];
        foreach ($islands as $one) {
            $volts += $one->volts;
            $currents += $one->currents;
            $delivered += $one->delivered;
            $behind += $one->behind;
            $demands += $one->demands;
            $taking += $one->taking;
            $why[] = $one->unsolved;
        }

        return new self(
            $volts,
            $currents,
            $delivered,
            $behind,
            $demands,
            $taking,
            implode('; ', array_filter($why)),
            [],
            [],
        );
    }

    /**
     * Cells of a flow in which this one and an earlier one of the same island differ.
     *
     * @return list<string>
     */
    public function differencesFrom(self $before): array
    {
        $cells = [];
        foreach (
            [
                Flow::VOLTS => [$this->volts, $before->volts],
                Flow::CURRENT => [$this->currents, $before->currents],
                Flow::DELIVERED => [$this->delivered, $before->delivered],
                Flow::BEHIND => [$this->behind, $before->behind],
                Flow::DEMANDS => [$this->demands, $before->demands],
                Flow::TAKING => [$this->taking, $before->taking],
            ] as $kind => [$now, $then]
        ) {
            if ($now === $then) {
                continue;
            }
            foreach ($now as $at => $value) {
                if (! isset($then[$at]) || ! Same::values($then[$at], $value)) {
                    $cells[] = "{$kind}{$at}";
                }
            }
            foreach (array_diff_key($then, $now) as $at => $gone) {
                $cells[] = "{$kind}{$at}";
            }
        }
        if ($this->unsolved !== $before->unsolved) {
            $cells[] = Flow::UNSOLVED;
        }

        return $cells;
    }
}
