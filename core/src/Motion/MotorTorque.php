<?php

declare(strict_types=1);

namespace Magpie\Core\Motion;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\DrivenMotor;
use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Quantity\Quantity;

/** The torque an axis has at its motors' shaft, over speed, as it is supplied and set. */
final class MotorTorque
{
    public static function of(Inquiry $inquiry, Survey $survey, AxisMotion $motion): TorqueCurve
    {
        $motor = $motion->motor($inquiry);
        $count = max(1, $motion->motors);
        $sheet = self::ofSheet($inquiry, $motor);
        if (! $motor->part->can(Ability::Steps)) {
            [$torque, $top] = $inquiry->readAll(
                $motor,
                ['T_n' => 'rated_torque', 'n_n' => 'rated_speed'],
                Bound::Lowest,
            );

            return ($sheet ?? TorqueCurve::flat($torque, $top))->times($count);
        }
        $holding = $inquiry->read($motor, 'holding_torque', 'T_h', Bound::Lowest);
        $driver = $motion->driver ?? $inquiry->lack("a driver on the phases of {$motor->need->role}");
        $set = $inquiry->read($driver, 'set_current', 'I_s');
        $rated = DrivenMotor::rated($inquiry, $motor);
        $each = $set->over(DrivenMotor::of($survey, $driver->need->ref)?->sharing() ?? 1);
        $share = Quantity::min(
            Quantity::ratio(1),
            $inquiry->work(
                'Share of its current',
                'k = I_s / I_m',
                ['I_s' => $each, 'I_m' => $rated],
                $each->over($rated),
                '%',
            ),
        );
        if ($sheet !== null) {
            $inquiry->remark('Torque over speed from the points on its sheet.');

            return $sheet->times($count * $share->in(''));
        }
        $volts = self::supply($inquiry, Circuits::of($survey), $driver->need->ref);
        $inductance = $inquiry->read($motor, 'inductance', 'L', Bound::Highest);
        $angle = $inquiry->read($motor, 'step_angle', 'θ');
        $corner = $inquiry->work(
            'Corner speed, an estimate',
            'n_c = V / (2 × L × I_s × N)',
            ['V' => $volts, 'L' => $inductance, 'I_s' => $each],
            Quantity::of(
                $volts->in('V') / (2 * $inductance->in('H') * $each->in('A') * (360 / $angle->in('°'))),
                'rev/s',
            ),
            'rpm',
        );

        return TorqueCurve::estimate(
            $inquiry->work(
                'Torque up to there',
                'T = n × T_h × k',
                ['T_h' => $holding, 'k' => $share],
                $holding->times($count)->times($share),
                'N m',
            ),
            $corner,
        );
    }

    /**
     * The maker's curve, which counts among what the check rests on. One that cannot be read is no reason to guess.
     *
     * @throws InputMissing when there is one that cannot be read
     */
    private static function ofSheet(Inquiry $inquiry, Fitted $motor): ?TorqueCurve
    {
        $text = $inquiry->tryChoice($motor, 'torque_curve');
        try {
            return $text === null ? null : TorqueCurve::read($text);
        } catch (CannotReadCurve $e) {
            $inquiry->lack("a torque curve of {$motor->need->role} that can be read: {$e->getMessage()}");
        }
    }

    public static function supply(Inquiry $inquiry, Circuits $circuits, string $driver): Quantity
    {
        $node = $circuits->topology->node("{$driver}.power");
        $source = $node === null ? null : $circuits->topology->sourceOf($node);
        if ($source === null) {
            $inquiry->lack("a supply that feeds {$inquiry->build->roleOf($driver)}");
        }
        [$supply, $port] = $circuits->topology->at($source);

        return $inquiry->port($supply, $port, 'voltage', 'V', Bound::Lowest);
    }
}
