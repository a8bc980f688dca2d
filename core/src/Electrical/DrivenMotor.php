<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
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

    public static function of(Survey $survey, string $driver): ?self
    {
        $fitted = $survey->build->fitted($driver);
        $motors = array_values(
            array_filter(array_map($survey->build->fitted(...), DrivenMotors::of($survey)->on($driver))),
        );

        return $fitted === null || $motors === [] ? null : new self($fitted, $motors);
    }

    /** The driver a motor hangs on, with all its motors. */
    public static function behind(Survey $survey, string $motor): ?self
    {
        $driver = DrivenMotors::of($survey)->behind($motor);

        return $driver === null ? null : self::of($survey, $driver);
    }

    /**
     * @return iterable<Subject> one a driver that has a stepper on it
     */
    public static function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedOf('motor_driver') as $ref => $fitted) {
            $driven = self::of($survey, $ref);
            if ($driven !== null) {
                yield new Subject('need', $ref, $fitted->need->role, [
                    $ref,
                    ...array_map(static fn (Fitted $m): string => $m->need->ref, $driven->motors),
                ]);
            }
        }
    }
}
