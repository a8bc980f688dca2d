<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Work\Bag;
use Magpie\Core\Machine\Work\BagLine;

/** @implements Linking<Bag> */
final class Bags implements Linking
{
    public function key(): string
    {
        return 'bags';
    }

    public function read(Node $node, Context $context): Bag
    {
        $holds = [];
        $named = [];
        foreach ($node->items('holds') as $item) {
            $line = new BagLine(
                $item->ref('need'),
                $item->whole('expected', 0),
                $item->optionalWhole('found'),
                $item->optionalWhole('left'),
                $item->optionalRef('instead_of'),
            );
            if (isset($named[$line->need])) {
                $item->fail('stands in this bag twice; one line says how many.', 'need');
            }
            if ($line->insteadOf === $line->need) {
                $item->fail('cannot go in for itself.', 'instead_of');
            }
            $item->close();
            $named[$line->need] = true;
            $holds[] = $line;
        }
        $bag = new Bag(
            $node->ref('ref'),
            $node->text('label'),
            $holds,
            $node->refs('for'),
            $node->optionalText('notes', 4000),
        );
        $node->close();

        return $bag;
    }

    public function said(object $entry): string
    {
        return "bag {$entry->label}";
    }

    public function links(object $entry): iterable
    {
        foreach ($entry->holds as $i => $line) {
            yield new Link("holds/{$i}/need", 'needs', $line->need);
            yield from Link::to("holds/{$i}/instead_of", 'needs', $line->insteadOf);
        }
        yield from Link::each('for', 'steps', $entry->for);
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'label' => $entry->label,
                'holds' => array_map(
                    static fn (BagLine $l): array => array_filter(
                        [
                            'need' => $l->need,
                            'expected' => $l->expected,
                            'found' => $l->found,
                            'left' => $l->left,
                            'instead_of' => $l->insteadOf,
                        ],
                        static fn (mixed $v): bool => $v !== null,
                    ),
                    $entry->holds,
                ),
                'for' => $entry->for,
                'notes' => $entry->notes,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
