<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\Scenario;
use Magpie\Core\Quantity\Quantity;

/**
 * Every voltage and current of a build in one scenario.
 */
final readonly class Flow
{
    /**
     * @param  array<int, Quantity>  $volts  by node
     * @param  array<string, Quantity>  $currents  by lead ref, from source to load
     * @param  array<int, Quantity>  $delivered  current out of a source, by node
     * @param  array<int, list<Demand>>  $behind  demands beyond a joint, by joint index
     * @param  array<int, list<Demand>>  $demands  by source node
     * @param  array<int, string>  $unsolved  island → why it has no answer
     * @param  array<string, list<Demand>>  $byNeed  the same demands, by what makes them
     */
    public function __construct(
        public Scenario $scenario,
        private Topology $topology,
        public array $volts,
        public array $currents,
        public array $delivered,
        private array $behind,
        public array $demands,
        public array $unsolved,
        private array $byNeed,
    ) {
    }

    public function current(string $lead): ?Quantity
    {
        return $this->currents[$lead] ?? null;
    }

    /**
     * @return list<Demand> loads fed through a lead
     */
    public function behind(string $lead): array
    {
        $joint = $this->topology->leads[$lead] ?? null;
        if ($joint === null) {
            return [];
        }
        $island = $this->topology->islands[$this->topology->joints[$joint]->a];
        if ($this->topology->meshed[$island] ?? false) {
            // More than one way round: any lead may feed any load.
            $source = $this->topology->sources[$island][0] ?? null;

            return $source === null ? [] : $this->demands[$source] ?? [];
        }

        return $this->behind[$joint] ?? [];
    }

    /**
     * @return list<Demand> what the part that fills a need asks for, at any source
     */
    public function demandsOf(string $need): array
    {
        return $this->byNeed[$need] ?? [];
    }

    /** Current one demand takes at the voltage that arrives. */
    public function taken(Demand $demand): ?Quantity
    {
        if ($demand->resistance !== null) {
            $volts = $this->volts[$demand->node] ?? null;

            return $volts === null ? null : $volts->over($demand->resistance)->to('A');
        }

        return $demand->current;
    }

    public function whyUnsolved(int $node): ?string
    {
        return $this->unsolved[$this->topology->islands[$node]] ?? null;
    }
}
