<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/** What the machine is wanted for and who will build it: what everything else is held against. */
final readonly class Brief
{
    /**
     * @param  Quantity|null  $margin  free travel wanted beyond a workpiece, each side
     * @param  Quantity|null  $flow  what the hot end melts or the cutter removes while it works
     * @param  CutDirection|null  $cutDirection  which way its cutters are fed, one of CUT_DIRECTIONS
     * @param  Quantity|null  $duty  share of its hours in which it works
     * @param  Quantity|null  $weekly  hours a week the machine may run
     * @param  array{x: Quantity|null, y: Quantity|null, z: Quantity|null}  $size  working size the builder settled on
     * @param  array{x: Quantity|null, y: Quantity|null, z: Quantity|null}  $kitSize  size the quantities were written
     * for
     * @param  array<string, Experience>  $experience  by trade
     * @param  string|null  $helper  who does the mains work when the builder does not
     * @param  Money|null  $hour  what an hour of the builder's is worth to them
     */
    public function __construct(
        public ?Process $process = null,
        public ?Wish $wish = null,
        public ?Quantity $accuracy = null,
        public ?Quantity $margin = null,
        public ?Quantity $flow = null,
        public ?Quantity $duty = null,
        public ?Quantity $weekly = null,
        public ?Quantity $spindlePower = null,
        public array $size = ['x' => null, 'y' => null, 'z' => null],
        public array $kitSize = ['x' => null, 'y' => null, 'z' => null],
        public Outline $outline = new Outline,
        public array $experience = [],
        public ?string $helper = null,
        public ?Money $hour = null,
        public ?string $wantedBy = null,
        public ?string $notes = null,
        public ?CutDirection $cutDirection = null,
    ) {
    }

    /** The same brief with an hour of the builder's worth something else. */
    public function valuing(?Money $hour): self
    {
        return new self(...['hour' => $hour] + get_object_vars($this));
    }
}
