<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Quantity\Quantity;

/**
 * Puts as many wishes as can be on channels. Voltage selectors and shared pins are tried every way there is; for each
 * way the rest is a bipartite matching, found by augmenting paths (Kuhn), which is exact.
 *
 * @phpstan-type Way array{banks: array<string, Quantity|null>, pins: array<string, string>}
 */
final class ChannelMatching
{
    /** Ways of setting selectors and shared pins that are tried at the most. */
    private const WAYS = 4096;

    /** Kinds of wish told apart when the smallest block is looked for. */
    private const KINDS = 14;

    /** @var array<string, string> wish → channel */
    public array $found = [];

    /** @var array<string, Quantity|null> "board/selector" → its voltage */
    public array $banks = [];

    /** @var list<string> smallest set of wishes that cannot all be served */
    public array $blocked = [];

    /** @var list<string> channels those wishes have to share */
    public array $contested = [];

    /** Every way was tried: what is found is the most there can be. */
    public bool $exact = true;

    /** @var array<string, ChannelWish> */
    private array $wishes = [];

    /** @var array<string, Channel> */
    private array $channels = [];

    /**
     * @param  list<ChannelWish>  $wishes
     * @param  list<Channel>  $channels
     * @param  bool  $pinned  leads of the builder's are kept where they are
     */
    public function __construct(array $wishes, array $channels, private readonly bool $pinned = true)
    {
        foreach ($wishes as $wish) {
            $this->wishes[$wish->ref()] = $wish;
        }
        foreach ($channels as $channel) {
            $this->channels[$channel->ref()] = $channel;
        }
        $best = null;
        foreach ($this->ways() as $way) {
            $reach = $this->reach($way);
            $match = $this->match($reach);
            if ($best === null || count($match) > count($best['match'])) {
                $best = ['match' => $match, 'way' => $way, 'reach' => $reach];
            }
            if (count($match) === count($this->wishes)) {
                break;
            }
        }
        if ($best !== null) {
            $this->found = $best['match'] + $this->sharing($best['match']);
            $this->banks = $best['way']['banks'];
            if (count($this->found) < count($this->wishes)) {
                $this->findBlock($best['reach']);
            }
        }
    }

    /**
     * What is wired to a channel that something else of the same job hangs on already: the two run together.
     *
     * @param  array<string, string>  $match
     * @return array<string, string> wish → channel
     */
    private function sharing(array $match): array
    {
        $on = array_flip($match);
        $sharing = [];
        foreach ($this->pinned ? array_diff_key($this->wishes, $match) : [] as $ref => $wish) {
            $other = $this->wishes[$on[$wish->wired] ?? ''] ?? null;
            if ($wish->wired !== null && ($other?->together === $wish->together || $other?->uses === ['fan'])) {
                $sharing[$ref] = $wish->wired;
            }
        }

        return $sharing;
    }

    /**
     * @return list<Way>
     */
    private function ways(): array
    {
        $banks = $pins = $levels = [];
        foreach ($this->channels as $channel) {
            if ($channel->bank !== null) {
                $banks["{$channel->board}/{$channel->bank}"] = true;
            }
            if ($channel->pin !== null) {
                $pins["{$channel->board}/{$channel->pin}"][] = $channel->use;
            }
        }
        foreach ($this->wishes as $wish) {
            $level = $wish->window === null ? null : $wish->rated ?? $wish->window[1];
            $levels += $level === null ? [] : [(string) $level->in('V') => $level];
        }
        $ways = [['banks' => [], 'pins' => []]];
        foreach (array_keys($banks) as $bank) {
            $ways = $this->widen($ways, 'banks', $bank, array_values($levels));
        }
        foreach (array_filter($pins, static fn (array $uses): bool => count($uses) > 1) as $pin => $uses) {
            $keys = [];
            foreach ($this->wishes as $wish) {
                if (array_intersect($wish->uses, $uses) !== []) {
                    $keys[$wish->together] = $wish->together;
                }
            }
            $ways = $this->widen($ways, 'pins', $pin, array_values($keys));
        }

        return $ways;
    }

    /**
     * @param  list<Way>  $ways
     * @param  'banks'|'pins'  $what
     * @param  list<Quantity|string>  $choices
     * @return list<Way>
     */
    private function widen(array $ways, string $what, string $key, array $choices): array
    {
        $wider = [];
        foreach ($choices === [] ? [] : $ways as $way) {
            foreach ($choices as $choice) {
                if (count($wider) >= self::WAYS) {
                    $this->exact = false;

                    // @phpstan-ignore return.type (banks hold voltages and pins hold names, as the caller says)
                    return $wider;
                }
                $way[$what][$key] = $choice;
                $wider[] = $way;
            }
        }

        // @phpstan-ignore return.type (banks hold voltages and pins hold names, as the caller says)
        return $wider === [] ? $ways : $wider;
    }

    /**
     * @param  Way  $way
     * @return array<string, list<string>> wish → channels that will do, the best first
     */
    private function reach(array $way): array
    {
        $held = [];
        foreach ($this->pinned ? $this->wishes : [] as $wish) {
            if ($wish->wired !== null && isset($this->channels[$wish->wired])) {
                $held[$wish->wired] = $wish->ref();
            }
        }
        $reach = [];
        foreach ($this->wishes as $ref => $wish) {
            $reach[$ref] = [];
            if ($this->pinned && $wish->wired !== null && isset($this->channels[$wish->wired])) {
                // Pinned by hand: it stays there, and a check says what is wrong with it.
                $reach[$ref] = $held[$wish->wired] === $ref ? [$wish->wired] : [];

                continue;
            }
            foreach ($wish->uses as $use) {
                foreach ($this->channels as $key => $channel) {
                    $pin = $channel->pin === null ? null : $way['pins']["{$channel->board}/{$channel->pin}"] ?? null;
                    $volts =
                        $channel->bank === null
                            ? $channel->voltage
                            : $way['banks']["{$channel->board}/{$channel->bank}"] ?? null;
                    if (
                        $channel->use === $use &&
                        ! isset($held[$key]) &&
                        $channel->free() &&
                        ($pin === null || $pin === $wish->together) &&
                        $wish->stands($volts)
                    ) {
                        $reach[$ref][] = $key;
                    }
                }
            }
        }

        return $reach;
    }

    /**
     * @param  array<string, list<string>>  $reach
     * @return array<string, string> wish → channel
     */
    private function match(array $reach): array
    {
        $on = [];
        // What has the fewest ways out goes first, so that it keeps its best one.
        uasort($reach, static fn (array $a, array $b): int => count($a) <=> count($b));
        foreach (array_keys($reach) as $wish) {
            $seen = [];
            $this->augment($wish, $reach, $on, $seen);
        }

        return array_flip($on);
    }

    /**
     * @param  array<string, list<string>>  $reach
     * @param  array<string, string>  $on  channel → wish
     * @param  array<string, true>  $seen
     */
    private function augment(string $wish, array $reach, array &$on, array &$seen): bool
    {
        foreach ($reach[$wish] as $channel) {
            if (isset($seen[$channel])) {
                continue;
            }
            $seen[$channel] = true;
            if (! isset($on[$channel]) || $this->augment($on[$channel], $reach, $on, $seen)) {
                $on[$channel] = $wish;

                return true;
            }
        }

        return false;
    }

    /**
     * By Hall's theorem wishes cannot all be served when some of them reach fewer channels than there are of them.
     * Wishes that reach the same channels count as one kind, so every set of kinds can be tried and the smallest told.
     *
     * @param  array<string, list<string>>  $reach
     */
    private function findBlock(array $reach): void
    {
        $kinds = [];
        foreach ($reach as $wish => $channels) {
            sort($channels);
            $kinds[implode("\n", $channels)][] = $wish;
        }
        ksort($kinds);
        $keys = array_slice(array_map(strval(...), array_keys($kinds)), 0, self::KINDS);
        $this->exact = $this->exact && count($kinds) <= self::KINDS;
        $smallest = null;
        for ($set = 1; $set < 1 << count($keys); $set++) {
            $wishes = $channels = [];
            foreach ($keys as $i => $key) {
                if ((($set >> $i) & 1) === 1) {
                    $wishes = [...$wishes, ...$kinds[$key]];
                    $channels += $key === '' ? [] : array_fill_keys(explode("\n", $key), true);
                }
            }
            $size = count($channels) + 1;
            if (count($wishes) >= $size && ($smallest === null || $size < $smallest)) {
                $smallest = $size;
                $this->blocked = $wishes;
                $this->contested = array_map(strval(...), array_keys($channels));
            }
        }
    }
}
