<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\Reads;
use Magpie\Core\Machine\Scenario;
use Magpie\Core\Quantity\Quantity;

/**
 * Every voltage and current of a build in one scenario, island by island. Where someone listens, it tells which of them
 * is read.
 */
final readonly class Flow
{
    public const VOLTS = 'v/';

    public const CURRENT = 'i/';

    public const DELIVERED = 'o/';

    public const BEHIND = 'b/';

    public const DEMANDS = 'd/';

    public const TAKING = 't/';

    public const UNSOLVED = 'why';

    /** How a reason begins where loads ask for more than can arrive. */
    public const COLLAPSES = 'the voltage collapses';

    /**
     * @param  array<int, IslandFlow>  $islands
     */
    public function __construct(
        public Scenario $scenario,
        private Topology $topology,
        public array $islands,
        private ?Reads $reads = null,
    ) {
    }

    /** The cell of a value of this flow. */
    public static function cell(string $scenario, string $at): string
    {
        return "flow/{$scenario}/{$at}";
    }

    public function volts(int $node): ?Quantity
    {
        $this->reads?->note(self::cell($this->scenario->ref, self::VOLTS.$node));

        return self::said($this->islandOf($node)?->volts[$node] ?? null, 'V');
    }

    /** Current through a lead, from source to load; null when it is not known. */
    public function current(string $lead): ?Quantity
    {
        $this->reads?->note(self::cell($this->scenario->ref, self::CURRENT.$lead));
        $joint = $this->topology->joints[$lead] ?? null;

        return $joint === null ? null : self::said($this->islandOf($joint->a)?->currents[$lead] ?? null, 'A');
    }

    /** Current out of a source. */
    public function delivered(int $node): ?Quantity
    {
        $this->reads?->note(self::cell($this->scenario->ref, self::DELIVERED.$node));

        return self::said($this->islandOf($node)?->delivered[$node] ?? null, 'A');
    }

    /** Current through a port: what leaves a source; elsewhere what its leads carry to it or away from it. */
    public function through(int $node): ?Quantity
    {
        $delivered = $this->delivered($node);
        if ($delivered !== null) {
            return $delivered;
        }
        $sum = null;
        $feeding = $this->topology->upstream($node);
        foreach ($this->topology->outward($node) as $joint) {
            $current = $joint === $feeding ? null : $this->current($joint);
            $sum = $current === null ? $sum : $sum?->plus($current) ?? $current;
        }

        return $sum;
    }

    /**
     * @return list<Demand> at a source
     */
    public function demands(int $node): array
    {
        $this->reads?->note(self::cell($this->scenario->ref, self::DEMANDS.$node));

        return $this->islandOf($node)?->demands[$node] ?? [];
    }

    /**
     * @return list<Demand> loads fed through a lead
     */
    public function behind(string $lead): array
    {
        $joint = $this->topology->joints[$lead] ?? null;
        if ($joint === null) {
            return [];
        }
        if ($this->topology->isMeshed($joint->a)) {
            // More than one way round: any lead may feed any load.
            $source = $this->topology->sourcesOf($joint->a)[0] ?? null;

            return $source === null ? [] : $this->demands($source);
        }
        $this->reads?->note(self::cell($this->scenario->ref, self::BEHIND.$lead));

        return $this->islandOf($joint->a)?->behind[$lead] ?? [];
    }

    /**
     * @return list<Demand> what the part that fills a need asks for, at any source
     */
    public function demandsOf(string $need): array
    {
        $found = [];
        foreach ($this->topology->nodesOf($need) as $node) {
            $this->reads?->note(self::cell($this->scenario->ref, self::TAKING.$node));
            $found[] = $this->islandOf($node)?->taking[$node] ?? null;
        }

        return array_values(array_filter($found));
    }

    /** Current one demand takes at the voltage that arrives. */
    public function taken(Demand $demand): ?Quantity
    {
        if ($demand->resistance !== null) {
            return $this->volts($demand->node)?->over($demand->resistance)->to('A');
        }
        if ($demand->power !== null) {
            $volts = $this->volts($demand->node);

            return $volts === null || ! $volts->isPositive() ? null : $demand->power->over($volts)->to('A');
        }

        return $demand->current;
    }

    public function whyUnsolved(int $node): ?string
    {
        $this->reads?->note(self::cell($this->scenario->ref, self::UNSOLVED));

        return $this->islandOf($node)?->unsolved;
    }

    /**
     * @return array<int, float> voltages that are known, V, by node
     */
    public function allVolts(): array
    {
        return array_replace([], ...array_map(static fn (IslandFlow $i): array => $i->volts, $this->islands));
    }

    /**
     * @return list<string> why some islands have no answer
     */
    public function reasons(): array
    {
        return array_values(
            array_unique(array_filter(array_map(static fn (IslandFlow $i): ?string => $i->unsolved, $this->islands))),
        );
    }

    private static function said(?float $value, string $unit): ?Quantity
    {
        return $value === null ? null : Quantity::of($value, $unit);
    }

    private function islandOf(int $node): ?IslandFlow
    {
        return $this->islands[$this->topology->islands[$node]] ?? null;
    }
}
