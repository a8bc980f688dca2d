<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Quantity\Quantity;

/** A channel of a board: one thing can hang on it. */
final readonly class Channel
{
    /**
     * @param  string  $port  name of the port, or a number made up from what the sheet counts
     * @param  Quantity|null  $voltage  it switches; null when a selector decides or it is not known
     * @param  string|null  $bank  its voltage selector
     * @param  string|null  $pin  processor pin it shares with others
     * @param  bool  $stated  told by a port of its own, not only counted on the sheet
     */
    public function __construct(
        public string $board,
        public string $port,
        public string $use,
        public ?Quantity $voltage = null,
        public ?string $bank = null,
        public ?string $pin = null,
        public ?string $control = null,
        public ?string $support = null,
        public bool $reserved = false,
        public bool $stated = true,
    ) {
    }

    public function ref(): string
    {
        return "{$this->board}.{$this->port}";
    }

    /** Whether anything may be hung on it today. */
    public function free(): bool
    {
        return ! $this->reserved && ($this->support === null || $this->support === 'today');
    }
}
