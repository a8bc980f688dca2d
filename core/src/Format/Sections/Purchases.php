<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Brick\Math\BigDecimal;
use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Buying\Claim;
use Magpie\Core\Machine\Buying\Look;
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
            $node->optionalDay('due'),
            $node->optionalText('article'),
            $node->whole('accepted', 0),
            $node->whole('returned', 0),
            $node->optionalText('lot'),
            $node->optionalDay('claim_by'),
            $node->optionalEnum('claim', Claim::class),
            $this->rate($node),
            $node->whole('moved', 0),
            $node->whole('sold', 0),
            $node->optionalMoney('fetched', $context->currency),
            array_map(
                fn (Node $item): Look => $this->look($item, $node->whole('received', 0)),
                $node->items('looks'),
            ),
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
        $gone = $purchase->moved + $purchase->sold;
        if ($gone > 0 && $purchase->returned + $gone > $purchase->received) {
            $node->fail(
                "{$purchase->returned} sent back and {$gone} moved or sold on are more than the {$purchase->received} that arrived.",
                $purchase->moved > 0 ? 'moved' : 'sold',
            );
        }
        $node->close();

        return $purchase;
    }

    /** A positive decimal. */
    private function rate(Node $node): ?string
    {
        $rate = $node->optionalText('rate', 24);
        if ($rate !== null && (preg_match('/^\d{1,9}(\.\d{1,10})?$/', $rate) !== 1 || (float) $rate <= 0)) {
            $node->fail("\"{$rate}\" is not a rate; write what one is worth, like \"1.17\".", 'rate');
        }

        return $rate === null ? null : (string) BigDecimal::of($rate)->stripTrailingZeros();
    }

    /** What was found, on no more pieces than arrived. */
    private function look(Node $node, int $received): Look
    {
        $look = new Look(
            $node->text('what'),
            $node->oneOf('result', ['pass', 'fail']) === 'pass',
            $node->day('date'),
            $node->optionalWhole('pieces', 1),
            $node->optionalText('notes', 4000),
            $node->texts('photos'),
        );
        if (($look->pieces ?? 0) > $received) {
            $node->fail("{$look->pieces} cannot have been looked at of {$received} that arrived.", 'pieces');
        }
        $node->close();

        return $look;
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
                'lot' => $entry->lot,
                'claim_by' => $entry->claimBy,
                'claim' => $entry->claim?->value,
                'rate' => $entry->rate,
                'moved' => $entry->moved ?: null,
                'sold' => $entry->sold ?: null,
                'fetched' => $entry->fetched?->exactAmount(),
                'looks' => array_map(
                    static fn (Look $l): array => array_filter(
                        [
                            'what' => $l->what,
                            'result' => $l->good ? 'pass' : 'fail',
                            'date' => $l->date,
                            'pieces' => $l->pieces,
                            'notes' => $l->notes,
                            'photos' => $l->photos,
                        ],
                        static fn (mixed $v): bool => $v !== null && $v !== [],
                    ),
                    $entry->looks,
                ),
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
