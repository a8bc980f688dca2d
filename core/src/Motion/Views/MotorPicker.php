<?php

declare(strict_types=1);

namespace Magpie\Core\Motion\Views;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\DrivenMotor;
use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Library\Entry;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Motion\DriveLoad;
use Magpie\Core\Motion\MotorTorque;
use Magpie\Core\Quantity\Quantity;

/**
 * Motors of a shelf tried on an axis. Each is put in the place of the one that is there, its driver set to 85 % of its
 * current or what the driver gives, and the checks of the axis are asked: a motor does when none of them fails it. The
 * figures beside it are for choosing among those that do.
 *
 * @phpstan-type Figures array{set: float, factor: float, phase: string, corner: float, inertia: float,
 *     mass: float|null, length: float|null, frame: string|null}
 */
final readonly class MotorPicker
{
    private const SET = 0.85;

    private Survey $survey;

    /**
     * @param  list<string>  $asked  ids of the checks that decide, put to the axis and to its driver
     */
    public function __construct(
        private Standing $standing,
        private Axis $axis,
        private array $asked = ['M03', 'M03-drop', 'M04', 'E08', 'E09'],
    ) {
        $this->survey = $standing->survey();
    }

    /**
     * @param  list<Entry>  $shelf
     * @return array{motors: list<array<string, mixed>>, missing: list<string>, wanted: float} best first; torque factor
     * of the worst phase
     */
    public function rank(array $shelf): array
    {
        $motion = AxisMotion::of($this->survey, $this->axis);
        $inquiry = AxisMotion::figures($this->survey, $this->axis);
        $wanted = $motion->wanted($this->survey->build);
        try {
            $load = DriveLoad::of($inquiry, $motion, false);
            $volts = MotorTorque::supply(
                $inquiry,
                Circuits::of($this->survey),
                ($motion->driver ?? $inquiry->lack('a driver on this axis'))->need->ref,
            )->in('V');
            $sharing = DrivenMotor::of($this->survey, $motion->driver->need->ref)?->sharing() ?? 1;
            $gives = $inquiry->read($motion->driver, 'continuous_current', 'I_d')->in('A') / $sharing;
        } catch (InputMissing) {
            return ['motors' => [], 'missing' => $inquiry->unproven()->missing, 'wanted' => $wanted];
        }
        $count = max(1, $motion->motors);
        $alpha = (2 * M_PI * ($this->axis->drive->acceleration?->in('m/s²') ?? 0.0)) / $load->travel->in('m');
        $phases = array_map(
            static fn (array $p): array => [
                $load->shaft($p['speed'])->in('rev/s'),
                $p['torque']->in('N m'),
                $p['phase'],
            ],
            $load->phases,
        );
        $rows = [];
        foreach ($shelf as $entry) {
            $row = $entry->part->can(Ability::Steps)
                ? $this->judge($entry->part, $count, $gives, $volts, $alpha, $phases, $load->load->in('kg m²'))
                : null;
            if ($row !== null) {
                [$does, $says] = $this->asksTheChecks($entry->part, $motion->driver, $row['set'] * $sharing);
                $rows[] =
                    [
                        'ref' => $entry->part->ref,
                        'name' => $entry->part->name,
                        'does' => $does,
                        'says' => $says,
                    ] + $row;
            }
        }
        // Those that do come first, the lightest of them before the rest; those that do not by how near they come.
        usort(
            $rows,
            static fn (array $a, array $b): int => [
                $a['does'] ? 0 : 1,
                $a['does'] ? $a['mass'] ?? 1e9 : -$a['factor'],
            ] <=> [$b['does'] ? 0 : 1, $b['does'] ? $b['mass'] ?? 1e9 : -$b['factor']],
        );

        return ['motors' => $rows, 'missing' => [], 'wanted' => $wanted];
    }

    /**
     * The checks of the axis and its driver with this motor in place.
     *
     * @param  float  $set  in amperes, what its driver would be set to for all motors on it
     * @return array{bool, string|null} whether none of them fails it, and what the worst that does says
     */
    private function asksTheChecks(Part $motor, Fitted $driver, float $set): array
    {
        $build = $this->standing->build();
        $tried = new Part("try-{$motor->ref}", $motor->family, $motor->name, $motor->specs, $motor->ownPorts);
        $given = $driver->part->spec('set_current');
        $needs = [];
        foreach ($this->axis->drive->motors as $ref) {
            $need = $build->needs[$ref] ?? null;
            if ($need !== null) {
                $needs[$ref] = $need->choosing($tried->ref);
            }
        }
        $parts = $build->parts + [$tried->ref => $tried];
        $parts[$driver->part->ref] = $build->parts[$driver->part->ref]->reading(
            new Spec('set_current', Quantity::of(round($set, 2), 'A'), $given->evidence ?? Evidence::Assumed),
        );
        $keys = [];
        foreach ($this->asked as $id) {
            $keys[] = "{$id}/{$this->axis->ref}";
            $keys[] = "{$id}/{$driver->need->ref}";
        }
        $worst = null;
        $found = $this->standing->trial(
            $build->with(['parts' => $parts, 'needs' => array_replace($build->needs, $needs)]),
            $keys,
        );
        foreach (array_filter($found) as $finding) {
            $verdict = $finding->otherwise ?? $finding->verdict;
            if (
                $verdict->rank() < Verdict::Tight->rank() &&
                ($worst === null || $verdict->rank() < $worst[0]->rank())
            ) {
                $worst = [$verdict, $finding->headline];
            }
        }

        return [$worst === null, $worst[1] ?? null];
    }

    /**
     * @param  list<array{float, float, string}>  $phases  speed, torque without the rotor, name
     * @return Figures|null null when its sheet says too little
     */
    private function judge(
        Part $motor,
        int $count,
        float $gives,
        float $volts,
        float $alpha,
        array $phases,
        float $load,
    ): ?array {
        $read = static fn (string $key, string $unit): ?float => $motor->spec($key)?->nominal()?->in($unit);
        [$holding, $rated, $rotor, $inductance, $angle] = [
            $read('holding_torque', 'N m'),
            $read('rated_current', 'A'),
            $read('rotor_inertia', 'kg m²'),
            $read('inductance', 'H'),
            $read('step_angle', '°'),
        ];
        if ($rated !== null && $motor->spec('current_is_peak')?->flag() === true) {
            $rated /= M_SQRT2;
        }
        if (
            $holding === null ||
            $rated === null ||
            $rotor === null ||
            $inductance === null ||
            $angle === null ||
            $rated <= 0 ||
            $inductance <= 0
        ) {
            return null;
        }
        $set = min($gives, self::SET * $rated);
        $corner = $volts / ((2 * $inductance * $set * 360) / $angle);
        $torque = (($holding * $set) / $rated) * $count;
        $worst = null;
        foreach ($phases as [$speed, $asked, $phase]) {
            $asked += $phase === 'accelerate' ? $rotor * $count * $alpha : 0.0;
            $factor = $asked <= 0 ? INF : ($speed <= $corner ? $torque : ($torque * $corner) / $speed) / $asked;
            if ($worst === null || $factor < $worst[0]) {
                $worst = [$factor, $phase];
            }
        }
        $ratio = $load / ($rotor * $count);

        return [
            'set' => round($set, 2),
            'factor' => round(min(999.0, $worst[0] ?? 999.0), 3),
            'phase' => $worst[1] ?? '',
            'corner' => round($corner * 60),
            'inertia' => round($ratio, 2),
            'mass' => $motor->spec('mass')?->nominal()?->in('g'),
            'length' => $motor->spec('body_length')?->nominal()?->in('mm'),
            'frame' => $motor->spec('frame')?->choice(),
        ];
    }
}
