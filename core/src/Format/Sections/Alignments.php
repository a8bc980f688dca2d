<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Running\Alignment;
use Magpie\Core\Straightness\CannotAlign;
use Magpie\Core\Straightness\Methods;

/** @implements Linking<Alignment> */
final class Alignments implements Linking
{
    public function key(): string
    {
        return 'alignments';
    }

    public function read(Node $node, Context $context): Alignment
    {
        $given = [];
        foreach ($node->members('given') as $name => $member) {
            $text = $member->raw();
            if (! is_string($text) || mb_strlen($text) > 4000) {
                $member->fail('must be a text of at most 4000 letters, such as "0.00 0.02 0.05 mm".');
            }
            $given[$name] = trim($text);
        }
        $alignment = new Alignment(
            $node->ref('ref'),
            $node->text('kind', 40),
            array_filter($given, static fn (string $text): bool => $text !== ''),
            $node->optionalRef('axis'),
            $node->optionalText('instrument'),
            $node->optionalText('holder'),
            $node->optionalText('by', 60),
            $node->optionalMoment('at'),
            $node->optionalText('note', 2000),
        );
        $node->close();
        if ($node->isNew()) {
            try {
                Methods::work($alignment->kind, $alignment->given);
            } catch (CannotAlign $e) {
                $node->fail($e->getMessage(), $e->field === 'kind' ? 'kind' : "given/{$e->field}");
            }
        }

        return $alignment;
    }

    public function said(object $entry): string
    {
        return "alignment {$entry->ref}";
    }

    public function links(object $entry): iterable
    {
        yield from Link::to('axis', 'axes', $entry->axis);
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'kind' => $entry->kind,
                'given' => $entry->given,
                'axis' => $entry->axis,
                'instrument' => $entry->instrument,
                'holder' => $entry->holder,
                'by' => $entry->by,
                'at' => $entry->at,
                'note' => $entry->note,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
