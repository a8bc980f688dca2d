<?php

declare(strict_types=1);

namespace Magpie\Core\Motion;

use RuntimeException;

/** A text that was meant as points of a curve, with the point and the reason. */
final class CannotReadCurve extends RuntimeException
{
    public static function at(string $point, string $reason): self
    {
        return new self("\"{$point}\" is no point of a torque curve: {$reason}.");
    }
}
