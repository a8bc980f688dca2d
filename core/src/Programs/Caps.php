<?php

declare(strict_types=1);

namespace Magpie\Core\Programs;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Hazard;

/** What a machine can do, as a program meets it. Speeds in mm/min, acceleration in mm/s², turns in rpm. */
final readonly class Caps
{
    /**
     * @param  array<string, float>  $speed  by X, Y, Z
     * @param  array<string, float>  $acceleration
     * @param  bool  $torch  its tool is an arc, not a cutter
     */
    public function __construct(
        public array $speed = [],
        public array $acceleration = [],
        public bool $torch = false,
        public ?float $slowest = null,
        public ?float $fastest = null,
        public ?string $tool = null,
    ) {
    }

    public static function of(Build $build): self
    {
        $speed = $acceleration = [];
        foreach ($build->axes as $axis) {
            $key = strtoupper($axis->along->value);
            $top = $axis->drive->topSpeed?->in('mm/s');
            $rise = $axis->drive->acceleration?->in('mm/s²');
            $speed += $top === null ? [] : [$key => $top * 60];
            $acceleration += $rise === null ? [] : [$key => $rise];
        }
        $torch = false;
        $slowest = $fastest = $tool = null;
        foreach ($build->allFitted() as $fitted) {
            $hazard = $fitted->part->family->hazard();
            $torch = $torch || $hazard === Hazard::Torch;
            if ($hazard === Hazard::Spindle && $fitted->part->family->field('top_speed') !== null) {
                $fastest = $fitted->part->spec('top_speed')?->nominal()?->in('rpm');
                $slowest = $fitted->part->spec('lowest_speed')?->nominal()?->in('rpm');
                $tool = $fitted->need->role;
            }
        }

        return new self($speed, $acceleration, $torch, $slowest, $fastest, $tool);
    }
}
