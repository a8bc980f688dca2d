<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Acceptance;

/** @implements Section<Acceptance> */
final class Accepted implements Section
{
    /** Letters in which a reason can be given. */
    private const REASON = 8;

    public function key(): string
    {
        return 'accepted';
    }

    public function read(Node $node, Context $context): Acceptance
    {
        $accepted = new Acceptance(
            $node->ref('ref'),
            $node->text('finding', 200),
            $node->text('why', 2000),
            $node->text('who', 120),
            $node->text('of', 40),
            $node->optionalDay('until'),
        );
        if (mb_strlen(trim($accepted->why)) < self::REASON) {
            $node->fail('is too short for a reason: say why it may stand.', 'why');
        }
        $node->close();

        return $accepted;
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'finding' => $entry->finding,
                'why' => $entry->why,
                'who' => $entry->who,
                'of' => $entry->of,
                'until' => $entry->until,
            ],
            static fn (?string $v): bool => $v !== null,
        );
    }
}
