<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Quantity\Quantity;

/** A limit of a check, as a share, with what it means. */
final readonly class Threshold
{
    public function __construct(public string $meaning, public Quantity $default)
    {
    }

    public static function share(string $meaning, int|float $default): self
    {
        return new self($meaning, Quantity::ratio($default)->to('%'));
    }
}
