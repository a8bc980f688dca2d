<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

/**
 * Activities and what each waits for: earliest and latest days, slack, and the critical path (Kelley and Walker, "Critical-
 * path planning and scheduling", 1959, from memory).
 */
final readonly class Network
{
    private const SAME = 1e-9;

    /** @var list<Activity> each after all it waits for */
    public array $order;

    /** @var array<string, float> days at which each begins at the earliest, by key */
    public array $begins;

    /** @var array<string, float> days at which each may begin at the latest without the end moving */
    public array $latest;

    /** Days until all is done. */
    public float $end;

    /**
     * @param  list<Activity>  $activities
     *
     * @throws Circle
     */
    public function __construct(array $activities)
    {
        $this->order = self::ordered($activities);
        $begins = $ends = [];
        $end = 0.0;
        foreach ($this->order as $activity) {
            $begin = 0.0;
            foreach ($activity->after as $before) {
                $begin = max($begin, $ends[$before] ?? 0.0);
            }
            $begins[$activity->key] = $begin;
            $ends[$activity->key] = $begin + $activity->mean();
            $end = max($end, $ends[$activity->key]);
        }
        $latest = $bound = [];
        foreach (array_reverse($this->order) as $activity) {
            $latest[$activity->key] = ($bound[$activity->key] ?? $end) - $activity->mean();
            foreach ($activity->after as $before) {
                $bound[$before] = min($bound[$before] ?? $end, $latest[$activity->key]);
            }
        }
        $this->begins = $begins;
        $this->latest = $latest;
        $this->end = $end;
    }

    /** Days something may be late before the end moves. */
    public function slack(string $key): float
    {
        return max(0.0, $this->latest[$key] - $this->begins[$key]);
    }

    /**
     * @return list<Activity> without slack, in order
     */
    public function critical(): array
    {
        return array_values(
            array_filter($this->order, fn (Activity $a): bool => $a->mean() > 0 && $this->slack($a->key) <= self::SAME),
        );
    }

    /**
     * @param  list<Activity>  $activities
     * @return list<Activity>
     */
    private static function ordered(array $activities): array
    {
        $all = $waits = $next = [];
        foreach ($activities as $activity) {
            $all[$activity->key] = $activity;
        }
        foreach ($all as $key => $activity) {
            // What is not in the network is done already.
            $before = array_unique(array_filter($activity->after, static fn (string $b): bool => isset($all[$b])));
            $waits[$key] = count($before);
            foreach ($before as $one) {
                $next[$one][] = $key;
            }
        }
        $ready = array_keys(array_filter($waits, static fn (int $n): bool => $n === 0));
        $order = [];
        while ($ready !== []) {
            $key = array_shift($ready);
            $order[] = $all[$key];
            unset($waits[$key]);
            foreach ($next[$key] ?? [] as $one) {
                if (--$waits[$one] === 0) {
                    $ready[] = $one;
                }
            }
        }
        if ($waits !== []) {
            throw new Circle(self::circle($all, $waits));
        }

        return $order;
    }

    /**
     * @param  array<string, Activity>  $all
     * @param  array<string, int>  $stuck
     * @return list<string>
     */
    private static function circle(array $all, array $stuck): array
    {
        $key = (string) array_key_first($stuck);
        $path = [];
        while (! in_array($key, $path, true)) {
            $path[] = $key;
            foreach ($all[$key]->after as $before) {
                if (isset($stuck[$before])) {
                    $key = $before;
                    break;
                }
            }
        }
        $members = array_slice($path, (int) array_search($key, $path, true));

        return array_map(static fn (string $k): string => $all[$k]->label, array_reverse($members));
    }
}
