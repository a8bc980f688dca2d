<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Placing\Anchor;
use Magpie\Core\Machine\Placing\Duct;
use Magpie\Core\Machine\Placing\Place;
use Magpie\Core\Machine\Placing\Position;
use Magpie\Core\Machine\Placing\Reach;
use Magpie\Core\Machine\Placing\Side;
use Magpie\Core\Machine\Placing\Turned;
use Magpie\Core\Quantity\Dimension;

/** @implements Linking<Place> */
final class Places implements Linking
{
    private const SIZES = ['length', 'width', 'height'];

    /** Of what a place can be; just one of them. */
    private const OF = ['need', 'zone', 'workpiece', 'name'];

    public function key(): string
    {
        return 'places';
    }

    public function read(Node $node, Context $context): Place
    {
        $of = array_values(array_filter(self::OF, $node->has(...)));
        if (count($of) !== 1) {
            $node->fail(
                'is of one thing: a need, a zone, a workpiece, or something that has only a name.',
                $of[1] ?? null,
            );
        }
        $size = $node->part('size');
        $sizes = array_map(
            static fn (string $side) => $size->optionalWithin($side, Dimension::Length, '0.01 mm', '100 m'),
            self::SIZES,
        );
        $size->close();
        $place = new Place(
            $node->ref('ref'),
            $node->optionalRef('need'),
            $node->optionalRef('zone'),
            $node->optionalRef('workpiece'),
            $node->optionalText('name'),
            $node->optionalWhole('piece', 1, 10_000),
            $node->optionalRef('on'),
            ['x' => self::position($node, 'x'), 'y' => self::position($node, 'y'), 'z' => self::position($node, 'z')],
            $node->optionalEnum('turned', Turned::class) ?? Turned::LengthWidthHeight,
            $sizes,
            $node->refs('moves'),
            $node->optionalEnum('row', Along::class),
            $node->optionalWithin('pitch', Dimension::Length, '0.1 mm', '100 m'),
            $node->optionalWithin('free', Dimension::Length, '0 mm', '10 m'),
            array_map(self::reach(...), $node->items('reach')),
            $node->optionalEnum('duct', Duct::class),
            $node->refs('spans'),
            $node->refs('meets'),
            $node->optionalFlag('preference') ?? false,
            $node->optionalEnum('evidence', Evidence::class),
        );
        if (($place->row === null) !== ($place->pitch === null)) {
            $node->fail(
                'pieces in a row have both a direction and the distance from one to the next.',
                $place->row === null ? 'row' : 'pitch',
            );
        }
        if (in_array($place->ref, [$place->on, ...self::told($place)], true)) {
            $node->fail('is placed by itself: say what else it stands on, or is told from.', 'on');
        }
        $node->close();

        return $place;
    }

    private static function position(Node $node, string $along): ?Position
    {
        if (! $node->has($along)) {
            return null;
        }
        $at = $node->part($along);
        $position = new Position(
            $at->enum('at', Anchor::class),
            $at->optionalRef('of'),
            $at->optionalQuantity('by', Dimension::Length, signed: true),
        );
        $at->close();

        return $position;
    }

    private static function reach(Node $node): Reach
    {
        $reach = new Reach(
            $node->enum('side', Side::class),
            $node->quantity('depth', Dimension::Length),
            $node->text('for'),
        );
        $node->close();

        return $reach;
    }

    /**
     * @return list<string> places it is told from
     */
    private static function told(Place $place): array
    {
        return array_values(array_filter(array_map(static fn (?Position $p): ?string => $p?->of, $place->at)));
    }

    public function said(object $entry): string
    {
        return 'place of '.($entry->name ?? ($entry->need ?? ($entry->zone ?? $entry->workpiece)));
    }

    public function links(object $entry): iterable
    {
        yield from Link::to('need', 'needs', $entry->need);
        yield from Link::to('zone', 'zones', $entry->zone);
        yield from Link::to('workpiece', 'workpieces', $entry->workpiece);
        yield from Link::to('on', 'places', $entry->on);
        foreach ($entry->at as $along => $position) {
            yield from Link::to("{$along}/of", 'places', $position?->of);
        }
        yield from Link::each('moves', 'axes', $entry->moves);
        yield from Link::each('spans', 'axes', $entry->spans);
        yield from Link::each('meets', 'places', $entry->meets);
    }

    public function write(object $entry): array
    {
        $given = static fn (mixed $v): bool => $v !== null && $v !== [];
        $write = static fn (?Position $p): ?array => $p === null
            ? null
            : array_filter(['at' => $p->at->value, 'of' => $p->of, 'by' => $p->by?->text()], $given);

        return array_filter(
            [
                'ref' => $entry->ref,
                'need' => $entry->need,
                'zone' => $entry->zone,
                'workpiece' => $entry->workpiece,
                'name' => $entry->name,
                'piece' => $entry->piece,
                'on' => $entry->on,
                ...array_map($write, $entry->at),
                'turned' => $entry->turned === Turned::LengthWidthHeight ? null : $entry->turned->value,
                'size' => array_filter(
                    array_combine(self::SIZES, array_map(static fn ($q): ?string => $q?->text(), $entry->size)),
                    $given,
                ),
                'moves' => $entry->moves,
                'row' => $entry->row?->value,
                'pitch' => $entry->pitch?->text(),
                'free' => $entry->free?->text(),
                'reach' => array_map(
                    static fn (Reach $r): array => [
                        'side' => $r->side->value,
                        'depth' => $r->depth->text(),
                        'for' => $r->for,
                    ],
                    $entry->reach,
                ),
                'duct' => $entry->duct?->value,
                'spans' => $entry->spans,
                'meets' => $entry->meets,
                'preference' => $entry->preference ? true : null,
                'evidence' => $entry->evidence?->value,
            ],
            $given,
        );
    }
}
