<?php

declare(strict_types=1);

namespace Magpie\Core\Motion;

use Magpie\Core\Electrical\DrivenMotor;
use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Quantity\Quantity;

/** What moves an axis, looked up once: its motor, the driver on its phases, and the screw or pulley it turns. */
final readonly class AxisMotion
{
    /**
     * Torque wanted, of what the move asks: what M03 asks for where the builder has no limit of his own. Common
     * practice, no source.
     */
    public const WANTED = ['open' => 2.0, 'closed' => 1.3];

    private function __construct(
        public Axis $axis,
        public ?Fitted $motor,
        public ?Fitted $driver,
        public ?Fitted $by,
        public int $motors,
    ) {
    }

    public static function of(Survey $survey, Axis $axis): self
    {
        $build = $survey->build;
        $first = $axis->drive->motors[0] ?? null;
        $driver = $first === null ? null : DrivenMotor::behind($survey, $first)?->driver;

        return new self(
            $axis,
            $first === null ? null : $build->fitted($first),
            $driver,
            $axis->drive->by === null ? null : $build->fitted($axis->drive->by),
            array_sum(
                array_map(static fn (string $ref): int => $build->need($ref)->quantity ?? 1, $axis->drive->motors),
            ),
        );
    }

    /**
     * The axes that a motor moves, with the motors and what they turn.
     *
     * @return iterable<Subject>
     */
    public static function driven(Survey $survey): iterable
    {
        foreach ($survey->build->axes as $axis) {
            if ($axis->drive->motors !== []) {
                yield Subject::ofAxis($axis, [...$axis->drive->motors, ...array_filter([$axis->drive->by])]);
            }
        }
    }

    /** Asks for figures of an axis and judges nothing. */
    public static function figures(Survey $survey, Axis $axis): Inquiry
    {
        return Inquiry::forFigures($survey, Subject::ofAxis($axis));
    }

    public function where(string $member): string
    {
        return "axes/{$this->axis->ref}/drive/{$member}";
    }

    public function motor(Inquiry $inquiry): Fitted
    {
        return $this->motor ?? $inquiry->lack("a motor for {$this->axis->name}");
    }

    /** A member of the drive, with what it rests on; missing it is named. */
    public function given(Inquiry $inquiry, string $member, string $label, string $symbol, ?Quantity $value): Quantity
    {
        return $inquiry->given(
            "{$label} of {$this->axis->name}",
            $symbol,
            $value,
            $this->axis->drive->evidence ?? Evidence::Assumed,
            $this->where($member),
        );
    }

    /** All that moves with the axis: as it is said, and never less than the sum of what it carries. */
    public function mass(Inquiry $inquiry): Quantity
    {
        $drive = $this->axis->drive;
        $given = $drive->mass === null ? null : $this->given($inquiry, 'mass', 'moving mass', 'm', $drive->mass);
        if ($drive->carries === []) {
            return $given ?? $this->given($inquiry, 'mass', 'moving mass', 'm', null);
        }
        $sum = Quantity::of(0, 'kg');
        $terms = $missing = [];
        foreach ($drive->carries as $ref) {
            $fitted = $inquiry->build->fitted($ref);
            if ($fitted !== null && $fitted->part->family->field('mass') === null) {
                $inquiry->remark("{$fitted->need->role} has no mass on its sheet, and is left out.");

                continue;
            }
            $one =
                $fitted === null
                    ? null
                    : $inquiry->tryRead($fitted, 'mass', "m_{$ref}", Bound::Highest) ??
                        SheetMass::of($inquiry, $fitted, "m_{$ref}");
            if ($fitted === null || $one === null) {
                $missing["mass of {$inquiry->build->roleOf($ref)}"] =
                    $fitted === null ? "needs/{$ref}/choice" : "parts/{$fitted->part->ref}/specs/mass";

                continue;
            }
            $terms["m_{$ref}"] = $one->times($fitted->need->quantity);
            $sum = $sum->plus($terms["m_{$ref}"]);
        }
        if ($given !== null && ! $sum->exceeds($given)) {
            return $given;
        }
        if ($given === null) {
            foreach ($missing as $what => $where) {
                $inquiry->miss($what, $where);
            }
            if ($missing !== []) {
                throw new InputMissing;
            }
        }

        return $inquiry->work(
            $given === null
                ? 'Moving mass, of all it carries'
                : "Moving mass, of what it carries: more than the {$given} said",
            'm = '.implode(' + ', array_keys($terms)),
            $terms,
            $sum,
            'kg',
        );
    }

    /** Whether the motor's loop is closed: what the axis says, or else what kind of motor it is. */
    public function loop(): string
    {
        return $this->axis->drive->closedLoop ?? $this->motor?->part->can(Ability::Steps) === false ? 'closed' : 'open';
    }

    /** Torque wanted, of what the move asks, by the builder's own limit where there is one. */
    public function wanted(Build $build): float
    {
        $loop = $this->loop();
        $own = $build->limits["M03-{$loop}"] ?? null;

        return $own === null ? self::WANTED[$loop] : $own->value->in('');
    }

    /** Travel for one turn of the screw, or of the belt pulley. */
    public function advance(Inquiry $inquiry): Quantity
    {
        $by = $this->by ?? $inquiry->lack("the screw or pulley that moves {$this->axis->name}");
        if ($by->part->can(Ability::HasLead)) {
            return $inquiry->read($by, 'lead', 'p_h');
        }
        [$teeth, $pitch] = $inquiry->readAll($by, ['z' => 'teeth', 'p' => 'pitch']);

        return $inquiry->work(
            'Travel for one turn of the pulley',
            'p_h = z × p',
            ['z' => $teeth, 'p' => $pitch],
            $teeth->times($pitch),
            'mm',
        );
    }

    /** Turns of the motor for one of the screw or pulley. */
    public function ratio(Inquiry $inquiry): Quantity
    {
        $ratio = $this->axis->drive->ratio;

        return $ratio === null
            ? Quantity::ratio(1)
            : $inquiry->given("ratio of {$this->axis->name}", 'i', $ratio, Evidence::Datasheet, $this->where('ratio'));
    }

    /** Travel for one turn of the motor. */
    public function perTurn(Inquiry $inquiry): Quantity
    {
        $advance = $this->advance($inquiry);
        $ratio = $this->ratio($inquiry);

        return $this->axis->drive->ratio === null
            ? $advance
            : $inquiry->work(
                'Travel for one turn of the motor',
                's = p_h / i',
                ['p_h' => $advance, 'i' => $ratio],
                $advance->over($ratio),
                'mm',
            );
    }

    /** Steps the board sends for one millimetre, as a bare number. */
    public function stepsPerMillimetre(Inquiry $inquiry): Quantity
    {
        $motor = $this->motor($inquiry);
        $turn = $motor->part->can(Ability::Steps)
            ? $this->stepsPerTurn($inquiry, $motor)
            : $inquiry->read($motor, 'pulses_per_turn', 'N');
        $travel = $this->perTurn($inquiry);

        return $inquiry->work(
            'Steps for one millimetre',
            'k = N / s',
            ['N' => $turn, 's' => $travel],
            Quantity::ratio($turn->in('') / $travel->in('mm')),
        );
    }

    private function stepsPerTurn(Inquiry $inquiry, Fitted $motor): Quantity
    {
        $angle = $inquiry->read($motor, 'step_angle', 'θ');
        $driver = $this->driver ?? $inquiry->lack("a driver on the phases of {$motor->need->role}");
        $micro = $inquiry->read($driver, 'microsteps', 'm');

        return $inquiry->work(
            'Steps for one turn of the motor',
            'N = 360° / θ × m',
            ['θ' => $angle, 'm' => $micro],
            Quantity::ratio((360 / $angle->in('°')) * $micro->in('')),
        );
    }

    /** Holding torque of all its motors together. */
    public function holding(Inquiry $inquiry): Quantity
    {
        $motor = $this->motor($inquiry);
        $torque = $inquiry->read(
            $motor,
            $motor->part->can(Ability::Steps) ? 'holding_torque' : 'rated_torque',
            'T_h',
            Bound::Lowest,
        );

        return $inquiry->together('Torque of its motors together', 'T = n × T_h', 'T_h', $torque, $this->motors, 'N m');
    }
}
