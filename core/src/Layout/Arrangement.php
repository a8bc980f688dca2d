<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

/** One way to put parts on the back wall of a cabinet, and what it gives. */
final readonly class Arrangement
{
    /**
     * @param  list<array<string, mixed>>  $places  as a build file has them, new and old
     * @param  list<array{float, float, float, float}>  $rects  of each on the wall: from its left, from its bottom, width, height, mm
     * @param  float  $used  height of wall it takes, mm
     * @param  float  $leads  mm of lead between what it places, straight and square
     * @param  float  $thick  the same, each counted by its cross-section: mm × mm²
     * @param  float|null  $apart  mm between mains and the nearest signal; null where one of them is missing
     */
    public function __construct(
        public string $name,
        public string $why,
        public array $places,
        public array $rects,
        public float $used,
        public float $leads,
        public float $thick,
        public ?float $apart,
    ) {
    }

    /**
     * @return array{name: string, why: string, places: list<array<string, mixed>>, rects: list<array{float, float, float, float}>, used: float, leads: float, thick: float,
     *     apart: float|null}
     */
    public function toArray(): array
    {
        return [
            'name' => $this->name,
            'why' => $this->why,
            'places' => $this->places,
            'rects' => $this->rects,
            'used' => round($this->used, 1),
            'leads' => round($this->leads, 1),
            'thick' => round($this->thick, 1),
            'apart' => $this->apart === null ? null : round($this->apart, 1),
        ];
    }
}
