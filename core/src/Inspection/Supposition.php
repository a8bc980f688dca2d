<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Quantity\Quantity;

/**
 * Values a check is asked with in place of those that are not known, or rest on too little: one corner of what they may
 * be. What was solved from others leans to one side, by as much as those may be off.
 */
final class Supposition
{
    public const MOST = 1;

    public const AS_SAID = 0;

    public const LEAST = -1;

    /** @var array<string, true> */
    private array $used = [];

    /**
     * @param  array<string, Quantity>  $values  by where they are written
     * @param  int  $lean  MOST, AS_SAID or LEAST
     */
    public function __construct(private readonly array $values, public readonly int $lean)
    {
    }

    public function value(string $where): ?Quantity
    {
        if (! isset($this->values[$where])) {
            return null;
        }
        $this->used[$where] = true;

        return $this->values[$where];
    }

    public function has(string $where): bool
    {
        return isset($this->used[$where]);
    }

    /**
     * @return array<string, true> where the values stand that were asked for
     */
    public function used(): array
    {
        return $this->used;
    }
}
