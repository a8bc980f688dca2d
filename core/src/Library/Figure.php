<?php

declare(strict_types=1);

namespace Magpie\Core\Library;

use Magpie\Core\Machine\Spec;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/** A line of a sheet as a search compares it: from its lower to its upper end, in the SI unit of its dimension. */
final readonly class Figure
{
    private function __construct(public string $spec, public Dimension $dimension, public float $low, public float $high)
    {
    }

    /** Null of what is no figure: words, yes and no. */
    public static function of(Spec $spec): ?self
    {
        $ends = match (true) {
            $spec->value instanceof Quantity => [$spec->value, $spec->value],
            is_object($spec->value) => [$spec->value->low, $spec->value->high],
            default => null,
        };
        if ($ends === null) {
            return null;
        }
        $dimension = $ends[0]->unit->dimension;

        return new self($spec->key, $dimension, $ends[0]->in($dimension->unit()), $ends[1]->in($dimension->unit()));
    }
}
