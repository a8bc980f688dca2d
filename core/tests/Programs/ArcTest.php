<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Programs;

use Magpie\Core\Programs\Caps;
use Magpie\Core\Programs\ProgramReader;
use PHPUnit\Framework\TestCase;

/** Arcs drawn at random, against the circle itself walked in steps of a fiftieth of a degree, and times against sums by hand. */
final class ArcTest extends TestCase
{
    private const PLANES = ['G17' => ['X', 'Y', 'Z', 'I', 'J'], 'G18' => ['Z', 'X', 'Y', 'K', 'I'], 'G19' => ['Y', 'Z', 'X', 'J', 'K']];

    /** As a machine reads it: by its middle from its begin, by its middle from nought, or by its radius; in mm or inches. */
    public function test_an_arc_is_as_long_and_as_wide_as_its_circle(): void
    {
        mt_srand(11);
        for ($turn = 0; $turn < 120; $turn++) {
            $plane = array_rand(self::PLANES);
            [$a, $b, $c, $i, $j] = self::PLANES[$plane];
            $left = mt_rand(0, 1) === 1;
            $unit = mt_rand(0, 1) === 1 ? 25.4 : 1.0;
            [$cx, $cy, $r, $start] = [mt_rand(-50, 50), mt_rand(-50, 50), mt_rand(5, 40), mt_rand(0, 628) / 100];
            $sweep = mt_rand(20, 600) / 100 * ($left ? 1 : -1);
            $climb = mt_rand(-10, 10);
            $at = static fn (float $angle): array => [$cx + $r * cos($angle), $cy + $r * sin($angle)];
            [[$x0, $y0], [$x1, $y1]] = [$at($start), $at($start + $sweep)];
            $middle = match ($how = mt_rand(0, 2)) {
                0 => sprintf('%s%.7f %s%.7f', $i, $cx - $x0, $j, $cy - $y0),
                1 => sprintf('G90.1 %s%.7f %s%.7f', $i, $cx, $j, $cy),
                2 => sprintf('R%.7f', abs($sweep) > M_PI ? -$r : $r),
            };
            // By its radius, half a turn is where nobody can tell to which side its middle lies.
            if ($how === 2 && abs(abs($sweep) - M_PI) < 0.2) {
                continue;
            }
            $program = sprintf(
                "%s G90 %s\nG0 %s%.7f %s%.7f %s0\n%s %s%.7f %s%.7f %s%d %s F100",
                $plane,
                $unit === 1.0 ? 'G21' : 'G20',
                $a,
                $x0,
                $b,
                $y0,
                $c,
                $left ? 'G3' : 'G2',
                $a,
                $x1,
                $b,
                $y1,
                $c,
                $climb,
                $middle,
            );
            $read = ProgramReader::read(explode("\n", $program));
            self::assertSame([], $read->troubles(), $program);
            self::assertEqualsWithDelta($unit * hypot($r * $sweep, $climb), $read->rapid + $read->cut, 0.0015 * $unit * $r * abs($sweep), $program);
            $walked = [[$x0, $y0], [$x1, $y1]];
            for ($step = 0.0; $step < abs($sweep); $step += M_PI / 9000) {
                $walked[] = $at($start + $step * ($left ? 1 : -1));
            }
            foreach ([$a => array_column($walked, 0), $b => array_column($walked, 1), $c => [0, $climb]] as $axis => $values) {
                self::assertEqualsWithDelta($unit * min($values), $read->bounds[$axis][0], 1e-3, "{$axis}: {$program}");
                self::assertEqualsWithDelta($unit * max($values), $read->bounds[$axis][1], 1e-3, "{$axis}: {$program}");
            }
        }
    }

    public function test_an_arc_that_is_none_is_said(): void
    {
        $says = static fn (string $line): array => array_map(
            static fn ($t): string => $t->says,
            ProgramReader::read(['G0 X0 Y0', "{$line} F100"])->troubles(),
        );
        self::assertSame([], $says('G2 X10 Y0 R5'), 'Half a turn, just.');
        self::assertSame(['An arc whose radius does not reach from its begin to its end.'], $says('G2 X10 Y0 R4.99'));
        self::assertSame(['An arc whose radius does not reach from its begin to its end.'], $says('G2 X0 Y0 R5'));
        // A fiftieth of a millimetre is rounding, or two thousandths of a large radius.
        self::assertSame([], $says('G2 X10.018 Y0 I5'));
        self::assertSame([], $says('G2 X200.19 Y0 I100'));
        $off = ['An arc whose centre is not as far from its begin as from its end.'];
        self::assertSame([$off, $off, $off], [$says('G2 X10.03 Y0 I5'), $says('G2 X200.25 Y0 I100'), $says('G2 X10 Y0')]);
        self::assertSame(
            ['An arc begins where nobody knows.'],
            array_map(static fn ($t): string => $t->says, ProgramReader::read(['G0 X0', 'G2 X10 Y0 I5 F100'])->troubles()),
        );
    }

    /** What rising from u to v costs beyond its length at v is (v − u)² / 2av; as much is lost in falling. */
    public function test_a_corner_slows_by_how_sharp_it_is(): void
    {
        $caps = new Caps(['X' => 60_000.0, 'Y' => 60_000.0], ['X' => 500.0, 'Y' => 500.0]);
        $time = static fn (string ...$lines): float => ProgramReader::read(['G90', 'G0 X0 Y0', 'F1200', ...$lines], $caps)->times->seconds;
        $lost = static fn (float $from, float $to, float $rise): float => ($to - $from) ** 2 / (2 * $rise * max($from, $to));
        $y = 100 * sqrt(3) / 2;
        // By 60°, of which the axes may rise at 500 / cos 30°: it leaves the corner at (0.5 − 0.2) / 0.8 of 20 mm/s.
        $slant = 500 / (sqrt(3) / 2);
        self::assertEqualsWithDelta(
            10 + $lost(0, 20, 500) + $lost(7.5, 20, 500) + $lost(7.5, 20, $slant) + $lost(0, 20, $slant),
            $time('G1 X100', sprintf('X150 Y%.9f', $y)),
            1e-6,
        );
        // At right angles, and sharper, it stops.
        self::assertEqualsWithDelta(10 + 4 * $lost(0, 20, 500), $time('G1 X100', 'Y100'), 1e-6);
        self::assertEqualsWithDelta(10 + 2 * $lost(0, 20, 500) + 2 * $lost(0, 20, $slant), $time('G1 X100', sprintf('X50 Y%.9f', $y)), 1e-6);
        // On from a slow move, and on into one.
        $both = 100 / 10 + 100 / 20 + $lost(0, 10, 500) + $lost(10, 20, 500) + $lost(0, 20, 500);
        self::assertEqualsWithDelta($both, $time('G1 X100 F600', 'X200 F1200'), 1e-6);
        // One too short to reach its speed from that of the last: up from 10 and down to nought.
        $top = sqrt(500 * 0.2 + 10 ** 2 / 2);
        self::assertEqualsWithDelta(100 / 10 + $lost(0, 10, 500) + (2 * $top - 10) / 500, $time('G1 X100 F600', 'X100.2 F1200'), 1e-6);
        // Without a limit nobody knows how it rises: length over speed; without either, it takes no time.
        self::assertEqualsWithDelta(5, ProgramReader::read(['G90', 'G0 X0', 'G1 X100 F1200'])->times->seconds, 1e-9);
        self::assertEqualsWithDelta(0, ProgramReader::read(['G90', 'G0 X0', 'G0 X100'])->times->seconds, 1e-9);
        // No axis goes faster than it can, whatever it is fed.
        $slow = new Caps(['X' => 600.0], ['X' => 500.0]);
        self::assertEqualsWithDelta(
            100 / 10 + 2 * $lost(0, 10, 500),
            ProgramReader::read(['G90', 'G0 X0', 'G1 X100 F1200'], $slow)->times->seconds,
            1e-6,
        );
        self::assertSame(['X' => 1200.0], ProgramReader::read(['G90', 'G0 X0', 'G1 X100 F1200'], $slow)->feeds);
    }

    /** Found by attack: a word of 400 digits made "INF mm" of a move. */
    public function test_a_number_no_machine_could_mean_is_unread_and_moves_nothing(): void
    {
        $digits = str_repeat('9', 400);
        foreach (["G1 X{$digits} F100", "G1 X10 F{$digits}", "G0 Z-{$digits}", "M3 S{$digits}", "G{$digits} X1", "M{$digits}"] as $line) {
            $block = \Magpie\Core\Programs\Block::of($line);
            self::assertNotNull($block->unread, $line);
            self::assertSame([[], [], []], [$block->g, $block->m, $block->words], $line);
        }
        self::assertNull(\Magpie\Core\Programs\Block::of('G1 X999.5 F60000 S24000')->unread);
    }
}
