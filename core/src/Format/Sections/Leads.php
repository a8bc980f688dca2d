<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Conductor;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\LeadEnd;
use Magpie\Core\Machine\PortRef;
use Magpie\Core\Machine\Screening;
use Magpie\Core\Machine\Stranding;
use Magpie\Core\Machine\Termination;
use Magpie\Core\Quantity\Dimension;

/** @implements Linking<Lead> */
final class Leads implements Linking
{
    public function key(): string
    {
        return 'leads';
    }

    public function read(Node $node, Context $context): Lead
    {
        $conductor = $node->has('conductor')
            ? $this->conductor($node->member('conductor'))
            : new Conductor(null, null, null, null);
        $ends = array_map($this->end(...), $node->items('ends'));
        if (count($ends) > 2) {
            $node->fail('a lead has two ends.', 'ends');
        }
        $lead = new Lead(
            $node->ref('ref'),
            $this->port($node, 'from'),
            $this->port($node, 'to'),
            $conductor,
            $node->optionalWithin('length', Dimension::Length, '0 mm', '2 km'),
            $node->optionalOneOf('route', ['fixed', 'flexing']),
            $node->whole('bundled_with', 0, 0, 100),
            [$ends[0] ?? new LeadEnd, $ends[1] ?? new LeadEnd],
            $node->optionalRef('protection'),
            $node->optionalText('notes', 4000),
            $node->optionalFlag('made') ?? false,
            $node->optionalRef('chain'),
            $node->optionalLength('diameter'),
            $node->optionalQuantity('bond', Dimension::Resistance),
        );
        if ($lead->length?->isZero() === true) {
            $node->fail('a lead of no length joins nothing.', 'length');
        }
        $node->close();

        return $lead;
    }

    public function said(object $entry): string
    {
        return "lead {$entry->ref}";
    }

    public function links(object $entry): iterable
    {
        yield new Link('from', 'needs', $entry->from->need);
        yield new Link('to', 'needs', $entry->to->need);
        yield from Link::to('protection', 'needs', $entry->protection);
        yield from Link::to('chain', 'needs', $entry->chain, ['cable_chain'], 'cable chain');
        foreach ($entry->ends as $i => $end) {
            yield from Link::to("ends/{$i}/contact", 'parts', $end->contact);
        }
    }

    public function write(object $entry): array
    {
        $ends = array_map($this->writeEnd(...), $entry->ends);

        return array_filter(
            [
                'ref' => $entry->ref,
                'from' => $entry->from->text(),
                'to' => $entry->to->text(),
                'conductor' => array_filter(
                    [
                        'size' => $entry->conductor->size?->text(),
                        'evidence' => $entry->conductor->evidence?->value,
                        'stranding' => $entry->conductor->stranding?->value,
                        'insulation' => $entry->conductor->insulation,
                        'parallel' => $entry->conductor->parallel > 1 ? $entry->conductor->parallel : null,
                        'screen' => $entry->conductor->screen?->value,
                    ],
                    static fn (mixed $v): bool => $v !== null,
                ),
                'length' => $entry->length?->text(),
                'route' => $entry->route,
                'bundled_with' => $entry->bundledWith ?: null,
                'ends' => $ends === [[], []] ? [] : $ends,
                'protection' => $entry->protection,
                'notes' => $entry->notes,
                'made' => $entry->made ? true : null,
                'chain' => $entry->chain,
                'diameter' => $entry->diameter?->text(),
                'bond' => $entry->bond?->text(),
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }

    private function port(Node $node, string $key): PortRef
    {
        $text = $node->text($key);

        $port = PortRef::of($text);

        return $port !== null
            ? new PortRef(Node::named($port->need), Node::named($port->port))
            : $node->fail(sprintf('"%s" is not a port; write "need.port", such as "psu24.out".', $text), $key);
    }

    private function conductor(Node $node): Conductor
    {
        $conductor = new Conductor(
            $node->optionalQuantity('size', Dimension::Area),
            $node->optionalEnum('evidence', Evidence::class),
            $node->optionalEnum('stranding', Stranding::class),
            $node->optionalText('insulation'),
            $node->whole('parallel', 1, 1, 12),
            $node->optionalEnum('screen', Screening::class),
        );
        if ($conductor->size?->isPositive() === false) {
            $node->fail('must be larger than nought.', 'size');
        }
        $node->close();

        return $conductor;
    }

    private function end(Node $node): LeadEnd
    {
        $end = new LeadEnd(
            $node->optionalEnum('termination', Termination::class),
            $node->optionalRef('contact'),
            $node->optionalWhole('contacts_per_pole', 1, 24),
            $node->optionalFlag('strain_relief'),
            $node->optionalWhole('conductors', 1, 12),
            $node->optionalFlag('made') ?? false,
            $node->optionalQuantity('pulled', Dimension::Force),
        );
        $node->close();

        return $end;
    }

    /**
     * @return array<string, mixed>
     */
    private function writeEnd(LeadEnd $end): array
    {
        return array_filter(
            [
                'termination' => $end->termination?->value,
                'contact' => $end->contact,
                'contacts_per_pole' => $end->contactsPerPole,
                'strain_relief' => $end->strainRelief,
                'conductors' => $end->conductors,
                'made' => $end->made ? true : null,
                'pulled' => $end->pulled?->text(),
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }
}
