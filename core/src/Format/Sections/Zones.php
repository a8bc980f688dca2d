<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Zone;
use Magpie\Core\Machine\ZoneKind;
use Magpie\Core\Quantity\Dimension;

/** @implements Linking<Zone> */
final class Zones implements Linking
{
    public function key(): string
    {
        return 'zones';
    }

    public function read(Node $node, Context $context): Zone
    {
        $zone = new Zone(
            $node->ref('ref'),
            $node->text('name'),
            $node->enum('kind', ZoneKind::class),
            $node->optionalRef('box'),
            $node->optionalQuantity('temperature', Dimension::Temperature),
            $node->optionalEnum('evidence', Evidence::class),
            $node->refs('holds', BuildFile::MOST),
        );
        $node->close();

        return $zone;
    }

    public function said(object $entry): string
    {
        return "zone {$entry->name}";
    }

    public function links(object $entry): iterable
    {
        yield from Link::to('box', 'needs', $entry->box, ['cabinet'], 'cabinet');
        yield from Link::each('holds', 'needs', $entry->holds);
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'name' => $entry->name,
                'kind' => $entry->kind->value,
                'box' => $entry->box,
                'temperature' => $entry->temperature?->text(),
                'evidence' => $entry->evidence?->value,
                'holds' => $entry->holds,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
