<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Mechanical;

use Magpie\Core\Families\Screw;
use PHPUnit\Framework\TestCase;

final class FastenerTableTest extends TestCase
{
    /**
     * @return array{pitch: array<string, float>, nut_height: array<string, float>, lengths: list<int>,
     *     engagement: array<string, float>}
     */
    private static function table(): array
    {
        return require dirname(__DIR__, 2).'/reference/fasteners.php';
    }

    public function test_pitches_give_the_usual_tap_drills(): void
    {
        // Tap drill = d − pitch (ISO 2306, coarse): M2 1.6, M3 2.5, M4 3.3, M5 4.2, M6 5, M8 6.8 (6.75), M10 8.5, M12
        // 10.2 (10.25).
        foreach (
            [
                'M2' => 1.6,
                'M3' => 2.5,
                'M4' => 3.3,
                'M5' => 4.2,
                'M6' => 5.0,
                'M8' => 6.75,
                'M10' => 8.5,
                'M12' => 10.25,
            ] as $thread => $drill
        ) {
            self::assertEqualsWithDelta(
                $drill,
                (float) substr($thread, 1) - self::table()['pitch'][$thread],
                1e-9,
                $thread,
            );
        }
    }

    public function test_nuts_are_about_four_fifths_of_their_diameter(): void
    {
        // ISO 4032 style 1: m ≈ 0.8 d to 0.95 d.
        foreach (self::table()['nut_height'] as $thread => $height) {
            $share = $height / (float) substr($thread, 1);
            self::assertGreaterThanOrEqual(0.78, $share, $thread);
            self::assertLessThanOrEqual(0.96, $share, $thread);
        }
    }

    public function test_every_thread_a_screw_can_have_is_in_the_tables(): void
    {
        $threads = (new Screw)->field('thread')->choices ?? [];

        self::assertSame($threads, array_keys(self::table()['pitch']));
        self::assertSame($threads, array_keys(self::table()['nut_height']));
        $lengths = self::table()['lengths'];
        self::assertSame($lengths, array_values(array_unique($lengths)));
        self::assertSame(
            $lengths,
            (static function (array $l): array {
                sort($l);

                return $l;
            })($lengths),
        );
    }
}
