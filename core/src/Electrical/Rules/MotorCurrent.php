<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Cooling;
use Magpie\Core\Electrical\Cures\LowerCurrent;
use Magpie\Core\Electrical\DrivenMotor;
use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\OtherPart;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E08: the current a driver is set to, against what it may give and what its motor may take. */
final class MotorCurrent implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E08',
            'Motor and driver',
            'Does the driver give what the motor wants, and neither of them too much?',
            Trade::Electrical,
            'Nameplate current taken as rms per phase unless it says peak; 85 % of it and heat sinks above the bare rating are common practice, no source',
            [
                'usual' => Threshold::share("share of the motor's rated current that holds", 0.85),
                'least' => Threshold::share("share of the motor's rated current below which torque is given away", 0.5),
            ],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        return DrivenMotor::subjects($survey);
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $driven = DrivenMotor::of($inquiry->survey, $inquiry->subject->ref) ?? $inquiry->lack('a motor on it');
        $driver = $driven->driver;
        $set = $inquiry->read($driver, 'set_current', 'I_s', Bound::Highest);
        $allowed = $inquiry->read($driver, 'continuous_current', 'I_d', Bound::Lowest);
        $count = Quantity::ratio($driven->sharing());
        $each =
            $driven->sharing() === 1
                ? $set
                : $inquiry->work(
                    'Motors in parallel share it',
                    'I = I_s / n',
                    ['I_s' => $set, 'n' => $count],
                    $set->over($count),
                    'A',
                );
        // The weakest of them decides what each may take.
        $rated = Quantity::min(
            ...array_map(static fn (Fitted $motor): Quantity => DrivenMotor::rated($inquiry, $motor), $driven->motors),
        );
        $share = $inquiry->work(
            'Share of what the motor may take',
            'k = I / I_m',
            ['I' => $each, 'I_m' => $rated],
            $each->over($rated),
            '%',
        );
        $inquiry->work('Peak the driver gives', 'I_p = 1.414 × I_s', ['I_s' => $set], $set->times(M_SQRT2), 'A');
        $bare = $inquiry->tryRead($driver, 'bare_current', 'I_b', Bound::Lowest);
        $sink = Cooling::of($inquiry, $driver)->fitted;
        if ($sink === null) {
            $inquiry->miss(
                "whether {$driver->need->role} has its heat sink",
                "parts/{$driver->part->ref}/specs/heat_sink",
            );
        }
        [$verdict, $says] = match (true) {
            $set->exceeds($allowed) => [
                Verdict::Fails,
                "{$set} set, and the driver gives {$allowed} for long: it shuts down or burns.",
            ],
            $each->exceeds($rated) => [Verdict::Fails, "{$each} through a motor rated {$rated}: it overheats."],
            $sink === false && $bare !== null && $set->exceeds($bare) => [
                Verdict::Fails,
                "{$set} without a heat sink, and bare it gives {$bare}: it shuts down. Keep the sink clear of header pins.",
            ],
            $share->exceeds($inquiry->threshold('usual')) => [
                Verdict::Tight,
                "{$each} of the {$rated} the motor may take: it runs hot.",
            ],
            $share->isBelow($inquiry->threshold('least')) => [
                Verdict::Tight,
                "{$each} of the {$rated} the motor may take: torque is given away.",
            ],
            default => [
                Verdict::Holds,
                "{$each} through a motor rated {$rated}, from a driver that gives {$allowed}.",
            ],
        };

        return $inquiry->conclude(
            $verdict,
            $says,
            $inquiry->margin($set, Quantity::min($allowed, $rated->times($count))),
            "{$allowed} for the driver, {$rated} for the motor",
        );
    }

    public function cures(): array
    {
        return [new LowerCurrent, new OtherPart];
    }

    public function examples(): Examples
    {
        $file = static fn (string $set): array => self::axis(['set_current' => $set]);

        return new Examples(static fn (): array => $file('2.4 A'), static fn (): array => $file('1.6 A'), Verdict::Fails);
    }

    /**
     * A driver of 2 A on a motor of 2.2 A, both from datasheets.
     *
     * @param  array<string, string|bool>  $driver
     * @param  array<string, string|bool>  $motor
     * @return array<string, mixed>
     */
    public static function axis(array $driver = [], array $motor = [], string $volts = '24 V'): array
    {
        return Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => $volts, 'rated_current' => '10 A']),
                Examples::part(
                    'drv',
                    'motor_driver',
                    $driver + [
                        'continuous_current' => '2 A',
                        'bare_current' => '1.2 A',
                        'set_current' => '1.6 A',
                        'heat_sink' => true,
                        'max_voltage' => '60 V',
                        'supply_current' => '1 A',
                    ],
                ),
                Examples::part(
                    'motor',
                    'stepper_motor',
                    $motor + [
                        'rated_current' => '2.2 A',
                        'inductance' => '4 mH',
                        'step_angle' => '1.8 °',
                        'current_is_peak' => false,
                    ],
                ),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'drv.power'],
                    ['ref' => 'W2', 'from' => 'drv.motor', 'to' => 'motor.phases'],
                ],
            ],
        );
    }
}
