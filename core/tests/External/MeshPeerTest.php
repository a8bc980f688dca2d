<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\External;

use Magpie\Core\Printing\MeshReader;
use PHPUnit\Framework\TestCase;

/** Shapes made by OpenSCAD, measured by ADMesh (Debian packages openscad and admesh), and by the formulas of solids. */
final class MeshPeerTest extends TestCase
{
    public function test_volumes_areas_and_closedness_of_shapes(): void
    {
        $prism = static fn (int $n, float $r, float $h): array => [
            (($h * $n) / 2) * $r ** 2 * sin((2 * M_PI) / $n),
            $n * $r ** 2 * sin((2 * M_PI) / $n) + $n * 2 * $r * sin(M_PI / $n) * $h,
        ];
        [$volume, $area] = $prism(40, 4, 12);
        $bored = (40 / 2) * 16 * sin((2 * M_PI) / 40);
        foreach (
            [
                ['cube([20, 30, 10]);', 6000.0, 2200.0, [20, 30, 10]],
                ['translate([-5, 3, 100]) cylinder(h = 12, r = 4, $fn = 40);', $volume, $area, [8, 8, 12]],
                // Through a plate: its hole is gone from volume and faces, and has walls of its own.
                [
                    'difference() { cube([20, 30, 10]); translate([10, 15, -1]) cylinder(h = 12, r = 4, $fn = 40); }',
                    6000 - 10 * $bored,
                    2200 - 2 * $bored + 40 * 2 * 4 * sin(M_PI / 40) * 10,
                    [20, 30, 10],
                ],
                ['union() { cube([5, 5, 5]); translate([20, 0, 0]) cube([5, 5, 5]); }', 250.0, 300.0, [25, 5, 5]],
            ] as [$shape, $expected, $surface, $box]
        ) {
            $file = self::made($shape);
            $mesh = MeshReader::read([(string) file_get_contents($file)]);
            $says = self::peer($file);
            self::assertTrue($mesh->closed, $shape);
            self::assertEqualsWithDelta($box, $mesh->size(), 1e-3, $shape);
            self::assertSame('0', $says['Total disconnected facets']);
            self::assertEqualsWithDelta($expected, $mesh->volume, 2e-4 * $expected, $shape);
            self::assertEqualsWithDelta($surface, $mesh->area, 2e-4 * $surface, $shape);
            self::assertEqualsWithDelta((float) $says['Volume'], $mesh->volume, 2e-4 * $expected, $shape);
            // Without its last triangle both say that it is open.
            $text = (string) file_get_contents($file);
            $cut = substr($text, 0, (int) strrpos($text, '  facet'))."endsolid OpenSCAD_Model\n";
            file_put_contents($file, $cut);
            self::assertFalse(MeshReader::read([$cut])->closed, $shape);
            self::assertNotSame('0', self::peer($file)['Total disconnected facets']);
            unlink($file);
        }
    }

    private static function made(string $shape): string
    {
        $file = tempnam(sys_get_temp_dir(), 'mesh').'.stl';
        file_put_contents("{$file}.scad", $shape);
        exec(
            'openscad -q -o '.escapeshellarg($file).' '.escapeshellarg("{$file}.scad").' 2>&1',
            $said,
            $status,
        );
        self::assertSame(0, $status, implode("\n", $said));
        unlink("{$file}.scad");

        return $file;
    }

    /**
     * @return array<string, string> what it found, as the file is
     */
    private static function peer(string $file): array
    {
        exec('admesh --no-check '.escapeshellarg($file), $plain);
        exec('admesh --exact '.escapeshellarg($file), $exact);
        $volume = preg_match('/Volume\s*:\s*(\S+)/', implode("\n", $plain), $m) === 1 ? $m[1] : '';
        $open = preg_match('/Total disconnected facets\s*:\s*(\d+)/', implode("\n", $exact), $m) === 1 ? $m[1] : '';

        return ['Volume' => $volume, 'Total disconnected facets' => $open];
    }
}
