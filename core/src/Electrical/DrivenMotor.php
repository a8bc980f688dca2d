<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bench;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Machine\Fitted;

/** A driver and the motors on its phase leads. */
final readonly class DrivenMotor
{
    /**
     * @param  non-empty-list<Fitted>  $motors
     */
    public function __construct(public Fitted $driver, public array $motors)
    {
    }

    public static function of(Bench $bench, string $driver): ?self
    {
        return DrivenMotors::of($bench)->by[$driver] ?? null;
    }

    /** The driver a motor hangs on, with all its motors. */
    public static function behind(Bench $bench, string $motor): ?self
    {
        return DrivenMotors::of($bench)->behind[$motor] ?? null;
    }

    /**
     * @return iterable<Subject> one a driver that has a stepper on it
     */
    public static function subjects(Bench $bench): iterable
    {
        foreach ($bench->build->fittedOf('motor_driver') as $ref => $fitted) {
            $driven = self::of($bench, $ref);
            if ($driven !== null) {
                yield new Subject('need', $ref, $fitted->need->role, [
                    $ref,
                    ...array_map(static fn (Fitted $m): string => $m->need->ref, $driven->motors),
                ]);
            }
        }
    }
}
