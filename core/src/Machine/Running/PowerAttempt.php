<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Running;

/** One time power was switched on: how breaker and stops stood, and what was seen. */
final readonly class PowerAttempt
{
    public const BREAKERS = ['held', 'tripped', 'was off'];

    public const STOPS = ['released', 'pressed', 'not looked at'];

    /**
     * @param  int  $at  seconds since 1970
     * @param  string|null  $rung  what was tried
     */
    public function __construct(
        public string $ref,
        public int $at,
        public string $breaker,
        public string $stops,
        public bool $started,
        public ?string $rung = null,
        public ?string $lamps = null,
        public ?string $by = null,
        public ?string $note = null,
    ) {
    }

    /** It did not start, and nobody has looked at the stops and the breaker: that is no fault yet. */
    public function isUnexplained(): bool
    {
        return ! $this->started && $this->breaker === 'held' && $this->stops !== 'released';
    }
}
