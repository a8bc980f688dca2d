<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Buying\ShippingStep;
use Magpie\Core\Machine\Buying\Supplier;
use Magpie\Core\Quantity\Dimension;

/** @implements Section<Supplier> */
final class Suppliers implements Section
{
    public function key(): string
    {
        return 'suppliers';
    }

    public function read(Node $node, Context $context): Supplier
    {
        $currency = $node->currency('currency');
        $shipping = [];
        foreach ($node->items('shipping') as $item) {
            $shipping[] = new ShippingStep($item->money('from', $currency), $item->money('cost', $currency));
            $item->close();
        }
        usort($shipping, static fn (ShippingStep $a, ShippingStep $b): int => $a->from->compare($b->from));
        $supplier = new Supplier(
            $node->ref('ref'),
            $node->text('name'),
            $currency,
            $shipping,
            $node->optionalWithin('tax', Dimension::Ratio, '0 %', '1000 %'),
            $node->optionalWhole('lead_days', 0, 1000),
            $node->optionalText('notes', 4000),
            $node->optionalWithin('duty', Dimension::Ratio, '0 %', '1000 %'),
            $node->optionalMoney('duty_free', $currency),
            $node->optionalMoney('tax_free', $currency),
            $node->optionalWithin('fee', Dimension::Ratio, '0 %', '1000 %'),
            $node->optionalMoney('least_order', $currency),
            $node->optionalFlag('avoid') ?? false,
        );
        $node->close();

        return $supplier;
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'name' => $entry->name,
                'currency' => $entry->currency,
                'shipping' => array_map(
                    static fn (ShippingStep $s): array => [
                        'from' => $s->from->exactAmount(),
                        'cost' => $s->cost->exactAmount(),
                    ],
                    $entry->shipping,
                ),
                'tax' => $entry->tax?->text(),
                'lead_days' => $entry->leadDays,
                'notes' => $entry->notes,
                'duty' => $entry->duty?->text(),
                'duty_free' => $entry->dutyFree?->exactAmount(),
                'tax_free' => $entry->taxFree?->exactAmount(),
                'fee' => $entry->fee?->text(),
                'least_order' => $entry->leastOrder?->exactAmount(),
                'avoid' => $entry->avoid ?: null,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
