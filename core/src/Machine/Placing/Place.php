<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Placing;

use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Quantity\Quantity;

/**
 * Where something sits in the machine, by rule: against what, how far, carried by which axes. Sizes come from the part; x runs
 * to the right, y to the back, z up, from the left front bottom corner of the outline, with every axis at nought.
 */
final readonly class Place
{
    /**
     * @param  string|null  $need  part that sits there
     * @param  string|null  $zone  place with an air of its own: nothing solid
     * @param  string|null  $workpiece  what is worked on
     * @param  string|null  $name  of something that is on no list: a wall, a table, a channel
     * @param  int|null  $piece  of several, which one
     * @param  string|null  $on  place it is fixed to, and moves with
     * @param  array{x: Position|null, y: Position|null, z: Position|null}  $at  null where nobody says
     * @param  array{Quantity|null, Quantity|null, Quantity|null}  $size  length, width, height that count before the sheet
     * @param  list<string>  $moves  axes that carry it, besides those that carry what it is on
     * @param  Along|null  $row  direction in which its pieces stand in a row
     * @param  Quantity|null  $pitch  from one of them to the next
     * @param  Quantity|null  $free  room wanted around it, for heat and hands
     * @param  list<Reach>  $reach
     * @param  Duct|null  $duct  leads may lie in it
     * @param  list<string>  $spans  axes whose movement this cable chain takes up
     * @param  list<string>  $meets  places it is meant to touch or reach into
     * @param  bool  $preference  less room than is wanted is a nuisance, not a fault
     * @param  Evidence|null  $evidence  what its position rests on; null where it is decided and yet to be built
     */
    public function __construct(
        public string $ref,
        public ?string $need = null,
        public ?string $zone = null,
        public ?string $workpiece = null,
        public ?string $name = null,
        public ?int $piece = null,
        public ?string $on = null,
        public array $at = ['x' => null, 'y' => null, 'z' => null],
        public Turned $turned = Turned::LengthWidthHeight,
        public array $size = [null, null, null],
        public array $moves = [],
        public ?Along $row = null,
        public ?Quantity $pitch = null,
        public ?Quantity $free = null,
        public array $reach = [],
        public ?Duct $duct = null,
        public array $spans = [],
        public array $meets = [],
        public bool $preference = false,
        public ?Evidence $evidence = null,
    ) {
    }
}
