<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Scope;

use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Checks that hold the machine against its brief and its place. */
final class PlaceTest extends TestCase
{
    /**
     * Door-fit by trying every way of turning a box.
     */
    public function test_a_door_is_passed_when_some_way_of_turning_the_machine_passes_it(): void
    {
        $die = 7;
        $roll = static function (int $from, int $to) use (&$die): int {
            $die = ($die * 1103515245 + 12345) % 2147483648;

            return $from + (intdiv($die, 65536) % ($to - $from));
        };
        for ($i = 0; $i < 60; $i++) {
            $box = [$roll(300, 2200), $roll(300, 1200), $roll(300, 1200)];
            [$w, $h] = [$roll(500, 1200), $roll(1500, 2200)];
            $passes = false;
            foreach ([[0, 1], [1, 0], [0, 2], [2, 0], [1, 2], [2, 1]] as [$a, $b]) {
                $passes = $passes || ($box[$a] <= $w && $box[$b] <= $h);
            }
            $finding = (new SampleBuild([
                'brief' => [
                    'outline' => [
                        'length' => "{$box[0]} mm",
                        'width' => "{$box[1]} mm",
                        'height' => "{$box[2]} mm",
                        'evidence' => 'measured',
                    ],
                ],
                'site' => ['door' => ['width' => "{$w} mm", 'height' => "{$h} mm"]],
            ]))->finding('M02/door');

            self::assertSame(
                $passes,
                $finding->verdict !== Verdict::Fails,
                implode(' × ', $box)." through {$w} × {$h}: {$finding->headline}",
            );
        }
    }

    public function test_an_outline_that_is_only_assumed_proves_nothing(): void
    {
        $file = [
            'brief' => [
                'outline' => ['length' => '600 mm', 'width' => '500 mm', 'height' => '400 mm', 'mass' => '20 kg'],
            ],
            'site' => [
                'door' => ['width' => '740 mm', 'height' => '1940 mm'],
                'bench' => ['length' => '1 m', 'width' => '70 cm', 'load' => '60 kg'],
                'room' => ['length' => '3 m', 'width' => '2 m'],
                'service' => '300 mm',
            ],
        ];
        foreach (['door', 'bench', 'load', 'room'] as $place) {
            $finding = (new SampleBuild($file))->finding("M02/{$place}");
            self::assertSame(
                [Verdict::Unproven, Verdict::Holds],
                [$finding->verdict, $finding->otherwise],
                $finding->headline,
            );
        }
        unset($file['brief']['outline']['height']);
        self::assertContains('outer height of the machine', (new SampleBuild($file))->finding('M02/door')->missing);
        $file['brief']['outline']['height'] = '400 mm';
        $file['site']['room'] = ['length' => '1 m', 'width' => '1 m'];
        self::assertSame(
            Verdict::Fails,
            (new SampleBuild($file))->finding('M02/room')->verdict,
            '600 and 300 on each side want 1.2 m.',
        );
    }

    /**
     * A machine of 600 × 500 × 400 mm and 48 kg, at the edges: 20 mm to spare, and 80 % of a bench's load.
     *
     * @return iterable<string, array{string, array<string, mixed>, Verdict}>
     */
    public static function edges(): iterable
    {
        foreach (
            [
                ['620 mm', '520 mm', Verdict::Holds],
                ['619 mm', '520 mm', Verdict::Tight],
                ['620 mm', '519 mm', Verdict::Tight],
                ['600 mm', '500 mm', Verdict::Tight],
                ['599 mm', '520 mm', Verdict::Fails],
                ['520 mm', '620 mm', Verdict::Holds],
            ] as [$l, $w, $verdict]
        ) {
            yield "bench {$l} × {$w}" => ['bench', ['bench' => ['length' => $l, 'width' => $w]], $verdict];
        }
        foreach (
            [
                ['1220 mm', '1120 mm', Verdict::Holds],
                ['1219 mm', '1120 mm', Verdict::Tight],
                ['1199 mm', '1120 mm', Verdict::Fails],
                ['1220 mm', '1099 mm', Verdict::Fails],
            ] as [$l, $w, $verdict]
        ) {
            $site = ['room' => ['length' => $l, 'width' => $w], 'service' => '300 mm'];
            yield "room {$l} × {$w}" => ['room', $site, $verdict];
        }
        foreach (
            ['60 kg' => Verdict::Holds, '59 kg' => Verdict::Tight, '48 kg' => Verdict::Tight, '47 kg' => Verdict::Fails] as $load => $verdict
        ) {
            yield "bench for {$load}" => ['load', ['bench' => ['load' => (string) $load]], $verdict];
        }
        // Nobody has measured the door, and whoever has an outside has to get it through one.
        yield 'no door' => ['door', [], Verdict::Unproven];
    }

    /**
     * @param  array<string, mixed>  $site
     */
    #[DataProvider('edges')]
    public function test_places_at_their_edges(string $place, array $site, Verdict $verdict): void
    {
        $outline = [
            'length' => '600 mm',
            'width' => '500 mm',
            'height' => '400 mm',
            'mass' => '48 kg',
            'evidence' => 'measured',
        ];
        $finding = (new SampleBuild(['brief' => ['outline' => $outline], 'site' => $site]))->finding("M02/{$place}");

        self::assertSame($verdict, $finding->verdict, $finding->headline);
    }

    /**
     * @return iterable<string, array{string, string, string, Verdict}>
     */
    public static function travels(): iterable
    {
        // Rail 400, one block of 58, stops of 16: 326 left.
        yield 'sold as 400, stops at 326' => [
            '400 mm',
            '310 mm',
            "326\u{a0}mm of travel are left; Board with its margins asks for 330\u{a0}mm. 4\u{a0}mm are missing. It is sold as 400\u{a0}mm.",
            Verdict::Fails,
        ];
        yield 'to the millimetre' => ['400 mm', '306 mm', "asks for 326\u{a0}mm.", Verdict::Tight];
        yield 'with room' => ['400 mm', '299 mm', "asks for 319\u{a0}mm.", Verdict::Holds];
        yield 'a rail in inches' => ['20 in', '299 mm', "434\u{a0}mm of travel are left", Verdict::Holds];
    }

    #[DataProvider('travels')]
    public function test_travel_is_what_is_left_when_everything_took_its_share(
        string $rail,
        string $piece,
        string $says,
        Verdict $verdict,
    ): void {
        $finding = $this->travel(['length' => $rail, 'block_length' => '58 mm'], ['length' => $piece])->finding(
            'M01/x',
        );

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, $finding->headline);
    }

    public function test_travel_names_what_it_lacks(): void
    {
        self::assertSame(
            ['block length of rail'],
            $this->travel(['length' => '400 mm'], [])->finding('M01/x')->missing,
        );
        self::assertSame(
            ['size of the largest workpiece along x'],
            $this->travel(['length' => '400 mm', 'block_length' => '58 mm'], null)->finding('M01/x')->missing,
        );
        self::assertSame(
            ['distance between the blocks of X'],
            $this->travel(['length' => '400 mm', 'block_length' => '58 mm'], [], ['blocks' => 2])->finding('M01/x')
                ->missing,
        );
    }

    /**
     * @return iterable<string, array{string, array<string, string>, Verdict}>
     */
    public static function plates(): iterable
    {
        // Common practice: 300 gives 320 and 280.
        yield 'the usual sheet' => ['build_sheet', ['length' => '320 mm', 'width' => '320 mm'], Verdict::Holds];
        yield 'a sheet without a rim' => ['build_sheet', ['length' => '305 mm', 'width' => '320 mm'], Verdict::Tight];
        yield 'a sheet too small' => ['build_sheet', ['length' => '320 mm', 'width' => '299 mm'], Verdict::Fails];
        yield 'the usual heater' => [
            'heater',
            ['heated_width' => '280 mm', 'heated_depth' => '280 mm', 'place' => 'bed'],
            Verdict::Holds,
        ];
        yield 'a heater beyond the work area' => [
            'heater',
            ['heated_width' => '310 mm', 'heated_depth' => '310 mm', 'place' => 'bed'],
            Verdict::Holds,
        ];
        yield 'a heater beyond it one way, and short the other' => [
            'heater',
            ['heated_width' => '310 mm', 'heated_depth' => '270 mm', 'place' => 'bed'],
            Verdict::Tight,
        ];
        yield 'a heater that leaves cold edges' => [
            'heater',
            ['heated_width' => '250 mm', 'heated_depth' => '250 mm', 'place' => 'bed'],
            Verdict::Tight,
        ];
        yield 'a heater for another machine' => [
            'heater',
            ['heated_width' => '200 mm', 'heated_depth' => '200 mm', 'place' => 'bed'],
            Verdict::Fails,
        ];
        yield 'a heater of unknown size' => ['heater', ['place' => 'bed'], Verdict::Unproven];
    }

    /**
     * @param  array<string, string>  $specs
     */
    #[DataProvider('plates')]
    public function test_sheets_and_heaters_follow_the_work_area(string $family, array $specs, Verdict $verdict): void
    {
        self::assertSame(
            $verdict,
            (new SampleBuild(
                Examples::file(
                    [Examples::part('p', $family, $specs)],
                    ['brief' => ['size' => ['x' => '300 mm', 'y' => '300 mm']]],
                ),
            ))->finding('M15/p')->verdict,
        );
    }

    /**
     * @return iterable<string, array{array<string, string>, Verdict, string}>
     */
    public static function outlets(): iterable
    {
        // 1800 W of heat out of a supply of 90 % and power factor 1: 2000 VA. E15's limits: 10.4 A of 13, 12 A of 15,
        // 12.8 A of 16.
        yield '230 V, 13 A' => [['mains_voltage' => '230 V', 'outlet' => '13 A'], Verdict::Holds, "10.4\u{a0}A"];
        yield '230 V, 13 A, beside 2 A' => [
            ['mains_voltage' => '230 V', 'outlet' => '13 A', 'other_load' => '2 A'],
            Verdict::Tight,
            "10.4\u{a0}A",
        ];
        yield '230 V, 16 A, beside 2 A' => [
            ['mains_voltage' => '230 V', 'outlet' => '16 A', 'other_load' => '2 A'],
            Verdict::Holds,
            "12.8\u{a0}A",
        ];
        yield '120 V, 15 A' => [['mains_voltage' => '120 V', 'outlet' => '15 A'], Verdict::Fails, "12\u{a0}A"];
        yield '120 V, 20 A' => [['mains_voltage' => '120 V', 'outlet' => '20 A'], Verdict::Tight, "16\u{a0}A"];
    }

    /**
     * @param  array<string, string>  $site
     */
    #[DataProvider('outlets')]
    public function test_the_whole_machine_hangs_on_one_outlet(array $site, Verdict $verdict, string $limit): void
    {
        $finding = $this->heated($site + ['other_load' => '0 A', 'ambient' => '25 °C'])->finding('E15/run');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString("{$limit} for continuous use", $finding->headline);
    }

    public function test_nothing_about_the_mains_holds_on_what_is_not_said(): void
    {
        foreach (['outlet', 'other_load'] as $lacking) {
            $site = array_diff_key(
                ['mains_voltage' => '230 V', 'outlet' => '16 A', 'other_load' => '0 A', 'ambient' => '25 °C'],
                [$lacking => 0],
            );
            self::assertSame(Verdict::Unproven, $this->heated($site)->finding('E15/run')->verdict, $lacking);
        }
        $inlet = Examples::file([Examples::part('inlet', 'mains_inlet', [])]);
        self::assertSame(Verdict::Unproven, (new SampleBuild($inlet))->finding('E14-hands/inlet')->verdict);
        self::assertSame(
            Verdict::Holds,
            (new SampleBuild($inlet + ['brief' => ['experience' => ['mains' => 'practised']]]))->finding(
                'E14-hands/inlet',
            )->verdict,
        );
    }

    public function test_small_things_want_spares(): void
    {
        // 20 screws: two spares. Packs of 25 leave five; another need of the same part shares them.
        $file = [
            'parts' => [['ref' => 's', 'family' => 'screw', 'name' => 'S']],
            'needs' => [
                [
                    'ref' => 'a',
                    'role' => 'A',
                    'family' => 'screw',
                    'quantity' => 20,
                    'candidates' => ['s'],
                    'choice' => 's',
                ],
            ],
            'suppliers' => [['ref' => 'shop', 'name' => 'Shop', 'currency' => 'GBP']],
            'offers' => [
                [
                    'ref' => 'o',
                    'part' => 's',
                    'supplier' => 'shop',
                    'price' => '2',
                    'pack' => 25,
                    'date' => '2026-11-01',
                ],
            ],
        ];
        self::assertStringContainsString('20 needed, 5 to spare', (new SampleBuild($file))->finding('S07/a')->headline);
        $file['needs'][] = [
            'ref' => 'b',
            'role' => 'B',
            'family' => 'screw',
            'quantity' => 5,
            'candidates' => ['s'],
            'choice' => 's',
        ];
        self::assertSame(Verdict::Tight, (new SampleBuild($file))->finding('S07/a')->verdict);
        $file['needs'][0]['spares'] = '10 %';
        self::assertSame(Verdict::Holds, (new SampleBuild($file))->finding('S07/a')->verdict);
    }

    /**
     * @param  array<string, string>  $site
     */
    private function heated(array $site): SampleBuild
    {
        return new SampleBuild(
            Examples::file(
                [
                    Examples::part('inlet', 'mains_inlet', ['rated_current' => '20 A']),
                    Examples::part('psu', 'power_supply', [
                        'output_voltage' => '48 V',
                        'rated_current' => '60 A',
                        'efficiency' => '90 %',
                        'power_factor' => '1',
                    ]),
                    Examples::part('bed', 'heater', ['rated_voltage' => '48 V', 'rated_power' => '1800 W']),
                ],
                [
                    'site' => $site,
                    'leads' => [
                        ['ref' => 'W0', 'from' => 'inlet.out', 'to' => 'psu.mains'],
                        ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power'],
                    ],
                    'scenarios' => [['ref' => 'run', 'name' => 'Run', 'loads' => ['bed' => '100 %']]],
                ],
            ),
        );
    }

    /**
     * @param  array<string, string>  $rail
     * @param  array<string, string>|null  $piece
     * @param  array<string, mixed>  $axis
     */
    private function travel(array $rail, ?array $piece, array $axis = []): SampleBuild
    {
        return new SampleBuild(
            Examples::file(
                [Examples::part('rail', 'linear_rail', $rail)],
                [
                    'axes' => [
                        $axis + [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'rail' => 'rail',
                            'takes' => [['what' => 'Stops', 'length' => '16 mm', 'evidence' => 'measured']],
                            'advertised' => '400 mm',
                        ],
                    ],
                    'workpieces' => $piece === null
                            ? []
                            : [
                                $piece + [
                                    'ref' => 'w',
                                    'name' => 'Board',
                                    'length' => '300 mm',
                                    'width' => '90 mm',
                                    'height' => '9 mm',
                                ],
                            ],
                ],
            ),
        );
    }

    public function test_the_door_against_every_way_round(): void
    {
        // Brute force: the machine is turned all six ways and held against the opening.
        $die = new \Random\Randomizer(new \Random\Engine\Mt19937(7));
        for ($i = 0; $i < 120; $i++) {
            [$l, $w, $h, $dw, $dh] = [
                $die->getInt(300, 1400),
                $die->getInt(300, 1400),
                $die->getInt(300, 1400),
                $die->getInt(600, 1000),
                $die->getInt(600, 2100),
            ];
            $goes = false;
            foreach ([[$l, $w], [$w, $l], [$l, $h], [$h, $l], [$w, $h], [$h, $w]] as [$across, $tall]) {
                $goes = $goes || ($across <= $dw && $tall <= $dh);
            }
            $finding = (new SampleBuild([
                'brief' => [
                    'outline' => [
                        'length' => "{$l} mm",
                        'width' => "{$w} mm",
                        'height' => "{$h} mm",
                        'mass' => '20 kg',
                        'evidence' => 'measured',
                    ],
                ],
                'site' => ['door' => ['width' => "{$dw} mm", 'height' => "{$dh} mm"]],
            ]))->finding('M02/door');
            self::assertSame(
                $goes,
                $finding->verdict !== Verdict::Fails,
                "{$l} × {$w} × {$h} through {$dw} × {$dh}: {$finding->headline}",
            );
        }
    }
}
