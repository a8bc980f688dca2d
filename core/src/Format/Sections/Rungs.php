<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Running\RungRecord;

/** @implements Section<RungRecord> */
final class Rungs implements Section
{
    public function key(): string
    {
        return 'rungs';
    }

    public function read(Node $node, Context $context): RungRecord
    {
        $rung = new RungRecord(
            $node->ref('ref'),
            $node->texts('ticks'),
            $node->optionalText('override', 2000),
            $node->optionalText('by', 60),
            $node->optionalMoment('at'),
            $node->optionalText('note', 2000),
            $node->texts('over', 500),
        );
        if ($rung->over !== [] && $rung->override === null) {
            $node->fail('is missing: say why it may be passed all the same.', 'override');
        }
        $node->close();

        return $rung;
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'ticks' => $entry->ticks,
                'override' => $entry->override,
                'by' => $entry->by,
                'at' => $entry->at,
                'note' => $entry->note,
                'over' => $entry->over,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
