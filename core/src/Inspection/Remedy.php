<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Format\Changes;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\Evidence;

/**
 * One way to put a finding right, as the changes of the build file that would do it.
 *
 * @phpstan-import-type Change from Changes
 */
final readonly class Remedy
{
    /**
     * @param  string  $says  what to do, in words
     * @param  list<Change>  $changes  as docs/api/openapi.json has them
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
     * @return Change
     */
    public static function set(string $section, string $ref, array $path, mixed $to): array
    {
        return ['section' => $section, 'ref' => $ref, 'set' => [['path' => $path, 'to' => $to]]];
    }

    /**
     * A value on a part's sheet that is still to be made so: until someone has, nothing may pass on it.
     *
     * @return Change
     */
    public static function spec(string $part, string $key, string|bool $to): array
    {
        return self::set(
            'parts',
            $part,
            ['specs', $key],
            [
                'value' => $to,
                'evidence' => Evidence::Assumed->value,
                'source' => 'to be fitted',
            ],
        );
    }

    /**
     * Members of an axis' drive.
     *
     * @param  array<string, string>  $members
     */
    public static function drive(Axis $axis, string $says, array $members, bool $buys = false): self
    {
        $set = [];
        foreach ($members as $member => $to) {
            $set[] = ['path' => ['drive', $member], 'to' => $to];
        }

        return new self($says, [['section' => 'axes', 'ref' => $axis->ref, 'set' => $set]], $buys);
    }

    /**
     * @param  list<Change>  $changes
     * @return list<string> where the values stand that are to be fitted or made yet, as in Input::$where
     */
    public static function toBeFitted(array $changes): array
    {
        $where = [];
        foreach ($changes as $change) {
            foreach ($change['set'] ?? [] as $set) {
                if (self::isAssumed($set['to'])) {
                    $where[] = "{$change['section']}/".($change['ref'] ?? '').'/'.implode('/', $set['path']);
                }
            }
            $lead = $change['create'] ?? [];
            if (self::isAssumed($lead['conductor'] ?? null) && is_string($lead['ref'] ?? null)) {
                $where[] = "{$change['section']}/{$lead['ref']}/conductor/size";
            }
        }

        return $where;
    }

    private static function isAssumed(mixed $value): bool
    {
        return is_array($value) && ($value['evidence'] ?? null) === Evidence::Assumed->value;
    }
}
