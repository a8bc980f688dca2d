<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\PortRef;

/**
 * How the power ports of a build hang together: which source feeds what, and along which leads. The same in every
 * scenario.
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

    /** @var array{from: array<string, list<Lead>>, to: array<string, list<Lead>>}|null */
    private ?array $ends = null;

    /** @var array<string, list<int>>|null */
    private ?array $byNeed = null;

    /** @var array<int, true>|null */
    private ?array $motorIslands = null;

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

    /** Whether a motor driver hangs on the same rail as a node. */
    public function feedsMotors(int $node): bool
    {
        if ($this->motorIslands === null) {
            $this->motorIslands = [];
            foreach ($this->ports as $other => [, $port]) {
                if ($port->draw === Draw::Driver) {
                    $this->motorIslands[$this->islands[$other]] = true;
                }
            }
        }

        return isset($this->motorIslands[$this->islands[$node]]);
    }

    /**
     * @return list<Lead> that begin at a port, "need.port"
     */
    public function leadsFrom(string $port): array
    {
        return $this->ends()['from'][$port] ?? [];
    }

    /**
     * @return list<Lead> that end at a port, "need.port"
     */
    public function leadsTo(string $port): array
    {
        return $this->ends()['to'][$port] ?? [];
    }

    /**
     * @return list<int> power ports of the part that fills a need, as nodes
     */
    public function nodesOf(string $need): array
    {
        if ($this->byNeed === null) {
            $this->byNeed = [];
            foreach ($this->ports as $node => [$fitted]) {
                $this->byNeed[$fitted->need->ref][] = $node;
            }
        }

        return $this->byNeed[$need] ?? [];
    }

    /**
     * @return array{from: array<string, list<Lead>>, to: array<string, list<Lead>>} leads by the port at either end
     */
    private function ends(): array
    {
        if ($this->ends === null) {
            $this->ends = ['from' => [], 'to' => []];
            foreach ($this->build->leads as $lead) {
                $this->ends['from'][$lead->from->text()][] = $lead;
                $this->ends['to'][$lead->to->text()][] = $lead;
            }
        }

        return $this->ends;
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
            $sources = array_values(
                array_filter($members, fn (int $n): bool => $this->ports[$n][1]->kind === PortKind::Source),
            );
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
