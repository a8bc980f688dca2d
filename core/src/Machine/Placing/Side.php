<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Placing;

use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Worded;

/** A side of a body, as somebody who stands before the machine calls it. */
enum Side: string
{
    use Worded;

    case Left = 'left';
    case Right = 'right';
    case Front = 'front';
    case Back = 'back';
    case Bottom = 'bottom';
    case Top = 'top';

    public function along(): Along
    {
        return match ($this) {
            self::Left, self::Right => Along::X,
            self::Front, self::Back => Along::Y,
            self::Bottom, self::Top => Along::Z,
        };
    }

    /** Whether it is the side of smaller coordinates. */
    public function isLow(): bool
    {
        return in_array($this, [self::Left, self::Front, self::Bottom], true);
    }
}
