<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Buying\Purchase;

/** @implements Linking<Purchase> */
final class Purchases implements Linking
{
    public function key(): string
    {
        return 'purchases';
    }

    public function read(Node $node, Context $context): Purchase
    {
        $supplier = $node->ref('supplier');
        $currency =
            ($context->suppliers[$supplier] ?? null)->currency ??
            $node->fail("there is no supplier \"{$supplier}\" in this build.", 'supplier');
        $purchase = new Purchase(
            $node->ref('ref'),
            $node->ref('part'),
            $supplier,
            $node->whole('pieces', 1, 1, 1_000_000),
            $node->money('paid', $currency),
            $node->day('date'),
            $node->whole('received', 0),
            $node->optionalText('notes', 4000),
        );
        $node->close();

        return $purchase;
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
                'pieces' => $entry->pieces,
                'paid' => $entry->paid->exactAmount(),
                'date' => $entry->date,
                'received' => $entry->received ?: null,
                'notes' => $entry->notes,
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }
}
