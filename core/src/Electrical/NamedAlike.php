<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

/**
 * Who hangs on which channel, where several are as good as each other: each on the one that is named like it. A matching only
 * knows that there is room for all; a builder looks for the switch of Z at the input called Z.
 */
final class NamedAlike
{
    /** Words that name nothing: small ones, units, and what every part of the starting library is called. */
    private const NO_NAMES = ['for', 'of', 'the', 'and', 'to', 'with', 'v', 'a', 'w', 'm', 'mm', 'nm', 'example'];

    /** @var array<string, string> wish → channel */
    private array $found;

    /** @var array<string, Channel> that have a name of their own, by ref */
    private array $channels = [];

    /** @var array<string, ChannelWish> that may be put on another channel, by ref */
    private array $wishes = [];

    /** @var array<string, int> "board/pin" → channels on it */
    private array $onPin = [];

    /**
     * @param  list<ChannelWish>  $wishes
     * @param  list<Channel>  $channels
     * @param  array<string, string>  $found  wish → channel, as they were matched
     */
    private function __construct(array $wishes, array $channels, array $found)
    {
        $this->found = $found;
        foreach ($channels as $channel) {
            if ($channel->stated) {
                $this->channels[$channel->ref()] = $channel;
                $pin = "{$channel->board}/{$channel->pin}";
                $this->onPin[$pin] = ($this->onPin[$pin] ?? 0) + 1;
            }
        }
        foreach ($wishes as $wish) {
            $at = $found[$wish->ref()] ?? null;
            // A lead of the builder's stays where it is.
            if ($at !== null && $at !== $wish->wired && isset($this->channels[$at])) {
                $this->wishes[$wish->ref()] = $wish;
            }
        }
    }

    /**
     * The same wishes served, those within a kind each on the channel named most like it, and on one of the kind it wants most
     * where such a one is left.
     *
     * @param  list<ChannelWish>  $wishes
     * @param  list<Channel>  $channels
     * @param  array<string, string>  $found  wish → channel, as they were matched
     * @return array<string, string>
     */
    public static function of(array $wishes, array $channels, array $found): array
    {
        $named = new self($wishes, $channels, $found);
        foreach ($named->wishes as $ref => $wish) {
            $named->prefer((string) $ref, $wish);
        }
        $groups = [];
        foreach (array_keys($named->wishes) as $ref) {
            $groups[$named->kind($named->channels[$named->found[$ref]])][] = (string) $ref;
        }
        foreach ($groups as $kind => $refs) {
            $named->arrange($refs, (string) $kind);
        }

        return $named->found;
    }

    /** What channels have in common that are as good as each other. */
    private function kind(Channel $channel): string
    {
        return implode(' ', [
            $channel->board,
            $channel->use,
            $channel->voltage?->text(),
            $channel->bank,
            $this->sharesPin($channel) ? $channel->pin : null,
        ]);
    }

    private function sharesPin(Channel $channel): bool
    {
        return $channel->pin !== null && $this->onPin["{$channel->board}/{$channel->pin}"] > 1;
    }

    /**
     * @return array<string, Channel> nothing hangs on, and whose pin is their own
     */
    private function left(): array
    {
        return array_filter(
            array_diff_key($this->channels, array_flip($this->found)),
            fn (Channel $c): bool => $c->free() && ! $this->sharesPin($c),
        );
    }

    /** To a channel of a kind it would rather have, on the same board, if one is left. */
    private function prefer(string $ref, ChannelWish $wish): void
    {
        $now = $this->channels[$this->found[$ref]];
        foreach ($this->left() as $at => $other) {
            $better = array_search($other->use, $wish->uses, true);
            if (
                $better !== false &&
                $better < array_search($now->use, $wish->uses, true) &&
                $other->board === $now->board &&
                $other->bank === null &&
                $wish->stands($other->voltage)
            ) {
                [$this->found[$ref], $now] = [(string) $at, $other];
            }
        }
    }

    /**
     * @param  non-empty-list<string>  $refs  wishes on channels of one kind
     */
    private function arrange(array $refs, string $kind): void
    {
        $room = array_map(fn (string $ref): string => $this->found[$ref], $refs);
        foreach ($this->left() as $at => $channel) {
            if ($this->kind($channel) === $kind) {
                $room[] = (string) $at;
            }
        }
        usort($room, strnatcmp(...));
        $pairs = [];
        foreach ($refs as $w => $ref) {
            $wish = $this->wishes[$ref];
            $named = self::words("{$wish->need} {$wish->role}");
            foreach ($room as $c => $at) {
                $pairs[] = [-count(array_intersect(self::words($this->channels[$at]->port), $named)), $w, $c];
            }
        }
        sort($pairs);
        $placed = $taken = [];
        foreach ($pairs as [, $w, $c]) {
            if (! isset($placed[$w]) && ! isset($taken[$c])) {
                $placed[$w] = $taken[$c] = true;
                $this->found[$refs[$w]] = $room[$c];
            }
        }
    }

    /**
     * @return list<string> that name something, in small letters
     */
    public static function words(string $text): array
    {
        $words = preg_split('/[^\p{L}\d]+/u', mb_strtolower($text), -1, PREG_SPLIT_NO_EMPTY) ?: [];

        // A number by itself is a voltage or a count, not a name.
        return array_values(
            array_filter(
                array_unique($words),
                static fn (string $w): bool => ! ctype_digit($w) && ! in_array($w, self::NO_NAMES, true),
            ),
        );
    }
}
