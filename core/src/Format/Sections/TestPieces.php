<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Running\TestFeature;
use Magpie\Core\Machine\Running\TestPiece;
use Magpie\Core\Quantity\Dimension;

/** @implements Section<TestPiece> */
final class TestPieces implements Section
{
    public function key(): string
    {
        return 'tests';
    }

    public function read(Node $node, Context $context): TestPiece
    {
        $piece = new TestPiece(
            $node->ref('ref'),
            $node->text('piece'),
            $node->moment('at'),
            $node->optionalText('recipe'),
            $node->optionalText('material'),
            array_map(self::feature(...), $node->items('features')),
            $node->optionalText('changed', 500),
            $node->optionalText('by', 60),
        );
        $node->close();

        return $piece;
    }

    private static function feature(Node $node): TestFeature
    {
        $feature = new TestFeature(
            $node->text('name'),
            $node->quantity('nominal', Dimension::Length, signed: true),
            $node->quantity('tolerance', Dimension::Length),
            $node->optionalQuantity('measured', Dimension::Length, signed: true),
        );
        $node->close();

        return $feature;
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'piece' => $entry->piece,
                'at' => $entry->at,
                'recipe' => $entry->recipe,
                'material' => $entry->material,
                'features' => array_map(
                    static fn (TestFeature $f): array => array_filter(
                        [
                            'name' => $f->name,
                            'nominal' => $f->nominal->text(),
                            'tolerance' => $f->tolerance->text(),
                            'measured' => $f->measured?->text(),
                        ],
                        static fn (?string $v): bool => $v !== null,
                    ),
                    $entry->features,
                ),
                'changed' => $entry->changed,
                'by' => $entry->by,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
