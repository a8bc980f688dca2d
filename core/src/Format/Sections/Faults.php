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
use Magpie\Core\Machine\Work\FoundBy;
use Magpie\Core\Machine\Work\Hand;
use Magpie\Core\Machine\Work\Mark;
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
        $photos = $node->texts('photos');
        $marks = array_map(static fn (Node $item): Mark => self::mark($item, $photos), $node->items('marks'));
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
            $photos,
            $node->optionalRef('lead'),
            $node->optionalEnum('by', FoundBy::class),
            $node->optionalText('tried', 4000),
            $node->optionalEnum('hand', Hand::class),
            $node->optionalWhole('days', 0, 10_000),
            $marks,
            $node->optionalText('lot'),
            $node->optionalText('practice'),
            $node->refs('rework'),
            $node->optionalText('caught', 2000),
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
        yield from Link::to('lead', 'leads', $entry->lead);
        yield from Link::each('rework', 'steps', $entry->rework);
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
                'lead' => $entry->lead,
                'by' => $entry->by?->value,
                'tried' => $entry->tried,
                'hand' => $entry->hand?->value,
                'days' => $entry->days,
                'marks' => array_map(
                    static fn (Mark $m): array => ['photo' => $m->photo, 'x' => $m->x, 'y' => $m->y],
                    $entry->marks,
                ),
                'lot' => $entry->lot,
                'practice' => $entry->practice,
                'rework' => $entry->rework,
                'caught' => $entry->caught,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }

    /**
     * @param  list<string>  $photos
     */
    private static function mark(Node $node, array $photos): Mark
    {
        $mark = new Mark($node->text('photo'), $node->whole('x', 0, 0, 1000), $node->whole('y', 0, 0, 1000));
        if (! in_array($mark->photo, $photos, true)) {
            $node->fail('is a picture this fault does not have.', 'photo');
        }
        $node->close();

        return $mark;
    }
}
