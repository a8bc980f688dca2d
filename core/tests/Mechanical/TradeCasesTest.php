<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Mechanical;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Mechanical\Rules\ScrewSpeed;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\UnknownUnit;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\TestCase;

/** Mechanical, thermal and written cases from the trade, each of which was judged or read wrong once. */
final class TradeCasesTest extends TestCase
{
    private static function assertSays(Verdict $verdict, string $says, Finding $finding): void
    {
        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, str_replace("\u{a0}", ' ', $finding->headline));
    }

    public function test_a_print_meets_at_least_the_air_it_stands_in(): void
    {
        $in = static fn (?string $air): SampleBuild => new SampleBuild(
            Examples::file(
                [Examples::part('corner', 'printed_part', ['material' => 'PETG', 'service_temperature' => '40 °C'])],
                [
                    'zones' => $air === null
                            ? []
                            : [
                                [
                                    'ref' => 'chamber',
                                    'name' => 'Chamber',
                                    'kind' => 'chamber',
                                    'temperature' => $air,
                                    'evidence' => 'measured',
                                    'holds' => ['corner'],
                                ],
                            ],
                ],
            ),
        );

        // PETG 80 °C: to 60 °C it holds, to 70 °C it is tight. M13 and T04 say the same of the same air.
        self::assertSame(Verdict::Holds, $in(null)->finding('M13/corner')->verdict);
        foreach (
            ['59 °C' => Verdict::Holds, '65 °C' => Verdict::Tight, '71 °C' => Verdict::Fails] as $air => $verdict
        ) {
            self::assertSame($verdict, $in($air)->finding('M13/corner')->verdict, $air);
            self::assertSame($verdict, $in($air)->finding('T04/chamber')->verdict, $air);
        }
    }

    public function test_filament_is_counted_by_colour_and_over_all_reels_of_it(): void
    {
        $print = static fn (string $ref, string $mass, ?string $colour): array => Examples::part(
            $ref,
            'printed_part',
            ['material' => 'PETG', 'mass' => $mass] + ($colour === null ? [] : ['colour' => $colour]),
        );
        $reel = static fn (string $ref, string $colour): array => Examples::part($ref, 'filament', [
            'material' => 'PETG',
            'mass' => '1 kg',
            'colour' => $colour,
        ]);
        $build = static fn (?string $second): SampleBuild => new SampleBuild(
            Examples::file([
                $print('a', '700 g', 'black'),
                $print('b', '700 g', $second),
                $reel('r1', 'Black'),
                $reel('r2', 'orange'),
            ]),
        );

        // 1.54 kg in all. In two colours 0.77 kg of each; in one, more than its reel has; unsaid, of two reels together.
        self::assertSame(Verdict::Holds, $build('orange')->finding('M14/r1')->verdict);
        self::assertSays(Verdict::Fails, 'of black PETG are wanted', $build('black')->finding('M14/r1'));
        self::assertSays(Verdict::Holds, '2000 g are on its reels', $build(null)->finding('M14/r2'));
    }

    public function test_less_than_the_wanted_gap_fails_unless_it_is_only_preferred(): void
    {
        $gap = static fn (string $from, bool $preference): Finding => (new SampleBuild([
            'clearances' => [
                [
                    'ref' => 'C1',
                    'name' => 'Bolt and screw',
                    'between' => [
                        ['what' => 'Bolt', 'x' => '0 mm to 10 mm'],
                        ['what' => 'Screw', 'x' => "{$from} to 30 mm"],
                    ],
                    'least' => '3 mm',
                    'evidence' => 'measured',
                    'preference' => $preference,
                ],
            ],
        ]))->finding('M11/C1');

        self::assertSame(Verdict::Holds, $gap('14 mm', false)->verdict);
        self::assertSame(Verdict::Tight, $gap('13 mm', false)->verdict);
        self::assertSame(Verdict::Fails, $gap('12 mm', false)->verdict);
        self::assertSame(Verdict::Tight, $gap('12 mm', true)->verdict);
        self::assertSame(Verdict::Fails, $gap('9 mm', true)->verdict);
    }

    public function test_a_screw_into_an_insert_may_stand_into_the_room_behind_it(): void
    {
        $into = static fn (array $more): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('a', 'plate', []),
                    Examples::part('b', 'plate', []),
                    Examples::part('s', 'screw', ['thread' => 'M3', 'length' => '12 mm']),
                ],
                [
                    'mates' => [
                        [
                            'ref' => 'm',
                            'kind' => 'bolted',
                            'between' => ['a', 'b'],
                            'screws' => [
                                $more + [
                                    'screw' => 's',
                                    'count' => 2,
                                    'clamped' => ['4 mm'],
                                    'into' => 'insert',
                                    'depth' => '6 mm',
                                    'evidence' => 'measured',
                                ],
                            ],
                        ],
                    ],
                ],
            ),
        ))->finding('M10/m/0');

        self::assertSays(Verdict::Fails, '2 mm too long', $into([]));
        self::assertSame(Verdict::Holds, $into(['room' => '3 mm'])->verdict);
        // 12 mm less 10 clamped: 2 of thread, where M3 in brass wants one and a half times its diameter.
        self::assertSays(
            Verdict::Fails,
            'Too short by 2.5 mm: 2 mm of thread where 4.5 mm',
            $into(['clamped' => ['10 mm']]),
        );
    }

    public function test_a_spindle_below_its_top_speed_has_less_power(): void
    {
        $with = static fn (string $most): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('spindle', 'spindle', [
                        'rated_power' => '500 W',
                        'collet_largest' => '6 mm',
                        'lowest_speed' => '3000 rpm',
                        'top_speed' => '24000 rpm',
                    ]),
                    Examples::part('mill', 'cutter', ['shank' => '6 mm', 'top_speed' => $most]),
                ],
                [
                    'brief' => ['process' => 'cutting', 'flow' => '300 mm³/s'],
                    'workpieces' => [['ref' => 'w', 'name' => 'Plate', 'material' => 'aluminium']],
                ],
            ),
        ))->finding('M08/mill');

        // 300 mm³/s of aluminium ask for 330 W: of 500 W at 24 000 rpm, and of 250 W at half of that.
        self::assertSays(Verdict::Holds, 'the spindle has 500 W', $with('30000 rpm'));
        self::assertSays(Verdict::Fails, 'the spindle has 250 W', $with('12000 rpm'));
    }

    public function test_two_screws_share_the_push_of_their_axis(): void
    {
        $push = static function (int $screws): float {
            $file = BuildFile::data((new ScrewSpeed)->examples()->holding());
            foreach ($file['needs'] as $i => $need) {
                $file['needs'][$i]['quantity'] = $need['family'] === 'drive_screw' ? $screws : 1;
            }
            foreach ((new SampleBuild($file))->finding('M05/'.$file['axes'][0]['ref'])->working as $step) {
                if (str_starts_with($step->label, 'Largest push')) {
                    return $step->result?->in('N') ?? 0.0;
                }
            }
            self::fail('Nothing pushes.');
        };

        self::assertEqualsWithDelta($push(1) / 2, $push(2), 1e-9);
    }

    public function test_a_beam_is_as_long_as_it_may_be_and_of_what_it_is_made(): void
    {
        $bend = static function (array $sheet): float {
            [$part, $need] = Examples::part('beam', 'extrusion', ['second_moment' => '7300 mm⁴']);
            $part['specs'] = $sheet + $part['specs'];
            $finding = (new SampleBuild(
                Examples::file(
                    [[$part, $need]],
                    [
                        'brief' => ['accuracy' => '1 mm'],
                        'axes' => [
                            [
                                'ref' => 'x',
                                'name' => 'X',
                                'along' => 'x',
                                'drive' => ['beam' => 'beam', 'force' => '100 N', 'evidence' => 'measured'],
                            ],
                        ],
                    ],
                ),
            ))->finding('M12/x');
            foreach ($finding->working as $step) {
                if ($step->label === 'It bends in the middle') {
                    return $step->result?->in('mm') ?? 0.0;
                }
            }
            self::fail($finding->headline);
        };
        $length = static fn (string $of, array $more = []): array => [
            'length' => ['value' => $of, 'evidence' => 'datasheet'] + $more,
        ];

        // 100 N on 500 mm of I 7300 mm⁴: 0.51 mm in aluminium, a third of that in steel.
        self::assertEqualsWithDelta(0.51, $bend($length('500 mm')), 0.005);
        self::assertEqualsWithDelta(
            $bend($length('500 mm')) / 3,
            $bend($length('500 mm') + Examples::sheet(['material' => 'steel'])),
            1e-6,
        );
        self::assertEqualsWithDelta(
            $bend($length('550 mm')),
            $bend($length('500 mm', ['tolerance' => '10 %'])),
            1e-6,
            'What may be longer bends more.',
        );
    }

    public function test_a_share_of_a_temperature_is_of_the_number_that_is_written(): void
    {
        $spec = static fn (string $value): Spec => new Spec(
            'target',
            Quantity::parse($value, Dimension::Temperature),
            Evidence::Datasheet,
            tolerance: Quantity::ratio(0.05),
        );

        self::assertEqualsWithDelta(68.25, $spec('65 °C')->highest()?->in('°C'), 1e-9);
        self::assertEqualsWithDelta(61.75, $spec('65 °C')->mostStood()?->in('°C'), 1e-9);
        self::assertEqualsWithDelta(210, $spec('200 °F')->highest()?->in('°F'), 1e-9);
    }

    public function test_a_difference_of_temperature_is_no_temperature(): void
    {
        self::assertEqualsWithDelta(10, Quantity::parse('10 °C', Dimension::TemperatureDifference)->in('K'), 1e-9);
        self::assertEqualsWithDelta(50 / 9, Quantity::parse('10 °F', Dimension::TemperatureDifference)->in('K'), 1e-9);
        self::assertEqualsWithDelta(-12.222, Quantity::parse('10 °F', Dimension::Temperature)->in('°C'), 1e-3);
    }

    public function test_mega_is_never_read_as_milli(): void
    {
        self::assertEqualsWithDelta(5000, Quantity::parse('5 KHZ', Dimension::Frequency)->in('Hz'), 1e-9);
        self::assertEqualsWithDelta(12, Quantity::parse('12 MM', Dimension::Length)->in('mm'), 1e-9);
        self::assertEqualsWithDelta(2e6, Quantity::parse('2 MOHM', Dimension::Resistance)->in('Ω'), 1e-3);
        foreach (
            ['5 MV' => Dimension::Voltage, '5 mHz' => Dimension::Frequency, '500 MA' => Dimension::Current] as $text => $of
        ) {
            try {
                Quantity::parse($text, $of);
                self::fail("{$text} was taken.");
            } catch (UnknownUnit $e) {
                self::assertStringContainsString('M is mega, m is milli', $e->getMessage());
            }
        }
    }
}
