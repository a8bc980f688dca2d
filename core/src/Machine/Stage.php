<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** How far a build is, or a place in it: what may be asked of it now. */
enum Stage: string
{
    case Planned = 'planned';
    /** Its part is in hand, and can be measured. */
    case Bought = 'bought';
    /** It is made and in its place: leads crimped, joints screwed. */
    case Made = 'made';
    /** It has been under power. */
    case Powered = 'powered';

    public function isBefore(self $other): bool
    {
        return $this->rank() < $other->rank();
    }

    public static function earlier(self $first, self ...$others): self
    {
        foreach ($others as $other) {
            $first = $other->isBefore($first) ? $other : $first;
        }

        return $first;
    }

    private function rank(): int
    {
        return (int) array_search($this, self::cases(), true);
    }
}
