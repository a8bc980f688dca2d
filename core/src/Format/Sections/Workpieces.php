<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Workpiece;
use Magpie\Core\Quantity\Dimension;

/** @implements Section<Workpiece> */
final class Workpieces implements Section
{
    public function key(): string
    {
        return 'workpieces';
    }

    public function read(Node $node, Context $context): Workpiece
    {
        $piece = new Workpiece(
            $node->ref('ref'),
            $node->text('name'),
            $node->optionalLength('length'),
            $node->optionalLength('width'),
            $node->optionalLength('height'),
            $node->optionalText('material'),
            $node->optionalWhole('per_week'),
            $node->optionalQuantity('volume', Dimension::Volume),
        );
        $node->close();

        return $piece;
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'name' => $entry->name,
                'length' => $entry->length?->text(),
                'width' => $entry->width?->text(),
                'height' => $entry->height?->text(),
                'material' => $entry->material,
                'per_week' => $entry->perWeek,
                'volume' => $entry->removed?->text(),
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }
}
