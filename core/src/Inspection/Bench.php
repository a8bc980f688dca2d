<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\PortAllocation;
use Magpie\Core\Electrical\SettingsAudit;
use Magpie\Core\Electrical\Stops;
use Magpie\Core\Machine\Build;
use Magpie\Core\Money\MoneyLedger;

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

    public function __construct(public readonly Build $build)
    {
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
