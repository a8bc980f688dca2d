<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Planning\WayBack;

/** What comes off to reach a part of a build file, from the shell: docs/format/way-back.md describes the shape. */
final class WayBackFile
{
    private const VERSION = 1;

    private const USAGE = 'usage: bin/magpie way-back FILE NEED [--format json]';

    /**
     * 0 when it was worked out, 2 when the file cannot be read or has no such need.
     *
     * @param  list<string>  $arguments
     */
    public function run(array $arguments): int
    {
        [$words, $options] = FromFile::words($arguments, ['format'], self::USAGE, 2);
        [$file, $need] = [$words[0], $words[1] ?? ''];
        $format = $options['format'] ?? 'text';
        if (! in_array($format, ['text', 'json'], true)) {
            throw new Failure(self::USAGE, 2);
        }
        $build = FromFile::read($file, $format, 'magpie_way_back', self::VERSION);
        if (! isset($build->needs[$need])) {
            throw new Failure("there is no need \"{$need}\" in this build.", 2);
        }
        $way = (new WayBack($build, $need))->toArray();
        if ($format === 'json') {
            FromFile::print(['magpie_way_back' => self::VERSION] + $way);

            return 0;
        }
        printf(
            "%s: off in %.1f h, on again in %.1f h%s\n",
            $way['role'],
            $way['hours_off'],
            $way['hours_on'],
            $way['mass'] === null ? '' : "; it weighs {$way['mass']}",
        );
        foreach ($way['off'] as $step) {
            echo "  off: {$step['title']}".
                ($step['cautions'] === [] ? '' : ' ('.implode(', ', $step['cautions']).')').
                "\n";
        }
        foreach ($way['again'] as $again) {
            echo "  check again: {$again}\n";
        }

        return 0;
    }
}
