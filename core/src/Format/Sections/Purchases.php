<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Buying\Purchase;
use Magpie\Core\Machine\Buying\PurchaseState;

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
            $node->optionalEnum('state', PurchaseState::class) ?? PurchaseState::Ordered,
            $node->optionalMoney('agreed', $currency),
            $node->optionalText('order'),
            $node->has('due') ? $node->day('due') : null,
            $node->optionalText('article'),
            $node->whole('accepted', 0),
            $node->whole('returned', 0),
        );
        // What was kept before this was asked is read as it is.
        if ($node->isNew() && $purchase->received > $purchase->pieces) {
            $node->fail(
                "{$purchase->received} cannot have arrived of {$purchase->pieces} that were bought.",
                'received',
            );
        }
        if ($purchase->accepted + $purchase->returned > $purchase->received) {
            $node->fail(
                "{$purchase->accepted} accepted and {$purchase->returned} sent back are more than the {$purchase->received} that arrived.",
                $purchase->returned > 0 ? 'returned' : 'accepted',
            );
        }
        $node->close();

        return $purchase;
    }

    public function said(object $entry): string
    {
        return "purchase {$entry->ref}";
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
                'state' => $entry->state === PurchaseState::Ordered ? null : $entry->state->value,
                'agreed' => $entry->agreed?->exactAmount(),
                'order' => $entry->order,
                'due' => $entry->due,
                'article' => $entry->article,
                'accepted' => $entry->accepted ?: null,
                'returned' => $entry->returned ?: null,
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }
}
