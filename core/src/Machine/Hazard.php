<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** How a load that is live can hurt. */
enum Hazard: string
{
    case Motion = 'motion';
    case Spindle = 'spindle';
    case Heat = 'heat';
    case Torch = 'torch';

    /** Whether it hurts at once where it starts unasked. */
    public function strikes(): bool
    {
        return $this === self::Spindle || $this === self::Torch;
    }
}
