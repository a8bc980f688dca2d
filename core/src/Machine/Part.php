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
     * @param  string|null  $library  the entry of the workshop's library it was taken from
     * @param  Reads|null  $reads  who is told which values are read
     */
    public function __construct(
        public string $ref,
        public Family $family,
        public string $name,
        public array $specs = [],
        public array $ownPorts = [],
        public ?string $notes = null,
        public ?string $library = null,
        private ?Reads $reads = null,
    ) {
        $ports = [];
        foreach ($family->portsOf($specs) as $port) {
            $ports[$port->name] = $port;
        }
        foreach ($ownPorts as $port) {
            $ports[$port->name] = isset($ports[$port->name]) ? $ports[$port->name]->refinedBy($port) : $port;
        }
        $this->ports = $ports;
    }

    /** The same part, which tells what is read of it. */
    public function toldTo(?Reads $reads): self
    {
        return new self(
            $this->ref,
            $this->family,
            $this->name,
            $this->specs,
            $this->ownPorts,
            $this->notes,
            $this->library,
            $reads,
        );
    }

    public function can(Ability $ability): bool
    {
        return in_array($ability, $this->family->abilities(), true);
    }

    public function canAny(Ability ...$abilities): bool
    {
        foreach ($abilities as $ability) {
            if ($this->can($ability)) {
                return true;
            }
        }

        return false;
    }

    public function spec(string $key): ?Spec
    {
        $this->reads?->note("parts/{$this->ref}/{$key}");

        return $this->specs[$key] ?? null;
    }

    /** A port's spec: its own word first, then what its family lends it from the part's sheet. */
    public function portSpec(Port $port, string $key): ?Spec
    {
        return $port->specs[$key] ?? (isset($port->lends[$key]) ? $this->spec($port->lends[$key]) : null);
    }

    /**
     * The same part with one value put in another's place.
     *
     * @param  string|null  $port  the port it is said of; null when it stands on the sheet
     */
    public function reading(Spec $spec, ?string $port = null): self
    {
        if ($port === null) {
            return new self(
                $this->ref,
                $this->family,
                $this->name,
                array_replace($this->specs, [$spec->key => $spec]),
                $this->ownPorts,
                $this->notes,
                $this->library,
                $this->reads,
            );
        }
        $own = $this->ownPorts[$port] ?? $this->ports[$port];
        $own = new Port(
            $own->name,
            $own->kind,
            $own->mains,
            $own->draw,
            $own->fedFrom,
            $own->lends,
            array_replace($own->specs, [$spec->key => $spec]),
        );

        return new self(
            $this->ref,
            $this->family,
            $this->name,
            $this->specs,
            array_replace($this->ownPorts, [$port => $own]),
            $this->notes,
            $this->library,
            $this->reads,
        );
    }
}
