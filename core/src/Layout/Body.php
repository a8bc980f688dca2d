<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use Magpie\Core\Machine\Placing\Place;

/** One piece of what has a place: the room it takes with every axis at nought, and what carries it. */
final readonly class Body
{
    /**
     * @param  string  $key  ref of its place, "feet" or "feet#2"
     * @param  list<string>  $carried  axes that move it
     * @param  list<string>  $stands  places it stands on, the nearest first
     * @param  bool  $solid  nothing else can be where it is
     * @param  bool  $encloses  what stands on it stands inside it
     */
    public function __construct(
        public string $key,
        public Place $place,
        public string $label,
        public string $kind,
        public Box $box,
        public array $carried,
        public array $stands,
        public bool $solid,
        public bool $encloses,
    ) {
    }
}
