<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

/**
 * Pieces given to machines that work side by side so that the last is done soon: the longest first to where it ends first,
 * then moved and exchanged while the last one gets earlier. With a bound that no way of giving them out is below.
 */
final class Allotment
{
    /** Rounds of moving and exchanging. */
    private const ROUNDS = 60;

    /** Subsets of machines are looked at one by one for the bound up to so many machines. */
    private const SUBSETS = 8;

    /** @var array<string, array<string, int>> pieces by machine and kind */
    public readonly array $given;

    /** @var float days no way of giving them out is done before */
    public readonly float $bound;

    /**
     * @param  array<string, array{int, non-empty-array<string, float>}>  $kinds  kind → pieces, and days of one by machine that can do it
     * @param  array<string, string>  $groups  what a kind is set up for: another on the same machine costs a change
     * @param  array<string, float>  $change  days a change takes, by machine
     */
    public function __construct(
        private readonly array $kinds,
        private readonly array $groups,
        private readonly array $change,
    ) {
        $this->given = $this->bettered($this->greedy());
        $this->bound = $this->bound();
    }

    /** Days until the last machine is done. */
    public function end(): float
    {
        return max([0.0, ...array_values(array_map($this->load(...), array_keys($this->given), $this->given))]);
    }

    /**
     * @param  array<string, int>  $pieces  by kind
     */
    private function load(string $machine, array $pieces): float
    {
        $sum = 0.0;
        $groups = [];
        foreach ($pieces as $kind => $count) {
            $sum += $count * $this->kinds[$kind][1][$machine];
            $groups[$this->groups[$kind]] = true;
        }

        return $sum + count($groups) * $this->change[$machine];
    }

    /**
     * @return array<string, array<string, int>>
     */
    private function greedy(): array
    {
        $order = array_keys($this->kinds);
        // What few can do goes first, then what takes longest.
        usort($order, function (string $a, string $b): int {
            [$one, $other] = [$this->kinds[$a][1], $this->kinds[$b][1]];

            return [count($one), -min($one), $a] <=> [count($other), -min($other), $b];
        });
        $given = array_fill_keys(array_keys($this->change), []);
        $loads = array_fill_keys(array_keys($this->change), 0.0);
        $set = [];
        foreach ($order as $kind) {
            [$count, $days] = $this->kinds[$kind];
            for ($i = 0; $i < $count; $i++) {
                $ends = [];
                foreach ($days as $machine => $one) {
                    $ends[$machine] =
                        $loads[$machine] +
                        $one +
                        (isset($set[$machine][$this->groups[$kind]]) ? 0 : $this->change[$machine]);
                }
                asort($ends);
                $machine = array_key_first($ends);
                $loads[$machine] = $ends[$machine];
                $set[$machine][$this->groups[$kind]] = true;
                $given[$machine][$kind] = ($given[$machine][$kind] ?? 0) + 1;
            }
        }

        return $given;
    }

    /**
     * @param  array<string, array<string, int>>  $given
     * @return array<string, array<string, int>>
     */
    private function bettered(array $given): array
    {
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $loads = array_map($this->load(...), array_keys($given), $given);
            $loads = array_combine(array_keys($given), $loads);
            arsort($loads);
            $last = array_key_first($loads);
            $found = $last === null ? null : $this->better($given, $last, $loads);
            if ($found === null) {
                return $given;
            }
            $given = $found;
        }

        return $given;
    }

    /**
     * A piece moved off the machine that ends last, or exchanged for a shorter one, so that both end before it did.
     *
     * @param  array<string, array<string, int>>  $given
     * @param  array<string, float>  $loads
     * @return array<string, array<string, int>>|null
     */
    private function better(array $given, string $last, array $loads): ?array
    {
        $end = $loads[$last] - 1e-9;
        foreach (array_keys($given[$last]) as $kind) {
            foreach ($this->kinds[$kind][1] as $machine => $days) {
                if ($machine === $last || $loads[$machine] >= $end) {
                    continue;
                }
                foreach ([null, ...array_keys($given[$machine])] as $back) {
                    // Only what can be done there, and takes less than what goes.
                    if ($back !== null && ! isset($this->kinds[$back][1][$last])) {
                        continue;
                    }
                    $reached = $loads[$machine] + $days - ($back === null ? 0.0 : $this->kinds[$back][1][$machine]);
                    if ($reached - $this->change[$machine] >= $end) {
                        continue;
                    }
                    $try = self::moved($given, $kind, $last, $machine);
                    $try = $back === null ? $try : self::moved($try, $back, $machine, $last);
                    if ($this->load($last, $try[$last]) < $end && $this->load($machine, $try[$machine]) < $end) {
                        return $try;
                    }
                }
            }
        }

        return null;
    }

    /**
     * @param  array<string, array<string, int>>  $given
     * @return array<string, array<string, int>>
     */
    private static function moved(array $given, string $kind, string $from, string $to): array
    {
        $given[$from][$kind]--;
        if ($given[$from][$kind] === 0) {
            unset($given[$from][$kind]);
        }
        $given[$to][$kind] = ($given[$to][$kind] ?? 0) + 1;

        return $given;
    }

    /**
     * The longest piece where it is quickest; and, for each choice of machines, the days each piece takes at least when
     * theirs count by how quick they are. For any weights that add up to one, the pieces' days so weighted are no more than
     * the end: duality of linear programs.
     */
    private function bound(): float
    {
        $machines = array_keys($this->change);
        $bound = 0.0;
        foreach ($this->kinds as [$count, $days]) {
            $bound = $count === 0 ? $bound : max($bound, min($days));
        }
        $speeds = array_combine($machines, array_map($this->speed(...), $machines));
        $all = 2 ** count($machines) - 1;
        foreach (
            match (true) {
                $machines === [] => [],
                count($machines) <= self::SUBSETS => range(1, $all),
                default => [$all],
            } as $mask
        ) {
            $within = array_filter(
                $machines,
                static fn (int $i): bool => (($mask >> $i) & 1) === 1,
                ARRAY_FILTER_USE_KEY,
            );
            $weights = array_intersect_key($speeds, array_flip($within));
            $whole = array_sum($weights);
            $sum = 0.0;
            foreach ($whole > 0 ? $this->kinds : [] as [$count, $days]) {
                $least = INF;
                foreach ($days as $machine => $one) {
                    $least = min($least, (($weights[$machine] ?? 0.0) / $whole) * $one);
                }
                $sum += $count * $least;
            }
            $bound = max($bound, $sum);
        }

        return $bound;
    }

    /** How quick a machine is with what it can do, against the quickest for each. */
    private function speed(string $machine): float
    {
        $least = $own = 0.0;
        foreach ($this->kinds as [$count, $days]) {
            $least += isset($days[$machine]) ? $count * min($days) : 0.0;
            $own += $count * ($days[$machine] ?? 0.0);
        }

        return $own > 0 ? $least / $own : 0.0;
    }
}
