<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\PortRef;

/**
 * How the power ports of a build hang together: which source feeds what, and along which leads. The same in every scenario.
 */
final class Topology
{
    /** @var array<string, int> "need.port" → node */
    public array $nodes = [];

    /** @var list<Joint> leads, and ways through parts */
    public array $joints = [];

    /** @var array<int, array<int, int>> node → joint index → other node */
    public array $around = [];

    /** @var array<int, array{Fitted, Port}> */
    public array $ports = [];

    /** @var array<int, int> node → island: ports that leads and parts join together */
    public array $islands = [];

    /** @var array<int, list<int>> island → nodes that hold a voltage of their own */
    public array $sources = [];

    /** @var array<int, bool> island → it has more than one way round */
    public array $meshed = [];

    /** @var array<int, int> node → joint that leads to it from its source */
    public array $upstream = [];

    /** @var array<string, int> lead ref → joint index */
    public array $leads = [];

    public function __construct(public readonly Build $build)
    {
        foreach ($build->allFitted() as $ref => $fitted) {
            foreach ($fitted->part->ports as $port) {
                if ($port->kind->carriesPower()) {
                    $node = count($this->ports);
                    $this->nodes["{$ref}.{$port->name}"] = $node;
                    $this->ports[] = [$fitted, $port];
                    $this->around[$node] = [];
                }
            }
        }
        foreach ($this->ports as $node => [$fitted, $port]) {
            if ($port->kind === PortKind::Outlet && $port->fedFrom !== null) {
                $from = $this->nodes["{$fitted->need->ref}.{$port->fedFrom}"] ?? null;
                if ($from !== null) {
                    $this->join(new Joint($from, $node, null));
                }
            }
        }
        foreach ($build->leads as $lead) {
            $from = $this->nodes[$lead->from->text()] ?? null;
            $to = $this->nodes[$lead->to->text()] ?? null;
            if ($from !== null && $to !== null) {
                $this->leads[$lead->ref] = count($this->joints);
                $this->join(new Joint($from, $to, $lead));
            }
        }
        $this->findIslands();
    }

    public function nodeOf(PortRef $port): ?int
    {
        return $this->nodes[$port->text()] ?? null;
    }

    /** The one source that feeds a node, or null when there is none or more than one. */
    public function sourceOf(int $node): ?int
    {
        $sources = $this->sources[$this->islands[$node]] ?? [];

        return count($sources) === 1 ? $sources[0] : null;
    }

    /**
     * Joints from a node back to its source, nearest first.
     *
     * @return list<Joint>
     */
    public function wayBack(int $node): array
    {
        $way = [];
        while (isset($this->upstream[$node])) {
            $joint = $this->joints[$this->upstream[$node]];
            $way[] = $joint;
            $node = $joint->a === $node ? $joint->b : $joint->a;
        }

        return $way;
    }

    /** The end of a lead that is nearer the source. */
    public function nearEnd(string $lead): int
    {
        $joint = $this->joints[$this->leads[$lead]];

        return ($this->upstream[$joint->a] ?? null) === $this->leads[$lead] ? $joint->b : $joint->a;
    }

    private function join(Joint $joint): void
    {
        $index = count($this->joints);
        $this->joints[] = $joint;
        $this->around[$joint->a][$index] = $joint->b;
        $this->around[$joint->b][$index] = $joint->a;
    }

    private function findIslands(): void
    {
        foreach (array_keys($this->ports) as $start) {
            if (isset($this->islands[$start])) {
                continue;
            }
            $members = $this->spread([$start], $start, false);
            $sources = array_values(array_filter($members, fn (int $n): bool => $this->ports[$n][1]->kind === PortKind::Source));
            $this->sources[$start] = $sources;
            $joints = [];
            foreach ($members as $member) {
                $joints += $this->around[$member];
            }
            $this->meshed[$start] = count($joints) >= count($members);
            $this->spread($sources === [] ? [$start] : $sources, $start, true);
        }
    }

    /**
     * @param  list<int>  $from
     * @return list<int> nodes reached, nearest first
     */
    private function spread(array $from, int $island, bool $noteWay): array
    {
        $reached = array_fill_keys($from, true);
        for ($queue = $from, $i = 0; $i < count($queue); $i++) {
            $this->islands[$queue[$i]] = $island;
            foreach ($this->around[$queue[$i]] as $joint => $other) {
                if (! isset($reached[$other])) {
                    $reached[$other] = true;
                    $queue[] = $other;
                    if ($noteWay) {
                        $this->upstream[$other] = $joint;
                    }
                }
            }
        }

        return $queue;
    }
}
