<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Running\PowerAttempt;

/** @implements Section<PowerAttempt> */
final class Attempts implements Section
{
    public function key(): string
    {
        return 'attempts';
    }

    public function read(Node $node, Context $context): PowerAttempt
    {
        $attempt = new PowerAttempt(
            $node->ref('ref'),
            $node->moment('at'),
            $node->oneOf('breaker', PowerAttempt::BREAKERS),
            $node->oneOf('stops', PowerAttempt::STOPS),
            $node->optionalFlag('started') ?? $node->fail('is missing; it started, or it did not.', 'started'),
            $node->optionalRef('rung'),
            $node->optionalText('lamps', 500),
            $node->optionalText('by', 60),
            $node->optionalText('note', 2000),
        );
        $node->close();

        return $attempt;
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'at' => $entry->at,
                'breaker' => $entry->breaker,
                'stops' => $entry->stops,
                'started' => $entry->started,
                'rung' => $entry->rung,
                'lamps' => $entry->lamps,
                'by' => $entry->by,
                'note' => $entry->note,
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }
}
