<?php

declare(strict_types=1);

namespace Tests\Support;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Placing\Anchor;
use Magpie\Core\Machine\Placing\Duct;
use Magpie\Core\Machine\Placing\Place;
use Magpie\Core\Machine\Placing\Position;
use Magpie\Core\Quantity\Quantity;
use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * A machine of any size for benchmarks: groups of fourteen parts and some seventeen leads with an axis each, fed from
 * one mains inlet.
 */
final class LargeBuild
{
    public static function of(int $parts): Build
    {
        $list = [
            Examples::part('inlet', 'mains_inlet', [
                'rated_current' => '16 A',
                'fuse_rating' => '10 A',
                'contact_rating' => '16 A',
                'switch' => true,
            ]),
        ];
        $leads = $mates = $loads = $axes = $zones = $clearances = [];
        for ($g = 0; count($list) < $parts; $g++) {
            $list[] = Examples::part("psu{$g}", 'power_supply', [
                'output_voltage' => '24 V',
                'rated_current' => '20 A',
                'rated_power' => '480 W',
                'efficiency' => '90 %',
                'power_factor' => '0.95',
                'contact_rating' => '20 A',
                'terminal_cover' => true,
                'earth_terminal' => true,
                'own_fuse' => true,
                'cooling' => 'fan',
                'input_voltage' => '90 V to 264 V',
            ]);
            $list[] = Examples::part("mod{$g}", 'switching_module', [
                'rated_current' => '25 A',
                'on_resistance' => '6 mΩ',
                'min_voltage' => '5 V',
                'max_voltage' => '36 V',
                'contact_rating' => '20 A',
            ]);
            $list[] = Examples::part("bed{$g}", 'heater', [
                'rated_power' => '200 W',
                'rated_voltage' => '24 V',
                'min_voltage' => '20 V',
                'max_voltage' => '26 V',
                'contact_rating' => '10 A',
            ]);
            foreach (['a', 'b', 'c', 'd'] as $i) {
                $list[] = Examples::part("fan{$i}{$g}", 'fan', [
                    'rated_voltage' => '24 V',
                    'min_voltage' => '12 V',
                    'max_voltage' => '27 V',
                    'rated_current' => '0.2 A',
                ]);
                $leads[] = self::lead("F{$i}{$g}", "psu{$g}.out", "fan{$i}{$g}.power", '24 AWG', '0.8 m');
                $leads[] = [
                    'ref' => "S{$i}{$g}",
                    'from' => "mod{$g}.control",
                    'to' => "mod{$g}.in",
                    'length' => '0.3 m',
                ];
                $loads["fan{$i}{$g}"] = '100 %';
            }
            $list[] = Examples::part("clamp{$g}", 'printed_part', [
                'material' => 'ASA',
                'service_temperature' => '60 °C',
            ]);
            $list[] = Examples::part("screw{$g}", 'screw', ['thread' => 'M5', 'length' => '25 mm']);
            $list[] = Examples::part("plate{$g}", 'plate', ['thickness' => '10 mm']);
            $list[] = Examples::part("drv{$g}", 'motor_driver', [
                'min_voltage' => '12 V',
                'max_voltage' => '48 V',
                'continuous_current' => '3 A',
                'set_current' => '1.8 A',
                'bare_current' => '2 A',
                'heat_sink' => true,
                'supply_current' => '1 A',
                'microsteps' => '16',
            ]);
            $list[] = Examples::part("motor{$g}", 'stepper_motor', [
                'step_angle' => '1.8 °',
                'rated_current' => '2.1 A',
                'holding_torque' => '0.6 N m',
                'inductance' => '4 mH',
                'rotor_inertia' => '120 g cm²',
                'shaft_diameter' => '5 mm',
                'current_is_peak' => false,
            ]);
            $list[] = Examples::part("bar{$g}", 'drive_screw', [
                'lead' => '5 mm',
                'diameter' => '16 mm',
                'root_diameter' => '13.2 mm',
                'length' => '500 mm',
            ]);
            $list[] = Examples::part("rail{$g}", 'linear_rail', [
                'length' => '480 mm',
                'block_length' => '58 mm',
                'static_load' => '9000 N',
                'dynamic_load' => '8000 N',
            ]);
            array_push(
                $leads,
                self::lead("D{$g}", "psu{$g}.out", "drv{$g}.power", '18 AWG', '0.5 m'),
                self::lead("P{$g}", "drv{$g}.motor", "motor{$g}.phases", '20 AWG', '1 m'),
            );
            $axes[] = [
                'ref' => "x{$g}",
                'name' => "X {$g}",
                'along' => 'x',
                'rail' => "rail{$g}",
                'blocks' => 2,
                'block_pitch' => '80 mm',
                'drive' => [
                    'motors' => ["motor{$g}"],
                    'by' => "bar{$g}",
                    'top_speed' => '100 mm/s',
                    'acceleration' => '1 m/s²',
                    'mass' => '6 kg',
                    'force' => '40 N',
                    'friction' => '10 N',
                    'efficiency' => '90 %',
                    'incline' => '0 °',
                    'support' => 'fixed-supported',
                    'unsupported' => '440 mm',
                    'lever' => '60 mm',
                    'spread' => '138 mm',
                    'closed_loop' => false,
                    'evidence' => 'measured',
                ],
            ];
            $zones[] = [
                'ref' => "z{$g}",
                'name' => "Cabinet {$g}",
                'kind' => 'cabinet',
                'temperature' => '40 °C',
                'evidence' => 'measured',
                'holds' => ["psu{$g}", "mod{$g}", "drv{$g}"],
            ];
            $clearances[] = [
                'ref' => "c{$g}",
                'name' => "Pair {$g}",
                'between' => [
                    ['what' => 'A', 'x' => '0 mm to 60 mm', 'moves' => ["x{$g}"]],
                    ['what' => 'B', 'x' => '500 mm to 510 mm'],
                ],
                'evidence' => 'measured',
            ];
            array_push(
                $leads,
                self::lead("M{$g}", 'inlet.out', "psu{$g}.mains", '0.75 mm²', '0.5 m'),
                self::lead("A{$g}", "psu{$g}.out", "mod{$g}.in", '1.5 mm²', '0.4 m'),
                self::lead("B{$g}", "mod{$g}.out", "bed{$g}.power", '16 AWG', '0.9 m'),
            );
            $mates[] = [
                'ref' => "m{$g}",
                'kind' => 'mount',
                'between' => ["clamp{$g}", "plate{$g}"],
                'screws' => [
                    [
                        'screw' => "screw{$g}",
                        'count' => 4,
                        'clamped' => ['10 mm'],
                        'into' => 'tapped',
                        'material' => 'aluminium',
                        'depth' => '20 mm',
                        'evidence' => 'measured',
                    ],
                ],
            ];
            $loads["bed{$g}"] = '60 %';
        }

        return BuildFile::build(
            Examples::file($list, [
                'leads' => $leads,
                'mates' => $mates,
                'axes' => $axes,
                'zones' => $zones,
                'clearances' => $clearances,
                'scenarios' => [
                    ['ref' => 'run', 'name' => 'Run', 'loads' => $loads, 'duration' => '4 h', 'runs_per_year' => 100],
                    [
                        'ref' => 'worst',
                        'name' => 'Worst',
                        'loads' => array_map(static fn (): string => '100 %', $loads),
                        'duration' => '1 h',
                    ],
                ],
            ]) + [
                'magpie' => 1,
                'build' => ['name' => "Large {$parts}", 'kind' => 'benchmark', 'currency' => 'GBP'],
                'site' => ['mains_voltage' => '230 V', 'ambient' => '30 °C', 'tariff' => '0.28'],
            ],
        );
    }

    /** The same with every third lead too thin. */
    public static function thin(int $parts): Build
    {
        $data = BuildFile::data(self::of($parts));
        foreach (array_keys($data['leads']) as $i) {
            if ($i % 3 === 0) {
                $data['leads'][$i]['conductor']['size'] = '0.25 mm²';
            }
        }

        return BuildFile::build($data);
    }

    /** With three axes besides, that carry each other. */
    public static function ofThreeAxes(int $parts): Build
    {
        $machine = self::of($parts);
        $axes = [];
        foreach (['x' => 300, 'y' => 400, 'z' => 120] as $along => $travel) {
            $axes[$along] = new Axis(
                $along,
                $along,
                Along::from($along),
                span: Quantity::of($travel, 'mm'),
                spanEvidence: Evidence::Measured,
            );
        }

        return $machine->with(['axes' => $machine->axes + $axes]);
    }

    /** The same with a place for each part, eight channels, and leads that take their length from them. */
    public static function placed(int $parts): Build
    {
        $machine = self::ofThreeAxes($parts);
        $at = static fn (float $by): Position => new Position(Anchor::Low, null, Quantity::of($by, 'mm'));
        $size = static fn (float ...$sides): array => array_map(
            static fn (float $side): Quantity => Quantity::of($side, 'mm'),
            $sides,
        );
        $dice = new Randomizer(new Mt19937(3));
        $places = [];
        foreach (array_slice(array_keys($machine->needs), 0, $parts) as $i => $need) {
            $places["p{$i}"] = new Place(
                "p{$i}",
                (string) $need,
                at: [
                    'x' => $at(($i % 15) * 70 + $dice->getInt(0, 9)),
                    'y' => $at(intdiv($i, 15) * 90 + $dice->getInt(0, 9)),
                    'z' => $at(($i % 5) * 80),
                ],
                size: $size(60, 70, 50),
                moves: [[], [], ['y'], ['x', 'y'], ['x', 'y', 'z']][$i % 5],
            );
        }
        for ($i = 0; $i < 8; $i++) {
            $places["d{$i}"] = new Place(
                "d{$i}",
                name: "channel {$i}",
                at: ['x' => $at(0), 'y' => $at($i * 110 + 80), 'z' => $at(420)],
                size: $size(1000, 20, 20),
                duct: Duct::Any,
            );
        }
        $leads = array_map(
            static fn (Lead $lead): Lead => new Lead(...['length' => null] + get_object_vars($lead)),
            $machine->leads,
        );

        return $machine->with(['places' => $places, 'leads' => $leads]);
    }

    /**
     * @return array<string, mixed>
     */
    private static function lead(string $ref, string $from, string $to, string $size, string $length): array
    {
        return [
            'ref' => $ref,
            'from' => $from,
            'to' => $to,
            'conductor' => ['size' => $size, 'evidence' => 'datasheet'],
            'length' => $length,
            'route' => 'fixed',
            'ends' => [['termination' => 'ferrule'], ['termination' => 'ferrule']],
        ];
    }
}
