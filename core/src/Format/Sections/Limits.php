<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Limit;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/** @implements Section<Limit> */
final class Limits implements Section
{
    public function key(): string
    {
        return 'limits';
    }

    public function read(Node $node, Context $context): Limit
    {
        $limit = new Limit(
            $node->ref('check'),
            $node->ref('key'),
            $node->quantity('value', Dimension::Ratio),
            $node->text('reason', 2000),
        );
        if ($limit->value->exceeds(Quantity::ratio(1)) || ! $limit->value->isPositive()) {
            $node->fail('must lie above 0 % and at most at 100 %.', 'value');
        }
        $ref = $node->optionalRef('ref');
        if ($ref !== null && $ref !== self::refOf($limit)) {
            $node->fail('must be "'.self::refOf($limit).'", after the check and the key.', 'ref');
        }
        $node->close();

        return $limit;
    }

    public function write(object $entry): array
    {
        return [
            'ref' => self::refOf($entry),
            'check' => $entry->check,
            'key' => $entry->key,
            'value' => $entry->value->text(),
            'reason' => $entry->reason,
        ];
    }

    public static function refOf(Limit $limit): string
    {
        return "{$limit->check}-{$limit->key}";
    }
}
