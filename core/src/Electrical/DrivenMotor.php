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
    private function __construct(public Fitted $driver, public array $motors)
    {
    }

    public static function of(Bench $bench, string $driver): ?self
    {
        $fitted = $bench->build->fitted($driver);
        $motors = array_values(
            array_filter(array_map($bench->build->fitted(...), DrivenMotors::of($bench)->on($driver))),
        );

        return $fitted === null || $motors === [] ? null : new self($fitted, $motors);
    }

    /** The driver a motor hangs on, with all its motors. */
    public static function behind(Bench $bench, string $motor): ?self
    {
        $driver = DrivenMotors::of($bench)->behind($motor);

        return $driver === null ? null : self::of($bench, $driver);
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
