<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Printing;

use Magpie\Core\Printing\CannotReadMesh;
use Magpie\Core\Printing\Mesh;
use Magpie\Core\Printing\MeshReader;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Files of triangles, good and broken. Against other programs: MeshPeerTest. */
final class MeshTest extends TestCase
{
    /**
     * A box, two triangles a side, looking outwards.
     *
     * @return list<list<list<float>>>
     */
    private static function box(float $x, float $y, float $z): array
    {
        $corner = static fn (int $i): array => [$i & 1 ? $x : 0.0, $i & 2 ? $y : 0.0, $i & 4 ? $z : 0.0];
        $facets = [];
        foreach (
            [[0, 2, 3, 1], [4, 5, 7, 6], [0, 1, 5, 4], [2, 6, 7, 3], [0, 4, 6, 2], [1, 3, 7, 5]] as [$a, $b, $c, $d]
        ) {
            $facets[] = [$corner($a), $corner($b), $corner($c)];
            $facets[] = [$corner($a), $corner($c), $corner($d)];
        }

        return $facets;
    }

    /**
     * @param  list<list<list<float>>>  $facets
     */
    private static function binary(array $facets): string
    {
        $bytes = str_pad('solid of a program that says so', 80)."\0";
        $bytes = substr($bytes, 0, 80).pack('V', count($facets));
        foreach ($facets as $facet) {
            $bytes .= pack('g3', 0, 0, 0).pack('g9', ...array_merge(...$facet))."\0\0";
        }

        return $bytes;
    }

    /**
     * @param  list<list<list<float>>>  $facets
     */
    private static function text(array $facets): string
    {
        $text = "solid part\n";
        foreach ($facets as $facet) {
            $text .= "  facet normal 0 0 0\r\n    outer loop\n";
            foreach ($facet as $v) {
                $text .= sprintf("      vertex %.6e %.6e %.6e\n", ...$v);
            }
            $text .= "    endloop\n  endfacet\n";
        }

        return $text."endsolid part\n";
    }

    private static function read(string $bytes, int $piece = 700): Mesh
    {
        return MeshReader::read(str_split($bytes, $piece));
    }

    public function test_a_box_is_the_same_as_bytes_and_as_text_however_it_comes(): void
    {
        $facets = self::box(10, 20, 30);
        foreach ([1, 7, 50, 100_000] as $piece) {
            foreach ([self::binary($facets), self::text($facets)] as $file) {
                $mesh = self::read($file, $piece);
                self::assertSame(12, $mesh->triangles);
                self::assertEqualsWithDelta(6000.0, $mesh->volume, 1e-6);
                self::assertEqualsWithDelta(2200.0, $mesh->area, 1e-6);
                self::assertSame([10.0, 20.0, 30.0], $mesh->size());
                self::assertTrue($mesh->closed);
                self::assertSame([], $mesh->doubts());
            }
        }
    }

    public function test_open_inside_out_and_small_are_told(): void
    {
        $facets = self::box(10, 20, 30);
        $open = self::read(self::binary(array_slice($facets, 1)));
        self::assertFalse($open->closed);
        self::assertNull($open->encloses());
        self::assertStringContainsString('open', $open->doubts()[0]);
        $turned = self::read(self::binary(array_map(array_reverse(...), $facets)));
        self::assertTrue($turned->closed);
        self::assertEqualsWithDelta(6000.0, $turned->encloses() ?? NAN, 1e-6);
        self::assertSame(['it is inside out: its faces look inwards'], $turned->doubts());
        // One face the other way round: closed nowhere.
        $one = $facets;
        $one[3] = array_reverse($one[3]);
        self::assertFalse(self::read(self::binary($one))->closed);
        $inches = self::read(self::binary(self::box(1, 2, 3)));
        self::assertStringContainsString('was it drawn in inches (76.2 mm)', $inches->doubts()[0]);
        $flat = self::read(self::binary([...$facets, [[0.0, 0.0, 0.0], [1.0, 0.0, 0.0], [2.0, 0.0, 0.0]]]));
        self::assertSame(1, $flat->flat);
        // Nought below and nought above are one place.
        $signed = array_map(
            static fn (array $f): array => array_map(
                static fn (array $v): array => array_map(
                    static fn (float $x): float => $x === 0.0 && mt_rand(0, 1) === 1 ? -0.0 : $x,
                    $v,
                ),
                $f,
            ),
            $facets,
        );
        self::assertTrue(self::read(self::binary($signed))->closed);
    }

    public function test_a_missing_triangle_is_found_wherever_it_is(): void
    {
        mt_srand(4);
        for ($i = 0; $i < 200; $i++) {
            $facets = [];
            for ($n = 0; $n < 5; $n++) {
                $at = [mt_rand(-900, 900) / 7, mt_rand(-900, 900) / 7, mt_rand(-900, 900) / 7];
                foreach (self::box(mt_rand(1, 90) / 3, mt_rand(1, 90) / 3, mt_rand(1, 90) / 3) as $facet) {
                    $facets[] = array_map(
                        static fn (array $v): array => [$v[0] + $at[0], $v[1] + $at[1], $v[2] + $at[2]],
                        $facet,
                    );
                }
            }
            shuffle($facets);
            self::assertTrue(self::read(self::binary($facets))->closed);
            unset($facets[mt_rand(0, count($facets) - 1)]);
            self::assertFalse(self::read(self::binary(array_values($facets)))->closed);
        }
    }

    /**
     * @return iterable<string, array{string, string}>
     */
    public static function broken(): iterable
    {
        $binary = self::binary(self::box(1, 1, 1));
        $text = self::text(self::box(1, 1, 1));
        yield 'empty' => ['', 'the file is empty.'];
        yield 'too short' => ['hello', 'this is no file of triangles: it has 5 bytes.'];
        yield 'cut off' => [substr($binary, 0, 300), 'it announces 12 triangles and has 4.'];
        yield 'none' => [substr($binary, 0, 80).pack('V', 0), 'it has no triangle.'];
        yield 'text cut off' => [substr($text, 0, 300), 'the file is cut off at line'];
        yield 'text without triangles' => ["solid a\nendsolid a\n", 'it has no triangle.'];
        yield 'text with a word' => [str_replace('endloop', 'loop', $text), '"loop" means nothing in such a file.'];
        yield 'text with a slip' => [
            str_replace('vertex 1.000000e+0', 'vertex 1,0', $text),
            'a vertex has three numbers.',
        ];
        yield 'not a number' => [
            substr_replace($binary, pack('g', NAN), 84 + 12, 4),
            'some of its corners are not numbers.',
        ];
        yield 'noise' => [str_repeat("\x01\x02\x03\x04", 60), 'the file is cut off'];
    }

    #[DataProvider('broken')]
    public function test_what_cannot_be_read_says_why(string $file, string $why): void
    {
        $this->expectException(CannotReadMesh::class);
        $this->expectExceptionMessage($why);
        self::read($file);
    }
}
