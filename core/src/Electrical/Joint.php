<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

/** Two nodes of the network that are joined: by a lead, by the slot one sits in, or inside a part. */
final readonly class Joint
{
    /**
     * @param  string|null  $lead  ref of the lead
     * @param  bool  $seat  what is at b sits in the slot at a
     */
    public function __construct(public int $a, public int $b, public ?string $lead, public bool $seat = false)
    {
    }

    /** Whether it leads from one part to another. */
    public function isOutward(): bool
    {
        return $this->lead !== null || $this->seat;
    }
}
