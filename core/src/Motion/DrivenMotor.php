<?php

declare(strict_types=1);

namespace Magpie\Core\Motion;

use Magpie\Core\Inspection\Bench;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Machine\Build;
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

    public static function of(Build $build, string $driver): ?self
    {
        $fitted = $build->fitted($driver);
        $motors = [];
        foreach ($build->leads as $lead) {
            foreach ([[$lead->from, $lead->to], [$lead->to, $lead->from]] as [$one, $other]) {
                $motor = $one->need === $driver && $one->port === 'motor' ? $build->fitted($other->need) : null;
                if ($motor !== null && $motor->part->family->key() === 'stepper_motor') {
                    $motors[] = $motor;
                }
            }
        }

        return $fitted === null || $motors === [] ? null : new self($fitted, $motors);
    }

    /**
     * @return iterable<Subject> one a driver that has a stepper on it
     */
    public static function subjects(Bench $bench): iterable
    {
        foreach ($bench->build->fittedOf('motor_driver') as $ref => $fitted) {
            $driven = self::of($bench->build, $ref);
            if ($driven !== null) {
                yield new Subject('need', $ref, $fitted->need->role, [$ref, ...array_map(static fn (Fitted $m): string => $m->need->ref, $driven->motors)]);
            }
        }
    }
}
