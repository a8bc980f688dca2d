<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

/** Two bodies, and how near they come wherever the axes stand. */
final readonly class Meeting
{
    /**
     * @param  float|null  $gap  mm at the closest, below nought where they overlap; null where it hangs on a travel nobody knows
     * @param  array<string, array{float, float}>  $where  axis → from where to where it must stand for them to meet, mm
     * @param  list<string>  $unknown  axes of which the travel is not known
     * @param  array<string, float>  $gaps  along x, y and z, mm; the largest keeps them apart
     */
    public function __construct(
        public Body $one,
        public Body $other,
        public ?float $gap,
        public array $where = [],
        public array $unknown = [],
        public array $gaps = [],
    ) {
    }
}
