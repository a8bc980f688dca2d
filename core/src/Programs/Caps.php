<?php

declare(strict_types=1);

namespace Magpie\Core\Programs;

use Magpie\Core\Machine\AxisDrive;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Hazard;
use Magpie\Core\Machine\Spec;

/** What a machine can do, as a program meets it. Speeds in mm/min, acceleration in mm/s², turns in rpm. */
final readonly class Caps
{
    /**
     * @param  array<string, float>  $speed  by X, Y, Z
     * @param  array<string, float>  $acceleration
     * @param  bool  $torch  its tool is an arc, not a cutter
     * @param  Evidence|null  $rests  what its fastest turn rests on
     */
    public function __construct(
        public array $speed = [],
        public array $acceleration = [],
        public bool $torch = false,
        public ?float $slowest = null,
        public ?float $fastest = null,
        public ?string $tool = null,
        public ?Evidence $rests = null,
    ) {
    }

    /** Of two axes along one, and of two spindles, what both of them can. */
    public static function of(Build $build): self
    {
        $torch = false;
        $spindles = [];
        foreach ($build->allFitted() as $fitted) {
            $hazard = $fitted->part->family->hazard();
            $torch = $torch || $hazard === Hazard::Torch;
            if ($hazard === Hazard::Spindle && $fitted->part->family->field('top_speed') !== null) {
                $spindles[] = $fitted;
            }
        }
        $tops = array_map(static fn (Fitted $f): ?Spec => $f->part->spec('top_speed'), $spindles);
        $fastest = array_map(static fn (?Spec $s): ?float => $s?->mostStood()?->in('rpm'), $tops);
        $slowest = array_filter(
            array_map(static fn (Fitted $f): ?float => $f->part->spec('lowest_speed')?->leastNeeded()?->in('rpm'), $spindles),
            static fn (?float $rpm): bool => $rpm !== null,
        );
        $rests = array_map(static fn (Spec $s): Evidence => $s->evidence, array_values(array_filter($tops)));

        return new self(
            self::least($build, static fn (AxisDrive $d): ?float => $d->topSpeed === null ? null : 60 * $d->topSpeed->in('mm/s')),
            self::least($build, static fn (AxisDrive $d): ?float => $d->acceleration?->in('mm/s²')),
            $torch,
            $slowest === [] ? null : max($slowest),
            $fastest === [] || in_array(null, $fastest, true) ? null : min($fastest),
            $spindles === [] ? null : end($spindles)->need->role,
            $rests === [] ? null : Evidence::weakest(...$rests),
        );
    }

    /**
     * @param  callable(AxisDrive): (float|null)  $of
     * @return array<string, float> the least of all axes along X, Y, Z
     */
    private static function least(Build $build, callable $of): array
    {
        $least = [];
        foreach ($build->axes as $axis) {
            $key = strtoupper($axis->along->value);
            $value = $of($axis->drive);
            $least = $value === null ? $least : [$key => min($least[$key] ?? $value, $value)] + $least;
        }

        return $least;
    }
}
