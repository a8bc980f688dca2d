<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Work\PrintRun;
use Magpie\Core\Quantity\Dimension;

/** @implements Linking<PrintRun> */
final class Prints implements Linking
{
    public function key(): string
    {
        return 'prints';
    }

    public function read(Node $node, Context $context): PrintRun
    {
        $run = new PrintRun(
            $node->ref('ref'),
            $node->ref('part'),
            $node->optionalRef('printer'),
            $node->day('date'),
            $node->whole('good', 0, 0, 100_000),
            $node->whole('failed', 0, 0, 100_000),
            $node->optionalWithin('mass', Dimension::Mass, '0.1 g', '10 kg'),
            $node->optionalWithin('time', Dimension::Time, '1 min', '1000 h'),
            $node->optionalFlag('fit') ?? false,
            $node->optionalText('notes', 4000),
        );
        if ($run->good + $run->failed === 0) {
            $node->fail('a print is of at least one piece, good or failed.', 'good');
        }
        $node->close();

        return $run;
    }

    public function said(object $entry): string
    {
        return "print {$entry->ref}";
    }

    public function links(object $entry): iterable
    {
        yield new Link('part', 'parts', $entry->part);
        yield from Link::to('printer', 'printers', $entry->printer);
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'part' => $entry->part,
                'printer' => $entry->printer,
                'date' => $entry->date,
                'good' => $entry->good ?: null,
                'failed' => $entry->failed ?: null,
                'mass' => $entry->mass?->text(),
                'time' => $entry->time?->text(),
                'fit' => $entry->fit ?: null,
                'notes' => $entry->notes,
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }
}
