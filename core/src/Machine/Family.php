<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Machine\Running\Measured;

/**
 * A kind of part: its spec sheet and its ports. One file a family; forms, import and check inputs follow from it.
 */
abstract class Family
{
    /** Times over that ports are laid out; a sheet that counts more is a slip of its own. */
    private const MOST_PORTS = 64;

    /** @var array<string, SpecField>|null */
    private ?array $fields = null;

    /** Stable key in files: "stepper_motor". */
    abstract public function key(): string;

    /** What a builder calls one of them: "stepper motor". */
    abstract public function title(): string;

    /**
     * What people call its parts in a list, in the singular and in small letters.
     *
     * @return list<string>
     */
    public function words(): array
    {
        return [$this->title()];
    }

    abstract public function trade(): Trade;

    /**
     * @return list<SpecField>
     */
    abstract public function sheet(): array;

    /**
     * Ports every part of this family has; a part may add its own or refine these by name.
     *
     * @return list<Port>
     */
    public function ports(): array
    {
        return [];
    }

    /** The line of the sheet that counts how many times over a part has the ports; null when it has them once. */
    public function countedBy(): ?string
    {
        return null;
    }

    /**
     * The ports of one part: those of the family, and "name-2", "name-3" of each where the sheet counts more.
     *
     * @param  array<string, Spec>  $specs  of the part
     * @return list<Port>
     */
    final public function portsOf(array $specs): array
    {
        $ports = $this->ports();
        $count = $this->countedBy() === null ? null : ($specs[$this->countedBy()] ?? null)?->nominal()?->in('');
        for ($i = 2; $i <= min(self::MOST_PORTS, $count ?? 1); $i++) {
            foreach ($this->ports() as $port) {
                $ports[] = $port->again($i);
            }
        }

        return $ports;
    }

    /**
     * @return list<Ability> what its parts can do or bear
     */
    public function abilities(): array
    {
        return [];
    }

    /**
     * Uses a channel of a board must have to take one of its parts, the best first; none when it hangs on no board.
     *
     * @return list<string> of PortSheet::USES
     */
    public function channels(Part $part): array
    {
        return [];
    }

    /**
     * @return list<string> families its parts may sit in, with no lead between
     */
    public function hosts(): array
    {
        return [];
    }

    /** How its parts can hurt when they are live; null when they cannot. */
    public function hazard(): ?Hazard
    {
        return null;
    }

    /** Whether pieces that work side by side should come out of one batch. */
    public function matched(): bool
    {
        return false;
    }

    /** The line of the sheet that says what air it bears, where there is one. */
    public function heatLimit(): ?string
    {
        return null;
    }

    /** How its money is counted: as part of the machine, as a tool kept afterwards, or as something used up. */
    public function account(): Account
    {
        return Account::Machine;
    }

    /** Share of the time it runs in a scenario that does not name it: boards and hosts are never off. */
    public function alwaysOn(): bool
    {
        return false;
    }

    /**
     * Pairs worth dividing when two of them are compared: of this spec, for so much of that one or of its price.
     *
     * @return list<array{string, string}> keys; "price" is what it costs
     */
    public function ratios(): array
    {
        return [];
    }

    /**
     * What is measured on it before it runs.
     *
     * @return list<Measured>
     */
    public function measured(): array
    {
        return [];
    }

    /**
     * Lines of the sheet that are its length, width and height as it stands; null where the sheet has none.
     *
     * @return array{string|null, string|null, string|null}
     */
    public function sides(): array
    {
        return $this->field('body_length') === null
            ? [null, null, null]
            : ['body_length', 'body_width', 'body_height'];
    }

    final public function field(string $key): ?SpecField
    {
        if ($this->fields === null) {
            $this->fields = [];
            foreach ($this->sheet() as $field) {
                $this->fields[$field->key] = $field;
            }
        }

        return $this->fields[$key] ?? null;
    }
}
