<?php

declare(strict_types=1);

namespace Magpie\Core\Motion;

use Magpie\Core\Inspection\Bench;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E10: steps for a millimetre, how fast they come, and what one of them moves. */
final class StepRate implements Check
{
    public function card(): Card
    {
        return new Card(
            'E10',
            'Steps and step rate',
            'Can the board send the steps this axis needs at its top speed, and is one step fine enough?',
            Trade::Electrical,
            "Arithmetic; 80 % of the board's limit is common practice, no source",
            [
                'stepper_motor.step_angle',
                'motor_driver.microsteps',
                'drive_screw.lead',
                'pulley.teeth',
                'pulley.pitch',
                'controller_board.step_rate',
                'axis.drive',
                'brief.accuracy',
            ],
            ['holds' => Threshold::share("share of the board's step rate that holds", 0.8)],
        );
    }

    public function subjects(Bench $bench): iterable
    {
        return AxisMotion::driven($bench);
    }

    public function judge(Inquiry $inquiry, Bench $bench): Finding
    {
        $axis = $inquiry->build->axes[$inquiry->subject->ref];
        $motion = AxisMotion::of($inquiry->build, $axis);
        $steps = $motion->stepsPerMillimetre($inquiry);
        $one = $inquiry->work(
            'One step moves',
            'r = 1 mm / k',
            ['k' => $steps],
            Quantity::of(1000 / $steps->in(''), 'µm'),
            'µm',
        );
        $accuracy = $inquiry->build->brief->accuracy;
        if (
            $accuracy !== null &&
            $one->exceeds($inquiry->given('accuracy wanted', 'a', $accuracy, Evidence::Measured, 'brief/accuracy'))
        ) {
            return $inquiry->conclude(
                Verdict::Fails,
                "One step moves {$one}; the brief wants {$accuracy}.",
                $inquiry->margin($one, $accuracy),
                "{$accuracy} wanted",
            );
        }
        $speed = $motion->given($inquiry, 'top_speed', 'top speed', 'v', $axis->drive->topSpeed);
        $rate = $inquiry->work(
            'Steps a second at top speed',
            'f = v × k',
            ['v' => $speed, 'k' => $steps],
            Quantity::of($speed->in('mm/s') * $steps->in(''), 'Hz'),
            'kHz',
        );
        $board = $axis->drive->board === null ? null : $inquiry->build->fitted($axis->drive->board);
        $limit = $inquiry->read(
            $board ?? $inquiry->lack("the board that sends the steps of {$axis->name}"),
            'step_rate',
            'f_max',
        );
        $verdict = $inquiry->band($rate, $limit, $inquiry->threshold('holds'), Quantity::ratio(1), Verdict::Fails);
        $inquiry->remark('Resolution is not accuracy: screw error, lash and bending come on top.');

        return $inquiry->conclude(
            $verdict,
            "{$steps} steps for a millimetre, {$rate} at {$speed}; the board sends {$limit}. One step moves {$one}.",
            $inquiry->margin($rate, $limit),
            "{$inquiry->threshold('holds')} of {$limit}",
        );
    }

    public function examples(): Examples
    {
        return new Examples(
            static fn (): array => self::axis(['top_speed' => '1500 mm/s']),
            static fn (): array => self::axis(),
            Verdict::Fails,
        );
    }

    /**
     * A 1.8° motor with 16 microsteps on a pulley of 20 teeth at 2 mm: 80 steps for a millimetre.
     *
     * @param  array<string, mixed>  $drive
     * @param  array<string, mixed>  $rest
     * @return array<string, mixed>
     */
    public static function axis(array $drive = [], array $rest = []): array
    {
        return array_replace(
            Examples::file(
                [
                    Examples::part('board', 'controller_board', ['step_rate' => '100 kHz']),
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '10 A']),
                    Examples::part('drv', 'motor_driver', [
                        'microsteps' => '16',
                        'set_current' => '1.5 A',
                        'continuous_current' => '2 A',
                    ]),
                    Examples::part('motor', 'stepper_motor', [
                        'step_angle' => '1.8 °',
                        'rated_current' => '1.8 A',
                        'holding_torque' => '0.45 N m',
                        'inductance' => '4 mH',
                        'rotor_inertia' => '72 g cm²',
                    ]),
                    Examples::part('pulley', 'pulley', ['teeth' => '20', 'pitch' => '2 mm']),
                ],
                [
                    'leads' => [
                        ['ref' => 'W1', 'from' => 'drv.motor', 'to' => 'motor.phases'],
                        ['ref' => 'W2', 'from' => 'psu.out', 'to' => 'drv.power'],
                    ],
                    'axes' => [
                        [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'drive' => $drive + [
                                'motors' => ['motor'],
                                'by' => 'pulley',
                                'top_speed' => '300 mm/s',
                                'acceleration' => '3000 mm/s²',
                                'mass' => '0.6 kg',
                                'force' => '0 N',
                                'friction' => '2 N',
                                'efficiency' => '95 %',
                                'board' => 'board',
                                'incline' => '0 °',
                                'closed_loop' => false,
                                'evidence' => 'measured',
                            ],
                        ],
                    ],
                ],
            ),
            $rest,
        );
    }
}
