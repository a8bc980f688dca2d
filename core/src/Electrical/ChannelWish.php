<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Quantity\Quantity;

/** Something that wants a channel of a board. */
final readonly class ChannelWish
{
    /**
     * @param  list<string>  $uses  kinds of channel that will do, the best first
     * @param  string  $together  things that may switch together, such as two part fans, have this in common
     * @param  array{Quantity, Quantity}|null  $window  voltages it stands
     * @param  string|null  $wired  channel a lead of the builder's takes it to
     * @param  Quantity|null  $rated  voltage it is made for
     * @param  int  $piece  which of the need's pieces it is, from 1
     */
    public function __construct(
        public string $need,
        public string $role,
        public array $uses,
        public string $together,
        public ?array $window = null,
        public ?string $wired = null,
        public ?Quantity $rated = null,
        public int $piece = 1,
    ) {
    }

    public function ref(): string
    {
        return $this->piece === 1 ? $this->need : "{$this->need}/{$this->piece}";
    }

    public function stands(?Quantity $volts): bool
    {
        return $volts === null ||
            $this->window === null ||
            (! $volts->isBelow($this->window[0]) && ! $volts->exceeds($this->window[1]));
    }
}
