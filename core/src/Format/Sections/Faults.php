<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Work\Fault;
use Magpie\Core\Machine\Work\FaultKind;
use Magpie\Core\Machine\Work\FaultState;
use Magpie\Core\Machine\Work\Severity;
use Magpie\Core\Quantity\Dimension;

/** @implements Linking<Fault> */
final class Faults implements Linking
{
    public function key(): string
    {
        return 'faults';
    }

    public function read(Node $node, Context $context): Fault
    {
        $fault = new Fault(
            $node->ref('ref'),
            $node->text('what', 500),
            $node->enum('severity', Severity::class),
            $node->optionalEnum('state', FaultState::class) ?? FaultState::Open,
            $node->day('found'),
            $node->optionalEnum('kind', FaultKind::class),
            $node->optionalRef('need'),
            $node->optionalRef('step'),
            $node->optionalText('cause', 4000),
            $node->optionalText('fix', 4000),
            $node->optionalMoney('cost', $context->currency),
            $node->optionalWithin('lost', Dimension::Time, '0 h', '100000 h'),
            $node->texts('photos'),
        );
        if (! $fault->isOpen() && $fault->severity === Severity::Danger && $fault->fix === null) {
            $node->fail('a danger fault is only fixed once it says how.', 'fix');
        }
        $node->close();

        return $fault;
    }

    public function said(object $entry): string
    {
        return "fault {$entry->what}";
    }

    public function links(object $entry): iterable
    {
        yield from Link::to('need', 'needs', $entry->need);
        yield from Link::to('step', 'steps', $entry->step);
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'what' => $entry->what,
                'severity' => $entry->severity->value,
                'state' => $entry->state->value,
                'found' => $entry->found,
                'kind' => $entry->kind?->value,
                'need' => $entry->need,
                'step' => $entry->step,
                'cause' => $entry->cause,
                'fix' => $entry->fix,
                'cost' => $entry->cost?->exactAmount(),
                'lost' => $entry->lost?->text(),
                'photos' => $entry->photos,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
