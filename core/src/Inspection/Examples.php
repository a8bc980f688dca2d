<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Closure;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Machine\Build;

/**
 * Two sample builds of a check, written as a build file would be, made only when asked for.
 */
final readonly class Examples
{
    /**
     * @param  Closure(): array<string, mixed>  $trips
     * @param  Closure(): array<string, mixed>  $holds
     */
    public function __construct(
        private Closure $trips,
        private Closure $holds,
        public Verdict $tripped = Verdict::Danger,
    ) {
    }

    public function tripping(): Build
    {
        return self::build(($this->trips)());
    }

    public function holding(): Build
    {
        return self::build(($this->holds)());
    }

    /**
     * Specs as a datasheet would give them.
     *
     * @param  array<string, string|bool>  $values
     * @return array<string, array<string, string|bool>>
     */
    public static function sheet(array $values): array
    {
        return array_map(static fn (string|bool $v): array => ['value' => $v, 'evidence' => 'datasheet'], $values);
    }

    /**
     * A part and the need it fills, of one name.
     *
     * @param  array<string, string|bool>  $values
     * @return array{array<string, mixed>, array<string, mixed>} part, need
     */
    public static function part(string $ref, string $family, array $values): array
    {
        return [
            ['ref' => $ref, 'family' => $family, 'name' => $ref, 'specs' => self::sheet($values)],
            ['ref' => $ref, 'role' => $ref, 'family' => $family, 'candidates' => [$ref], 'choice' => $ref],
        ];
    }

    /**
     * @param  list<array{array<string, mixed>, array<string, mixed>}>  $parts
     * @param  array<string, mixed>  $rest
     * @return array<string, mixed>
     */
    public static function file(array $parts, array $rest = []): array
    {
        return ['parts' => array_column($parts, 0), 'needs' => array_column($parts, 1)] + $rest;
    }

    /**
     * @param  array<string, mixed>  $data
     */
    private static function build(array $data): Build
    {
        return BuildFile::build(
            $data + [
                'magpie' => BuildFile::VERSION,
                'build' => ['name' => 'Sample', 'kind' => 'sample', 'currency' => 'GBP'],
                'site' => [
                    'mains_voltage' => '230 V',
                    'mains_frequency' => '50 Hz',
                    'ambient' => '30 °C',
                    'tariff' => '0.28',
                ],
            ],
        );
    }
}
