<?php

declare(strict_types=1);

namespace Magpie\Core\Motion;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Materials;

/**
 * What an axis asks of its motors: inertia as the motor feels it, and force and torque through a move: accelerate, run,
 * cut and hold. Torques are at the motor's shaft, all motors together.
 */
final readonly class DriveLoad
{
    /** Standard gravity, m/s². */
    public const G = 9.80665;

    /**
     * @param  Quantity  $travel  for one turn of the motor
     * @param  Quantity  $load  inertia of the load at the motor's shaft
     * @param  Quantity|null  $rotor  inertia of all rotors
     * @param  list<array{phase: string, speed: Quantity, force: Quantity, torque: Quantity}>  $phases
     * @param  bool  $screwGuessed  the inertia of the screw comes from its diameter and length
     * @param  Quantity  $acceleration  asked of the axis
     * @param  Quantity  $weight  of the mass, along the axis
     */
    private function __construct(
        public Quantity $travel,
        public Quantity $load,
        public ?Quantity $rotor,
        public array $phases,
        public bool $screwGuessed,
        private Quantity $acceleration,
        private Quantity $weight,
        private Quantity $efficiency,
    ) {
    }

    /**
     * Inertia of mass and turning parts, reflected to the motor's shaft, with its lines of working.
     *
     * @return array{Quantity, bool, Quantity} inertia, whether the screw's was worked out from its size, moving mass
     */
    public static function inertia(Inquiry $inquiry, AxisMotion $motion): array
    {
        $travel = $motion->perTurn($inquiry);
        $drive = $motion->axis->drive;
        $mass = $motion->mass($inquiry);
        $moved = $inquiry->work(
            'Mass as the motor feels it',
            'J_m = m × (s / 2π)²',
            ['m' => $mass, 's' => $travel],
            self::felt($mass, $travel),
            'kg cm²',
        );
        $turning = $drive->inertia;
        $guessed = false;
        $terms = ['J_m' => $moved];
        if ($turning !== null) {
            $terms['J_c'] = $motion->given($inquiry, 'inertia', 'inertia that turns with the screw', 'J_c', $turning);
        }
        $bodies = Quantity::of(0, 'kg cm²');
        foreach ($drive->turning as $i => $body) {
            $inertia = $motion->given($inquiry, "turning/{$i}", "inertia of {$body->name}", "J_{$i}", $body->felt());
            $bodies = $bodies->plus($inertia);
        }
        if ($drive->turning !== []) {
            $terms['J_b'] = $inquiry->work(
                'What turns with it, each ½·m·(r_o² + r_i²), by the square of its ratio',
                'J_b = Σ J',
                [],
                $bodies,
                'kg cm²',
            );
        }
        $by = $motion->by;
        $diameter = $by?->part->can(Ability::HasLead) === true ? $inquiry->tryRead($by, 'diameter', 'd') : null;
        $length = $diameter === null || $by === null ? null : $inquiry->tryRead($by, 'length', 'L');
        if ($diameter !== null && $length !== null && $by !== null) {
            $guessed = true;
            // A quantity of screws, such as two Y screws, each turns with a motor of its own.
            $screw = Quantity::of(
                (M_PI / 32) *
                    (float) Materials::density('steel') *
                    $length->in('m') *
                    $diameter->in('m') ** 4 *
                    max(1, $by->need->quantity),
                'kg m²',
            );
            $terms['J_s'] = $inquiry->work(
                'Screw, as a steel bar of its diameter',
                'J_s = π/32 × ρ × L × d⁴',
                ['L' => $length, 'd' => $diameter],
                $screw,
                'kg cm²',
            );
        }
        $ratio = $motion->axis->drive->ratio;
        $reflected = $ratio === null ? Quantity::ratio(1) : $ratio->squared();
        $sum = $moved;
        foreach (['J_c', 'J_b', 'J_s'] as $symbol) {
            if (isset($terms[$symbol])) {
                $sum = $sum->plus($terms[$symbol]->over($reflected));
            }
        }
        $formula =
            'J_L = J_m'.
            implode(
                '',
                array_map(
                    static fn (string $s): string => " + {$s}".($ratio === null ? '' : ' / i²'),
                    array_values(array_diff(array_keys($terms), ['J_m'])),
                ),
            );

        return [
            count($terms) === 1
                ? $moved
                : $inquiry->work('Load at the shaft of the motor', $formula, $terms, $sum, 'kg cm²'),
            $guessed,
            $mass,
        ];
    }

    /** Inertia of a mass as the motor feels it, at so much travel for one turn. */
    public static function felt(Quantity $mass, Quantity $travel): Quantity
    {
        return $mass->times($travel->over(2 * M_PI)->squared());
    }

    public static function of(Inquiry $inquiry, AxisMotion $motion, bool $withRotor = true): self
    {
        [$load, $guessed, $mass] = self::inertia($inquiry, $motion);
        $drive = $motion->axis->drive;
        $rotor = null;
        if ($withRotor) {
            $rotor = $inquiry
                ->read($motion->motor($inquiry), 'rotor_inertia', 'J_r', Bound::Highest)
                ->times(max(1, $motion->motors));
        }
        $acceleration = $motion->given($inquiry, 'acceleration', 'acceleration', 'a', $drive->acceleration);
        $speed = $motion->given($inquiry, 'top_speed', 'top speed', 'v', $drive->topSpeed);
        $friction = $motion->given($inquiry, 'friction', 'friction', 'F_f', $drive->friction);
        $efficiency = $motion->given($inquiry, 'efficiency', 'efficiency', 'η', $drive->efficiency);
        $incline = $motion->given($inquiry, 'incline', 'incline', 'θ', $drive->incline);
        $force = $motion->given($inquiry, 'force', 'process force (0 N where there is none)', 'F_p', $drive->force);
        $travel = $motion->perTurn($inquiry);
        $weight = $mass->times(Quantity::of(self::G * sin($incline->in('rad')), 'm/s²'))->to('N');
        $turn = static fn (Quantity $f): Quantity => $f
            ->times($travel)
            ->over(Quantity::ratio(2 * M_PI))
            ->over($efficiency)
            ->to('N m');
        $alpha = (2 * M_PI * $acceleration->in('m/s²')) / $travel->in('m');
        $rolled = $mass->in('kg') * ($travel->in('m') / (2 * M_PI)) ** 2;
        $spin = Quantity::of(max(0.0, $load->in('kg m²') - $rolled) + ($rotor?->in('kg m²') ?? 0.0), 'kg m²');
        $phases = [];
        $line = $mass->times($acceleration)->plus($weight)->plus($friction)->to('N');
        $accelerate = $turn($line)->plus(Quantity::of($spin->in('kg m²') * $alpha, 'N m'));
        $phases[] = [
            'phase' => 'accelerate',
            'speed' => $speed,
            'force' => $line,
            'torque' => $inquiry->work(
                'Torque while it accelerates',
                'T_a = (m·a + m·g·sinθ + F_f) × s / (2π × η) + ΣJ × α',
                ['m' => $mass, 'a' => $acceleration, 'F_f' => $friction, 's' => $travel, 'η' => $efficiency],
                $accelerate,
                'N m',
            ),
        ];
        $run = $weight->plus($friction);
        $phases[] = [
            'phase' => 'run',
            'speed' => $speed,
            'force' => $run,
            'torque' => $inquiry->work(
                'Torque while it runs',
                'T_r = (m·g·sinθ + F_f) × s / (2π × η)',
                ['F_f' => $friction, 's' => $travel, 'η' => $efficiency],
                $turn($run),
                'N m',
            ),
        ];
        if ($force->isPositive()) {
            $cut = $run->plus($force);
            $phases[] = [
                'phase' => 'cut',
                'speed' => $speed->times(self::CUTTING),
                'force' => $cut,
                'torque' => $inquiry->work(
                    'Torque while it cuts, at a third of the top speed',
                    'T_c = (F_p + m·g·sinθ + F_f) × s / (2π × η)',
                    ['F_p' => $force, 'F_f' => $friction, 's' => $travel, 'η' => $efficiency],
                    $turn($cut),
                    'N m',
                ),
            ];
        }
        if ($weight->isPositive()) {
            $phases[] = [
                'phase' => 'hold',
                'speed' => Quantity::of(0, 'mm/s'),
                'force' => $weight,
                'torque' => $inquiry->work(
                    'Torque to hold it up',
                    'T_h = m·g·sinθ × s / 2π',
                    ['m' => $mass, 's' => $travel],
                    $weight->times($travel)->over(Quantity::ratio(2 * M_PI))->to('N m'),
                    'N m',
                ),
            ];
        }

        return new self($travel, $load, $rotor, $phases, $guessed, $acceleration, $weight, $efficiency);
    }

    /** Share of the top speed at which is cut: common practice, no source. */
    public const CUTTING = 1 / 3;

    /**
     * The most the axis may accelerate at its top speed with its reserve of torque left; null where it is asked for
     * no acceleration, so there is none to scale.
     *
     * @param  Quantity  $wanted  torque wanted, of what the move asks
     */
    public function acceleration(Inquiry $inquiry, TorqueCurve $curve, Quantity $wanted): ?Quantity
    {
        [$accelerate, $run] = $this->phases;
        $more = $accelerate['torque']->minus($run['torque']);
        if (! $more->isPositive()) {
            return null;
        }
        $has = $curve->at($this->shaft($accelerate['speed']));
        $left = Quantity::max($has->over($wanted)->minus($run['torque']), Quantity::of(0, 'N m'));

        return $inquiry->work(
            'Acceleration it has torque for at top speed',
            'a_max = (T / k − T_r) / (T_a − T_r) × a',
            [
                'T' => $has,
                'k' => $wanted,
                'T_r' => $run['torque'],
                'T_a' => $accelerate['torque'],
                'a' => $this->acceleration,
            ],
            $this->acceleration->times($left->over($more)),
            'mm/s²',
        );
    }

    /** The force it pushes with when something stops it, the weight it carries included: what a hand in its way feels. */
    public function stalled(Inquiry $inquiry, TorqueCurve $curve): Quantity
    {
        $weight = Quantity::max($this->weight, $this->weight->times(-1));
        $torque = $curve->at(Quantity::of(0, 'rev/s'));

        return $inquiry->work(
            'Push when it is stopped',
            'F = T × 2π × η / s + m·g·sinθ',
            ['T' => $torque, 'η' => $this->efficiency, 's' => $this->travel],
            $torque
                ->times(2 * M_PI)
                ->times($this->efficiency)
                ->over($this->travel)
                ->to('N')
                ->plus($weight),
            'N',
        );
    }

    /** Speed of the motor at a speed of the axis. */
    public function shaft(Quantity $speed): Quantity
    {
        return Quantity::of($speed->in('mm/s') / $this->travel->in('mm'), 'rev/s');
    }
}
