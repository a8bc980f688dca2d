<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/**
 * What a value rests on, strongest first.
 */
enum Evidence: string
{
    case Measured = 'measured';
    case Datasheet = 'datasheet';
    case Standard = 'standard';
    case Manual = 'manual';
    case Listing = 'listing';
    case Assumed = 'assumed';

    public function label(): string
    {
        return match ($this) {
            self::Measured => 'measured',
            self::Datasheet => 'datasheet',
            self::Standard => 'standard nominal',
            self::Manual => 'kit manual',
            self::Listing => "seller's listing",
            self::Assumed => 'assumed',
        };
    }

    public function isWeakerThan(self $other): bool
    {
        return $this->strength() < $other->strength();
    }

    public static function weakest(self $first, self ...$others): self
    {
        foreach ($others as $other) {
            $first = $other->isWeakerThan($first) ? $other : $first;
        }

        return $first;
    }

    private function strength(): int
    {
        return match ($this) {
            self::Measured => 6,
            self::Datasheet => 5,
            self::Standard => 4,
            self::Manual => 3,
            self::Listing => 2,
            self::Assumed => 1,
        };
    }
}
