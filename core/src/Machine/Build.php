<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Machine\Buying\Purchase;
use Magpie\Core\Machine\Buying\Rate;
use Magpie\Core\Machine\Buying\Supplier;
use Magpie\Core\Machine\Choosing\Decision;
use Magpie\Core\Machine\Choosing\Route;
use Magpie\Core\Machine\Work\Fault;
use Magpie\Core\Machine\Work\Step;

/**
 * Everything a check needs, nothing else. A value: same build, same inspection.
 */
final readonly class Build
{
    /**
     * @param  array<string, Part>  $parts
     * @param  array<string, Need>  $needs
     * @param  array<string, Lead>  $leads
     * @param  array<string, Mate>  $mates
     * @param  array<string, Scenario>  $scenarios
     * @param  array<string, Supplier>  $suppliers
     * @param  array<string, Offer>  $offers
     * @param  array<string, Rate>  $rates
     * @param  array<string, Purchase>  $purchases
     * @param  array<string, Step>  $steps
     * @param  array<string, Fault>  $faults
     * @param  array<string, Limit>  $limits
     * @param  array<string, Workpiece>  $workpieces
     * @param  array<string, Axis>  $axes
     * @param  array<string, Route>  $routes
     * @param  array<string, Decision>  $decisions
     * @param  array<string, Revision>  $revisions
     * @param  array<string, Zone>  $zones
     * @param  array<string, Clearance>  $clearances
     * @param  array<string, Setting>  $settings
     */
    public function __construct(
        public Plan $plan,
        public Site $site = new Site,
        public array $parts = [],
        public array $needs = [],
        public array $leads = [],
        public array $mates = [],
        public array $scenarios = [],
        public array $suppliers = [],
        public array $offers = [],
        public array $rates = [],
        public array $purchases = [],
        public array $steps = [],
        public array $faults = [],
        public array $limits = [],
        public Brief $brief = new Brief,
        public array $workpieces = [],
        public array $axes = [],
        public array $routes = [],
        public array $decisions = [],
        public array $revisions = [],
        public array $zones = [],
        public array $clearances = [],
        public array $settings = [],
    ) {
    }

    /**
     * The same build with some of its members put in another's place.
     *
     * @param  array<string, mixed>  $members  by the name of the property
     */
    public function with(array $members): self
    {
        return new self(...$members + get_object_vars($this));
    }

    /** The same build with another part chosen for one need. */
    public function choosing(string $need, ?string $part): self
    {
        return $this->with(['needs' => array_replace($this->needs, [$need => $this->needs[$need]->choosing($part)])]);
    }

    public function fitted(string $need): ?Fitted
    {
        $found = $this->needs[$need] ?? null;
        $part = $found === null ? null : $this->parts[$found->choice ?? ''] ?? null;

        return $found !== null && $part !== null ? new Fitted($found, $part) : null;
    }

    /**
     * @return iterable<string, Fitted>
     */
    public function allFitted(): iterable
    {
        foreach ($this->needs as $ref => $need) {
            $fitted = $this->fitted($ref);
            if ($fitted !== null) {
                yield $ref => $fitted;
            }
        }
    }

    /**
     * @return iterable<string, Fitted>
     */
    public function fittedOf(string ...$families): iterable
    {
        foreach ($this->allFitted() as $ref => $fitted) {
            if (in_array($fitted->part->family->key(), $families, true)) {
                yield $ref => $fitted;
            }
        }
    }

    /** The place with an air of its own that a need stands in. */
    public function zoneOf(string $need): ?Zone
    {
        foreach ($this->zones as $zone) {
            if (in_array($need, $zone->holds, true)) {
                return $zone;
            }
        }

        return null;
    }

    public function port(PortRef $ref): ?Port
    {
        return $this->fitted($ref->need)?->part->ports[$ref->port] ?? null;
    }

    /** What a person calls the thing behind a need: its role, and the part when one is chosen. */
    public function roleOf(string $need): string
    {
        return $this->needs[$need]->role ?? $need;
    }

    /** An open danger fault means the machine must not be powered. */
    public function forbidsPower(): bool
    {
        foreach ($this->faults as $fault) {
            if ($fault->forbidsPower()) {
                return true;
            }
        }

        return false;
    }
}
