<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Planning\OpenItems;

/** What of a build file is not as it is meant to stay, from the shell: docs/format/open.md describes the shape. */
final class OpenFile
{
    private const VERSION = 1;

    private const USAGE = 'usage: bin/magpie open FILE [--format json]';

    /**
     * 0 when nothing is open, 1 when something is, 2 when the file cannot be read.
     *
     * @param  list<string>  $arguments
     */
    public function run(array $arguments): int
    {
        [$file, $options] = FromFile::arguments($arguments, ['format'], self::USAGE);
        $format = $options['format'] ?? 'text';
        if (! in_array($format, ['text', 'json'], true)) {
            throw new Failure(self::USAGE, 2);
        }
        $build = FromFile::read($file, $format, 'magpie_open', self::VERSION);
        $items = OpenItems::of($build);
        if ($format === 'json') {
            FromFile::print(['magpie_open' => self::VERSION, 'build' => $build->plan->name, 'items' => $items]);
        } else {
            printf("%s: %d open items\n", $build->plan->name, count($items));
            foreach ($items as $item) {
                echo "  {$item['kind']}: {$item['what']}\n      until {$item['release']}\n";
            }
        }

        return $items === [] ? 0 : 1;
    }
}
