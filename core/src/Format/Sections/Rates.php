<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Brick\Math\BigDecimal;
use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Buying\Rate;

/** @implements Section<Rate> */
final class Rates implements Section
{
    public function key(): string
    {
        return 'rates';
    }

    public function read(Node $node, Context $context): Rate
    {
        $worth = $node->text('worth', 24);
        if (preg_match('/^\d{1,9}(\.\d{1,10})?$/', $worth) !== 1 || BigDecimal::of($worth)->isZero()) {
            $node->fail('must be what one unit is worth, such as "0.8642".', 'worth');
        }
        $rate = new Rate(
            $node->currency('from'),
            $node->currency('to'),
            (string) BigDecimal::of($worth)->stripTrailingZeros(),
            $node->day('date'),
        );
        if ($rate->from === $rate->to) {
            $node->fail('must be another currency than "from".', 'to');
        }
        $ref = $node->optionalRef('ref');
        if ($ref !== null && $ref !== self::refOf($rate)) {
            $node->fail('must be "'.self::refOf($rate).'", after the two currencies.', 'ref');
        }
        $node->close();

        return $rate;
    }

    public function write(object $entry): array
    {
        return [
            'ref' => self::refOf($entry),
            'from' => $entry->from,
            'to' => $entry->to,
            'worth' => $entry->worth,
            'date' => $entry->date,
        ];
    }

    public static function refOf(Rate $rate): string
    {
        return "{$rate->from}-{$rate->to}";
    }
}
