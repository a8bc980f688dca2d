<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Need;
use Magpie\Core\Quantity\Dimension;

/** @implements Section<Need> */
final class Needs implements Section
{
    public function key(): string
    {
        return 'needs';
    }

    public function read(Node $node, Context $context): Need
    {
        $family = $node->ref('family');
        if ($context->catalogue->find($family) === null) {
            $node->fail(sprintf('"%s" is not a family of parts known here.', $family), 'family');
        }
        $need = new Need(
            $node->ref('ref'),
            $node->text('role'),
            $family,
            $node->whole('quantity', 1, 1, 100_000),
            $node->texts('candidates', 64),
            $node->optionalRef('choice'),
            $node->optionalText('reason', 2000),
            $node->optionalQuantity('spares', Dimension::Ratio),
            $node->whole('owned', 0),
        );
        $node->close();

        return $need;
    }

    public function write(object $entry): array
    {
        return array_filter([
            'ref' => $entry->ref,
            'role' => $entry->role,
            'family' => $entry->family,
            'quantity' => $entry->quantity,
            'candidates' => $entry->candidates,
            'choice' => $entry->choice,
            'reason' => $entry->reason,
            'spares' => $entry->spares?->text(),
            'owned' => $entry->owned ?: null,
        ], static fn (mixed $v): bool => $v !== null && $v !== []);
    }
}
