<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Machine\Build;

/** A build file read from the shell, for the commands that need neither server nor database. */
final class FromFile
{
    /**
     * @param  string  $shape  name of the version member of what the command prints as JSON
     *
     * @throws Failure where it cannot be opened or read; with JSON asked for, that is printed too
     */
    public static function read(string $file, string $format, string $shape, int $version): Build
    {
        // A run that ends when it has answered has nothing to gain from looking for cycles among what it holds.
        gc_disable();
        $json = $file === '-' ? stream_get_contents(STDIN) : @file_get_contents($file);
        if ($json === false) {
            throw new Failure("{$file} cannot be opened.", 2);
        }
        try {
            return BuildFile::read($json);
        } catch (CannotReadBuildFile $e) {
            if ($format === 'json') {
                self::print([$shape => $version, 'error' => ['pointer' => $e->pointer, 'reason' => $e->reason]]);
            }
            throw new Failure("{$file} cannot be read at {$e->getMessage()}", 2);
        }
    }

    /**
     * The lines of a file, read as they are asked for.
     *
     * @return iterable<string>
     *
     * @throws Failure where it cannot be opened
     */
    public static function lines(string $file): iterable
    {
        $stream = is_file($file) ? fopen($file, 'rb') : false;
        if ($stream === false) {
            throw new Failure("{$file} cannot be opened.", 2);
        }
        while (($line = fgets($stream, 65536)) !== false) {
            yield $line;
        }
    }

    /**
     * The file and the options of a command, written "--name=value" or "--name value".
     *
     * @param  list<string>  $arguments
     * @param  list<string>  $known  names of options
     * @return array{string, array<string, string>}
     *
     * @throws Failure with how it is used, where something else is written
     */
    public static function arguments(array $arguments, array $known, string $usage): array
    {
        [[$file], $options] = self::words($arguments, $known, $usage, 1);

        return [$file, $options];
    }

    /**
     * The same, for a command that takes more than the file.
     *
     * @param  list<string>  $arguments
     * @param  list<string>  $known
     * @param  positive-int  $count
     * @return array{non-empty-list<string>, array<string, string>}
     *
     * @throws Failure
     */
    public static function words(array $arguments, array $known, string $usage, int $count): array
    {
        $words = [];
        $options = [];
        while (($argument = array_shift($arguments)) !== null) {
            [$option, $value] = [...explode('=', $argument, 2), null];
            $option = (string) $option;
            if (str_starts_with($option, '--') && in_array(substr($option, 2), $known, true)) {
                $options[substr($option, 2)] = $value ?? (array_shift($arguments) ?? '');
            } elseif (count($words) < $count && ! str_starts_with($argument, '--')) {
                $words[] = $argument;
            } else {
                throw new Failure($usage, 2);
            }
        }
        if ($words === [] || count($words) < $count) {
            throw new Failure($usage, 2);
        }

        return [$words, $options];
    }

    /**
     * @param  array<string, mixed>  $data
     */
    public static function print(array $data): void
    {
        echo json_encode($data, JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE), "\n";
    }
}
