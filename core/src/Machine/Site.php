<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Money\Money;
use Magpie\Core\Quantity\Quantity;

/** Where the machine will stand. */
final readonly class Site
{
    /**
     * @param  Quantity|null  $ambient  air where leads and supplies are, hottest expected
     * @param  Money|null  $tariff  price of one kilowatt-hour
     */
    public function __construct(
        public ?Quantity $mainsVoltage = null,
        public ?Quantity $mainsFrequency = null,
        public ?Quantity $outlet = null,
        public ?Quantity $ambient = null,
        public ?bool $residualCurrentDevice = null,
        public ?Money $tariff = null,
        public ?string $notes = null,
    ) {
    }
}
