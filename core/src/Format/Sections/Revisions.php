<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Revision;
use Magpie\Core\Machine\RevisionOf;
use Magpie\Core\Machine\RevisionState;

/** @implements Linking<Revision> */
final class Revisions implements Linking
{
    public function key(): string
    {
        return 'revisions';
    }

    public function read(Node $node, Context $context): Revision
    {
        $revision = new Revision(
            $node->ref('ref'),
            $node->enum('of', RevisionOf::class),
            $node->text('name'),
            $node->text('revision', 60),
            $node->day('date'),
            $node->optionalRef('part'),
            $node->optionalEnum('state', RevisionState::class) ?? RevisionState::InHand,
            $node->optionalText('effect', 2000),
            $node->optionalFlag('governs') ?? false,
        );
        $node->close();

        return $revision;
    }

    public function said(object $entry): string
    {
        return "revision {$entry->name} {$entry->revision}";
    }

    public function links(object $entry): iterable
    {
        yield from Link::to('part', 'parts', $entry->part);
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'of' => $entry->of->value,
                'name' => $entry->name,
                'revision' => $entry->revision,
                'date' => $entry->date,
                'part' => $entry->part,
                'state' => $entry->state->value,
                'effect' => $entry->effect,
                'governs' => $entry->governs ? true : null,
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }
}
