<?php

declare(strict_types=1);

namespace Magpie\Core\Buying;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Claim;
use Magpie\Core\Machine\Buying\Look;
use Magpie\Core\Machine\Buying\Purchase;
use Magpie\Core\Quantity\Money;

/**
 * What is to be claimed of suppliers, by order: what is short, what went back, what was found bad, with what was read
 * against what was claimed, and its share of what the line costs. As data, and as the text to send.
 *
 * @phpstan-type Bad array{purchase: string, part: string, name: string, article: string|null, lot: string|null,
 *     bought: int, received: int, short: int, returned: int, claim: string|null, share: string, found: list<array{what: string,
 *     date: string, pieces: int|null, notes: string|null, photos: list<string>}>, readings: list<array{what: string,
 *     between: string, read: string}>, notes: string|null}
 * @phpstan-type Order array{order: string, supplier: string, date: string, claim_by: string|null, currency: string, open: bool,
 *     amount: string, lines: list<Bad>, text: string}
 */
final readonly class Claims
{
    public function __construct(private Build $build)
    {
    }

    /**
     * @return list<Order> those that are not settled first, then by the day a claim must be made by
     */
    public function toArray(): array
    {
        $orders = [];
        foreach ($this->build->purchases as $purchase) {
            $line = $this->line($purchase);
            if ($line !== null) {
                $name = $purchase->order ?? "{$this->build->suppliers[$purchase->supplier]->name}, {$purchase->date}";
                $orders[$name][] = [$purchase, $line];
            }
        }
        $rows = [];
        foreach ($orders as $name => $lines) {
            $rows[] = $this->order((string) $name, $lines);
        }
        usort(
            $rows,
            static fn (array $a, array $b): int => [! $a['open'], $a['claim_by'] ?? '9', $a['order']] <=> [
                ! $b['open'],
                $b['claim_by'] ?? '9',
                $b['order'],
            ],
        );

        return $rows;
    }

    /**
     * @param  non-empty-list<array{Purchase, Bad}>  $lines
     * @return Order
     */
    private function order(string $name, array $lines): array
    {
        $first = $lines[0][0];
        $supplier = $this->build->suppliers[$first->supplier];
        $amount = Money::zero($supplier->currency);
        $by = [];
        $open = false;
        foreach ($lines as [$purchase, $line]) {
            $settled = in_array($purchase->claim, [Claim::Settled, Claim::Refused], true);
            $open = $open || ! $settled;
            $amount = $settled ? $amount : $amount->plus(Money::of($line['share'], $supplier->currency));
            $by = $purchase->claimBy === null ? $by : [...$by, $purchase->claimBy];
        }
        $rows = array_column($lines, 1);

        return [
            'order' => $name,
            'supplier' => $supplier->name,
            'date' => $first->date,
            'claim_by' => $by === [] ? null : min($by),
            'currency' => $supplier->currency,
            'open' => $open,
            'amount' => $amount->amount(),
            'lines' => $rows,
            'text' => self::text($supplier->name, $name, $first->date, $amount, $lines),
        ];
    }

    /**
     * @return Bad|null null where nothing is to be claimed
     */
    private function line(Purchase $purchase): ?array
    {
        $part = $this->build->parts[$purchase->part];
        $found = array_values(array_filter($purchase->looks, static fn (Look $l): bool => ! $l->good));
        // Short is what did not come of what came in part; what has not come at all is on its way.
        $short = $purchase->received > 0 ? $purchase->onTheWay() : 0;
        if ($found === [] && $short === 0 && $purchase->returned === 0 && $purchase->claim === null) {
            return null;
        }
        $bad = min($purchase->pieces, $short + $purchase->bad());
        $whole = $purchase->agreed ?? $purchase->paid;
        $readings = [];
        foreach (Arrivals::checks($part) as $check) {
            if ($check['verdict'] === 'off' && $check['between'] !== null && $check['read'] !== null) {
                $readings[] = ['what' => $check['what'], 'between' => $check['between'], 'read' => $check['read']];
            }
        }

        return [
            'purchase' => $purchase->ref,
            'part' => $purchase->part,
            'name' => $part->name,
            'article' => $purchase->article,
            'lot' => $purchase->lot,
            'bought' => $purchase->pieces,
            'received' => $purchase->received,
            'short' => $short,
            'returned' => $purchase->returned,
            'claim' => $purchase->claim?->value,
            'share' => $whole->times($bad)->against((string) $purchase->pieces, $whole->currency)->amount(),
            'found' => array_map(
                static fn (Look $l): array => [
                    'what' => $l->what,
                    'date' => $l->date,
                    'pieces' => $l->pieces,
                    'notes' => $l->notes,
                    'photos' => $l->photos,
                ],
                $found,
            ),
            'readings' => $readings,
            'notes' => $purchase->notes,
        ];
    }

    /**
     * @param  list<array{Purchase, Bad}>  $lines
     */
    private static function text(string $supplier, string $order, string $date, Money $amount, array $lines): string
    {
        $text = "To {$supplier}\n\nOrder {$order}, of {$date}.\n";
        $photos = 0;
        foreach ($lines as [$purchase, $line]) {
            if (in_array($purchase->claim, [Claim::Settled, Claim::Refused], true)) {
                continue;
            }
            $text .=
                "\n{$line['name']}".
                ($line['article'] === null ? '' : ", article {$line['article']}").
                ($line['lot'] === null ? '' : ", lot {$line['lot']}").
                ": {$line['bought']} ordered, {$line['received']} came";
            $text .= $line['short'] > 0 ? ", {$line['short']} missing" : '';
            $text .= $line['returned'] > 0 ? ", {$line['returned']} sent back" : '';
            $text .= ".\n";
            foreach ($line['found'] as $look) {
                $on = $look['pieces'] === null ? '' : " on {$look['pieces']}";
                $text .=
                    "  {$look['date']}, not good{$on}: {$look['what']}".
                    ($look['notes'] === null ? '' : ". {$look['notes']}").
                    "\n";
                $photos += count($look['photos']);
            }
            foreach ($line['readings'] as $reading) {
                $text .= "  {$reading['what']}: measured {$reading['read']}, by the listing {$reading['between']}.\n";
            }
        }
        $text .= $photos > 0 ? "\n{$photos} pictures are with this letter.\n" : '';

        return $text."\nPlease send what is missing or replace it, or return {$amount}.\n";
    }
}
