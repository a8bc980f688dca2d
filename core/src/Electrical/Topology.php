<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use LogicException;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Need;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;

/**
 * How the power ports of a build hang together: which source feeds what, and along which leads. The same in every
 * scenario.
 */
final class Topology
{
    /** @var array<string, int> "need.port" → node */
    private array $nodes = [];

    /** @var array<string, Joint> leads by their ref; ways through parts and into seats by the node they lead to: "~7" */
    public array $joints = [];

    /** @var array<int, array<string, int>> node → joint → other node */
    private array $around = [];

    /** @var array<int, Port> as it connects; what is said of it is asked through at() */
    public array $shapes = [];

    /** @var array<int, string> node → need */
    public array $needs = [];

    /** @var array<int, int> node → island: ports that leads and parts join together */
    public array $islands = [];

    /** @var array<int, list<int>>|null island → its nodes */
    private ?array $members = null;

    /** @var array<int, list<int>> island → nodes that hold a voltage of their own */
    private array $sources = [];

    /** @var array<int, bool> island → it has more than one way round */
    private array $meshed = [];

    /** @var array<int, string> node → joint that leads to it from its source */
    private array $upstream = [];

    /** @var array{from: array<string, list<string>>, to: array<string, list<string>>} leads by the port at either end */
    private array $ends = ['from' => [], 'to' => []];

    /** @var array<string, list<int>>|null */
    private ?array $byNeed = null;

    /** @var array<int, true>|null */
    private ?array $motorIslands = null;

    /** @var array<int, string>|null */
    private ?array $laid = null;

    public function __construct(private Build $build)
    {
        foreach ($build->allFitted() as $ref => $fitted) {
            foreach ($fitted->part->ports as $port) {
                if ($port->kind->carriesPower()) {
                    $node = count($this->shapes);
                    $this->nodes["{$ref}.{$port->name}"] = $node;
                    $this->shapes[] = $port;
                    $this->needs[] = $ref;
                    $this->around[$node] = [];
                }
            }
        }
        foreach ($this->shapes as $node => $port) {
            if ($port->kind === PortKind::Outlet && $port->fedFrom !== null) {
                $from = $this->nodes["{$this->needs[$node]}.{$port->fedFrom}"] ?? null;
                if ($from !== null) {
                    $this->join("~{$node}", new Joint($from, $node, null));
                }
            }
        }
        foreach ($build->leads as $lead) {
            $this->ends['from'][$lead->from->text()][] = $lead->ref;
            $this->ends['to'][$lead->to->text()][] = $lead->ref;
            $from = $this->nodes[$lead->from->text()] ?? null;
            $to = $this->nodes[$lead->to->text()] ?? null;
            if ($from !== null && $to !== null) {
                $this->join($lead->ref, new Joint($from, $to, $lead->ref));
            }
        }
        foreach ($build->needs as $ref => $need) {
            $this->seat((string) $ref, $need);
        }
        $this->findIslands();
    }

    /** What sits in a slot is fed through it, unless a lead feeds it. */
    private function seat(string $ref, Need $need): void
    {
        $host = $need->host();
        $from = $host === null ? null : $this->nodes[(string) $need->seat] ?? $this->onlyInletOf($host);
        if ($from === null) {
            return;
        }
        foreach ($this->shapes as $node => $port) {
            if ($this->needs[$node] === $ref && $port->kind === PortKind::Inlet && $this->around[$node] === []) {
                $this->join("~{$node}", new Joint($from, $node, null, seat: true));
            }
        }
    }

    /** Where a part takes in power, when there is one such place. */
    private function onlyInletOf(string $need): ?int
    {
        $inlets = array_keys(
            array_filter(
                $this->shapes,
                fn (Port $port, int $node): bool => $this->needs[$node] === $need && $port->kind === PortKind::Inlet,
                ARRAY_FILTER_USE_BOTH,
            ),
        );

        return count($inlets) === 1 ? $inlets[0] : null;
    }

    /** The same for a build that hangs together in the same way. */
    public function of(Build $build): self
    {
        $same = clone $this;
        $same->build = $build;

        return $same;
    }

    /**
     * Cells of what hangs together otherwise than before.
     *
     * @return array<string, true>
     */
    public function differencesFrom(self $before): array
    {
        $cells = [];
        foreach (
            array_diff_key($this->nodes, $before->nodes) + array_diff_key($before->nodes, $this->nodes) as $name => $_
        ) {
            $cells["node/{$name}"] = $cells['nodes'] = true;
        }
        [$now, $then] = [$this->laid(), $before->laid()];
        foreach ($this->islands + $before->islands as $node => $_) {
            if (($now[$this->islands[$node] ?? -1] ?? '') !== ($then[$before->islands[$node] ?? -1] ?? '')) {
                $cells["wires/{$node}"] = true;
            }
        }

        return $cells;
    }

    /** Whether an island has the same nodes and joints as before. */
    public function isLaidAs(self $before, int $island): bool
    {
        return ($this->laid()[$island] ?? null) === ($before->laid()[$island] ?? null);
    }

    /**
     * @return array<int, string> island → all of its nodes and joints, as one text
     */
    private function laid(): array
    {
        if ($this->laid === null) {
            $this->laid = [];
            foreach ($this->islands as $node => $island) {
                $this->laid[$island] =
                    ($this->laid[$island] ?? '')."{$node}:".json_encode($this->around[$node]).';';
            }
        }

        return $this->laid;
    }

    /**
     * @return array<int, list<int>> island → its nodes
     */
    public function members(): array
    {
        if ($this->members === null) {
            $this->members = [];
            foreach ($this->islands as $node => $island) {
                $this->members[$island][] = $node;
            }
        }

        return $this->members;
    }

    /** The node of a port, "need.port"; null when it carries no power or is not there. */
    public function node(string $port): ?int
    {
        $this->build->reads()?->note("node/{$port}");

        return $this->nodes[$port] ?? null;
    }

    /** Whether a lead carries power. */
    public function carries(string $lead): bool
    {
        $this->build->reads()?->note("leads/{$lead}");

        return isset($this->joints[$lead]);
    }

    /**
     * @return array<string, int> joint → node at its other side
     */
    public function around(int $node): array
    {
        $this->noteWires($node);

        return $this->around[$node];
    }

    /** Whether something takes power to a node from another part: a lead, or the slot it sits in. */
    public function isReached(int $node): bool
    {
        return $this->outward($node) !== [];
    }

    /**
     * @return list<string> joints at a node that lead to other parts: leads and seats
     */
    public function outward(int $node): array
    {
        $outward = [];
        foreach (array_keys($this->around($node)) as $joint) {
            if ($this->joints[$joint]->isOutward()) {
                $outward[] = (string) $joint;
            }
        }

        return $outward;
    }

    /**
     * @return list<int> nodes on the same island that hold a voltage of their own
     */
    public function sourcesOf(int $node): array
    {
        $this->noteWires($node);

        return $this->sources[$this->islands[$node]] ?? [];
    }

    /** Whether its island has more than one way round. */
    public function isMeshed(int $node): bool
    {
        $this->noteWires($node);

        return $this->meshed[$this->islands[$node]] ?? false;
    }

    /** The joint that leads to a node from its source. */
    public function upstream(int $node): ?string
    {
        $this->noteWires($node);

        return $this->upstream[$node] ?? null;
    }

    private function noteWires(int $node): void
    {
        $this->build->reads()?->note("wires/{$node}");
    }

    public function build(): Build
    {
        return $this->build;
    }

    /**
     * @return array{Fitted, Port} what stands at a node, as it is said now
     */
    public function at(int $node): array
    {
        $fitted = $this->build->fitted($this->needs[$node]) ?? throw new LogicException("Nothing stands at {$node}.");

        return [$fitted, $fitted->part->ports[$this->shapes[$node]->name]];
    }

    /**
     * @return iterable<int, array{Fitted, Port}> all that carries power, by node
     */
    public function each(): iterable
    {
        $this->build->reads()?->note('nodes');
        foreach (array_keys($this->shapes) as $node) {
            yield $node => $this->at($node);
        }
    }

    /**
     * As each(), for a list: which part it is, what a person calls it, and how it connects.
     *
     * @return iterable<int, array{string, string, Port}>
     */
    public function listed(): iterable
    {
        $this->build->reads()?->note('nodes');
        foreach ($this->shapes as $node => $shape) {
            yield $node => [$this->needs[$node], $this->build->roleOf($this->needs[$node]), $shape];
        }
    }

    /**
     * @return list<int> where the wall feeds the machine
     */
    public function mains(): array
    {
        $this->build->reads()?->note('nodes');

        return array_keys(
            array_filter($this->shapes, static fn (Port $p): bool => $p->mains && $p->kind === PortKind::Source),
        );
    }

    public function roleAt(int $node): string
    {
        return $this->build->roleOf($this->needs[$node]);
    }

    public function leadOf(Joint $joint): ?Lead
    {
        return $joint->lead === null ? null : $this->build->lead($joint->lead);
    }

    /** Whether a motor driver hangs on the same rail as a node. */
    public function feedsMotors(int $node): bool
    {
        if ($this->motorIslands === null) {
            $this->motorIslands = [];
            foreach ($this->shapes as $other => $port) {
                if ($port->draw === Draw::Driver) {
                    $this->motorIslands[$this->islands[$other]] = true;
                }
            }
        }

        $this->noteWires($node);

        return isset($this->motorIslands[$this->islands[$node]]);
    }

    /** How many leads begin or end at a port, "need.port". */
    public function countAt(string $port): int
    {
        $this->build->reads()?->note("ends/{$port}");

        return count($this->ends['from'][$port] ?? []) + count($this->ends['to'][$port] ?? []);
    }

    /**
     * @return list<Lead> that begin at a port, "need.port"
     */
    public function leadsFrom(string $port): array
    {
        $this->build->reads()?->note("ends/{$port}");

        return $this->leadsNamed($this->ends['from'][$port] ?? []);
    }

    /**
     * @return list<Lead> that end at a port, "need.port"
     */
    public function leadsTo(string $port): array
    {
        $this->build->reads()?->note("ends/{$port}");

        return $this->leadsNamed($this->ends['to'][$port] ?? []);
    }

    /**
     * @param  list<string>  $refs
     * @return list<Lead>
     */
    private function leadsNamed(array $refs): array
    {
        return array_values(array_filter(array_map($this->build->lead(...), $refs)));
    }

    /**
     * @return list<int> power ports of the part that fills a need, as nodes
     */
    public function nodesOf(string $need): array
    {
        if ($this->byNeed === null) {
            $this->byNeed = [];
            foreach ($this->needs as $node => $ref) {
                $this->byNeed[$ref][] = $node;
            }
        }

        $this->build->reads()?->note("needs/{$need}");

        return $this->byNeed[$need] ?? [];
    }

    /** The one source that feeds a node, or null when there is none or more than one. */
    public function sourceOf(int $node): ?int
    {
        $sources = $this->sourcesOf($node);

        return count($sources) === 1 ? $sources[0] : null;
    }

    /**
     * Joints from a node back to its source, nearest first.
     *
     * @return list<Joint>
     */
    public function wayBack(int $node): array
    {
        $this->noteWires($node);
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
        $joint = $this->joints[$lead];
        $this->noteWires($joint->a);
        $this->build->reads()?->note("leads/{$lead}");

        return ($this->upstream[$joint->a] ?? null) === $lead ? $joint->b : $joint->a;
    }

    private function join(string $name, Joint $joint): void
    {
        $this->joints[$name] = $joint;
        $this->around[$joint->a][$name] = $joint->b;
        $this->around[$joint->b][$name] = $joint->a;
    }

    private function findIslands(): void
    {
        foreach (array_keys($this->shapes) as $start) {
            if (isset($this->islands[$start])) {
                continue;
            }
            $members = $this->spread([$start], $start, false);
            $sources = array_values(
                array_filter($members, fn (int $n): bool => $this->shapes[$n]->kind === PortKind::Source),
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
        $queue = $from;
        for ($i = 0; $i < count($queue); $i++) {
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
