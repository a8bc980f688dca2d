<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Clearance;
use Magpie\Core\Machine\ClearanceSide;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Range;

/** @implements Linking<Clearance> */
final class Clearances implements Linking
{
    public function key(): string
    {
        return 'clearances';
    }

    public function read(Node $node, Context $context): Clearance
    {
        $sides = array_map($this->side(...), $node->items('between'));
        if (count($sides) !== 2) {
            $node->fail('a clearance is between two things.', 'between');
        }
        $clearance = new Clearance(
            $node->ref('ref'),
            $node->text('name'),
            [$sides[0], $sides[1]],
            $node->optionalLength('least'),
            $node->optionalEnum('evidence', Evidence::class),
            $node->optionalFlag('preference') ?? false,
        );
        $node->close();

        return $clearance;
    }

    public function said(object $entry): string
    {
        return "clearance {$entry->name}";
    }

    public function links(object $entry): iterable
    {
        foreach ($entry->between as $i => $side) {
            yield from Link::each("between/{$i}/moves", 'axes', $side->moves);
        }
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'name' => $entry->name,
                'between' => array_map(
                    static fn (ClearanceSide $s): array => array_filter(
                        [
                            'what' => $s->what,
                            ...array_map(static fn (?Range $r): ?string => $r?->text(), $s->box),
                            'moves' => $s->moves,
                            'round' => $s->round,
                        ],
                        static fn (mixed $v): bool => $v !== null && $v !== [],
                    ),
                    $entry->between,
                ),
                'least' => $entry->least?->text(),
                'evidence' => $entry->evidence?->value,
                'preference' => $entry->preference ? true : null,
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }

    private function side(Node $node): ClearanceSide
    {
        $box = [];
        foreach (Along::words() as $along) {
            $text = $node->optionalText($along);
            try {
                $box[$along] = $text === null ? null : Range::parse($text, Dimension::Length);
            } catch (CannotReadQuantity $e) {
                $node->fail($e->getMessage(), $along);
            }
        }
        /** @var array{x: Range|null, y: Range|null, z: Range|null} $box */
        $side = new ClearanceSide(
            $node->text('what'),
            $box,
            $node->refs('moves'),
            $node->optionalEnum('round', Along::class)?->value,
        );
        foreach ($side->round === null ? [] : array_diff(Along::words(), [$side->round]) as $along) {
            if ($side->box[$along] === null) {
                $node->fail("is round about {$side->round}: say where it is along {$along}.", $along);
            }
        }
        $node->close();

        return $side;
    }
}
