<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Mate;
use Magpie\Core\Machine\ScrewStack;
use Magpie\Core\Machine\ThreadIn;
use Magpie\Core\Machine\ThreadMaterial;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/** @implements Linking<Mate> */
final class Mates implements Linking
{
    public function key(): string
    {
        return 'mates';
    }

    public function read(Node $node, Context $context): Mate
    {
        $between = $node->refs('between');
        if (count($between) !== 2) {
            $node->fail('names the two needs that meet here.', 'between');
        }
        $mate = new Mate(
            $node->ref('ref'),
            $node->text('kind'),
            [$between[0], $between[1]],
            array_map($this->stack(...), $node->items('screws')),
            $node->optionalText('notes', 4000),
        );
        $node->close();

        return $mate;
    }

    public function said(object $entry): string
    {
        return "mate {$entry->ref}";
    }

    public function links(object $entry): iterable
    {
        yield from Link::each('between', 'needs', $entry->between);
        foreach ($entry->screws as $i => $stack) {
            yield from Link::to("screws/{$i}/screw", 'needs', $stack->screw);
        }
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'kind' => $entry->kind,
                'between' => $entry->between,
                'screws' => array_map($this->writeStack(...), $entry->screws),
                'notes' => $entry->notes,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }

    private function stack(Node $node): ScrewStack
    {
        $lengths = static fn (Node $n): Quantity => $n->asQuantity(Dimension::Length);
        $stack = new ScrewStack(
            $node->optionalRef('screw'),
            $node->whole('count', 1, 1, 1000),
            array_map($lengths, $node->items('clamped')),
            array_map($lengths, $node->items('washers')),
            $node->optionalEnum('into', ThreadIn::class),
            $node->optionalEnum('material', ThreadMaterial::class),
            $node->optionalQuantity('depth', Dimension::Length),
            $node->optionalQuantity('room', Dimension::Length),
            $node->optionalEnum('evidence', Evidence::class),
        );
        $node->close();

        return $stack;
    }

    /**
     * @return array<string, mixed>
     */
    private function writeStack(ScrewStack $stack): array
    {
        $texts = static fn (Quantity $q): string => $q->text();

        return array_filter(
            [
                'screw' => $stack->screw,
                'count' => $stack->count,
                'clamped' => array_map($texts, $stack->clamped),
                'washers' => array_map($texts, $stack->washers),
                'into' => $stack->into?->value,
                'material' => $stack->material?->value,
                'depth' => $stack->depth?->text(),
                'room' => $stack->room?->text(),
                'evidence' => $stack->evidence?->value,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
