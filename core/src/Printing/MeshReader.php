<?php

declare(strict_types=1);

namespace Magpie\Core\Printing;

/**
 * Reads a file of triangles (STL, binary or text) as it comes, in constant memory: sums need no list. Closed or open is
 * told by a signed sum of a hash of every directed edge: each that is walked back again takes itself out of the sum.
 */
final class MeshReader
{
    private const HEAD = 84;

    private const FACET = 50;

    /** Odd, of 30 bits: its product with 32 bits is a whole number still. */
    private const SPREAD = 0x2545F491;

    private int $triangles = 0;

    private float $volume = 0.0;

    private float $area = 0.0;

    private int $flat = 0;

    private int $edges = 0;

    private float $left = INF;

    private float $right = -INF;

    private float $front = INF;

    private float $back = -INF;

    private float $bottom = INF;

    private float $top = -INF;

    /**
     * @param  iterable<string>  $pieces  of the file, in order
     *
     * @throws CannotReadMesh
     */
    public static function read(iterable $pieces): Mesh
    {
        $reader = new self;
        $begun = '';
        $text = null;
        $rest = '';
        $declared = 0;
        foreach ($pieces as $piece) {
            if ($text === null) {
                $begun .= $piece;
                if (strlen($begun) < 1024) {
                    continue;
                }
                $piece = $begun;
                $text = self::isText($begun);
                [$declared, $piece] = $text ? [0, $piece] : self::head($piece);
            }
            $rest .= $piece;
            $rest = $text ? $reader->lines($rest, false) : $reader->facets($rest, $declared);
        }
        if ($text === null) {
            if (trim($begun) === '') {
                throw new CannotReadMesh('the file is empty.');
            }
            $text = self::isText($begun);
            [$declared, $rest] = $text ? [0, $begun] : self::head($begun);
            $rest = $text ? $rest : $reader->facets($rest, $declared);
        }
        if ($text) {
            $reader->lines($rest, true);
        } elseif ($reader->triangles < $declared) {
            throw new CannotReadMesh(
                "the file is cut off: it announces {$declared} triangles and has {$reader->triangles}.",
            );
        }

        return $reader->mesh();
    }

    /** A binary file may begin with "solid" as well; only a text goes on with words. */
    private static function isText(string $begun): bool
    {
        return str_starts_with(ltrim($begun), 'solid') && preg_match('/\b(facet|endsolid)\b/', $begun) === 1;
    }

    /**
     * @return array{int, string} triangles it announces, and what follows
     */
    private static function head(string $begun): array
    {
        if (strlen($begun) < self::HEAD) {
            throw new CannotReadMesh('this is no file of triangles: it has '.strlen($begun).' bytes.');
        }
        $declared = unpack('V', $begun, 80)[1] ?? 0;
        if ($declared === 0) {
            throw new CannotReadMesh('it has no triangle.');
        }

        return [(int) $declared, substr($begun, self::HEAD)];
    }

    /** Reads whole binary triangles; returns what is left of the piece. */
    private function facets(string $bytes, int $declared): string
    {
        $whole = min(intdiv(strlen($bytes), self::FACET), $declared - $this->triangles);
        for ($i = 0, $at = 12; $i < $whole; $i++, $at += self::FACET) {
            /** @var array{1: float, 2: float, 3: float, 4: float, 5: float, 6: float, 7: float, 8: float, 9: float} $v */
            $v = unpack('g9', $bytes, $at);
            $this->triangle($v, substr($bytes, $at, 36));
        }

        return $this->triangles >= $declared ? '' : substr($bytes, $whole * self::FACET);
    }

    /** @var list<float> corners of the triangle that is being read from text */
    private array $corners = [];

    private int $line = 0;

    /** Reads whole lines of text; returns what is left of the piece. */
    private function lines(string $text, bool $last): string
    {
        $end = $last ? strlen($text) : strrpos($text, "\n");
        if ($end === false) {
            return $text;
        }
        foreach (explode("\n", substr($text, 0, $end)) as $line) {
            $this->line++;
            $words = preg_split('/\s+/', trim($line), -1, PREG_SPLIT_NO_EMPTY);
            if ($words === false || $words === []) {
                continue;
            }
            if ($words[0] === 'vertex') {
                foreach ([1, 2, 3] as $at) {
                    if (! isset($words[$at]) || ! is_numeric($words[$at])) {
                        throw new CannotReadMesh("line {$this->line}: a vertex has three numbers.");
                    }
                    $this->corners[] = (float) $words[$at];
                }
            } elseif ($words[0] === 'endfacet') {
                if (count($this->corners) !== 9) {
                    throw new CannotReadMesh("line {$this->line}: a facet has three vertices.");
                }
                $corners = array_combine(range(1, 9), $this->corners);
                $this->triangle($corners, pack('g9', ...$this->corners));
                $this->corners = [];
            } elseif (! in_array($words[0], ['solid', 'facet', 'outer', 'endloop', 'endsolid'], true)) {
                throw new CannotReadMesh("line {$this->line}: \"{$words[0]}\" means nothing in such a file.");
            }
        }
        if ($last && $this->corners !== []) {
            throw new CannotReadMesh("the file is cut off at line {$this->line}, within a facet.");
        }

        return $last ? '' : substr($text, $end + 1);
    }

    /**
     * @param  array{1: float, 2: float, 3: float, 4: float, 5: float, 6: float, 7: float, 8: float, 9: float}  $v
     * @param  string  $bytes  the same as it is kept, by which corners are told apart
     */
    private function triangle(array $v, string $bytes): void
    {
        [1 => $ax, 2 => $ay, 3 => $az, 4 => $bx, 5 => $by, 6 => $bz, 7 => $cx, 8 => $cy, 9 => $cz] = $v;
        $this->triangles++;
        // Nought has two signs in a file and one place in space.
        if (str_contains($bytes, "\0\0\0\x80")) {
            $bytes = pack(
                'g9',
                $ax + 0.0,
                $ay + 0.0,
                $az + 0.0,
                $bx + 0.0,
                $by + 0.0,
                $bz + 0.0,
                $cx + 0.0,
                $cy + 0.0,
                $cz + 0.0,
            );
        }
        $a = crc32(substr($bytes, 0, 12));
        $b = crc32(substr($bytes, 12, 12));
        $c = crc32(substr($bytes, 24, 12));
        // Each corner turned by half a word meets the other: to and fro are told apart, and there and back is nought.
        $ta = (($a << 16) | ($a >> 16)) & 0xFFFFFFFF;
        $tb = (($b << 16) | ($b >> 16)) & 0xFFFFFFFF;
        $tc = (($c << 16) | ($c >> 16)) & 0xFFFFFFFF;
        $this->edges +=
            ((($a ^ $tb) * self::SPREAD) >> 18) -
            ((($b ^ $ta) * self::SPREAD) >> 18) +
            ((($b ^ $tc) * self::SPREAD) >> 18) -
            ((($c ^ $tb) * self::SPREAD) >> 18) +
            ((($c ^ $ta) * self::SPREAD) >> 18) -
            ((($a ^ $tc) * self::SPREAD) >> 18);
        // b × c, whose product with a is six times the volume towards the origin.
        $this->volume += $ax * ($by * $cz - $bz * $cy) + $ay * ($bz * $cx - $bx * $cz) + $az * ($bx * $cy - $by * $cx);
        $ux = $bx - $ax;
        $uy = $by - $ay;
        $uz = $bz - $az;
        $wx = $cx - $ax;
        $wy = $cy - $ay;
        $wz = $cz - $az;
        $nx = $uy * $wz - $uz * $wy;
        $ny = $uz * $wx - $ux * $wz;
        $nz = $ux * $wy - $uy * $wx;
        $doubled = sqrt($nx * $nx + $ny * $ny + $nz * $nz);
        $this->area += $doubled;
        if (! ($doubled > 0.0)) {
            $this->flat++;
        }
        foreach ([$ax, $bx, $cx] as $x) {
            if ($x < $this->left) {
                $this->left = $x;
            }
            if ($x > $this->right) {
                $this->right = $x;
            }
        }
        foreach ([$ay, $by, $cy] as $y) {
            if ($y < $this->front) {
                $this->front = $y;
            }
            if ($y > $this->back) {
                $this->back = $y;
            }
        }
        foreach ([$az, $bz, $cz] as $z) {
            if ($z < $this->bottom) {
                $this->bottom = $z;
            }
            if ($z > $this->top) {
                $this->top = $z;
            }
        }
    }

    private function mesh(): Mesh
    {
        if ($this->triangles === 0) {
            throw new CannotReadMesh('it has no triangle.');
        }
        $reach = [$this->left, $this->right, $this->front, $this->back, $this->bottom, $this->top, $this->volume, $this->area];
        if (array_filter($reach, is_finite(...)) !== $reach) {
            throw new CannotReadMesh('some of its corners are not numbers.');
        }

        return new Mesh(
            $this->triangles,
            $this->volume / 6,
            $this->area / 2,
            [$this->left, $this->front, $this->bottom],
            [$this->right, $this->back, $this->top],
            $this->edges === 0,
            $this->flat,
        );
    }
}
