<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/**
 * Something that can be bought or made, with its spec sheet filled in.
 */
final readonly class Part
{
    /** @var array<string, Port> */
    public array $ports;

    /**
     * @param  array<string, Spec>  $specs
     * @param  array<string, Port>  $ownPorts  ports this part adds to or refines from its family's
     */
    public function __construct(
        public string $ref,
        public Family $family,
        public string $name,
        public array $specs = [],
        public array $ownPorts = [],
        public ?string $notes = null,
    ) {
        $ports = [];
        foreach ($family->ports() as $port) {
            $ports[$port->name] = $port;
        }
        foreach ($ownPorts as $port) {
            $ports[$port->name] = isset($ports[$port->name]) ? $ports[$port->name]->refinedBy($port) : $port;
        }
        $this->ports = $ports;
    }

    public function spec(string $key): ?Spec
    {
        return $this->specs[$key] ?? null;
    }

    /** A port's spec: its own word first, then what its family lends it from the part's sheet. */
    public function portSpec(Port $port, string $key): ?Spec
    {
        return $port->specs[$key] ?? $this->specs[$port->lends[$key] ?? ''] ?? null;
    }
}
