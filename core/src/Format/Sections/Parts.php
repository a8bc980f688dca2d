<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\PortSheet;
use Magpie\Core\Machine\Spec;

/** @implements Section<Part> */
final class Parts implements Section
{
    public function key(): string
    {
        return 'parts';
    }

    public function read(Node $node, Context $context): Part
    {
        $key = $node->ref('family');
        $family =
            $context->catalogue->find($key) ??
            $node->fail(
                sprintf('"%s" is not a family of parts known here; see docs/format for the list.', $key),
                'family',
            );
        $specs = [];
        foreach ($node->members('specs') as $name => $member) {
            $field = $family->field($name) ?? $member->fail("a {$family->title()} has no such spec.");
            $specs[$name] = SpecForm::read($member, $field);
        }
        $ports = [];
        foreach ($node->items('ports') as $item) {
            $port = $this->port($item, $family->portsOf($specs));
            if (isset($ports[$port->name])) {
                $item->fail("there is already a port \"{$port->name}\" on this part.", 'name');
            }
            $ports[$port->name] = $port;
        }
        $part = new Part(
            $node->ref('ref'),
            $family,
            $node->text('name'),
            $specs,
            $ports,
            $node->optionalText('notes', 4000),
            $node->optionalRef('library'),
        );
        foreach ($part->ports as $port) {
            if ($port->fedFrom !== null && ($part->ports[$port->fedFrom] ?? null)?->kind !== PortKind::Inlet) {
                $node->fail(
                    "port \"{$port->name}\" is fed from \"{$port->fedFrom}\", which is no inlet of this part.",
                    'ports',
                );
            }
        }
        $node->close();

        return $part;
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'family' => $entry->family->key(),
                'name' => $entry->name,
                'specs' => array_map(SpecForm::write(...), $entry->specs),
                'ports' => array_map($this->writePort(...), array_values($entry->ownPorts)),
                'notes' => $entry->notes,
                'library' => $entry->library,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }

    /**
     * @param  list<Port>  $known
     */
    private function port(Node $node, array $known): Port
    {
        $name = $node->ref('name');
        $own = null;
        foreach ($known as $port) {
            $own = $port->name === $name ? $port : $own;
        }
        $kind =
            $node->optionalEnum('kind', PortKind::class) ??
            ($own->kind ?? $node->fail('is missing; the family has no port of this name.', 'kind'));
        if ($own !== null && $own->kind !== $kind) {
            $node->fail("the family's port of this name is of kind \"{$own->kind->value}\".", 'kind');
        }
        $specs = [];
        foreach ($node->members('specs') as $key => $member) {
            $field = PortSheet::field($key) ?? $member->fail('a port has no such spec.');
            $specs[$key] = SpecForm::read($member, $field);
        }
        $port = new Port(
            $name,
            $kind,
            $node->optionalFlag('mains') ?? ($own->mains ?? false),
            $node->optionalEnum('draw', Draw::class) ?? $own?->draw,
            $node->optionalRef('fed_from'),
            [],
            $specs,
        );
        $node->close();

        return $port;
    }

    /**
     * @return array<string, mixed>
     */
    private function writePort(Port $port): array
    {
        return array_filter(
            [
                'name' => $port->name,
                'kind' => $port->kind->value,
                'mains' => $port->mains ? true : null,
                'draw' => $port->draw?->value,
                'fed_from' => $port->fedFrom,
                'specs' => array_map(static fn (Spec $s): array => SpecForm::write($s), $port->specs),
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
