<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/** Where the machine will stand. */
final readonly class Site
{
    /** What may have to be at hand, and how it is called. */
    public const PRECAUTIONS = [
        'smoke_alarm' => 'Smoke alarm in the room',
        'extinguisher' => 'Extinguisher for electrical fires within reach',
        'eyes_and_ears' => 'Goggles and ear defenders',
        'dust_extraction' => 'Dust drawn off, away from electronics',
        'shade' => 'Eye and skin shade for whoever cuts',
        'screen' => 'Screen against the light for everybody else',
        'bare_floor' => 'Nothing that burns under the cut or near it',
        'fire_watch' => 'Somebody stays for a fire watch after the last cut',
    ];

    /**
     * @param  Quantity|null  $ambient  air where leads and supplies are, hottest expected
     * @param  Money|null  $tariff  price of one kilowatt-hour
     * @param  Quantity|null  $otherLoad  current that other things take on the same circuit
     * @param  array<string, bool>  $ready  of PRECAUTIONS, whether it is at hand
     * @param  Quantity|null  $service  room kept free around the machine, each side
     */
    public function __construct(
        public ?Quantity $mainsVoltage = null,
        public ?Quantity $mainsFrequency = null,
        public ?Quantity $outlet = null,
        public ?Quantity $ambient = null,
        public ?bool $residualCurrentDevice = null,
        public ?Money $tariff = null,
        public ?string $notes = null,
        public ?string $country = null,
        public ?Quantity $otherLoad = null,
        public ?Quantity $doorWidth = null,
        public ?Quantity $doorHeight = null,
        public ?Quantity $benchLength = null,
        public ?Quantity $benchWidth = null,
        public ?Quantity $benchLoad = null,
        public ?Quantity $roomLength = null,
        public ?Quantity $roomWidth = null,
        public ?Quantity $roomHeight = null,
        public ?Quantity $service = null,
        public ?Quantity $humidity = null,
        public ?Neighbours $noise = null,
        public ?Ventilation $ventilation = null,
        public array $ready = [],
    ) {
    }
}
