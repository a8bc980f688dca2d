<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\External;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\FaultCurrent;
use Magpie\Core\Electrical\Netlist;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use PHPUnit\Framework\TestCase;

/** Against ngspice (Debian package ngspice): the same network, solved by a program that knows nothing of machines. */
final class NgspiceTest extends TestCase
{
    public function test_a_three_branch_supply_agrees_within_a_thousandth(): void
    {
        // Two heaters and a steady load on one 24 V output; the second heater hangs on a shared lead with the load.
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '30 A']),
                Examples::part('module', 'switching_module', ['rated_current' => '30 A', 'on_resistance' => '6 mΩ']),
                Examples::part('bed', 'heater', ['rated_power' => '288 W', 'rated_voltage' => '24 V']),
                Examples::part('fuse', 'fuse', ['rated_current' => '10 A', 'resistance' => '8 mΩ']),
                Examples::part('hot', 'heater', ['rated_power' => '60 W', 'rated_voltage' => '24 V']),
                Examples::part('fan', 'fan', ['rated_current' => '1.5 A', 'rated_voltage' => '24 V']),
            ],
            [
                'leads' => [
                    [
                        'ref' => 'A',
                        'from' => 'psu.out',
                        'to' => 'module.in',
                        'conductor' => ['size' => '1.5 mm²'],
                        'length' => '0.6 m',
                    ],
                    [
                        'ref' => 'B',
                        'from' => 'module.out',
                        'to' => 'bed.power',
                        'conductor' => ['size' => '16 AWG', 'parallel' => 2, 'stranding' => 'solid'],
                        'length' => '1.2 m',
                    ],
                    [
                        'ref' => 'C',
                        'from' => 'psu.out',
                        'to' => 'fuse.in',
                        'conductor' => ['size' => '18 AWG', 'stranding' => 'solid'],
                        'length' => '0.9 m',
                    ],
                    [
                        'ref' => 'D',
                        'from' => 'fuse.out',
                        'to' => 'hot.power',
                        'conductor' => ['size' => '22 AWG', 'stranding' => 'solid'],
                        'length' => '1.6 m',
                    ],
                    [
                        'ref' => 'E',
                        'from' => 'fuse.out',
                        'to' => 'fan.power',
                        'conductor' => ['size' => '0.5 mm²'],
                        'length' => '2 m',
                    ],
                ],
            ],
        );
        $circuits = new Circuits(
            BuildFile::build(
                $file + [
                    'site' => ['ambient' => '20 °C'],
                    'magpie' => 1,
                    'build' => ['name' => 'N', 'kind' => 'n', 'currency' => 'GBP'],
                ],
            ),
        );
        $flow = $circuits->flows()[0];

        // Loop resistances, worked apart from the code under test: ρ or class 5 row × 2 × length ÷ conductors.
        $gauge = static fn (int $n): float => 1.7241e-8 / ((M_PI / 4) * (0.127e-3 * 92 ** ((36 - $n) / 39)) ** 2);
        $netlist =
            "three branches\nV1 1 0 24\n".
            'RA 1 2 '.
            13.3e-3 * 2 * 0.6.
            "\nRM 2 3 0.006\n".
            'RB 3 4 '.
            ($gauge(16) * 2 * 1.2) / 2 .
            "\nRBED 4 0 2\n".
            'RC 1 5 '.
            $gauge(18) * 2 * 0.9.
            "\nRF 5 6 0.008\n".
            'RD 6 7 '.
            $gauge(22) * 2 * 1.6.
            "\nRHOT 7 0 9.6\n".
            'RE 6 8 '.
            39.0e-3 * 2 * 2 .
            "\nIFAN 8 0 1.5\n".
            ".op\n.control\nrun\nprint v(4) v(7) v(8) i(V1)\nquit\n.endc\n.end\n";
        $spice = $this->ngspice($netlist);

        $topology = $circuits->topology;
        $ours = [
            'v(4)' => $flow->volts((int) $topology->node('bed.power'))->in('V'),
            'v(7)' => $flow->volts((int) $topology->node('hot.power'))->in('V'),
            'v(8)' => $flow->volts((int) $topology->node('fan.power'))->in('V'),
            'i(v1)' => -$flow->delivered((int) $topology->node('psu.out'))->in('A'),
        ];
        foreach ($ours as $name => $value) {
            self::assertEqualsWithDelta($spice[$name], $value, abs($spice[$name]) * 1e-3, $name);
        }
    }

    public function test_a_ladder_with_a_second_way_round_agrees(): void
    {
        // Four heaters in a daisy chain, the far end joined back to the supply by a lead of its own.
        $parts = [Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '60 A'])];
        $leads = [];
        $netlist = "ladder\nV1 n0 0 24\n";
        foreach (range(1, 4) as $i) {
            // Each heater is reached through a module, so that one inlet can feed the next.
            $parts[] = Examples::part("m{$i}", 'switching_module', [
                'rated_current' => '30 A',
                'on_resistance' => '5 mΩ',
            ]);
            $parts[] = Examples::part("h{$i}", 'heater', ['rated_power' => '96 W', 'rated_voltage' => '24 V']);
            $leads[] = [
                'ref' => "W{$i}",
                'from' => $i === 1 ? 'psu.out' : 'm'.($i - 1).'.in',
                'to' => "m{$i}.in",
                'conductor' => ['size' => '1.5 mm²'],
                'length' => '2 m',
            ];
            $leads[] = [
                'ref' => "H{$i}",
                'from' => "m{$i}.out",
                'to' => "h{$i}.power",
                'conductor' => ['size' => '0.75 mm²'],
                'length' => '1 m',
            ];
            $netlist .=
                "RW{$i} n".
                ($i - 1).
                " n{$i} ".
                13.3e-3 * 4 .
                "\nRM{$i} n{$i} o{$i} 0.005\nRL{$i} o{$i} h{$i} ".
                26.0e-3 * 2 .
                "\nRH{$i} h{$i} 0 6\n";
        }
        $leads[] = [
            'ref' => 'BACK',
            'from' => 'psu.out',
            'to' => 'm4.in',
            'conductor' => ['size' => '2.5 mm²'],
            'length' => '3 m',
        ];
        $netlist .=
            'RBACK n0 n4 '.
            7.98e-3 * 6 .
            "\n.op\n.control\nrun\nprint v(h1) v(h2) v(h3) v(h4) i(V1)\nquit\n.endc\n.end\n";
        $circuits = new Circuits(
            BuildFile::build(
                Examples::file($parts, ['leads' => $leads]) + [
                    // As cold as the tables are made for, so that they can be read off by hand.
                    'site' => ['ambient' => '20 °C'],
                    'magpie' => 1,
                    'build' => ['name' => 'N', 'kind' => 'n', 'currency' => 'GBP'],
                ],
            ),
        );
        $flow = $circuits->flows()[0];
        $spice = $this->ngspice($netlist);

        foreach (range(1, 4) as $i) {
            self::assertEqualsWithDelta(
                $spice["v(h{$i})"],
                $flow->volts((int) $circuits->topology->node("h{$i}.power"))->in('V'),
                24e-3,
                "heater {$i}",
            );
        }
        self::assertEqualsWithDelta(
            -$spice['i(v1)'],
            $flow->delivered((int) $circuits->topology->node('psu.out'))->in('A'),
            16e-3,
        );
    }

    public function test_a_short_at_the_far_end_of_a_lead_agrees(): void
    {
        $lead = static fn (string $ref, string $from, string $to, string $size, string $length): array => [
            'ref' => $ref,
            'from' => $from,
            'to' => $to,
            'conductor' => ['size' => $size, 'evidence' => 'datasheet'],
            'length' => $length,
        ];
        $build = BuildFile::build(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '200 A']),
                    Examples::part('fuse', 'fuse', ['rated_current' => '10 A', 'resistance' => '8 mΩ']),
                    Examples::part('bed', 'heater', ['rated_power' => '100 W', 'rated_voltage' => '24 V']),
                ],
                [
                    'leads' => [
                        $lead('A', 'psu.out', 'fuse.in', '1.5 mm²', '0.6 m'),
                        $lead('B', 'fuse.out', 'bed.power', '0.5 mm²', '2 m'),
                    ],
                ],
            ) + [
                'site' => ['ambient' => '20 °C'],
                'magpie' => 1,
                'build' => ['name' => 'N', 'kind' => 'n', 'currency' => 'GBP'],
            ],
        );
        $survey = new Survey($build);
        $inquiry = Inquiry::forFigures($survey, new Subject('lead', 'B', 'B'));
        $fault = FaultCurrent::of($inquiry, $survey, $build->leads['B']);
        $spice = $this->ngspice(
            "short\nV1 1 0 24\nRA 1 2 ".
                13.3e-3 * 2 * 0.6.
                "\nRF 2 3 0.008\nRB 3 4 ".
                39.0e-3 * 2 * 2 .
                "\nRS 4 0 1e-9\n.op\n.control\nrun\nprint i(V1)\nquit\n.endc\n.end\n",
        );

        self::assertEqualsWithDelta(-$spice['i(v1)'], $fault->least, 0.1);
    }

    public function test_the_netlists_of_the_demos_give_every_load_the_same_volts(): void
    {
        foreach (['linnet', 'dunlin'] as $name) {
            $circuits = new Circuits(
                BuildFile::read((string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json")),
            );
            foreach ($circuits->scenarios() as $scenario) {
                $flow = $circuits->in($scenario);
                $found = $this->ngspice((new Netlist($circuits))->of($scenario));
                self::assertGreaterThan(14, count($found), "{$name}, {$scenario->name}");
                foreach ($found as $node => $volts) {
                    self::assertEqualsWithDelta(
                        $volts,
                        $flow->volts((int) (int) substr($node, 3))->in('V'),
                        abs($volts) * 1e-3,
                        "{$name}, {$scenario->name}, {$node}",
                    );
                }
            }
        }
    }

    /**
     * @return array<string, float>
     */
    private function ngspice(string $netlist): array
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'magpie');
        file_put_contents($file, $netlist);
        $output = (string) shell_exec('ngspice -b '.escapeshellarg($file).' 2>/dev/null');
        unlink($file);
        preg_match_all('/^([vi]\([\w]+\)) = (\S+)/mi', $output, $found, PREG_SET_ORDER);
        self::assertNotSame([], $found, "ngspice said: {$output}");

        return array_column(array_map(static fn (array $m): array => [strtolower($m[1]), (float) $m[2]], $found), 1, 0);
    }
}
