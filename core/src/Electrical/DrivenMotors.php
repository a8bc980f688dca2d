<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bench;
use Magpie\Core\Machine\Build;

/** Which motors hang on which driver, by the leads between their motor ports. */
final class DrivenMotors
{
    /** @var array<string, DrivenMotor> by driver */
    public readonly array $by;

    /** @var array<string, DrivenMotor> by motor; the first where several drivers claim one */
    public readonly array $behind;

    /** The one of this bench, made when it is first asked for. */
    public static function of(Bench $bench): self
    {
        return $bench->once(self::class, static fn (Bench $b): self => new self($b->build));
    }

    public function __construct(Build $build)
    {
        $motors = [];
        foreach ($build->leads as $lead) {
            foreach ([[$lead->from, $lead->to], [$lead->to, $lead->from]] as [$one, $other]) {
                $motor = $one->port === 'motor' ? $build->fitted($other->need) : null;
                if ($motor !== null && $motor->part->family->key() === 'stepper_motor') {
                    $motors[$one->need][] = $motor;
                }
            }
        }
        $by = $behind = [];
        foreach ($motors as $driver => $on) {
            $fitted = $build->fitted($driver);
            if ($fitted !== null) {
                $by[$driver] = new DrivenMotor($fitted, $on);
                foreach ($on as $motor) {
                    $behind[$motor->need->ref] ??= $by[$driver];
                }
            }
        }
        $this->by = $by;
        $this->behind = $behind;
    }
}
