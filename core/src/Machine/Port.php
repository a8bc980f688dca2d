<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/**
 * A place of a part where something connects, with its limits.
 */
final readonly class Port
{
    /**
     * @param  array<string, string>  $lends  port spec key → key on the part's own sheet
     * @param  string|null  $fedFrom  of an outlet: the inlet of the same part it passes power on from
     * @param  array<string, Spec>  $specs  said of this port itself
     */
    public function __construct(
        public string $name,
        public PortKind $kind,
        public bool $mains = false,
        public ?Draw $draw = null,
        public ?string $fedFrom = null,
        public array $lends = [],
        public array $specs = [],
    ) {
    }

    /** Whether it connects as another does: of the same name, kind and draw. What is said of either may differ. */
    public function connectsAs(self $other): bool
    {
        return $this->name === $other->name &&
            $this->kind === $other->kind &&
            $this->mains === $other->mains &&
            $this->draw === $other->draw &&
            $this->fedFrom === $other->fedFrom &&
            $this->lends === $other->lends;
    }

    /** The same port a further time, of a part that has several: "circuit-2". */
    public function again(int $number): self
    {
        return new self(
            ...[
                'name' => "{$this->name}-{$number}",
                'fedFrom' => $this->fedFrom === null ? null : "{$this->fedFrom}-{$number}",
            ] + get_object_vars($this),
        );
    }

    /** This port, refined by what a part says of a port of the same name. */
    public function refinedBy(self $own): self
    {
        return new self(
            $this->name,
            $this->kind,
            $this->mains || $own->mains,
            $own->draw ?? $this->draw,
            $own->fedFrom ?? $this->fedFrom,
            $this->lends,
            $own->specs + $this->specs,
        );
    }
}
