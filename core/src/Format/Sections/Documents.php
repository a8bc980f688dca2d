<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Work\Correction;
use Magpie\Core\Machine\Work\Document;
use Magpie\Core\Machine\Work\DocumentKind;
use Magpie\Core\Machine\Work\Passage;
use Magpie\Core\Machine\Work\Statement;

/** @implements Linking<Document> */
final class Documents implements Linking
{
    public function key(): string
    {
        return 'documents';
    }

    public function read(Node $node, Context $context): Document
    {
        $document = new Document(
            $node->ref('ref'),
            $node->text('title'),
            $node->optionalEnum('kind', DocumentKind::class) ?? DocumentKind::Manual,
            $node->optionalText('version', 60),
            $node->optionalDay('date'),
            $node->optionalDay('read'),
            $node->refs('over'),
            array_map(self::passage(...), $node->items('covers')),
            array_map(self::statement(...), $node->items('says')),
            array_map(self::correction(...), $node->items('corrections')),
            $node->optionalText('notes', 4000),
        );
        if (in_array($document->ref, $document->over, true)) {
            $node->fail('a document cannot prevail over itself.', 'over');
        }
        $node->close();

        return $document;
    }

    public function said(object $entry): string
    {
        return "document {$entry->title}";
    }

    public function links(object $entry): iterable
    {
        yield from Link::each('over', 'documents', $entry->over);
        foreach ($entry->covers as $i => $passage) {
            yield new Link("covers/{$i}/step", 'steps', $passage->step);
        }
        foreach ($entry->says as $i => $statement) {
            yield from Link::to("says/{$i}/need", 'needs', $statement->need);
            yield from Link::to("says/{$i}/step", 'steps', $statement->step);
        }
        foreach ($entry->corrections as $i => $correction) {
            yield from Link::to("corrections/{$i}/step", 'steps', $correction->step);
        }
    }

    public function write(object $entry): array
    {
        return self::filled([
            'ref' => $entry->ref,
            'title' => $entry->title,
            'kind' => $entry->kind->value,
            'version' => $entry->version,
            'date' => $entry->date,
            'read' => $entry->read,
            'over' => $entry->over,
            'covers' => array_map(
                static fn (Passage $p): array => self::filled([
                    'step' => $p->step,
                    'pages' => $p->pages,
                    'superseded' => $p->superseded ?: null,
                ]),
                $entry->covers,
            ),
            'says' => array_map(
                static fn (Statement $s): array => self::filled([
                    'what' => $s->what,
                    'says' => $s->says,
                    'need' => $s->need,
                    'step' => $s->step,
                ]),
                $entry->says,
            ),
            'corrections' => array_map(
                static fn (Correction $c): array => self::filled([
                    'says' => $c->says,
                    'right' => $c->right,
                    'why' => $c->why,
                    'step' => $c->step,
                    'sent' => $c->sent,
                ]),
                $entry->corrections,
            ),
            'notes' => $entry->notes,
        ]);
    }

    private static function passage(Node $node): Passage
    {
        $passage = new Passage(
            $node->ref('step'),
            $node->optionalText('pages'),
            $node->optionalFlag('superseded') ?? false,
        );
        $node->close();

        return $passage;
    }

    private static function statement(Node $node): Statement
    {
        $statement = new Statement(
            $node->text('what'),
            $node->text('says', 60),
            $node->optionalRef('need'),
            $node->optionalRef('step'),
        );
        $node->close();

        return $statement;
    }

    private static function correction(Node $node): Correction
    {
        $correction = new Correction(
            $node->text('says', 1000),
            $node->text('right', 1000),
            $node->optionalText('why', 1000),
            $node->optionalRef('step'),
            $node->optionalDay('sent'),
        );
        $node->close();

        return $correction;
    }

    /**
     * @param  array<string, mixed>  $members
     * @return array<string, mixed> those of them that say something
     */
    private static function filled(array $members): array
    {
        return array_filter($members, static fn (mixed $v): bool => $v !== null && $v !== []);
    }
}
