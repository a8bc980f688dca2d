<?php

declare(strict_types=1);

namespace App\Builds;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;

/**
 * Plans how an edit is taken back, or done again, in a build that others have gone on with: what is still as the edit
 * left it is put right, what somebody has touched since stays and is named, and nothing is left pointing at nothing.
 *
 * @phpstan-type Entry array<int|string, mixed>
 * @phpstan-type Record array{section: string, ref: string, before: Entry|null, after: Entry|null, row: int|null}
 * @phpstan-type Step array{section: string, ref: string, now: Entry|null, then: Entry|null, row: int|null}
 */
final class Reversal
{
    /**
     * @var array<string, Step> by section and ref: what becomes of an entry; none when it is to be deleted, none before
     * when it comes back
     */
    private array $steps = [];

    /** @var array<string, array{section: string, ref: string, why: string}> */
    private array $left = [];

    /**
     * @param  array<string, Entry>  $headers  by name
     * @param  array<string, array<string, Entry>>  $entries  by section and ref
     */
    public function __construct(private array $headers, private array $entries)
    {
    }

    /**
     * @param  list<Record>  $changes  in the order in which they are to be met
     * @param  bool  $consistent  whether every name must name something afterwards, as it did before
     */
    public function plan(array $changes, bool $redo, bool $consistent): void
    {
        foreach ($changes as $change) {
            $this->meet(
                $change['section'],
                $change['ref'],
                $redo ? $change['before'] : $change['after'],
                $redo ? $change['after'] : $change['before'],
                $change['row'],
            );
        }
        for ($tries = count($this->steps); $consistent && $tries > 0 && ! $this->holdsTogether(); $tries--);
    }

    /**
     * @return list<Step>
     */
    public function steps(): array
    {
        return array_values($this->steps);
    }

    /**
     * @return list<array{section: string, ref: string, why: string}>
     */
    public function left(): array
    {
        return array_values($this->left);
    }

    /**
     * @return array<string, Entry>
     */
    public function headers(): array
    {
        return $this->headers;
    }

    /**
     * @return array<string, array<string, Entry>>
     */
    public function entries(): array
    {
        return $this->entries;
    }

    /**
     * @param  Entry|null  $from  as the edit left it
     * @param  Entry|null  $to  as it is to be
     */
    private function meet(string $section, string $ref, ?array $from, ?array $to, ?int $row): void
    {
        $ref = (string) ($from['ref'] ?? ($to['ref'] ?? $ref));
        $now = $this->current($section, $ref);
        $untouched = self::same($now, $from);
        if ($to === null) {
            if ($now !== null) {
                $untouched
                    ? $this->step($section, $ref, $now, null, $row)
                    : $this->leave($section, $ref, 'it was changed since');
            }
        } elseif ($from === null) {
            $now === null
                ? $this->step($section, $ref, null, $to, $row)
                : $this->leave($section, $ref, 'there is another of that name now');
        } elseif ($now === null) {
            $this->leave($section, $ref, 'it was deleted since');
        } elseif ($untouched) {
            $this->step($section, $ref, $now, $to, $row);
        } else {
            $this->merge($section, $ref, $now, $from, $to, $row);
        }
    }

    /**
     * Of an entry that somebody touched: the places that are still as the edit left them.
     *
     * @param  Entry  $now
     * @param  Entry  $from
     * @param  Entry  $to
     */
    private function merge(string $section, string $ref, array $now, array $from, array $to, ?int $row): void
    {
        $then = $now;
        $theirs = [];
        foreach (self::differences($from, $to) as $path) {
            if (self::same(Path::get($now, $path), Path::get($from, $path))) {
                $then = Path::set($then, $path, Path::get($to, $path));
            } else {
                $theirs[] = str_replace('_', ' ', implode(' ', array_map(strval(...), $path)));
            }
        }
        if (! self::same($then, $now)) {
            $this->step($section, $ref, $now, $then, $row);
        }
        if ($theirs !== []) {
            $this->leave(
                $section,
                $ref,
                implode(', ', array_slice($theirs, 0, 4)).(count($theirs) > 1 ? ' were' : ' was').' changed since',
            );
        }
    }

    /**
     * Undoes steps of the plan until everything that is named is there.
     *
     * @return bool whether it is
     */
    private function holdsTogether(): bool
    {
        try {
            BuildFile::build(self::data($this->headers, $this->entries), kept: true);
        } catch (CannotReadBuildFile $e) {
            $this->giveUp($this->culprit($e->pointer) ?? (string) array_key_last($this->steps), $e->reason);

            return false;
        }

        return true;
    }

    /** The step to give up for a name that names nothing: the entry's that says it, or the one that took it away. */
    private function culprit(string $pointer): ?string
    {
        [, $section, $index] = explode('/', $pointer, 4) + ['', '', ''];
        $ref = ctype_digit($index) ? (string) (array_keys($this->entries[$section] ?? [])[(int) $index] ?? '') : '';
        if (isset($this->steps["{$section}/{$ref}"])) {
            return "{$section}/{$ref}";
        }
        $path = Path::ofPointer($pointer, 2);
        $said = Path::get($this->entries[$section][$ref] ?? [], $path);
        $names = [is_string($said) ? $said : '', is_string($said) ? explode('.', $said)[0] : '', (string) end($path)];
        foreach ($this->steps as $key => $step) {
            if ($step['then'] === null && in_array($step['ref'], $names, true)) {
                return $key;
            }
        }

        return null;
    }

    private function giveUp(string $key, string $why): void
    {
        $step = $this->steps[$key];
        unset($this->steps[$key]);
        $this->put($step['section'], $step['ref'], $step['now']);
        $this->leave(
            $step['section'],
            $step['ref'],
            $step['then'] === null ? "something else uses it by now ({$why})" : $why,
        );
    }

    /**
     * @param  Entry|null  $now
     * @param  Entry|null  $then
     */
    private function step(string $section, string $ref, ?array $now, ?array $then, ?int $row): void
    {
        // One edit may have met an entry twice: what stood before the first and stands after the last counts.
        $first = $this->steps["{$section}/{$ref}"] ?? null;
        unset($this->steps["{$section}/{$ref}"]);
        $now = $first === null ? $now : $first['now'];
        if ($now !== null || $then !== null) {
            $this->steps["{$section}/{$ref}"] = [
                'section' => $section,
                'ref' => $ref,
                'now' => $now,
                'then' => $then,
                'row' => $row,
            ];
        }
        $this->put($section, $ref, $then);
    }

    private function leave(string $section, string $ref, string $why): void
    {
        $this->left["{$section}/{$ref}"] = ['section' => $section, 'ref' => $ref, 'why' => $why];
    }

    /**
     * @param  Entry|null  $entry
     */
    private function put(string $section, string $ref, ?array $entry): void
    {
        if (isset($this->headers[$section])) {
            $this->headers[$section] = $entry ?? [];
        } elseif ($entry === null) {
            unset($this->entries[$section][$ref]);
        } else {
            $this->entries[$section][$ref] = $entry;
        }
    }

    /**
     * @return Entry|null
     */
    private function current(string $section, string $ref): ?array
    {
        return $this->headers[$section] ?? ($this->entries[$section][$ref] ?? null);
    }

    /**
     * @param  Entry  $one
     * @param  Entry  $other
     * @param  list<string|int>  $under
     * @return list<non-empty-list<string|int>> paths of what differs; a list counts as one value
     */
    private static function differences(array $one, array $other, array $under = []): array
    {
        $paths = [];
        foreach (array_keys($one + $other) as $key) {
            [$a, $b] = [$one[$key] ?? null, $other[$key] ?? null];
            if (self::same($a, $b)) {
                continue;
            }
            $named = is_array($a) && is_array($b) && ! array_is_list($a) && ! array_is_list($b);
            array_push($paths, ...$named ? self::differences($a, $b, [...$under, $key]) : [[...$under, $key]]);
        }

        return $paths;
    }

    private static function same(mixed $one, mixed $other): bool
    {
        return $one === $other || (is_array($one) && is_array($other) && self::sorted($one) === self::sorted($other));
    }

    /**
     * @param  array<int|string, mixed>  $value
     * @return array<int|string, mixed>
     */
    private static function sorted(array $value): array
    {
        if (! array_is_list($value)) {
            ksort($value);
        }

        return array_map(static fn (mixed $v): mixed => is_array($v) ? self::sorted($v) : $v, $value);
    }

    /**
     * @param  array<string, Entry>  $headers
     * @param  array<string, array<string, Entry>>  $entries
     * @return array<string, mixed> in the form of the file
     */
    public static function data(array $headers, array $entries): array
    {
        return array_filter(
            ['magpie' => BuildFile::VERSION] + $headers + array_map(array_values(...), $entries),
            static fn (mixed $v): bool => $v !== [],
        );
    }
}
