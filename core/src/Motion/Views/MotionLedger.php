<?php

declare(strict_types=1);

namespace Magpie\Core\Motion\Views;

use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Motion\DriveLoad;
use Magpie\Core\Motion\MotorTorque;
use Magpie\Core\Motion\ScrewEnds;
use Magpie\Core\Motion\TorqueCurve;
use Magpie\Core\Motion\UsableTravel;
use Magpie\Core\Quantity\Quantity;

/** Every axis in figures: torque over speed against what the move asks for, inertia, resolution, and what caps it. */
final readonly class MotionLedger
{
    public function __construct(private Survey $survey)
    {
    }

    /**
     * Speeds in rpm and mm/s, torques in N m, forces in N, inertias in kg cm², lengths in mm. Null where it is not
     * known.
     *
     * @return list<array<string, mixed>>
     */
    public function toArray(): array
    {
        return array_values(array_map($this->axis(...), $this->survey->build->axes));
    }

    /**
     * @template T
     *
     * @param  list<string>  $missing  what it would take to tell is added
     * @param  callable(Inquiry): T  $what
     * @return T|null
     */
    private function ask(Axis $axis, array &$missing, callable $what): mixed
    {
        $inquiry = AxisMotion::figures($this->survey, $axis);
        try {
            return $what($inquiry);
        } catch (InputMissing) {
            array_push($missing, ...$inquiry->unproven()->missing);

            return null;
        }
    }

    /**
     * @return array<string, mixed>
     */
    private function axis(Axis $axis): array
    {
        $motion = AxisMotion::of($this->survey, $axis);
        $missing = [];
        $driven = $axis->drive->motors !== [];
        $load = $driven
            ? $this->ask($axis, $missing, static fn (Inquiry $i): DriveLoad => DriveLoad::of($i, $motion))
            : null;
        $curve = $driven
            ? $this->ask($axis, $missing, fn (Inquiry $i): TorqueCurve => MotorTorque::of($i, $this->survey, $motion))
            : null;
        $steps = $driven
            ? $this->ask($axis, $missing, static fn (Inquiry $i): Quantity => $motion->stepsPerMillimetre($i))
            : null;
        $usable = $this->ask($axis, $missing, static fn (Inquiry $i): Quantity => UsableTravel::of($i, $axis));
        $top = $axis->drive->topSpeed;
        $told = AxisMotion::figures($this->survey, $axis);
        $wanted = $motion->wanted($this->survey->build);
        $may = $load === null || $curve === null ? null : $load->acceleration($told, $curve, Quantity::ratio($wanted));
        $push = $load === null || $curve === null ? null : $load->stalled($told, $curve);

        return [
            'ref' => $axis->ref,
            'name' => $axis->name,
            'along' => $axis->along->value,
            'driven' => $driven,
            'curve' => $curve === null
                    ? []
                    : array_map(
                        static fn (array $p): array => ['rpm' => round($p[0] * 60, 1), 'torque' => round($p[1], 4)],
                        $curve->points,
                    ),
            'estimated' => $curve !== null && $curve->estimated,
            'phases' => $load === null
                    ? []
                    : array_map(
                        static fn (array $p): array => [
                            'phase' => $p['phase'],
                            'rpm' => round($load->shaft($p['speed'])->in('rpm'), 1),
                            'force' => round($p['force']->in('N'), 1),
                            'torque' => round($p['torque']->in('N m'), 4),
                            'has' => $curve === null ? null : round($curve->at($load->shaft($p['speed']))->in('N m'), 4),
                        ],
                        $load->phases,
                    ),
            'wanted' => $wanted,
            'loop' => $motion->loop(),
            'travel_per_turn' => $load === null ? null : round($load->travel->in('mm'), 4),
            'load_inertia' => $load === null ? null : round($load->load->in('kg cm²'), 4),
            'rotor_inertia' => $load?->rotor === null ? null : round($load->rotor->in('kg cm²'), 4),
            'steps_per_mm' => $steps === null ? null : round($steps->in(''), 3),
            'step_rate' => $steps === null || $top === null ? null : round(($steps->in('') * $top->in('mm/s')) / 1000, 2),
            'caps' => $load === null || $curve === null ? null : $this->cap($axis, $motion, $load, $curve),
            'max_acceleration' => $may === null ? null : round($may->in('mm/s²'), 1),
            'stall_force' => $push === null ? null : round($push->in('N'), 1),
            'stack' => $this->stack($axis),
            'usable' => $usable === null ? null : round($usable->in('mm'), 2),
            'advertised' => $axis->advertised?->in('mm'),
            'missing' => array_values(array_unique($missing)),
        ];
    }

    /**
     * What holds the speed of an axis down first: the motor, the screw or the board.
     *
     * @return array{by: string, speed: float} speed in mm/s
     */
    private function cap(Axis $axis, AxisMotion $motion, DriveLoad $load, TorqueCurve $curve): array
    {
        $ask = $load->phases[0]['torque']->in('N m') * $motion->wanted($this->survey->build);
        $torque = 0.0;
        for ($rpm = 10; $rpm <= 12_000; $rpm += 10) {
            if ($curve->at(Quantity::of($rpm, 'rpm'))->in('N m') >= $ask) {
                $torque = ($rpm / 60) * $load->travel->in('mm');
            }
        }
        $caps = ['torque of the motor' => $torque];
        $by = $motion->by;
        if (
            $by?->part->can(Ability::HasLead) === true &&
            $axis->drive->support !== null &&
            $axis->drive->unsupported !== null
        ) {
            $root =
                $by->part->spec('root_diameter')?->nominal() ?? $by->part->spec('diameter')?->nominal()?->times(0.8);
            $lead = $by->part->spec('lead')?->nominal();
            if ($root !== null && $lead !== null) {
                $caps['whirling of the screw'] =
                    ScrewEnds::whirl($axis->drive->support, $root, $axis->drive->unsupported)->in('rev/s') *
                    $lead->in('mm');
            }
        }
        asort($caps);
        $first = array_key_first($caps);

        return ['by' => $first, 'speed' => round($caps[$first], 1)];
    }

    /**
     * @return list<array{what: string, length: float, kind: string}> rail or span first, then all that takes some of it
     */
    private function stack(Axis $axis): array
    {
        $rail = $axis->rail === null ? null : $this->survey->build->fitted($axis->rail);
        $length = $rail === null ? $axis->span : $rail->part->spec('length')?->nominal();
        if ($length === null) {
            return [];
        }
        $stack = [
            [
                'what' => $rail === null ? 'Room to begin with' : $rail->need->role,
                'length' => round($length->in('mm'), 2),
                'kind' => 'whole',
            ],
        ];
        $block = $rail?->part->spec('block_length')?->nominal();
        if ($block !== null) {
            $covered =
                $block->in('mm') +
                ($axis->blocks > 1 ? ($axis->blocks - 1) * ($axis->blockPitch?->in('mm') ?? 0.0) : 0.0);
            $stack[] = [
                'what' => $axis->blocks > 1 ? "{$axis->blocks} blocks" : 'Block',
                'length' => round($covered, 2),
                'kind' => 'block',
            ];
        }
        foreach ($axis->takes as $taker) {
            $stack[] = ['what' => $taker->what, 'length' => round($taker->length->in('mm'), 2), 'kind' => 'taker'];
        }

        return $stack;
    }
}
