<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Families\PrintedPart;
use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Work\Printer;
use Magpie\Core\Quantity\Dimension;

/** @implements Section<Printer> */
final class Printers implements Section
{
    public function key(): string
    {
        return 'printers';
    }

    public function read(Node $node, Context $context): Printer
    {
        $plastics = $node->texts('plastics', 40);
        foreach ($plastics as $plastic) {
            if (! in_array($plastic, PrintedPart::PLASTICS, true)) {
                $node->fail(
                    "\"{$plastic}\" is no plastic known here: ".implode(', ', PrintedPart::PLASTICS).'.',
                    'plastics',
                );
            }
        }
        $printer = new Printer(
            $node->ref('ref'),
            $node->text('name'),
            $node->optionalLength('length'),
            $node->optionalLength('width'),
            $node->optionalLength('height'),
            array_values(array_unique($plastics)),
            $node->optionalWithin('flow', Dimension::Flow, '0.1 mm³/s', '1000 mm³/s'),
            $node->optionalWithin('daily', Dimension::Time, '10 min', '24 h'),
            $node->optionalFlag('finished') ?? false,
            $node->optionalText('notes', 4000),
        );
        $node->close();

        return $printer;
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'name' => $entry->name,
                'length' => $entry->length?->text(),
                'width' => $entry->width?->text(),
                'height' => $entry->height?->text(),
                'plastics' => $entry->plastics,
                'flow' => $entry->flow?->text(),
                'daily' => $entry->daily?->text(),
                'finished' => $entry->finished ?: null,
                'notes' => $entry->notes,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
