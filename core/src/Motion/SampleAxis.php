<?php

declare(strict_types=1);

namespace Magpie\Core\Motion;

use Magpie\Core\Inspection\Examples;

/** The axis the sample builds of motion and firmware start from. */
final class SampleAxis
{
    /**
     * A 1.8° motor with 16 microsteps on a pulley of 20 teeth at 2 mm: 80 steps for a millimetre.
     *
     * @param  array<string, mixed>  $drive
     * @param  array<string, mixed>  $rest
     * @return array<string, mixed>
     */
    public static function file(array $drive = [], array $rest = []): array
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
