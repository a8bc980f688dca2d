<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Proving;

/**
 * Sound machines of many kinds, fully specified, written down before the rules were tuned to them.
 */
final class Machines
{
    /**
     * @return array<string, callable(): Machine>
     */
    public static function all(): array
    {
        return [
            'moving-bed printer' => self::movingBed(...),
            'core-belt printer in a warm chamber' => self::coreBelt(...),
            'printer with a mains bed' => self::mainsBed(...),
            'printer on 120 V, in gauges' => self::onOneTwenty(...),
            'router with a spindle on direct current' => self::smallRouter(...),
            'router with a spindle on a drive' => self::router(...),
            'mill conversion' => self::mill(...),
            'plasma table' => self::plasma(...),
            'pen plotter' => self::plotter(...),
            'pen plotter on a plug-in supply' => self::pluggedPlotter(...),
            'flattening gantry' => self::flattening(...),
            'pen engraver' => self::engraver(...),
            'drag-knife cutter' => self::knife(...),
        ];
    }

    /**
     * Ports of a board: outputs, and inputs for so many axes.
     *
     * @param  list<string>  $axes
     * @return list<array<string, mixed>>
     */
    private static function ports(array $axes, int $heaters = 2, int $fans = 3): array
    {
        $ports = [];
        for ($i = 0; $i < $heaters; $i++) {
            $ports[] = [
                'name' => "heater{$i}",
                'kind' => 'outlet',
                'fed_from' => 'power',
                'specs' => [
                    'rated_current' => '12 A',
                    'contact_rating' => '15 A',
                    'contacts_per_pole' => '1',
                    'use' => 'heater',
                    'control' => 'switched',
                ],
            ];
        }
        for ($i = 0; $i < $fans; $i++) {
            $ports[] = [
                'name' => "fan{$i}",
                'kind' => 'outlet',
                'fed_from' => 'power',
                'specs' => [
                    'rated_current' => '1 A',
                    'contact_rating' => '3 A',
                    'contacts_per_pole' => '1',
                    'use' => 'fan',
                    'control' => 'speed',
                    'pin' => "F{$i}",
                ],
            ];
        }
        foreach (['th0', 'th1'] as $name) {
            $ports[] = ['name' => $name, 'kind' => 'signal', 'specs' => ['use' => 'thermistor']];
        }
        foreach ($axes as $axis) {
            $ports[] = [
                'name' => "in-{$axis}",
                'kind' => 'signal',
                'specs' => ['use' => 'switch', 'pull_up' => true, 'max_voltage' => '5.5 V', 'input' => 'protected'],
            ];
        }

        return $ports;
    }

    private static function movingBed(): Machine
    {
        return (new Machine('Wren', 'moving-bed printer', [], ['process' => 'printing', 'flow' => '8 mm³/s']))
            ->supplied('24 V', '15 A')
            ->controlled(['x', 'y', 'z', 'e'], self::ports(['x', 'y', 'z', 'e']))
            ->belted('x', 'x', ['mass' => '0.5 kg'], ['span' => '260 mm', 'span_evidence' => 'measured', 'blocks' => 1])
            ->belted('y', 'y', ['mass' => '1.2 kg'], ['span' => '260 mm', 'span_evidence' => 'measured'])
            ->screwed(
                'z',
                'z',
                [
                    'mass' => '1.5 kg',
                    'incline' => '90 °',
                    'top_speed' => '10 mm/s',
                    'acceleration' => '100 mm/s²',
                    'efficiency' => '40 %',
                ],
                ['span' => '280 mm', 'span_evidence' => 'measured'],
            )
            ->motor('e')
            ->part('bed', 'heater', [
                'rated_power' => '220 W',
                'rated_voltage' => '24 V',
                'min_voltage' => '20 V',
                'max_voltage' => '26 V',
                'place' => 'bed',
                'heated_width' => '235 mm',
                'heated_depth' => '235 mm',
                'target' => '80 °C',
                'plate_mass' => '0.6 kg',
                'plate_material' => 'aluminium',
                'material_limit' => '150 °C',
                'thermal_fuse' => '125 °C',
                'contact_rating' => '15 A',
                'contacts_per_pole' => '1',
            ])
            ->driven('heater0', 'bed', '2.5 mm²', 'flexing')
            ->part('hot-end', 'hot_end', [
                'nozzle' => '0.4 mm',
                'flow' => '15 mm³/s',
                'top_temperature' => '300 °C',
                'lined' => false,
                'filament_diameter' => '1.75 mm',
            ])
            ->part(
                'cartridge',
                'heater',
                [
                    'rated_power' => '40 W',
                    'rated_voltage' => '24 V',
                    'min_voltage' => '20 V',
                    'max_voltage' => '26 V',
                    'place' => 'hot end',
                    'target' => '230 °C',
                    'contact_rating' => '5 A',
                    'contacts_per_pole' => '1',
                ],
                ['sits_in' => 'hot-end'],
            )
            ->driven('heater1', 'cartridge', '18 AWG', 'flexing')
            ->part(
                'th-bed',
                'thermistor',
                [
                    'resistance_25' => '100 kΩ',
                    'beta' => '3950 K',
                    'highest_temperature' => '250 °C',
                    'table' => '100k, B 3950',
                ],
                ['sits_in' => 'bed'],
            )
            ->lead('th-bed.signal', 'board.th0', '24 AWG', '0.8 m', ['route' => 'flexing'])
            ->part(
                'th-hot',
                'thermistor',
                [
                    'resistance_25' => '100 kΩ',
                    'beta' => '3950 K',
                    'highest_temperature' => '300 °C',
                    'table' => '100k, B 3950',
                ],
                ['sits_in' => 'hot-end'],
            )
            ->lead('th-hot.signal', 'board.th1', '24 AWG', '0.8 m', ['route' => 'flexing'])
            ->part('fan-hot', 'fan', [
                'rated_voltage' => '24 V',
                'min_voltage' => '15 V',
                'max_voltage' => '27 V',
                'rated_current' => '0.08 A',
                'job' => 'hot end',
                'speed_sense' => true,
            ])
            ->driven('fan0', 'fan-hot', '24 AWG', 'flexing')
            ->part('fan-part', 'fan', [
                'rated_voltage' => '24 V',
                'min_voltage' => '15 V',
                'max_voltage' => '27 V',
                'rated_current' => '0.15 A',
                'job' => 'part',
                'speed_sense' => false,
            ])
            ->driven('fan1', 'fan-part', '24 AWG', 'flexing')
            ->set('firmware.runaway', 'present')
            ->set('heater.bed.crossed', 'tried')
            ->set('heater.cartridge.crossed', 'tried')
            ->set('thermistor.th-bed.table', '100k, B 3950')
            ->set('thermistor.th-bed.top', '110 °C')
            ->set('thermistor.th-hot.table', '100k, B 3950')
            ->set('thermistor.th-hot.top', '260 °C')
            ->set('fan.fan-hot.watched', 'speed signal')
            ->add('workpieces', [
                'ref' => 'box',
                'name' => 'Box',
                'length' => '200 mm',
                'width' => '150 mm',
                'height' => '120 mm',
                'material' => 'PLA',
                'per_week' => 2,
                'volume' => '90 cm³',
            ]);
    }

    /** What a printer has beside its axes. */
    /**
     * @param  array<string, string|bool>  $bed
     * @param  array<string, mixed>  $bedNeed
     */
    private static function printing(
        Machine $machine,
        string $bedWatts = '220 W',
        string $work = 'PLA',
        array $bed = [],
        array $bedNeed = [],
    ): Machine {
        $hot = $work === 'ASA' ? ['230 °C', '265 °C'] : ['230 °C', '230 °C'];

        return $machine
            ->part(
                'bed',
                'heater',
                $bed + [
                    'rated_power' => $bedWatts,
                    'rated_voltage' => '24 V',
                    'min_voltage' => '20 V',
                    'max_voltage' => '26 V',
                    'place' => 'bed',
                    'heated_width' => '235 mm',
                    'heated_depth' => '235 mm',
                    'target' => '80 °C',
                    'plate_mass' => '0.6 kg',
                    'plate_material' => 'aluminium',
                    'material_limit' => '150 °C',
                    'thermal_fuse' => '125 °C',
                    'contact_rating' => '15 A',
                    'contacts_per_pole' => '1',
                ],
                $bedNeed,
            )
            ->part('hot-end', 'hot_end', [
                'nozzle' => '0.4 mm',
                'flow' => '15 mm³/s',
                'top_temperature' => '300 °C',
                'lined' => false,
                'filament_diameter' => '1.75 mm',
            ])
            ->part(
                'cartridge',
                'heater',
                [
                    'rated_power' => '40 W',
                    'rated_voltage' => '24 V',
                    'min_voltage' => '20 V',
                    'max_voltage' => '26 V',
                    'place' => 'hot end',
                    'target' => $hot[1],
                    'contact_rating' => '5 A',
                    'contacts_per_pole' => '1',
                ],
                ['sits_in' => 'hot-end'],
            )
            ->driven('heater1', 'cartridge', '18 AWG', 'flexing')
            ->part(
                'th-bed',
                'thermistor',
                ['highest_temperature' => '250 °C', 'table' => '100k, B 3950'],
                ['sits_in' => 'bed'],
            )
            ->lead('th-bed.signal', 'board.th0', '24 AWG', '0.8 m', ['route' => 'flexing'])
            ->part(
                'th-hot',
                'thermistor',
                ['highest_temperature' => '300 °C', 'table' => '100k, B 3950'],
                ['sits_in' => 'hot-end'],
            )
            ->lead('th-hot.signal', 'board.th1', '24 AWG', '0.8 m', ['route' => 'flexing'])
            ->part('fan-hot', 'fan', [
                'rated_voltage' => '24 V',
                'min_voltage' => '15 V',
                'max_voltage' => '27 V',
                'rated_current' => '0.08 A',
                'job' => 'hot end',
                'speed_sense' => true,
            ])
            ->driven('fan0', 'fan-hot', '24 AWG', 'flexing')
            ->part('fan-part', 'fan', [
                'rated_voltage' => '24 V',
                'min_voltage' => '15 V',
                'max_voltage' => '27 V',
                'rated_current' => '0.15 A',
                'job' => 'part',
                'speed_sense' => false,
            ])
            ->driven('fan1', 'fan-part', '24 AWG', 'flexing')
            ->set('firmware.runaway', 'present')
            ->set('heater.bed.crossed', 'tried')
            ->set('heater.cartridge.crossed', 'tried')
            ->set('thermistor.th-bed.table', '100k, B 3950')
            ->set('thermistor.th-bed.top', '110 °C')
            ->set('thermistor.th-hot.table', '100k, B 3950')
            ->set('thermistor.th-hot.top', '280 °C')
            ->set('fan.fan-hot.watched', 'speed signal')
            ->add('workpieces', [
                'ref' => 'box',
                'name' => 'Box',
                'length' => '200 mm',
                'width' => '150 mm',
                'height' => '120 mm',
                'material' => $work,
                'per_week' => 2,
                'volume' => '90 cm³',
            ]);
    }

    /** A coated lift: slow, and heavier than it is fast. */
    private static function lift(Machine $machine, string $mass = '1.5 kg'): Machine
    {
        return $machine->screwed(
            'z',
            'z',
            [
                'mass' => $mass,
                'incline' => '90 °',
                'top_speed' => '10 mm/s',
                'acceleration' => '100 mm/s²',
                'efficiency' => '40 %',
            ],
            ['span' => '280 mm', 'span_evidence' => 'measured'],
        );
    }

    private static function coreBelt(): Machine
    {
        $machine = (new Machine('Siskin', 'core-belt printer', [], ['process' => 'printing', 'flow' => '8 mm³/s']))
            ->supplied('24 V', '20 A')
            ->controlled(['x', 'y', 'z', 'e'], self::ports(['x', 'y', 'z', 'e']), fuse: '20 A')
            ->belted('x', 'x', ['mass' => '0.4 kg'], ['span' => '300 mm', 'span_evidence' => 'measured'])
            ->belted('y', 'y', ['mass' => '0.9 kg'], ['span' => '300 mm', 'span_evidence' => 'measured'])
            ->motor('e');
        self::lift($machine, '2.5 kg');
        self::printing($machine, '240 W', 'ASA')->driven('heater0', 'bed', '4 mm²', 'flexing');

        return $machine
            ->stopped()
            ->part('duct', 'printed_part', [
                'material' => 'ASA',
                'service_temperature' => '60 °C',
                'walls' => '4',
                'infill' => '40 %',
                'top_bottom_layers' => '5',
            ])
            ->add('zones', [
                'ref' => 'chamber',
                'name' => 'Chamber',
                'kind' => 'chamber',
                'temperature' => '50 °C',
                'evidence' => 'measured',
                'holds' => ['bed', 'cartridge', 'hot-end', 'duct', 'fan-hot', 'fan-part'],
            ]);
    }

    private static function mainsBed(): Machine
    {
        $machine = (new Machine(
            'Dotterel',
            'printer with a mains bed',
            [],
            ['process' => 'printing', 'flow' => '8 mm³/s'],
        ))
            ->supplied('24 V', '10 A', '10 A')
            ->controlled(
                ['x', 'y', 'z', 'e'],
                [
                    ...self::ports(['x', 'y', 'z', 'e'], 2),
                    [
                        'name' => 'out-bed',
                        'kind' => 'signal',
                        'specs' => ['use' => 'signal', 'voltage' => '5 V', 'rated_current' => '20 mA'],
                    ],
                ],
                fuse: '10 A',
            )
            ->belted('x', 'x', ['mass' => '0.5 kg'], ['span' => '330 mm', 'span_evidence' => 'measured'])
            ->belted('y', 'y', ['mass' => '0.9 kg'], ['span' => '330 mm', 'span_evidence' => 'measured'])
            ->motor('e');
        self::lift($machine, '2.5 kg');
        self::printing(
            $machine,
            '600 W',
            'PLA',
            [
                'rated_voltage' => '230 V',
                'min_voltage' => '200 V',
                'max_voltage' => '250 V',
                'heated_width' => '300 mm',
                'heated_depth' => '300 mm',
                'plate_mass' => '1.9 kg',
                'earthed' => true,
            ],
            ['ports' => [['name' => 'power', 'mains' => true]]],
        );

        return $machine
            ->part('bed-relay', 'relay', [
                'kind' => 'solid state, AC',
                'coil_voltage' => '5 V',
                'coil_current' => '12 mA',
                'contact_rating' => '25 A',
                'max_voltage' => '280 V',
                'leakage' => '1 mA',
                'heat_sink' => true,
                'normally' => 'open',
            ])
            ->part('relay-sink', 'heat_sink', ['thermal_resistance' => '2 K/W'], ['sits_in' => 'bed-relay'])
            ->lead('board.out-bed', 'bed-relay.coil', '24 AWG', '0.4 m')
            ->lead('inlet.out', 'bed-relay.in', '1 mm²', '0.4 m')
            ->lead('bed-relay.out', 'bed.power', '1 mm²', '1 m', [
                'route' => 'flexing',
                'conductor' => ['insulation' => 'silicone 300/500 V'],
            ])
            ->part('plate', 'plate', [
                'material' => 'aluminium',
                'thickness' => '8 mm',
                'width' => '310 mm',
                'depth' => '310 mm',
            ])
            ->earthed('bed')
            ->stopped('inlet.out', '1.5 mm²');
    }

    private static function onOneTwenty(): Machine
    {
        $machine = (new Machine(
            'Junco',
            'printer',
            [
                'mains_voltage' => '120 V',
                'mains_frequency' => '60 Hz',
                'outlet' => '15 A',
            ],
            ['process' => 'printing', 'flow' => '8 mm³/s'],
        ))
            ->supplied('24 V', '15 A', '6.3 A')
            ->controlled(['x', 'y', 'z', 'e'], self::ports(['x', 'y', 'z', 'e']))
            ->belted('x', 'x', ['mass' => '1.1 lb'], ['span' => '10.5 in', 'span_evidence' => 'measured'])
            ->belted('y', 'y', ['mass' => '2.6 lb'], ['span' => '10.5 in', 'span_evidence' => 'measured'])
            ->motor('e');
        self::lift($machine);
        self::printing($machine, '180 W')->driven('heater0', 'bed', '14 AWG', 'flexing');

        return $machine;
    }

    /** What a machine that cuts with a spinning tool has beside its axes. */
    private static function cutting(Machine $machine): Machine
    {
        return $machine
            ->part('cutter', 'cutter', [
                'kind' => 'end mill',
                'diameter' => '3.175 mm',
                'shank' => '3.175 mm',
                'flutes' => '2',
                'top_speed' => '30000 rpm',
                'material' => 'carbide',
                'cutting_length' => '12 mm',
            ])
            ->add('workpieces', [
                'ref' => 'sign',
                'name' => 'Sign',
                'length' => '200 mm',
                'width' => '150 mm',
                'height' => '12 mm',
                'material' => 'plywood',
                'per_week' => 2,
            ]);
    }

    private static function smallRouter(): Machine
    {
        $machine = (new Machine('Stint', 'router', [], ['process' => 'cutting']))
            ->supplied('24 V', '20 A')
            ->controlled(
                ['x', 'y', 'z'],
                [
                    ...self::ports(['x', 'y', 'z'], 0, 1),
                    [
                        'name' => 'spindle',
                        'kind' => 'outlet',
                        'fed_from' => 'power',
                        'specs' => [
                            'rated_current' => '12 A',
                            'contact_rating' => '15 A',
                            'contacts_per_pole' => '1',
                            'fuse_rating' => '10 A',
                            'fuse_kind' => 'blade',
                            'use' => 'heater',
                            'control' => 'speed',
                        ],
                    ],
                ],
            )
            ->screwed(
                'x',
                'x',
                ['mass' => '2 kg', 'force' => '20 N', 'top_speed' => '40 mm/s', 'acceleration' => '400 mm/s²'],
                ['span' => '330 mm', 'span_evidence' => 'measured'],
            )
            ->screwed(
                'y',
                'y',
                ['mass' => '3 kg', 'force' => '20 N', 'top_speed' => '40 mm/s', 'acceleration' => '400 mm/s²'],
                ['span' => '330 mm', 'span_evidence' => 'measured'],
            )
            ->screwed(
                'z',
                'z',
                [
                    'mass' => '1 kg',
                    'force' => '20 N',
                    'incline' => '90 °',
                    'top_speed' => '10 mm/s',
                    'acceleration' => '100 mm/s²',
                    'efficiency' => '40 %',
                ],
                ['span' => '120 mm', 'span_evidence' => 'measured'],
            )
            ->part('spindle', 'spindle', [
                'rated_power' => '120 W',
                'rated_voltage' => '24 V',
                'min_voltage' => '12 V',
                'max_voltage' => '26 V',
                'efficiency' => '70 %',
                'top_speed' => '12000 rpm',
                'lowest_speed' => '3000 rpm',
                'collet_largest' => '3.175 mm',
                'cooling' => 'own fan',
                'runout' => '20 µm',
            ])
            ->lead('board.spindle', 'spindle.power', '2.5 mm²', '1 m', [
                'route' => 'flexing',
                'conductor' => ['screen' => 'one end'],
            ]);

        return self::cutting($machine)->stopped();
    }

    /**
     * Step and direction drivers of their own, on a supply of 48 V, with closed-loop motors of frame 23.
     *
     * @param  array<string, mixed>  $drive
     * @param  array<string, mixed>  $at
     */
    private static function heavy(
        Machine $machine,
        string $axis,
        array $drive,
        array $at,
        string $lead = '10 mm',
    ): Machine {
        return $machine
            ->part("drv-{$axis}", 'motor_driver', [
                'min_voltage' => '20 V',
                'max_voltage' => '75 V',
                'continuous_current' => '5 A',
                'bare_current' => '5 A',
                'set_current' => '3.2 A',
                'supply_current' => '2 A',
                'mode' => 'step and direction',
                'microsteps' => '8',
                'signal_voltage' => '5 V',
                'heat_sink' => true,
            ])
            ->lead('stop.out', "drv-{$axis}.power", '1.5 mm²', '0.6 m')
            ->lead("board.step-{$axis}", "drv-{$axis}.control", '24 AWG', '0.5 m')
            ->part("motor-{$axis}", 'stepper_motor', [
                'frame' => '23',
                'rated_current' => '4.2 A',
                'holding_torque' => '2.2 N m',
                'step_angle' => '1.8 °',
                'phase_resistance' => '0.5 Ω',
                'inductance' => '1.9 mH',
                'rotor_inertia' => '480 g cm²',
                'shaft_diameter' => '8 mm',
                'shaft_form' => 'flat',
                'body_length' => '82 mm',
                'mass' => '1.2 kg',
                'brake' => $axis === 'z',
            ])
            ->lead("drv-{$axis}.motor", "motor-{$axis}.phases", '18 AWG', '1.5 m')
            ->part("screw-{$axis}", 'drive_screw', [
                'kind' => 'ball screw',
                'diameter' => '16 mm',
                'root_diameter' => '13.2 mm',
                'lead' => $lead,
                'length' => '700 mm',
                'backlash' => '10 µm',
            ])
            ->axis(
                $axis,
                $axis,
                $drive + [
                    'by' => "screw-{$axis}",
                    'support' => 'fixed-supported',
                    'unsupported' => '600 mm',
                    'end_play' => '5 µm',
                    'turning_torque' => '0.06 N m',
                    'closed_loop' => true,
                    'top_speed' => '80 mm/s',
                    'acceleration' => '500 mm/s²',
                    'friction' => '15 N',
                    'inertia' => '0.1 kg cm²',
                ],
                $at,
            )
            ->set("axis.{$axis}.steps_per_mm", (string) (1600 / (float) $lead))
            ->set("driver.drv-{$axis}.current", '3.2 A')
            ->set("driver.drv-{$axis}.microsteps", '8')
            ->set("slot.drv-{$axis}.mode", 'for step and direction', 'link');
    }

    /**
     * Supply, stop and a board that only signals, for drivers of their own.
     *
     * @param  list<string>  $axes
     * @param  list<array<string, mixed>>  $more  ports of the board
     */
    private static function signalling(Machine $machine, array $axes, array $more = [], string $fuse = '10 A'): Machine
    {
        $steps = array_map(
            static fn (string $axis): array => [
                'name' => "step-{$axis}",
                'kind' => 'signal',
                'specs' => ['use' => 'signal', 'voltage' => '5 V', 'rated_current' => '20 mA'],
            ],
            $axes,
        );

        return $machine
            ->supplied('48 V', '15 A', $fuse)
            ->controlled([], [...self::ports($axes, 0, 1), ...$steps, ...$more], '60 V', '2 A')
            ->part(
                'stop',
                'stop_button',
                [
                    'latching' => true,
                    'positive_opening' => true,
                    'normally' => 'closed',
                    'rated_current' => '20 A',
                    'voltage_rating' => '400 V',
                    'dc_voltage' => '125 V',
                    'contacts' => '2',
                    'separate_reset' => true,
                ],
                ['purpose' => 'safety'],
            )
            ->lead('psu.out', 'stop.in', '2.5 mm²', '0.6 m');
    }

    private static function router(): Machine
    {
        $machine = self::signalling(
            new Machine('Plover', 'router', [], ['process' => 'cutting', 'spindle_power' => '800 W']),
            ['x', 'y', 'z'],
            [
                [
                    'name' => 'run',
                    'kind' => 'signal',
                    'specs' => ['use' => 'signal', 'voltage' => '5 V', 'rated_current' => '20 mA'],
                ],
            ],
        );
        self::heavy(
            $machine,
            'x',
            ['mass' => '6 kg', 'force' => '60 N'],
            ['span' => '460 mm', 'span_evidence' => 'measured'],
        );
        self::heavy(
            $machine,
            'y',
            ['mass' => '12 kg', 'force' => '60 N'],
            ['span' => '560 mm', 'span_evidence' => 'measured'],
        );
        self::heavy(
            $machine,
            'z',
            ['mass' => '5 kg', 'force' => '60 N', 'incline' => '90 °', 'top_speed' => '30 mm/s'],
            ['span' => '120 mm', 'span_evidence' => 'measured'],
            '5 mm',
        );
        self::cutting($machine);

        return $machine
            ->part(
                'main-contactor',
                'relay',
                [
                    'kind' => 'contactor',
                    'coil_voltage' => '48 V',
                    'coil_current' => '60 mA',
                    'contact_rating' => '20 A',
                    'max_voltage' => '400 V',
                    'normally' => 'open',
                    'positive_opening' => true,
                    'holds_itself' => true,
                ],
                ['purpose' => 'safety'],
            )
            ->lead('stop.out', 'main-contactor.coil', '0.75 mm²', '0.8 m')
            ->lead('inlet.out', 'main-contactor.in', '1.5 mm²', '0.4 m')
            ->lead('main-contactor.out', 'drive.mains', '1.5 mm²', '0.6 m')
            ->part('drive', 'spindle_drive', [
                'rated_power' => '1.5 kW',
                'rated_voltage' => '230 V',
                'output_current' => '7 A',
                'efficiency' => '95 %',
                'power_factor' => '0.7',
                'top_frequency' => '400 Hz',
                'input_phases' => 'single',
                'speed_command' => '0 to 10 V',
                'filter' => true,
                'reverse_lock' => true,
                'discharge_time' => '5 min',
            ])
            ->part('spindle', 'spindle', [
                'rated_power' => '800 W',
                'rated_voltage' => '220 V',
                'efficiency' => '80 %',
                'top_speed' => '24000 rpm',
                'lowest_speed' => '6000 rpm',
                'rated_current' => '4 A',
                'rated_frequency' => '400 Hz',
                'poles' => '2',
                'collet_largest' => '7 mm',
                'cooling' => 'own fan',
                'runout' => '5 µm',
            ])
            ->lead('drive.motor', 'spindle.power', '1.5 mm²', '2.5 m', [
                'route' => 'flexing',
                'conductor' => ['screen' => 'both ends'],
            ])
            ->lead('board.run', 'drive.run', '24 AWG', '0.6 m')
            ->part('box', 'cabinet', [
                'material' => 'steel',
                'width' => '500 mm',
                'height' => '600 mm',
                'depth' => '250 mm',
                'earthed' => true,
            ])
            ->earthed('drive')
            ->earthed('spindle')
            ->set('drive.drive.reverse', 'locked out')
            ->set('drive.drive.speed', '0 to 10 V')
            ->set('drive.drive.full_scale', '24000 rpm');
    }

    private static function mill(): Machine
    {
        $machine = self::signalling(
            new Machine(
                'Dunnock',
                'mill conversion',
                [],
                [
                    'process' => 'cutting',
                    'accuracy' => '0.05 mm',
                    'cut_direction' => 'conventional',
                ],
            ),
            ['x', 'y', 'z'],
        );
        self::heavy(
            $machine,
            'x',
            ['mass' => '20 kg', 'force' => '200 N', 'friction' => '60 N', 'top_speed' => '40 mm/s'],
            ['span' => '300 mm', 'span_evidence' => 'measured'],
            '5 mm',
        );
        self::heavy(
            $machine,
            'y',
            ['mass' => '28 kg', 'force' => '200 N', 'friction' => '60 N', 'top_speed' => '40 mm/s'],
            ['span' => '200 mm', 'span_evidence' => 'measured'],
            '5 mm',
        );
        self::heavy(
            $machine,
            'z',
            [
                'mass' => '25 kg',
                'force' => '200 N',
                'friction' => '40 N',
                'incline' => '90 °',
                'top_speed' => '20 mm/s',
            ],
            ['span' => '250 mm', 'span_evidence' => 'measured'],
            '5 mm',
        );

        return $machine->add('workpieces', [
            'ref' => 'block',
            'name' => 'Block',
            'length' => '120 mm',
            'width' => '80 mm',
            'height' => '30 mm',
            'material' => 'aluminium',
            'per_week' => 1,
        ]);
    }

    private static function plasma(): Machine
    {
        $machine = self::signalling(
            new Machine(
                'Curlew',
                'plasma table',
                ['outlet' => '32 A'],
                ['process' => 'plasma', 'accuracy' => '0.5 mm'],
            ),
            ['x', 'y', 'z'],
            [
                [
                    'name' => 'torch',
                    'kind' => 'signal',
                    'specs' => ['use' => 'signal', 'voltage' => '5 V', 'rated_current' => '20 mA'],
                ],
            ],
        );
        self::heavy(
            $machine,
            'x',
            ['mass' => '5 kg', 'top_speed' => '150 mm/s'],
            ['span' => '700 mm', 'span_evidence' => 'measured'],
            '20 mm',
        );
        self::heavy(
            $machine,
            'y',
            ['mass' => '9 kg', 'top_speed' => '150 mm/s'],
            ['span' => '700 mm', 'span_evidence' => 'measured'],
            '20 mm',
        );
        self::heavy(
            $machine,
            'z',
            ['mass' => '2 kg', 'incline' => '90 °', 'top_speed' => '40 mm/s'],
            ['span' => '100 mm', 'span_evidence' => 'measured'],
            '5 mm',
        );

        return $machine
            ->part('torch-relay', 'relay', [
                'kind' => 'mechanical',
                'coil_voltage' => '5 V',
                'coil_current' => '15 mA',
                'contact_rating' => '5 A',
                'max_voltage' => '250 V',
                'dc_voltage' => '30 V',
                'normally' => 'open',
            ])
            ->lead('board.torch', 'torch-relay.coil', '24 AWG', '0.5 m')
            ->part('arc', 'arc_source', [
                'output_current' => '40 A',
                'rated_voltage' => '230 V',
                'rated_power' => '4.5 kW',
                'power_factor' => '0.95',
                'duty_cycle' => '60 %',
                'start' => 'blow-back',
                'pilot_arc' => true,
                'isolated' => true,
                'torch_switch' => 'dry contact',
                'cut_chart' => '1 mm 5000 mm/min 1.2 mm; 3 mm 2500 mm/min 1.5 mm',
                'air_flow' => '120 L/min',
                'air_pressure' => '5 bar',
            ])
            ->part('compressor', 'compressor', [
                'flow' => '180 L/min',
                'pressure' => '8 bar',
                'tank' => '50 L',
                'dried' => true,
                'rated_power' => '1.5 kW',
                'rated_voltage' => '230 V',
            ])
            ->part('wall', 'mains_inlet', [
                'rated_current' => '32 A',
                'rated_voltage' => '250 V',
                'fuse_rating' => '32 A',
                'fuse_kind' => 'breaker',
                'switch' => true,
                'contact_rating' => '32 A',
            ])
            ->part('arc-contactor', 'relay', [
                'kind' => 'contactor',
                'coil_voltage' => '48 V',
                'coil_current' => '60 mA',
                'contact_rating' => '40 A',
                'max_voltage' => '400 V',
                'normally' => 'open',
                'positive_opening' => true,
                'holds_itself' => true,
            ])
            ->lead('stop.out', 'arc-contactor.coil', '0.75 mm²', '0.8 m')
            ->lead('wall.out', 'arc-contactor.in', '6 mm²', '0.4 m')
            ->lead('arc-contactor.out', 'arc.mains', '6 mm²', '1 m')
            ->lead('wall.out', 'compressor.mains', '6 mm²', '1 m')
            ->earthed('arc', 'wall', '6 mm²')
            ->earthed('compressor', 'wall', '6 mm²')
            ->lead('torch-relay.out', 'arc.torch', '1 mm²', '1.5 m', ['conductor' => ['screen' => 'one end']])
            ->part('box', 'cabinet', [
                'material' => 'steel',
                'width' => '500 mm',
                'height' => '600 mm',
                'depth' => '250 mm',
                'earthed' => true,
            ])
            ->add('workpieces', [
                'ref' => 'bracket',
                'name' => 'Bracket',
                'length' => '300 mm',
                'width' => '200 mm',
                'height' => '2 mm',
                'material' => 'steel',
                'per_week' => 4,
            ]);
    }

    private static function plotter(): Machine
    {
        return self::plotting((new Machine('Pipit', 'pen plotter', [], ['process' => 'drawing', 'accuracy' => '0.2 mm']))->supplied('24 V', '5 A', '3.15 A'));
    }

    private static function pluggedPlotter(): Machine
    {
        return self::plotting((new Machine('Twite', 'pen plotter', [], ['process' => 'drawing', 'accuracy' => '0.2 mm']))->plugged('24 V', '5 A'));
    }

    private static function plotting(Machine $machine): Machine
    {
        return $machine
            ->controlled(['x', 'y'], self::ports(['x', 'y'], 0, 1), fuse: '5 A')
            ->belted('x', 'x', ['mass' => '0.3 kg'], ['span' => '450 mm', 'span_evidence' => 'measured'])
            ->belted('y', 'y', ['mass' => '0.8 kg'], ['span' => '320 mm', 'span_evidence' => 'measured'])
            ->add('workpieces', [
                'ref' => 'sheet',
                'name' => 'Sheet',
                'length' => '297 mm',
                'width' => '210 mm',
                'height' => '1 mm',
                'material' => 'paper',
                'per_week' => 5,
            ]);
    }

    private static function flattening(): Machine
    {
        $machine = self::signalling(
            new Machine('Corncrake', 'flattening gantry', [], ['process' => 'cutting', 'accuracy' => '0.3 mm']),
            ['x', 'y'],
        );
        self::heavy(
            $machine,
            'x',
            ['mass' => '8 kg', 'force' => '80 N'],
            ['span' => '900 mm', 'span_evidence' => 'measured'],
        );
        self::heavy(
            $machine,
            'y',
            ['mass' => '25 kg', 'force' => '80 N', 'friction' => '30 N'],
            ['span' => '1600 mm', 'span_evidence' => 'measured'],
        );

        return $machine
            ->part('height-screw', 'drive_screw', [
                'kind' => 'lead screw',
                'diameter' => '16 mm',
                'root_diameter' => '12 mm',
                'lead' => '4 mm',
                'length' => '200 mm',
                'backlash' => '50 µm',
            ])
            ->add('axes', [
                'ref' => 'height',
                'name' => 'Height',
                'along' => 'z',
                'span' => '120 mm',
                'span_evidence' => 'measured',
                'drive' => [
                    'by' => 'height-screw',
                    'hand_wheel' => '60 mm',
                    'support' => 'fixed-supported',
                    'unsupported' => '160 mm',
                    'mass' => '12 kg',
                    'force' => '0 N',
                    'friction' => '20 N',
                    'incline' => '90 °',
                    'efficiency' => '35 %',
                    'end_play' => '30 µm',
                    'turning_torque' => '0.05 N m',
                    'evidence' => 'measured',
                ],
            ])
            ->add('workpieces', [
                'ref' => 'slab',
                'name' => 'Slab',
                'length' => '800 mm',
                'width' => '600 mm',
                'height' => '50 mm',
                'material' => 'oak',
                'per_week' => 1,
            ]);
    }

    private static function engraver(): Machine
    {
        $machine = (new Machine('Wheatear', 'pen engraver', [], ['process' => 'drawing', 'accuracy' => '0.1 mm']))
            ->supplied('24 V', '5 A', '3.15 A')
            ->controlled(['x', 'y', 'z'], self::ports(['x', 'y', 'z'], 0, 1), fuse: '5 A');
        self::lift($machine, '0.4 kg');

        return $machine
            ->screwed(
                'x',
                'x',
                ['mass' => '0.8 kg', 'top_speed' => '30 mm/s', 'acceleration' => '300 mm/s²'],
                ['span' => '160 mm', 'span_evidence' => 'measured'],
            )
            ->screwed(
                'y',
                'y',
                ['mass' => '1.4 kg', 'top_speed' => '30 mm/s', 'acceleration' => '300 mm/s²'],
                ['span' => '160 mm', 'span_evidence' => 'measured'],
            )
            ->add('workpieces', [
                'ref' => 'plate',
                'name' => 'Name plate',
                'length' => '100 mm',
                'width' => '60 mm',
                'height' => '3 mm',
                'material' => 'brass',
                'per_week' => 5,
            ]);
    }

    private static function knife(): Machine
    {
        $machine = (new Machine('Knot', 'drag-knife cutter', [], ['process' => 'drawing', 'accuracy' => '0.3 mm']))
            ->supplied('24 V', '6.5 A', '3.15 A')
            ->controlled(['x', 'y', 'z'], self::ports(['x', 'y', 'z'], 0, 2), fuse: '7.5 A')
            ->belted(
                'x',
                'x',
                ['mass' => '0.8 kg', 'force' => '5 N'],
                ['span' => '700 mm', 'span_evidence' => 'measured'],
            )
            ->belted(
                'y',
                'y',
                ['mass' => '1.6 kg', 'force' => '5 N', 'acceleration' => '1000 mm/s²'],
                ['span' => '900 mm', 'span_evidence' => 'measured'],
            )
            ->part('lamp', 'lamp', [
                'rated_voltage' => '24 V',
                'min_voltage' => '20 V',
                'max_voltage' => '27 V',
                'rated_current' => '0.4 A',
            ])
            ->driven('fan1', 'lamp');
        self::lift($machine, '0.6 kg');

        return $machine->add('workpieces', [
            'ref' => 'foil',
            'name' => 'Foil',
            'length' => '600 mm',
            'width' => '400 mm',
            'height' => '1 mm',
            'material' => 'vinyl',
            'per_week' => 5,
        ]);
    }
}
