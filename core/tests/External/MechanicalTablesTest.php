<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\External;

use Magpie\Core\Quantity\Quantity;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Mechanical tables against those of Debian's openscad-mcad, row by row where it has them. */
#[Group('external')]
final class MechanicalTablesTest extends TestCase
{
    private const FOLDER = '/usr/share/openscad/libraries/MCAD/';

    public function test_bearings_have_its_bore_outer_diameter_and_width(): void
    {
        preg_match_all(
            '/model == (\d+)\s*\? \[\s*([\d.]+)\*mm,\s*([\d.]+)\*mm,\s*([\d.]+)\*mm\]/',
            $this->text('bearing.scad'),
            $rows,
            PREG_SET_ORDER,
        );
        $theirs = [];
        foreach ($rows as [, $number, $bore, $outer, $width]) {
            $theirs[$number] = [(float) $bore, (float) $outer, (float) $width];
        }
        $compared = 0;
        foreach ($this->ours('bearings') as $number => $sizes) {
            if (isset($theirs[$number])) {
                self::assertSame($theirs[$number], array_map(floatval(...), $sizes), "Bearing {$number}");
                $compared++;
            }
        }
        self::assertGreaterThanOrEqual(20, $compared);
    }

    public function test_motor_frames_have_its_hole_spacing_pilot_and_shaft(): void
    {
        $steppers = $this->text('stepper.scad');
        foreach ($this->ours('motor_frames') as $frame => $f) {
            if (preg_match("/Nema{$frame} = \[(.*?)\];/s", $steppers, $found) !== 1) {
                self::assertSame('24', (string) $frame, 'Only frame 24 is not in it.');

                continue;
            }
            preg_match('/NemaDistanceBetweenMountingHoles, ([\d.]+)\*mm/', $found[1], $holes);
            preg_match('/NemaSideSize, ([\d.]+)\*mm/', $found[1], $face);
            self::assertEqualsWithDelta((float) ($holes[1] ?? 0), $f['holes'], 0.06, "Frame {$frame}, holes");
            self::assertEqualsWithDelta((float) ($face[1] ?? 0), $f['face'], 1.0, "Frame {$frame}, face");
        }
        // Its mounts of 17 and 23 are in inches.
        preg_match_all(
            '/motor_shaft_diameter = ([\d.]+)\*mm_per_inch.*?pilot_diameter = ([\d.]+)\*mm_per_inch.*?bolt_hole_distance = ([\d.]+)\*mm_per_inch/s',
            $this->text('motors.scad'),
            $mounts,
            PREG_SET_ORDER,
        );
        self::assertCount(2, $mounts);
        foreach (['17', '23'] as $i => $frame) {
            foreach (['shaft', 'pilot', 'holes'] as $j => $what) {
                self::assertEqualsWithDelta(
                    Quantity::of((float) $mounts[$i][$j + 1], 'in')->in('mm'),
                    $this->ours('motor_frames')[$frame][$what],
                    0.06,
                    "Frame {$frame}, {$what}",
                );
            }
        }
    }

    public function test_small_nuts_are_as_high_as_its_own(): void
    {
        preg_match('/METRIC_NUT_THICKNESS =\s*\[(.*?)\];/s', $this->text('nuts_and_bolts.scad'), $table);
        preg_match_all('/([\d.]+),\/\/m(\d+)/', $table[1] ?? '', $rows, PREG_SET_ORDER);
        $theirs = array_column(array_map(static fn (array $r): array => ["M{$r[2]}", (float) $r[1]], $rows), 1, 0);
        foreach (['M2', 'M3', 'M4'] as $thread) {
            self::assertSame($theirs[$thread] ?? null, $this->ours('fasteners')['nut_height'][$thread], $thread);
        }
        foreach (['M5', 'M6', 'M8'] as $thread) {
            // It keeps the older, lower nuts from M5 on; ISO 4032 style 1 is higher.
            self::assertGreaterThan($theirs[$thread] ?? 99, $this->ours('fasteners')['nut_height'][$thread], $thread);
        }
    }

    /**
     * @return array<mixed>
     */
    private function ours(string $table): array
    {
        return require dirname(__DIR__, 2)."/reference/{$table}.php";
    }

    private function text(string $file): string
    {
        self::assertFileExists(
            self::FOLDER.$file,
            'The Debian package openscad-mcad is not installed; bin/magpie test installs it.',
        );

        return (string) file_get_contents(self::FOLDER.$file);
    }
}
