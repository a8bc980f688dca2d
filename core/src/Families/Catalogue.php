<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Family;

/**
 * The families known here, found by key. A new family is one file in this folder, named as its key is:
 * "arc_source" is ArcSource.php.
 */
final class Catalogue
{
    /** @var array<string, Family> made when first asked for */
    private array $made = [];

    /**
     * @param  array<string, class-string<Family>>  $families  by key
     */
    public function __construct(private readonly array $families)
    {
    }

    public static function standard(): self
    {
        static $standard = null;

        return $standard ??= new self(self::here());
    }

    /**
     * @return array<string, class-string<Family>> the families of this folder
     */
    private static function here(): array
    {
        $families = [];
        foreach (glob(__DIR__.'/*.php') ?: [] as $file) {
            $class = __NAMESPACE__.'\\'.basename($file, '.php');
            if (is_subclass_of($class, Family::class)) {
                $key = strtolower((string) preg_replace('/(?<!^)[A-Z]/', '_$0', basename($file, '.php')));
                $families[$key] = $class;
            }
        }

        return $families;
    }

    public function find(string $key): ?Family
    {
        $class = $this->families[$key] ?? null;

        return $class === null ? null : ($this->made[$key] ??= new $class);
    }

    /**
     * @return array<string, Family>
     */
    public function all(): array
    {
        $all = [];
        foreach (array_keys($this->families) as $key) {
            $all[$key] = $this->find($key) ?? throw new \LogicException("There is no family {$key}.");
        }

        return $all;
    }
}
