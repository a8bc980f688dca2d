<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\PortAllocation;
use Magpie\Core\Electrical\SettingsAudit;
use Magpie\Core\Electrical\Stops;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Need;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Money\Offer;

/**
 * A build laid out for inspection: what several checks need is worked out here once.
 */
final class Bench
{
    private ?Circuits $circuits = null;

    private ?MoneyLedger $money = null;

    private ?Stops $stops = null;

    private ?PortAllocation $ports = null;

    private ?SettingsAudit $settings = null;

    /** @var array<string, int>|null */
    private ?array $takers = null;

    /** @var array<string, list<Offer>>|null */
    private ?array $offers = null;

    public function __construct(public readonly Build $build)
    {
    }

    /** How many needs a part is chosen for. */
    public function takersOf(string $part): int
    {
        return ($this->takers ??= array_count_values(
            array_filter(array_map(static fn (Need $n): ?string => $n->choice, $this->build->needs)),
        ))[$part] ?? 0;
    }

    /**
     * @return list<Offer> what a part can be bought for
     */
    public function offersOf(string $part): array
    {
        if ($this->offers === null) {
            $this->offers = [];
            foreach ($this->build->offers as $offer) {
                $this->offers[$offer->part][] = $offer;
            }
        }

        return $this->offers[$part] ?? [];
    }

    public function circuits(): Circuits
    {
        return $this->circuits ??= new Circuits($this->build);
    }

    public function money(): MoneyLedger
    {
        return $this->money ??= new MoneyLedger($this->build);
    }

    public function stops(): Stops
    {
        return $this->stops ??= new Stops($this->circuits()->topology);
    }

    public function ports(): PortAllocation
    {
        return $this->ports ??= new PortAllocation($this);
    }

    public function settings(): SettingsAudit
    {
        return $this->settings ??= new SettingsAudit($this);
    }
}
