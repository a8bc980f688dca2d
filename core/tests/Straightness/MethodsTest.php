<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Straightness;

use Magpie\Core\Straightness\CannotAlign;
use Magpie\Core\Straightness\Methods;
use Magpie\Core\Straightness\Outcome;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Alignments worked from readings: the handbook's worked examples (C2 to C8), and what cannot be worked is said at its field. */
final class MethodsTest extends TestCase
{
    /**
     * @param  array<string, string>  $given
     * @return array<string, float>
     */
    private static function figures(string $kind, array $given): array
    {
        return array_column(Methods::work($kind, $given)->figures, 'value', 'key');
    }

    public function test_worked_examples_of_the_handbook(): void
    {
        // C3: 1000 × 750, diagonals 1251 and 1249: 0.095°.
        $frame = self::figures('diagonals', ['a' => '1000 mm', 'b' => '750 mm', 'd1' => '1251 mm', 'd2' => '1249 mm']);
        self::assertEqualsWithDelta(0.0955, $frame['angle'], 0.0001);
        // C2: M4 has 0.7 mm a turn, so 0.35 mm is half a turn.
        $bed = self::figures('corners', [
            'x' => '0 300 300 0 mm',
            'y' => '0 0 300 300 mm',
            'z' => '0.35 0.00 0.00 0.35 mm',
            'pitch' => '0.7 mm',
        ]);
        self::assertEqualsWithDelta(0.5, $bed['turns2'], 1e-9);
        self::assertEqualsWithDelta(0.0, $bed['turns4'], 1e-9);
        self::assertEqualsWithDelta((-0.35 / 300) * 1000, $bed['across'], 1e-9);
        self::assertEqualsWithDelta(0.0, $bed['bend'], 1e-9);
        // RU-08: 0.5 mm over 800 mm is 0.036°, 0.63 mm/m.
        $gantry = self::figures('racking', ['ahead' => '0.5 mm', 'span' => '800 mm']);
        self::assertEqualsWithDelta(0.036, $gantry['angle'], 0.0005);
        self::assertEqualsWithDelta(0.625, $gantry['slope'], 1e-9);
        // C5: difference across the sweep over its diameter; the shim is the slope times the distance of the screws.
        $tram = self::figures('tram', [
            'diameter' => '200 mm',
            'left' => '0 mm',
            'right' => '0.06 mm',
            'front' => '0.02 mm',
            'back' => '0 mm',
            'screws' => '50 mm',
        ]);
        self::assertEqualsWithDelta(0.3, $tram['side'], 1e-9);
        self::assertEqualsWithDelta(-0.1, $tram['nod'], 1e-9);
        self::assertEqualsWithDelta(0.015, $tram['shim_side'], 1e-9);
        // C6: steps correction = old × commanded / measured.
        $steps = self::figures('pitch', ['commanded' => '0 100 200 mm', 'measured' => '0 99 198 mm', 'steps' => '80']);
        self::assertEqualsWithDelta((80 * 100) / 99, $steps['steps'], 1e-9);
        self::assertEqualsWithDelta(0.0, $steps['range'], 1e-9);
        $lost = self::figures('backlash', ['up' => '0.00 0.01 0.02 mm', 'down' => '0.05 0.06 0.07 mm']);
        self::assertEqualsWithDelta(0.05, $lost['lost'], 1e-9);
        self::assertEqualsWithDelta(0.02, $lost['spread'], 1e-9);
        self::assertEqualsWithDelta(
            0.1875,
            self::figures('cranks', ['distance' => '1.5 mm', 'lead' => '8 mm'])['turns'],
            1e-12,
        );
        $lean = self::figures('lean', [
            'top' => '0.30 mm',
            'bottom' => '0.05 mm',
            'height' => '200 mm',
            'screws' => '60 mm',
        ]);
        self::assertEqualsWithDelta(1.25, $lean['slope'], 1e-9);
        self::assertEqualsWithDelta(0.075, $lean['shim'], 1e-9);
    }

    /** new = old × told / fed; new = old × wanted / measured; K_u = 4d/πa: 50 % and 2 K are 31.8 %/K (C11). */
    public function test_what_tunes_from_a_few_readings(): void
    {
        $steps = self::figures('extruder', ['commanded' => '100 mm', 'fed' => '96 98 mm', 'steps' => '690']);
        self::assertEqualsWithDelta((690 * 100) / 97, $steps['steps'], 1e-9);
        $flow = self::figures('flow', ['wanted' => '0.45 mm', 'walls' => '0.47 0.49 0.48 0.48 mm', 'flow' => '98']);
        self::assertEqualsWithDelta((98 * 0.45) / 0.48, $flow['flow'], 1e-9);
        $head = Methods::work('floating-head', [
            'touches' => '2.1 2.2 mm',
            'trips' => '0.6 0.6 mm',
            'lets_go' => '0.9 1.0 mm',
            'wanted' => '3.8 mm',
        ]);
        self::assertEqualsWithDelta(1.55, $head->value('offset'), 1e-9);
        self::assertEqualsWithDelta(5.35, $head->value('retract'), 1e-9);
        self::assertEqualsWithDelta(0.35, $head->value('differential'), 1e-9);
        $loop = self::figures('relay', [
            'power' => '50',
            'peaks' => '202 °C',
            'troughs' => '198 °C',
            'period' => '20 s',
        ]);
        self::assertEqualsWithDelta(31.83, $loop['ultimate'], 0.01);
        self::assertEqualsWithDelta([19.1, 1.91, 47.75], [$loop['p'], $loop['i'], $loop['d']], 0.01);
        self::assertEqualsWithDelta(2.0, self::figures('extruder', ['commanded' => '100 mm', 'fed' => '96 98 mm'])['spread'], 1e-9);
        $several = self::figures('relay', ['power' => '50', 'peaks' => '202 203 °C', 'troughs' => '197 198 °C', 'period' => '20 22 s']);
        self::assertEqualsWithDelta([21.0, 200 / (M_PI * 2.5)], [$several['period'], $several['ultimate']], 1e-9);
        self::assertStringNotContainsString('trips before', Methods::work('floating-head', ['touches' => '0.6 mm', 'trips' => '0.6 mm', 'wanted' => '1 mm'])->says[0]);
        // T = 4 m l² f²: 8.4 g/m over 150 mm at 110 Hz pulls 9.15 N, at 104 Hz 8.18 N, a share of 1 − (104/110)² less.
        $pair = ['first' => '110 Hz', 'second' => '0.104 kHz', 'first_span' => '150 mm', 'second_span' => '15 cm'];
        $belts = Methods::work('belt-pair', $pair + ['mass' => '8.4 g']);
        self::assertEqualsWithDelta(100 * (1 - (104 / 110) ** 2), $belts->value('apart'), 1e-9);
        self::assertEqualsWithDelta(9.148, $belts->value('tension_first'), 0.001);
        self::assertEqualsWithDelta(110, $belts->value('note'), 1e-9);
        self::assertStringContainsString('second is slacker', $belts->says[0]);
        // A longer span sounds lower and pulls as hard.
        $longer = Methods::work('belt-pair', ['second' => '55 Hz', 'second_span' => '300 mm'] + $pair);
        self::assertStringContainsString('alike', $longer->says[0]);
        $upside = Methods::work('floating-head', ['touches' => '0.5 mm', 'trips' => '0.6 mm', 'wanted' => '3.8 mm']);
        self::assertStringContainsString('trips before it touches', $upside->says[0]);
    }

    public function test_a_slope_is_no_crookedness_and_a_bow_is(): void
    {
        $level = self::figures('straight', ['at' => '0 100 200 300 400 mm', 'height' => '0 0.1 0.2 0.3 0.4 mm']);
        self::assertEqualsWithDelta(0.0, $level['ends'], 1e-9);
        self::assertEqualsWithDelta(1.0, $level['slope'], 1e-9);
        self::assertStringContainsString(
            'best line: 0.2000 mm + 0.001000 × place',
            implode(' ', Methods::work('straight', ['at' => '100 200 300 mm', 'height' => '0.3 0.4 0.5 mm'])->working),
        );
        // A triangle of 0.06 mm in the middle: by its ends 0.06; off the best line 0.06 as well, shifted.
        $bow = self::figures('straight', ['at' => '0 100 200 mm', 'height' => '0 0.06 0 mm']);
        self::assertEqualsWithDelta(0.06, $bow['ends'], 1e-9);
        self::assertEqualsWithDelta(0.06, $bow['least'], 1e-9);
        $pair = self::figures('parallel', [
            'at' => '0 500 mm',
            'first' => '0.00 0.02 mm',
            'second' => '0.00 0.07 mm',
        ]);
        self::assertEqualsWithDelta(0.05, $pair['off'], 1e-9);
        self::assertEqualsWithDelta(0.1, $pair['slope'], 1e-9);
        self::assertEqualsWithDelta(0.0, $pair['rest'], 1e-9);
        $moved = Methods::work('tightened', ['at' => '0 100 mm', 'before' => '0 0 mm', 'after' => '0.02 -0.11 mm']);
        self::assertEqualsWithDelta(-0.11, $moved->value('moved'), 1e-9);
    }

    public function test_run_out_and_circle_find_what_was_put_in(): void
    {
        $angles = range(0, 345, 15);
        $dial = array_map(static fn (int $a): float => 0.5 + 0.03 * cos(deg2rad($a - 70)), $angles);
        $found = self::figures('run-out', [
            'angle' => implode(' ', $angles).' °',
            'reading' => implode(' ', $dial).' mm',
        ]);
        self::assertEqualsWithDelta(0.03, $found['off'], 1e-6);
        self::assertEqualsWithDelta(70.0, $found['high'], 1e-3);
        $x = $y = [];
        foreach ($angles as $a) {
            $r = 50 + 0.05 * cos(2 * deg2rad($a - 45));
            $x[] = sprintf('%.7f', 3 + $r * cos(deg2rad($a)));
            $y[] = sprintf('%.7f', -2 + $r * sin(deg2rad($a)));
        }
        $circle = Methods::work('circle', ['x' => implode(' ', $x).' mm', 'y' => implode(' ', $y).' mm']);
        self::assertEqualsWithDelta(0.1, $circle->value('round'), 1e-4);
        self::assertEqualsWithDelta(100.0, $circle->value('diameter'), 1e-4);
        self::assertEqualsWithDelta(45.0, $circle->value('way'), 0.05);
        self::assertStringContainsString('not square', $circle->says[0]);
    }

    public function test_inches_and_figures_said_as_people_say_them(): void
    {
        $mm = self::figures('racking', ['ahead' => '2.54 mm', 'span' => '254 mm']);
        $inch = self::figures('racking', ['ahead' => '0.1 in', 'span' => '10"']);
        self::assertEqualsWithDelta($mm['angle'], $inch['angle'], 1e-9);
        self::assertEqualsWithDelta(
            0.05,
            self::figures('backlash', ['up' => '0; 0 mm', 'down' => '−0.05, -0.05 mm'])['lost'],
            1e-9,
        );
    }

    public function test_the_limit_is_judged_with_what_the_instrument_may_be_off(): void
    {
        $verdict = static fn (string $limit): ?string => Methods::work('straight', [
            'at' => '0 100 200 mm',
            'height' => '0 0.06 0 mm',
            'limit' => $limit,
        ])->verdict();
        self::assertSame(['fails', 'tight', 'holds'], array_map($verdict, ['0.05 mm', '0.07 mm', '0.08 mm']));
        self::assertNull(Methods::work('cranks', ['distance' => '1 mm', 'lead' => '8 mm'])->verdict());
        $bed = Methods::work('corners', [
            'x' => '0 300 0 mm',
            'y' => '0 0 300 mm',
            'z' => '0 1 0 mm',
            'pitch' => '0.7 mm',
            'limit' => '0.5 mm',
        ]);
        self::assertSame('fails', $bed->verdict());
        self::assertStringContainsString('would refuse', implode(' ', $bed->says));
    }

    /**
     * What is held against a limit, and how far it may be off, both in mm and by hand: two readings are off by √2 of one.
     *
     * @return iterable<string, array{string, array<string, string>, float, float}>
     */
    public static function held(): iterable
    {
        $two = sqrt(2) * 0.01;
        yield 'three readings each way' => [
            'backlash',
            ['up' => '0 0.01 0.02 mm', 'down' => '0.05 0.06 0.07 mm'],
            0.05,
            0.01 * sqrt(2 / 3),
        ];
        yield 'a circle of four points' => ['circle', ['x' => '50 0 -50 0 mm', 'y' => '0 50.1 0 -50.1 mm'], 0.1, $two];
        yield 'corners' => [
            'corners',
            ['x' => '0 300 300 0 mm', 'y' => '0 0 300 300 mm', 'z' => '0 0.3 0.1 -0.1 mm', 'pitch' => '0.7 mm'],
            0.4,
            $two,
        ];
        // (1251² − 1249²) / 4ab is 1/600, over a metre 1.667 mm; half a millimetre of tape turns it by 0.5·2500/2/2ab·√2.
        yield 'diagonals' => [
            'diagonals',
            ['a' => '1000 mm', 'b' => '750 mm', 'd1' => '1251 mm', 'd2' => '1249 mm'],
            1000 / 600,
            (0.5 * 2500 / 2 / 1_500_000) * sqrt(2) * 1000,
        ];
        yield 'an extruder' => ['extruder', ['commanded' => '100 mm', 'fed' => '96 97 98 97 mm'], 3.0, 0.25];
        yield 'a floating head' => [
            'floating-head',
            ['touches' => '2.1 2.2 mm', 'trips' => '0.6 0.6 mm', 'wanted' => '3.8 mm'],
            0.1,
            0.02,
        ];
        yield 'a lean' => ['lean', ['top' => '0.3 mm', 'bottom' => '0.05 mm', 'height' => '200 mm'], 0.25, 0.05 * sqrt(2)];
        yield 'two rails' => [
            'parallel',
            ['at' => '0 500 mm', 'first' => '0 0.02 mm', 'second' => '0 0.12 mm'],
            0.1,
            0.02,
        ];
        // As it is set it is 2 mm short in 200, however straight the line.
        yield 'a screw of wrong steps' => [
            'pitch',
            ['commanded' => '0 100 200 mm', 'measured' => '0 99 198 mm', 'steps' => '80'],
            2.0,
            $two,
        ];
        yield 'a gantry' => ['racking', ['ahead' => '-0.5 mm', 'span' => '800 mm'], 0.5, 0.01];
        yield 'a dial over a turn' => ['run-out', ['angle' => '0 90 180 270 °', 'reading' => '0 0.02 0.05 0.01 mm'], 0.05, $two];
        // Read from the far end back, or from anywhere.
        yield 'a rail' => ['straight', ['at' => '400 0 200 mm', 'height' => '0.4 0 0.3 mm'], 0.1, $two];
        yield 'what tightening moved' => [
            'tightened',
            ['at' => '0 100 mm', 'before' => '0.01 0 mm', 'after' => '0.02 -0.11 mm'],
            0.11,
            $two,
        ];
        yield 'a spindle' => [
            'tram',
            ['diameter' => '200 mm', 'left' => '0 mm', 'right' => '0.03 mm', 'front' => '0.09 mm', 'back' => '0.01 mm'],
            0.08,
            $two,
        ];
        yield 'a wall' => ['flow', ['wanted' => '0.45 mm', 'walls' => '0.47 0.49 0.48 0.48 mm'], 0.03, 0.005];
    }

    /**
     * @param  array<string, string>  $given
     */
    #[DataProvider('held')]
    public function test_a_limit_is_held_with_what_the_instrument_may_be_off(
        string $kind,
        array $given,
        float $off,
        float $doubt,
    ): void {
        $verdict = static fn (float $limit): ?string => Methods::work(
            $kind,
            $given + ['limit' => sprintf('%.7f mm', $limit)],
        )->verdict();
        self::assertEqualsWithDelta($off, Methods::work($kind, $given)->off, 1e-6);
        self::assertNull(Methods::work($kind, $given)->verdict());
        self::assertSame('holds', $verdict($off + $doubt * 1.001));
        self::assertSame('tight', $verdict($off + $doubt * 0.999));
        self::assertSame('tight', $verdict($off + $doubt * 0.001));
        self::assertSame('fails', $verdict($off * 0.999));
        // With an instrument of twice the division it may be off by twice as much.
        $division = ['diagonals' => 1.0, 'extruder' => 1.0, 'lean' => 0.1][$kind] ?? 0.02;
        $rough = Methods::work($kind, $given + ['accuracy' => "{$division} mm"]);
        self::assertEqualsWithDelta(2 * $doubt, $rough->doubt, 1e-9);
    }

    /** How far each figure may be off, by hand, for a division of 0.01 mm. */
    public function test_figures_say_how_far_they_may_be_off(): void
    {
        $of = static fn (string $kind, array $given, string $key): ?float => array_column(
            Methods::work($kind, $given)->figures,
            'uncertainty',
            'key',
        )[$key];
        $d = 0.01;
        $bed = ['x' => '0 300 300 0 mm', 'y' => '0 0 300 300 mm', 'z' => '0 0.3 0.1 -0.1 mm', 'pitch' => '0.5 mm'];
        self::assertEqualsWithDelta($d / 0.5, $of('corners', $bed, 'turns2'), 1e-12);
        self::assertEqualsWithDelta($d * sqrt(2), $of('corners', $bed, 'bend'), 1e-12);
        self::assertNull($of('corners', $bed, 'across'));
        $frame = ['a' => '1000 mm', 'b' => '750 mm', 'd1' => '1251 mm', 'd2' => '1249 mm'];
        self::assertEqualsWithDelta(0.03376, $of('diagonals', $frame, 'angle'), 1e-4);
        self::assertEqualsWithDelta(0.58926, $of('diagonals', $frame, 'slope'), 1e-4);
        $pull = ['commanded' => '100 mm', 'fed' => '96 98 mm', 'steps' => '690'];
        self::assertEqualsWithDelta(((0.5 / sqrt(2)) / 97) * (100 / 97), $of('extruder', $pull, 'factor'), 1e-9);
        $head = ['touches' => '2.1 2.2 mm', 'trips' => '0.6 0.6 mm', 'wanted' => '3.8 mm'];
        self::assertEqualsWithDelta($d, $of('floating-head', $head, 'offset'), 1e-12);
        $lean = ['top' => '0.3 mm', 'bottom' => '0.05 mm', 'height' => '200 mm'];
        self::assertEqualsWithDelta((0.05 * sqrt(2) * 1000) / 200, $of('lean', $lean, 'slope'), 1e-9);
        $rails = ['at' => '0 500 mm', 'first' => '0 0.02 mm', 'second' => '0 0.12 mm'];
        self::assertEqualsWithDelta(2 * $d, $of('parallel', $rails, 'rest'), 1e-12);
        $pitch = ['commanded' => '0 100 200 mm', 'measured' => '0 99 198 mm', 'back' => '0.03 99 198.05 mm'];
        self::assertEqualsWithDelta(($d * sqrt(2)) / 200, $of('pitch', $pitch, 'scale'), 1e-12);
        self::assertEqualsWithDelta(0.05, self::figures('pitch', $pitch)['reversal'], 1e-9);
        self::assertEqualsWithDelta(rad2deg($d / 800), $of('racking', ['ahead' => '1 mm', 'span' => '800 mm'], 'angle'), 1e-12);
        $rail = ['at' => '0 100 200 mm', 'height' => '0 0.06 0 mm'];
        self::assertEqualsWithDelta((($d * sqrt(2)) / 200) * 1000, $of('straight', $rail, 'slope'), 1e-12);
        $sweep = ['diameter' => '200 mm', 'left' => '0 mm', 'right' => '1 mm', 'front' => '0 mm', 'back' => '0 mm'];
        self::assertEqualsWithDelta((($d * sqrt(2)) / 200) * 1000, $of('tram', $sweep, 'nod'), 1e-12);
        $cube = ['wanted' => '0.45 mm', 'walls' => '0.47 0.49 0.48 0.48 mm'];
        self::assertEqualsWithDelta((100 * 0.005) / 0.48, $of('flow', $cube, 'flow'), 1e-9);
        $ring = ['x' => '50 0 -50 0 mm', 'y' => '0 50 0 -50 mm'];
        self::assertEqualsWithDelta($d, $of('circle', $ring, 'diameter'), 1e-12);
        self::assertEqualsWithDelta($d, $of('run-out', ['angle' => '0 90 180 °', 'reading' => '0 0 1 mm'], 'off'), 1e-12);
    }

    /**
     * What is done about it; nothing where it is no more than the instrument can tell.
     *
     * @return iterable<string, array{string, array<string, string>, string}>
     */
    public static function advice(): iterable
    {
        $bed = static fn (string $z): array => [
            'x' => '0 300 300 0 mm',
            'y' => '0 0 300 300 mm',
            'z' => $z,
            'pitch' => '0.7 mm',
        ];
        yield 'a corner too high' => ['corners', $bed('0 0.35 0.35 0 mm'), 'Corner 2: lower by 0.50 turns (0.35 mm).'];
        yield 'a corner too low' => ['corners', $bed('0 -0.7 -0.7 0 mm'), 'Corner 3: raise by 1.00 turns (0.70 mm).'];
        yield 'the far corners too high' => ['corners', $bed('0 0 0.35 0.35 mm'), 'Corner 3: lower by 0.50 turns (0.35 mm). Corner 4: lower by 0.50'];
        yield 'no corner' => ['corners', $bed('0 0.009 0.009 0 mm'), 'No corner is off by more'];
        yield 'a twist' => ['corners', $bed('0 0.2 0 0.2 mm'), 'Bent by 0.200 mm about that plane'];
        $frame = static fn (string $d1, string $d2): array => ['a' => '1000 mm', 'b' => '750 mm', 'd1' => $d1, 'd2' => $d2];
        yield 'a diagonal too long' => ['diagonals', $frame('1251 mm', '1249 mm'), 'Push along the first diagonal: it is 2.00'];
        yield 'the other' => ['diagonals', $frame('1249 mm', '1251 mm'), 'Push along the second diagonal'];
        yield 'none as far as a tape can tell' => ['diagonals', $frame('1250.3 mm', '1249.7 mm'), 'Square, as far as'];
        // Both 4 mm too long: d₁² + d₂² is 20,032 mm² more than 2 (a² + b²), which is 4 mm a diagonal.
        yield 'sides and diagonals that do not fit' => ['diagonals', $frame('1254 mm', '1254 mm'), 'do not fit each other by 4.0 mm'];
        $gap = static fn (string $top): array => ['top' => $top, 'bottom' => '0.2 mm', 'height' => '200 mm', 'screws' => '60 mm'];
        yield 'it leans away' => ['lean', $gap('0.28 mm'), 'leans away'];
        yield 'it leans to it' => ['lean', $gap('0.12 mm'), 'leans towards'];
        yield 'it stands' => ['lean', $gap('0.26 mm'), 'It stands, as far as the gauge can tell.'];
        $rails = static fn (string $end): array => ['at' => '0 500 mm', 'first' => '0 0 mm', 'second' => "0 {$end}"];
        yield 'a rail that spreads' => ['parallel', $rails('0.1 mm'), 'bring its far end in by 0.100 mm'];
        yield 'a rail that closes' => ['parallel', $rails('-0.1 mm'), 'bring its far end out by 0.100 mm'];
        yield 'rails that do neither' => ['parallel', $rails('0.019 mm'), 'no slope to turn away'];
        yield 'a side ahead' => ['racking', ['ahead' => '0.5 mm', 'span' => '800 mm'], 'an offset of -0.500 mm'];
        yield 'neither side' => ['racking', ['ahead' => '-0.01 mm', 'span' => '800 mm'], 'Neither side is ahead'];
        $lost = static fn (string $down): array => ['up' => '0 mm', 'down' => $down];
        yield 'little lost motion' => ['backlash', $lost('-0.025 mm'), 'Within what is usual'];
        yield 'more' => ['backlash', $lost('0.026 mm'), 'grub screws of the coupling first'];
        $belts = static fn (string $second): array => [
            'first' => '100 Hz',
            'second' => $second,
            'first_span' => '150 mm',
            'second_span' => '150 mm',
        ];
        // 1 − f² of 0.95: 97.47 Hz is as slack as still pulls alike.
        yield 'belts alike' => ['belt-pair', $belts('97.5 Hz'), 'They pull alike, to within 5 %'];
        yield 'belts apart' => ['belt-pair', $belts('97.4 Hz'), 'The second is slacker: bring it to 100.0 Hz'];
        yield 'the first slacker' => ['belt-pair', $belts('110 Hz'), 'The first is slacker: bring it to 110.0 Hz'];
        $fed = static fn (string $fed): array => ['commanded' => '100 mm', 'fed' => $fed];
        yield 'it slips' => ['extruder', $fed('95 97.1 mm'), 'it slips'];
        yield 'it does not' => ['extruder', $fed('95 97 mm'), 'pull once more'];
        $dial = static fn (string $right, string $back): array => [
            'diameter' => '200 mm',
            'left' => '0 mm',
            'right' => $right,
            'front' => '0 mm',
            'back' => $back,
            'screws' => '60 mm',
        ];
        yield 'more on the right' => ['tram', $dial('0.1 mm', '0 mm'), 'more on the right by 0.100 mm. A shim of 0.030 mm'];
        yield 'more on the left' => ['tram', $dial('-0.1 mm', '0 mm'), 'more on the left by 0.100 mm'];
        yield 'more at the front' => ['tram', $dial('0 mm', '-0.2 mm'), 'more on the front by 0.200 mm. A shim of 0.060 mm'];
        yield 'no more than the dial can tell' => ['tram', $dial('0.014 mm', '0 mm'), 'Nothing to shim'];
        $walls = static fn (string $walls): array => ['wanted' => '0.45 mm', 'walls' => $walls];
        yield 'sides that differ' => ['flow', $walls('0.42 0.481 mm'), 'The sides differ'];
        yield 'sides alike' => ['flow', $walls('0.42 0.48 mm'), 'steps of the extruder first'];
        yield 'the high spot' => ['run-out', ['angle' => '0 90 180 270 °', 'reading' => '0 0 0 0.04 mm'], 'Mark 270°'];
        yield 'the highest place' => ['straight', ['at' => '0 100 200 mm', 'height' => '0 0.03 0 mm'], 'highest at 100 mm, by 0.020 mm'];
        yield 'what moved most comes first' => [
            'tightened',
            ['at' => '0 100 200 mm', 'before' => '0 0 0 mm', 'after' => '0.01 -0.05 0.03 mm'],
            'Most at 100 mm. Loosen again in this order, tighten in steps from the middle: 100 mm, 200 mm, 0 mm.',
        ];
    }

    /**
     * @param  array<string, string>  $given
     */
    #[DataProvider('advice')]
    public function test_what_is_done_about_it(string $kind, array $given, string $says): void
    {
        self::assertStringContainsString($says, implode(' ', Methods::work($kind, $given)->says));
    }

    /** A circle drawn oval by 0.1 mm along some way. */
    public function test_an_oval_is_told_by_the_way_it_lies(): void
    {
        $oval = static function (float $way, float $by, int $points = 24): Outcome {
            $x = $y = [];
            for ($i = 0; $i < $points; $i++) {
                $at = (2 * M_PI * $i) / $points;
                $r = 40 + ($by / 2) * cos(2 * ($at - deg2rad($way)));
                $x[] = sprintf('%.7f', $r * cos($at));
                $y[] = sprintf('%.7f', $r * sin($at));
            }

            return Methods::work('circle', ['x' => implode(' ', $x).' mm', 'y' => implode(' ', $y).' mm']);
        };
        foreach ([0 => 'along an axis', 20 => 'along an axis', 25 => 'on the slant', 65 => 'on the slant', 70 => 'along an axis', 115 => 'on the slant', 160 => 'along an axis'] as $way => $says) {
            $found = $oval($way, 0.1);
            self::assertEqualsWithDelta($way, fmod((float) $found->value('way') + 0.5, 180) - 0.5, 0.2);
            self::assertEqualsWithDelta(0.1, $found->value('oval'), 1e-4);
            self::assertStringContainsString($says, $found->says[0], "{$way}°");
        }
        self::assertStringContainsString('Not oval', $oval(0, 0.02)->says[0]);
        self::assertStringContainsString('Oval', $oval(0, 0.021)->says[0]);
        // With four points nobody can tell; what is drawn goes round once.
        self::assertNull($oval(0, 0.1, 4)->value('oval'));
        $angles = array_column($oval(0, 0.1)->lines[0]['points'], 0);
        self::assertCount(24, $angles);
        $sorted = $angles;
        sort($sorted);
        self::assertSame($sorted, $angles);
        self::assertEqualsWithDelta(0.05, max(array_column($oval(0, 0.1)->lines[0]['points'], 1)), 1e-3);
    }

    /**
     * @return iterable<string, array{string, array<string, string>, string, string}>
     */
    public static function bad(): iterable
    {
        yield 'nothing' => ['racking', ['span' => '1 mm'], 'ahead', 'missing'];
        yield 'no unit' => ['racking', ['ahead' => '1', 'span' => '1 mm'], 'ahead', 'no unit'];
        yield 'another size' => ['racking', ['ahead' => '1 kg', 'span' => '1 mm'], 'ahead', 'kg'];
        yield 'no span' => ['racking', ['ahead' => '1 mm', 'span' => '0 mm'], 'span', 'more than nothing'];
        yield 'rows of two lengths' => ['straight', ['at' => '0 1 2 mm', 'height' => '0 1 2 3 mm'], 'height', 'has 4'];
        yield 'points in a line' => [
            'corners',
            ['x' => '0 1 2 mm', 'y' => '0 1 2 mm', 'z' => '0 0 0 mm', 'pitch' => '1 mm'],
            'x',
            'one line',
        ];
        yield 'sides that are none' => [
            'diagonals',
            ['a' => '1 mm', 'b' => '1 mm', 'd1' => '9 mm', 'd2' => '1 mm'],
            'd1',
            'belong',
        ];
        yield 'one angle' => ['run-out', ['angle' => '0 0 0 °', 'reading' => '0 1 2 mm'], 'angle', 'three different'];
        yield 'a word' => ['cranks', ['distance' => 'far mm', 'lead' => '8 mm'], 'distance', 'far'];
        yield 'no swing' => [
            'relay',
            ['power' => '50', 'peaks' => '198 °C', 'troughs' => '202 °C', 'period' => '20 s'],
            'peaks',
            'does not swing',
        ];
        yield 'not asked for' => [
            'cranks',
            ['distance' => '1 mm', 'lead' => '8 mm', 'limit' => '1 mm'],
            'limit',
            'not asked',
        ];
        yield 'nobody knows it' => ['level', [], 'kind', 'none of'];
    }

    /**
     * @param  array<string, string>  $given
     */
    #[DataProvider('bad')]
    public function test_what_cannot_be_worked_is_said_at_its_field(
        string $kind,
        array $given,
        string $field,
        string $says,
    ): void {
        try {
            Methods::work($kind, $given);
            self::fail('It was worked.');
        } catch (CannotAlign $e) {
            self::assertSame($field, $e->field, $e->getMessage());
            self::assertStringContainsString($says, $e->getMessage());
        }
    }

    public function test_every_method_works_from_its_own_example(): void
    {
        foreach (Methods::all() as $method) {
            $outcome = $method->work(
                new \Magpie\Core\Straightness\Given(
                    array_column(
                        array_map(static fn ($ask): array => $ask->toArray(), $method->asks()),
                        'example',
                        'key',
                    ),
                ),
            );
            self::assertInstanceOf(Outcome::class, $outcome);
            self::assertNotSame([], $outcome->figures);
        }
    }
}
