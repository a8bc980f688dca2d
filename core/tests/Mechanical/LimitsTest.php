<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Mechanical;

use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class LimitsTest extends TestCase
{
    /**
     * @return iterable<string, array{string, string, array<string, mixed>, Verdict, string}>
     */
    public static function screws(): iterable
    {
        $into = static fn (array $more): array => $more + [
            'clamped' => ['10 mm'],
            'washers' => ['1 mm'],
            'evidence' => 'measured',
        ];
        // Engagement: 1 d steel, 1.5 d brass and cast, 2 d aluminium (common practice). 11 mm are taken up.
        yield 'M5 in steel, 5 mm wanted, 5 given' => [
            'M5',
            '16 mm',
            $into(['into' => 'tapped', 'material' => 'steel', 'depth' => '12 mm']),
            Verdict::Tight,
            'gives',
        ];
        yield 'M5 in brass, 7.5 wanted, 5 given' => [
            'M5',
            '16 mm',
            $into(['into' => 'tapped', 'material' => 'brass', 'depth' => '12 mm']),
            Verdict::Fails,
            'M5 × 20 fits',
        ];
        yield 'M5 in aluminium, 10 wanted, 9 given' => [
            'M5',
            '20 mm',
            $into(['into' => 'tapped', 'material' => 'aluminium', 'depth' => '15 mm']),
            Verdict::Fails,
            'M5 × 25 fits',
        ];
        yield 'it bottoms by a millimetre' => [
            'M5',
            '25 mm',
            $into(['into' => 'tapped', 'material' => 'aluminium', 'depth' => '13 mm']),
            Verdict::Fails,
            'bottoms',
        ];
        yield 'it just does not bottom' => [
            'M5',
            '25 mm',
            $into(['into' => 'tapped', 'material' => 'aluminium', 'depth' => '14 mm']),
            Verdict::Holds,
            'gives',
        ];
        // Nut and one pitch: M5 4.7 + 0.8 = 5.5 mm (ISO 4032, ISO 261).
        yield 'too short for its nut' => [
            'M5',
            '16 mm',
            $into(['into' => 'nut', 'room' => '8 mm']),
            Verdict::Fails,
            'Too short',
        ];
        yield 'through its nut' => [
            'M5',
            '20 mm',
            $into(['into' => 'nut', 'room' => '8 mm']),
            Verdict::Holds,
            'nut and one pitch',
        ];
        yield 'it stands out into what moves' => [
            'M5',
            '25 mm',
            $into(['into' => 'nut', 'room' => '5 mm']),
            Verdict::Fails,
            'what moves there',
        ];
        yield 'room not known' => [
            'M5',
            '20 mm',
            $into(['into' => 'nut']),
            Verdict::Unproven,
            'free room behind the nut',
        ];
        yield 'thickness assumed' => [
            'M5',
            '20 mm',
            ['evidence' => 'assumed'] + $into(['into' => 'nut', 'room' => '8 mm']),
            Verdict::Unproven,
            'assumed',
        ];
        yield 'material not known' => [
            'M5',
            '20 mm',
            $into(['into' => 'tapped', 'depth' => '12 mm']),
            Verdict::Unproven,
            'material',
        ];
        // A motor's face: tapped 4.5 mm deep in aluminium, where twice the diameter is usual, 6 mm. Half of that holds.
        $face = ['clamped' => ['6 mm'], 'into' => 'tapped', 'material' => 'aluminium', 'depth' => '4.5 mm', 'evidence' => 'measured'];
        yield 'a hole less deep than is usual' => ['M3', '10 mm', $face, Verdict::Tight, '4 mm of thread, in a hole of 4.5 mm'];
        yield 'less than one diameter in it' => ['M3', '8 mm', $face, Verdict::Fails, 'Too short by 1 mm'];
        yield 'to its bottom' => ['M3', '12 mm', $face, Verdict::Fails, '1.5 mm too long. M3 × 10 fits'];
        yield 'a hole that holds nothing' => [
            'M3',
            '8 mm',
            ['depth' => '2.5 mm'] + $face,
            Verdict::Fails,
            'No length fits: 3 mm of thread is the least, and there is room for 2.5 mm',
        ];
        yield 'half of what plastic wants is more than a diameter' => [
            'M4',
            '12 mm',
            ['material' => 'plastic', 'depth' => '7 mm'] + $face,
            Verdict::Tight,
            '6 mm of thread, in a hole of 7 mm: 10 mm is usual',
        ];
        // What stands out behind an insert of 4 mm holds nothing: 4 of 6, where brass wants 4.5.
        $insert = ['into' => 'insert', 'material' => 'brass', 'depth' => '4 mm', 'room' => '3 mm'] + $face;
        yield 'through a short insert' => ['M3', '12 mm', $insert, Verdict::Tight, '4 mm of thread, in a hole of 4 mm'];
        yield 'through a long one' => ['M3', '12 mm', ['depth' => '5 mm'] + $insert, Verdict::Holds, '4.5 mm is wanted'];
        // 6 + 4.5 = 10.5 to 6 + 5 = 11: none is sold between, 12 with 1 mm more under its head.
        yield 'no length between' => [
            'M3',
            '10 mm',
            ['depth' => '5 mm', 'room' => '0 mm'] + $insert,
            Verdict::Fails,
            'M3 × 12 fits with 1 mm more clamped, such as a washer',
        ];
        yield 'imperial thickness' => [
            'M4',
            '16 mm',
            [
                'clamped' => ['1/4 in'],
                'into' => 'tapped',
                'material' => 'aluminium',
                'depth' => '12 mm',
                'evidence' => 'measured',
            ],
            Verdict::Holds,
            '8',
        ];
    }

    /**
     * @param  array<string, mixed>  $stack
     */
    #[DataProvider('screws')]
    public function test_a_screw_holds_only_when_it_is_long_enough_and_short_enough(
        string $thread,
        string $length,
        array $stack,
        Verdict $verdict,
        string $says,
    ): void {
        $finding = (new SampleBuild(
            Examples::file(
                [
                    Examples::part('motor', 'stepper_motor', []),
                    Examples::part('plate', 'plate', []),
                    Examples::part('screw', 'screw', ['thread' => $thread, 'length' => $length]),
                ],
                [
                    'mates' => [
                        [
                            'ref' => 'm',
                            'kind' => 'mount',
                            'between' => ['motor', 'plate'],
                            'screws' => [$stack + ['screw' => 'screw', 'count' => 4]],
                        ],
                    ],
                ],
            ),
        ))->finding('M10/m/0');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, str_replace("\u{a0}", ' ', $finding->headline));
    }

    /**
     * @return iterable<string, array{string, string, Verdict}>
     */
    public static function plastics(): iterable
    {
        // 20 K under its glass transition holds, 10 K is the least; PLA 60, PETG 80, ABS 105, ASA 100, PC 147 °C.
        yield 'PETG at 60' => ['PETG', '60 °C', Verdict::Holds];
        yield 'PETG a little over' => ['PETG', '60.5 °C', Verdict::Tight];
        yield 'PETG at 70' => ['PETG', '70 °C', Verdict::Tight];
        yield 'PETG over 70' => ['PETG', '70.5 °C', Verdict::Fails];
        yield 'PLA on a spindle clamp' => ['PLA', '65 °C', Verdict::Fails];
        yield 'ASA there' => ['ASA', '65 °C', Verdict::Holds];
        yield 'ABS by a hot motor' => ['ABS', '90 °C', Verdict::Tight];
        yield 'PC there' => ['PC', '127 °C', Verdict::Holds];
        yield 'nylon, whose transition is not in the table' => ['PA', '30 °C', Verdict::Unproven];
    }

    #[DataProvider('plastics')]
    public function test_a_printed_part_keeps_its_distance_from_where_it_softens(
        string $material,
        string $service,
        Verdict $verdict,
    ): void {
        $build = new SampleBuild(
            Examples::file([
                Examples::part('clamp', 'printed_part', ['material' => $material, 'service_temperature' => $service]),
            ]),
        );

        self::assertSame($verdict, $build->finding('M13/clamp')->verdict);
    }

    public function test_a_sheets_own_glass_transition_outranks_the_usual_one(): void
    {
        $build = new SampleBuild(
            Examples::file([
                Examples::part('clamp', 'printed_part', [
                    'material' => 'PA',
                    'service_temperature' => '60 °C',
                    'glass_transition' => '82 °C',
                ]),
            ]),
        );

        self::assertSame(Verdict::Holds, $build->finding('M13/clamp')->verdict);
    }
}
