<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Printing\CannotReadMesh;
use Magpie\Core\Printing\MeshReader;

/** What a file of triangles encloses, from the shell: docs/format/mesh.md describes the shape. */
final class MeshFile
{
    private const VERSION = 1;

    private const PIECE = 262_144;

    /** 0 when there is nothing to look at, 1 when there is, 2 when it cannot be read. */
    public function run(string $file, string $format): int
    {
        $stream = $file === '-' ? STDIN : @fopen($file, 'rb');
        if ($stream === false || ($file !== '-' && is_dir($file))) {
            throw new Failure("{$file} cannot be opened.", 2);
        }
        try {
            $mesh = MeshReader::read(self::pieces($stream));
        } catch (CannotReadMesh $e) {
            if ($format === 'json') {
                FromFile::print(['magpie_mesh' => self::VERSION, 'error' => ['reason' => $e->getMessage()]]);
            }
            throw new Failure("{$file} cannot be read: {$e->getMessage()}", 2);
        }
        if ($format === 'json') {
            FromFile::print(['magpie_mesh' => self::VERSION] + $mesh->toArray());
        } else {
            [$x, $y, $z] = $mesh->size();
            printf("%s: %s triangles, %.2f × %.2f × %.2f mm\n", $file, number_format($mesh->triangles), $x, $y, $z);
            printf(
                "  volume  %s\n  area    %.2f cm²\n",
                $mesh->encloses() === null ? 'none: it is open' : sprintf('%.3f cm³', $mesh->encloses() / 1000),
                $mesh->area / 100,
            );
            foreach ($mesh->doubts() as $doubt) {
                echo "  look again: {$doubt}\n";
            }
        }

        return $mesh->doubts() === [] ? 0 : 1;
    }

    /**
     * @param  resource  $stream
     * @return iterable<string>
     */
    private static function pieces($stream): iterable
    {
        while (! feof($stream)) {
            yield (string) fread($stream, self::PIECE);
        }
    }
}
