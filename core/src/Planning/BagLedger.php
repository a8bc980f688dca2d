<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Work\Bag;
use Magpie\Core\Machine\Work\BagLine;
use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;

/**
 * What each bag should still hold: what it came with, less what went in at steps that are done. Where several bags hold the same,
 * those meant for a step give first, then the others in their order. What is short is explained where an optional step or a
 * substitution took it, and met where another bag has more than its own steps want.
 *
 * @phpstan-type Line array{need: string, role: string, expected: int, found: int|null, used: int, due: int, counted: int|null,
 *     to_come: int, short: int, state: string, why: list<string>}
 */
final readonly class BagLedger
{
    /** How far a screw may be off by calliper and still be that screw. Common practice, no source. */
    private const LENGTH = 0.7;

    private const THREAD = 0.25;

    /** @var array<string, array<string, int>> bag → need → pieces that went in at steps that are done */
    private array $used;

    /** @var array<string, array<string, int>> the same of steps that are open */
    private array $toCome;

    public function __construct(private Build $build)
    {
        $this->used = $this->taken(StepState::Done);
        $this->toCome = $this->taken(StepState::Open);
    }

    /**
     * @return list<array{ref: string, label: string, lines: list<Line>}>
     */
    public function toArray(): array
    {
        $bags = [];
        foreach ($this->build->bags as $bag) {
            $bags[] = [
                'ref' => $bag->ref,
                'label' => $bag->label,
                'lines' => array_map(fn (BagLine $l): array => $this->line($bag, $l), $bag->holds),
            ];
        }

        return $bags;
    }

    /**
     * Bags, or places of the list, that a screw in hand may be of.
     *
     * @param  string  $length  as measured, from under the head, or over all where the head is sunk: "12.1 mm"
     * @param  string  $thread  outside of the thread as measured, or its name: "2.9 mm", "M3"
     * @param  string  $head  as a sheet names it; any when empty
     * @return list<array{need: string, role: string, part: string, off: string, bags: list<string>}> the nearest first
     *
     * @throws CannotReadQuantity
     */
    public function inHand(string $length, string $thread = '', string $head = ''): array
    {
        $long = self::millimetres($length) ?? 0.0;
        $wide = self::millimetres($thread);
        $rows = [];
        foreach ($this->build->fittedThat(Ability::Screws) as $ref => $fitted) {
            $own = $fitted->part->spec('length')?->nominal()?->in('mm');
            $name = $fitted->part->spec('thread')?->choice() ?? '';
            $size = preg_match('/M\s*(\d+(?:\.\d+)?)/i', $name, $m) === 1 ? (float) $m[1] : null;
            $shape = $fitted->part->spec('head')?->choice() ?? '';
            $fits = $own !== null && abs($own - $long) <= self::LENGTH + 1e-9;
            // A thread measures a little under its name, never over it.
            $threads = $wide === null || ($size !== null && $size - $wide <= self::THREAD && $wide - $size <= 0.05);
            $heads = $head === '' || $shape === '' || $shape === $head;
            if ($fits && $threads && $heads) {
                $rows[] = [
                    abs($long - $own),
                    [
                        'need' => (string) $ref,
                        'role' => $fitted->need->role,
                        'part' => $fitted->part->name,
                        'off' => sprintf('%+.1f mm', $long - $own),
                        'bags' => array_values(
                            array_map(
                                static fn (Bag $b): string => $b->label,
                                array_filter(
                                    $this->build->bags,
                                    static fn (Bag $b): bool => in_array($ref, array_column($b->holds, 'need'), true),
                                ),
                            ),
                        ),
                    ],
                ];
            }
        }
        usort($rows, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return array_column($rows, 1);
    }

    /**
     * A size by calliper or by the name of a thread; a bare number is in mm.
     *
     * @throws CannotReadQuantity
     */
    public static function millimetres(string $text): ?float
    {
        $text = trim($text);

        return match (true) {
            $text === '' => null,
            preg_match('/^M?\s*(\d+(?:[.,]\d+)?)$/i', $text, $m) === 1 => (float) str_replace(',', '.', $m[1]),
            default => Quantity::parse($text, Dimension::Length)->in('mm'),
        };
    }

    /**
     * @return Line
     */
    private function line(Bag $bag, BagLine $line): array
    {
        $used = $this->used[$bag->ref][$line->need] ?? 0;
        $toCome = $this->toCome[$bag->ref][$line->need] ?? 0;
        $due = $this->due($bag, $line);
        $there = $this->there($bag, $line);
        $short = max(0, $toCome - max(0, $there));
        $missing = $line->left === null ? 0 : $due - $line->left;

        return [
            'need' => $line->need,
            'role' => $this->build->roleOf($line->need),
            'expected' => $line->expected,
            'found' => $line->found,
            'used' => $used,
            'due' => $due,
            'counted' => $line->left,
            'to_come' => $toCome,
            'short' => $short,
            'state' => match (true) {
                $short > 0 => 'short',
                $missing > 0 => 'fewer than due',
                $missing < 0 => 'more than due: count again',
                $line->found !== null && $line->found < $line->expected => 'came short',
                $toCome === 0 && $there > 0 => 'over',
                default => 'as it should be',
            },
            'why' => $short > 0 || $missing > 0 || self::came($line) < $line->expected
                    ? $this->why($bag, $line, $short)
                    : [],
        ];
    }

    /**
     * @return list<string> what may have taken it, and where there is more
     */
    private function why(Bag $bag, BagLine $line, int $short): array
    {
        $why = [];
        if ($line->found !== null && $line->found < $line->expected) {
            $why[] = $line->expected - $line->found.' were never in the bag.';
        }
        foreach ($this->build->steps as $step) {
            $pieces = $step->uses[$line->need] ?? 0;
            if ($pieces > 0 && $step->optional && $step->state === StepState::Done) {
                $why[] = "“{$step->title}” may be left out and took {$pieces}.";
            }
            if ($pieces > 0 && $step->state === StepState::Skipped) {
                $why[] = "“{$step->title}” was left out; its {$pieces} should be over.";
            }
        }
        foreach ($this->build->bags as $other) {
            foreach ($other->holds as $held) {
                if ($held->insteadOf !== null && $held->need === $line->need) {
                    $why[] = "From “{$other->label}” some went in for {$this->build->roleOf($held->insteadOf)}.";
                }
                $over = $other->ref === $bag->ref ? 0 : $this->over($other, $held);
                if ($short > 0 && $over > 0 && $this->isSame($held->need, $line->need)) {
                    $why[] = "“{$other->label}” has {$over} over.";
                }
            }
        }

        return array_values(array_unique($why));
    }

    /** Pieces it came with: as counted, or as its label says. */
    private static function came(BagLine $line): int
    {
        return $line->found ?? $line->expected;
    }

    private function due(Bag $bag, BagLine $line): int
    {
        return self::came($line) - ($this->used[$bag->ref][$line->need] ?? 0);
    }

    /** A count of before the last step counts pieces that have gone in since: what is due is the most there is. */
    private function there(Bag $bag, BagLine $line): int
    {
        $due = $this->due($bag, $line);

        return min($line->left ?? $due, $due);
    }

    /** Pieces of a line that no open step wants of it. */
    private function over(Bag $bag, BagLine $line): int
    {
        return max(0, $this->there($bag, $line) - ($this->toCome[$bag->ref][$line->need] ?? 0));
    }

    private function isSame(string $one, string $other): bool
    {
        return $one === $other ||
            ($this->build->need($one)?->choice !== null &&
                $this->build->need($one)->choice === $this->build->need($other)?->choice);
    }

    /**
     * Steps in a state, and which bag gave what they take.
     *
     * @return array<string, array<string, int>>
     */
    private function taken(StepState $state): array
    {
        $left = [];
        foreach ($this->build->bags as $bag) {
            foreach ($bag->holds as $line) {
                $left[$line->need][$bag->ref] =
                    $state === StepState::Done ? self::came($line) : max(0, $this->there($bag, $line));
            }
        }
        $taken = [];
        foreach ($this->build->steps as $step) {
            foreach ($step->state === $state ? $step->uses : [] as $need => $pieces) {
                $givers = $this->givers($step, (string) $need);
                foreach ($givers as $i => $bag) {
                    $last = $i === count($givers) - 1;
                    // What no bag has any more is missed in the last that should have had it.
                    $gives = $last ? $pieces : min($pieces, max(0, $left[$need][$bag] ?? 0));
                    $taken[$bag][$need] = ($taken[$bag][$need] ?? 0) + $gives;
                    $left[$need][$bag] = ($left[$need][$bag] ?? 0) - $gives;
                    $pieces -= $gives;
                }
            }
        }

        return $taken;
    }

    /**
     * Bags that hold what a step takes, those meant for it first.
     *
     * @return list<string>
     */
    private function givers(Step $step, string $need): array
    {
        $meant = $others = [];
        foreach ($this->build->bags as $bag) {
            if (in_array($need, array_column($bag->holds, 'need'), true)) {
                if (in_array($step->ref, $bag->for, true)) {
                    $meant[] = $bag->ref;
                } elseif ($bag->for === []) {
                    $others[] = $bag->ref;
                }
            }
        }

        return [...$meant, ...$others];
    }
}
