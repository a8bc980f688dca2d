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
