<?php

declare(strict_types=1);

namespace App\Http;

use App\Builds\Editor;
use Illuminate\Validation\ValidationException;

/**
 * The changes of an edit as they come over the wire, held against their shape before anything looks inside them.
 *
 * @phpstan-import-type Asked from Editor
 */
final class Changes
{
    private const MOST = 2_000;

    private const MOST_PLACES = 500;

    private const DEEPEST = 8;

    /** The last place of a list that an edit can name. */
    private const LAST = 1_999;

    /**
     * @return list<Asked>
     *
     * @throws ValidationException with the place of the first thing that is wrong
     */
    public static function read(mixed $given): array
    {
        self::hold(is_array($given) && array_is_list($given) && $given !== [], 'changes', 'must be a list of changes.');
        self::hold(count($given) <= self::MOST, 'changes', 'are more than '.self::MOST.' at once.');
        foreach ($given as $i => $change) {
            self::change($change, "changes.{$i}");
        }

        return $given;
    }

    private static function change(mixed $change, string $at): void
    {
        self::hold(is_array($change), $at, 'must be an object.');
        self::hold(
            is_string($change['section'] ?? null) && strlen($change['section']) <= 20,
            "{$at}.section",
            'must name a section.',
        );
        self::hold(
            ! isset($change['ref']) || (is_string($change['ref']) && strlen($change['ref']) <= 64),
            "{$at}.ref",
            'must be a short name.',
        );
        $acts = array_filter([isset($change['create']), ($change['delete'] ?? false) !== false, isset($change['set'])]);
        self::hold(count($acts) === 1, $at, 'must do one thing: create, delete or set.');
        self::hold(! isset($change['create']) || is_array($change['create']), "{$at}.create", 'must be an object.');
        self::hold(
            ! is_array($change['create'] ?? null) || is_string($change['create']['ref'] ?? ''),
            "{$at}.create.ref",
            'must be a short name.',
        );
        self::hold(! isset($change['delete']) || is_bool($change['delete']), "{$at}.delete", 'must be true.');
        if (isset($change['set'])) {
            self::hold(
                is_array($change['set']) && array_is_list($change['set']) && $change['set'] !== [],
                "{$at}.set",
                'must be a list of places.',
            );
            self::hold(
                count($change['set']) <= self::MOST_PLACES,
                "{$at}.set",
                'are more than '.self::MOST_PLACES.' places at once.',
            );
            foreach ($change['set'] as $j => $set) {
                self::place($set, "{$at}.set.{$j}");
            }
        }
    }

    private static function place(mixed $set, string $at): void
    {
        self::hold(is_array($set), $at, 'must be an object.');
        $path = $set['path'] ?? null;
        self::hold(
            is_array($path) && array_is_list($path) && $path !== [] && count($path) <= self::DEEPEST,
            "{$at}.path",
            'must be a list of one to '.self::DEEPEST.' names.',
        );
        foreach ($path as $k => $key) {
            self::hold(
                (is_string($key) && strlen($key) <= 200) || (is_int($key) && $key >= 0 && $key <= self::LAST),
                "{$at}.path.{$k}",
                'must be a name, or a place in a list from 0 to '.self::LAST.'.',
            );
        }
    }

    /**
     * @phpstan-assert true $holds
     *
     * @throws ValidationException
     */
    private static function hold(bool $holds, string $at, string $reason): void
    {
        if (! $holds) {
            throw ValidationException::withMessages([$at => $reason]);
        }
    }
}
