<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Machine\Buying\PastPrice;
use Magpie\Core\Machine\Buying\PriceBreak;

/** @implements Linking<Offer> */
final class Offers implements Linking
{
    public function key(): string
    {
        return 'offers';
    }

    public function read(Node $node, Context $context): Offer
    {
        $supplier = $node->ref('supplier');
        $currency =
            ($context->suppliers[$supplier] ?? null)->currency ??
            $node->fail("there is no supplier \"{$supplier}\" in this build.", 'supplier');
        $breaks = [];
        foreach ($node->items('breaks') as $item) {
            $breaks[] = new PriceBreak($item->whole('from', 2, 2, 100_000), $item->money('price', $currency));
            $item->close();
        }
        usort($breaks, static fn (PriceBreak $a, PriceBreak $b): int => $a->from <=> $b->from);
        $past = [];
        foreach ($node->items('past') as $item) {
            $past[] = new PastPrice($item->day('date'), $item->money('price', $currency));
            $item->close();
        }
        usort($past, static fn (PastPrice $a, PastPrice $b): int => $a->date <=> $b->date);
        $offer = new Offer(
            $node->ref('ref'),
            $node->ref('part'),
            $supplier,
            $node->money('price', $currency),
            $node->whole('pack', 1, 1, 100_000),
            $node->day('date'),
            $node->optionalText('article'),
            $breaks,
            $node->whole('least', 1, 1, 100_000),
            $node->optionalWhole('stock'),
            $node->optionalWhole('lead_days', 0, 1000),
            $node->optionalFlag('pinned') ?? false,
            $past,
        );
        $node->close();

        return $offer;
    }

    public function said(object $entry): string
    {
        return "price {$entry->ref}";
    }

    public function links(object $entry): iterable
    {
        yield new Link('part', 'parts', $entry->part);
        yield new Link('supplier', 'suppliers', $entry->supplier);
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'part' => $entry->part,
                'supplier' => $entry->supplier,
                'price' => $entry->price->exactAmount(),
                'pack' => $entry->pack,
                'date' => $entry->date,
                'article' => $entry->article,
                'breaks' => array_map(
                    static fn (PriceBreak $b): array => ['from' => $b->from, 'price' => $b->price->exactAmount()],
                    $entry->breaks,
                ),
                'least' => $entry->least > 1 ? $entry->least : null,
                'stock' => $entry->stock,
                'lead_days' => $entry->leadDays,
                'pinned' => $entry->pinned ?: null,
                'past' => array_map(
                    static fn (PastPrice $p): array => ['date' => $p->date, 'price' => $p->price->exactAmount()],
                    $entry->past,
                ),
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
