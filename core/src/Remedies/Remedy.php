<?php

declare(strict_types=1);

namespace Magpie\Core\Remedies;

/** One way to put a finding right, as the changes of the build file that would do it. */
final readonly class Remedy
{
    /**
     * @param  string  $says  what to do, in words
     * @param  list<array<string, mixed>>  $changes  as docs/api/openapi.json has them
     * @param  bool  $buys  something has to be bought for it, whether the plan knows its price or not
     */
    public function __construct(public string $says, public array $changes, public bool $buys)
    {
    }

    /**
     * @param  list<string|int>  $path
     */
    public static function setting(
        string $says,
        string $section,
        string $ref,
        array $path,
        mixed $to,
        bool $buys = false,
    ): self {
        return new self($says, [self::set($section, $ref, $path, $to)], $buys);
    }

    /**
     * @param  list<string|int>  $path
     * @return array<string, mixed>
     */
    public static function set(string $section, string $ref, array $path, mixed $to): array
    {
        return ['section' => $section, 'ref' => $ref, 'set' => [['path' => $path, 'to' => $to]]];
    }
}
