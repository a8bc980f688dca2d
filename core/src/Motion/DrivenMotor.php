<?php

declare(strict_types=1);

namespace Magpie\Core\Motion;

use Magpie\Core\Inspection\Bench;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Fitted;
use WeakMap;

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
        return self::all($build)[$driver] ?? null;
    }

    /** The driver a motor hangs on, with all its motors. */
    public static function behind(Build $build, string $motor): ?self
    {
        foreach (self::all($build) as $driven) {
            foreach ($driven->motors as $one) {
                if ($one->need->ref === $motor) {
                    return $driven;
                }
            }
        }

        return null;
    }

    /**
     * Looked up once a build, which never changes.
     *
     * @return array<string, self> by driver
     */
    private static function all(Build $build): array
    {
        /** @var WeakMap<Build, array<string, self>>|null $known */
        static $known = null;
        $known ??= new WeakMap;
        if (! isset($known[$build])) {
            $motors = [];
            foreach ($build->leads as $lead) {
                foreach ([[$lead->from, $lead->to], [$lead->to, $lead->from]] as [$one, $other]) {
                    $motor = $one->port === 'motor' ? $build->fitted($other->need) : null;
                    if ($motor !== null && $motor->part->family->key() === 'stepper_motor') {
                        $motors[$one->need][] = $motor;
                    }
                }
            }
            $driven = [];
            foreach ($motors as $driver => $on) {
                $fitted = $build->fitted($driver);
                if ($fitted !== null) {
                    $driven[$driver] = new self($fitted, $on);
                }
            }
            $known[$build] = $driven;
        }

        return $known[$build];
    }

    /**
     * @return iterable<Subject> one a driver that has a stepper on it
     */
    public static function subjects(Bench $bench): iterable
    {
        foreach ($bench->build->fittedOf('motor_driver') as $ref => $fitted) {
            $driven = self::of($bench->build, $ref);
            if ($driven !== null) {
                yield new Subject('need', $ref, $fitted->need->role, [
                    $ref,
                    ...array_map(static fn (Fitted $m): string => $m->need->ref, $driven->motors),
                ]);
            }
        }
    }
}
