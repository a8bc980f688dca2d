<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/** One direction of travel: what carries it and what takes length away from it. */
final readonly class Axis
{
    /**
     * @param  string|null  $rail  need of the rail it runs on; its length is what there is to begin with
     * @param  string|null  $guides  need of the bearings that carry it where it runs on no rail: rollers on a plate or a tube
     * @param  Quantity|null  $span  length to begin with where no rail gives it, such as the clearance under a gantry
     * @param  Quantity|null  $blockPitch  between the middles of neighbouring blocks of one rail
     * @param  list<AxisTaker>  $takes  stops, brackets, collet, tool, spoilboard, clamping
     * @param  Quantity|null  $advertised  travel as it is sold
     */
    public function __construct(
        public string $ref,
        public string $name,
        public Along $along,
        public ?string $rail = null,
        public ?Quantity $span = null,
        public ?Evidence $spanEvidence = null,
        public int $blocks = 1,
        public ?Quantity $blockPitch = null,
        public array $takes = [],
        public ?Quantity $advertised = null,
        public AxisDrive $drive = new AxisDrive,
        public Homing $homing = new Homing,
        public ?string $guides = null,
    ) {
    }

    /** The same axis with the torque that turns its screw put in, as it was measured. */
    public function turningAt(Quantity $torque): self
    {
        return $this->driven(['turningTorque' => $torque]);
    }

    /** The same axis with what it loses when it turns back put in, as it was measured. */
    public function losing(Quantity $lost): self
    {
        return $this->driven(['lost' => $lost]);
    }

    /**
     * @param  array<string, Quantity>  $members
     */
    private function driven(array $members): self
    {
        $drive = new AxisDrive(...$members + get_object_vars($this->drive));

        return new self(...['drive' => $drive] + get_object_vars($this));
    }
}
