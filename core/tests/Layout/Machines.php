<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Layout;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Build;

/** Builds with a few boxes in them. */
final class Machines
{
    /**
     * @param  list<array<string, mixed>>  $places
     * @param  array<string, mixed>  $with
     * @param  list<array{array<string, mixed>, array<string, mixed>}>  $parts
     */
    public static function build(array $places, array $with = [], array $parts = []): Build
    {
        return BuildFile::build(
            Examples::file(
                $parts,
                $with + [
                    'magpie' => BuildFile::VERSION,
                    'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                    'places' => $places,
                    'axes' => [self::axis('x', 300), self::axis('y', 200), self::axis('z', 100)],
                ],
            ),
        );
    }

    public static function survey(Build $build): Survey
    {
        return new Survey(Rules::inspector()->stands($build));
    }

    /**
     * @return array<string, mixed>
     */
    public static function axis(string $along, ?float $span, ?string $ref = null): array
    {
        return ['ref' => $ref ?? $along, 'name' => strtoupper($ref ?? $along), 'along' => $along] +
            ($span === null ? [] : ['span' => "{$span} mm", 'span_evidence' => 'measured']);
    }

    /**
     * Something that is on no list, by its low corner and its sides, in mm.
     *
     * @param  array{float, float, float}  $low
     * @param  array{float, float, float}  $size
     * @param  array<string, mixed>  $more
     * @return array<string, mixed>
     */
    public static function box(string $ref, array $low, array $size, array $more = []): array
    {
        return $more + [
            'ref' => $ref,
            'name' => $ref,
            'size' => ['length' => "{$size[0]} mm", 'width' => "{$size[1]} mm", 'height' => "{$size[2]} mm"],
            'x' => ['at' => 'low', 'by' => "{$low[0]} mm"],
            'y' => ['at' => 'low', 'by' => "{$low[1]} mm"],
            'z' => ['at' => 'low', 'by' => "{$low[2]} mm"],
        ];
    }

    public static function verdict(Build $build, string $key): ?string
    {
        return Rules::inspector()->find($build, $key)?->verdict->value;
    }

    public static function says(Build $build, string $key): string
    {
        return preg_replace('/\\s/u', ' ', Rules::inspector()->find($build, $key)->headline ?? '') ?? '';
    }
}
