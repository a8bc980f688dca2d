<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Running\UpkeepRound;

/** @implements Section<UpkeepRound> */
final class Rounds implements Section
{
    public function key(): string
    {
        return 'rounds';
    }

    public function read(Node $node, Context $context): UpkeepRound
    {
        $round = new UpkeepRound(
            $node->ref('ref'),
            $node->text('task', 120),
            $node->moment('at'),
            $node->optionalText('found', 2000),
            $node->optionalFlag('trouble') ?? false,
            $node->optionalText('by', 60),
        );
        $node->close();

        return $round;
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'task' => $entry->task,
                'at' => $entry->at,
                'found' => $entry->found,
                'trouble' => $entry->trouble ?: null,
                'by' => $entry->by,
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }
}
