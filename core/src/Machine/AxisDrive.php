<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/** What moves an axis: motors, the screw or belt they turn, what is carried and how fast it is wanted. */
final readonly class AxisDrive
{
    /**
     * @param  list<string>  $motors  needs of the motors that share the work
     * @param  string|null  $by  need of the screw, or of the pulley on the drive side of the belt
     * @param  Quantity|null  $ratio  turns of the motor for one of the screw or pulley; 1 when not given
     * @param  Quantity|null  $mass  all that moves with this axis
     * @param  Quantity|null  $force  process force along the axis
     * @param  Quantity|null  $friction  along the axis, both ways
     * @param  Quantity|null  $efficiency  of the screw or belt
     * @param  Quantity|null  $incline  from level; 90° lifts
     * @param  Quantity|null  $inertia  of coupling, pulleys and all else that turns with the screw
     * @param  string|null  $board  need of the board that sends the steps
     * @param  ScrewSupport|null  $support  how the screw is held at its ends
     * @param  Quantity|null  $unsupported  length of screw between its bearings
     * @param  Quantity|null  $lever  height of the process force and centre of mass above the guides
     * @param  Quantity|null  $spread  distance of the outer blocks along the travel
     * @param  Quantity|null  $measuredLoad  most torque read while it worked, of what the motor has there
     * @param  string|null  $beam  need of the beam its rails lie on, held at both ends
     * @param  Evidence|null  $evidence  what mass, force and friction rest on
     * @param  list<string>  $carries  needs of all that moves with this axis, for its mass when that is not given
     * @param  list<TurningBody>  $turning  what turns with the screw or pulley besides it
     * @param  Quantity|null  $endPlay  axial play of the screw as it is built in, measured
     * @param  Quantity|null  $turningTorque  to turn the screw as it is built in, motor uncoupled, measured
     * @param  Quantity|null  $handWheel  radius at which a hand turns its screw, where one does
     * @param  Quantity|null  $shock  how many times the steady load the guides feel; 1 when not given
     * @param  Quantity|null  $lost  when it turns back, nut, screw and coupling together, as a reading has it; no figure of the file
     */
    public function __construct(
        public array $motors = [],
        public ?string $by = null,
        public ?Quantity $ratio = null,
        public ?Quantity $topSpeed = null,
        public ?Quantity $acceleration = null,
        public ?Quantity $mass = null,
        public ?Quantity $force = null,
        public ?Quantity $friction = null,
        public ?Quantity $efficiency = null,
        public ?Quantity $incline = null,
        public ?Quantity $inertia = null,
        public ?string $board = null,
        public ?bool $closedLoop = null,
        public ?ScrewSupport $support = null,
        public ?Quantity $unsupported = null,
        public ?Quantity $lever = null,
        public ?Quantity $spread = null,
        public ?Evidence $evidence = null,
        public ?string $beam = null,
        public ?Quantity $measuredLoad = null,
        public array $carries = [],
        public array $turning = [],
        public ?Quantity $endPlay = null,
        public ?Quantity $turningTorque = null,
        public ?Quantity $shock = null,
        public ?Quantity $handWheel = null,
        public ?Quantity $lost = null,
    ) {
    }
}
