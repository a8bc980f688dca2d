<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

use Magpie\Core\Families\Catalogue;
use Magpie\Core\Library\BookOffer;
use Magpie\Core\Library\Entry;
use Magpie\Core\Library\KnownFault;
use Magpie\Core\Library\Pairing;
use Magpie\Core\Machine\Work\Severity;
use Magpie\Core\Quantity\Dimension;

/** An entry of a library as JSON: a part as a build file has it, and what a workshop knows of it beside. */
final class LibraryFile
{
    /**
     * @param  mixed  $data  decoded JSON, objects as arrays
     * @param  bool  $kept  it was accepted before, so its sizes are not held against what is possible again
     *
     * @throws CannotReadBuildFile
     */
    public static function read(mixed $data, bool $kept = false): Entry
    {
        $node = new Node($data, kept: $kept);
        $part = (new Sections\Parts)->read($node->member('part'), new Context(Catalogue::standard(), 'XXX'));
        $entry = new Entry(
            $part,
            $node->optionalFlag('example') ?? false,
            $node->optionalText('revision', 60),
            $node->optionalWithin('spares', Dimension::Ratio, '0 %', '1000 %'),
            array_map(self::offer(...), $node->items('offers')),
            array_map(self::fault(...), $node->items('faults')),
            array_map(self::pairing(...), $node->items('pairings')),
        );
        $node->close();

        return $entry;
    }

    /**
     * @return array<string, mixed> in canonical form
     */
    public static function write(Entry $entry): array
    {
        $filled = static fn (array $members): array => array_filter(
            $members,
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );

        return $filled([
            'part' => (new Sections\Parts)->write($entry->part),
            'example' => $entry->example ? true : null,
            'revision' => $entry->revision,
            'spares' => $entry->spares?->text(),
            'offers' => array_map(
                static fn (BookOffer $o): array => $filled([
                    'supplier' => $o->supplier,
                    'price' => $o->price->exactAmount(),
                    'currency' => $o->price->currency,
                    'pack' => $o->pack,
                    'date' => $o->date,
                    'lead_days' => $o->leadDays,
                    'article' => $o->article,
                ]),
                $entry->offers,
            ),
            'faults' => array_map(
                static fn (KnownFault $f): array => $filled([
                    'what' => $f->what,
                    'severity' => $f->severity,
                    'reports' => $f->reports,
                    'fix' => $f->fix,
                ]),
                $entry->faults,
            ),
            'pairings' => array_map(
                static fn (Pairing $p): array => [
                    'with' => $p->with,
                    'what' => $p->what,
                    'bad' => $p->bad,
                    'good' => $p->good,
                ],
                $entry->pairings,
            ),
        ]);
    }

    private static function offer(Node $node): BookOffer
    {
        $offer = new BookOffer(
            $node->text('supplier'),
            $node->money('price', $node->currency('currency')),
            $node->day('date'),
            $node->whole('pack', 1, 1, 100_000),
            $node->optionalWhole('lead_days', 0, 1000),
            $node->optionalText('article'),
        );
        $node->close();

        return $offer;
    }

    private static function fault(Node $node): KnownFault
    {
        $fault = new KnownFault(
            $node->text('what', 500),
            $node->enum('severity', Severity::class)->value,
            $node->whole('reports', 1, 1),
            $node->optionalText('fix', 2000),
        );
        $node->close();

        return $fault;
    }

    private static function pairing(Node $node): Pairing
    {
        $pairing = new Pairing(
            $node->text('with'),
            $node->text('what', 500),
            $node->whole('bad', 1),
            $node->whole('good', 0),
        );
        $node->close();

        return $pairing;
    }
}
