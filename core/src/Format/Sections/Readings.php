<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\Running\Reading;
use Magpie\Core\Quantity\Dimension;

/** @implements Linking<Reading> */
final class Readings implements Linking
{
    public function key(): string
    {
        return 'readings';
    }

    public function read(Node $node, Context $context): Reading
    {
        $what = $node->enum('what', Measured::class);
        $dimension = $what->dimension();
        $reading = new Reading(
            $node->ref('ref'),
            $what,
            $node->quantity('value', $dimension, signed: $dimension !== Dimension::Resistance),
            $node->optionalRef('need'),
            $node->optionalRef('axis'),
            $node->optionalText('port', 64),
            $node->optionalRef('scenario'),
            $node->optionalRef('part'),
            $node->optionalQuantity(
                'accuracy',
                $dimension === Dimension::Temperature ? Dimension::TemperatureDifference : $dimension,
            ),
            $node->optionalText('instrument'),
            $node->optionalText('by', 60),
            $node->optionalMoment('at'),
            $node->optionalText('photo'),
            $node->optionalText('note', 2000),
            $node->optionalFlag('simulated') ?? false,
            $node->optionalText('struck', 1000),
        );
        if ($reading->need !== null && $reading->axis !== null) {
            $node->fail('is on a part or on an axis, not on both.', 'axis');
        }
        $node->close();

        return $reading;
    }

    public function said(object $entry): string
    {
        return "reading {$entry->ref}";
    }

    public function links(object $entry): iterable
    {
        yield from Link::to('need', 'needs', $entry->need);
        yield from Link::to('axis', 'axes', $entry->axis);
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'what' => $entry->what->value,
                'value' => $entry->value->text(),
                'need' => $entry->need,
                'axis' => $entry->axis,
                'port' => $entry->port,
                'scenario' => $entry->scenario,
                'part' => $entry->part,
                'accuracy' => $entry->accuracy?->text(),
                'instrument' => $entry->instrument,
                'by' => $entry->by,
                'at' => $entry->at,
                'photo' => $entry->photo,
                'note' => $entry->note,
                'simulated' => $entry->simulated ?: null,
                'struck' => $entry->struck,
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }
}
