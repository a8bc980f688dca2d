<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\AxisTaker;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Quantity\Dimension;

/** @implements Section<Axis> */
final class Axes implements Section
{
    public function key(): string
    {
        return 'axes';
    }

    public function read(Node $node, Context $context): Axis
    {
        $takes = [];
        foreach ($node->items('takes') as $item) {
            $takes[] = new AxisTaker($item->text('what'), $item->quantity('length', Dimension::Length), $item->optionalEnum('evidence', Evidence::class));
            $item->close();
        }
        $axis = new Axis(
            $node->ref('ref'),
            $node->text('name'),
            $node->oneOf('along', Axis::ALONG),
            $node->optionalRef('rail'),
            $node->optionalLength('span'),
            $node->optionalEnum('span_evidence', Evidence::class),
            $node->whole('blocks', 1, 1, 16),
            $node->optionalLength('block_pitch'),
            $takes,
            $node->optionalLength('advertised'),
        );
        $node->close();

        return $axis;
    }

    public function write(object $entry): array
    {
        return array_filter([
            'ref' => $entry->ref,
            'name' => $entry->name,
            'along' => $entry->along,
            'rail' => $entry->rail,
            'span' => $entry->span?->text(),
            'span_evidence' => $entry->spanEvidence?->value,
            'blocks' => $entry->blocks,
            'block_pitch' => $entry->blockPitch?->text(),
            'takes' => array_map(static fn (AxisTaker $t): array => array_filter([
                'what' => $t->what, 'length' => $t->length->text(), 'evidence' => $t->evidence?->value,
            ], static fn (?string $v): bool => $v !== null), $entry->takes),
            'advertised' => $entry->advertised?->text(),
        ], static fn (mixed $v): bool => $v !== null && $v !== []);
    }
}
