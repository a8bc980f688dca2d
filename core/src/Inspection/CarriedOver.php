<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

/** What was carried over to the next survey, and in which of its own cells it came out otherwise. */
final readonly class CarriedOver
{
    /**
     * @param  list<string>  $cells
     * @param  array<string, true>|null  $from  cells it was made from now; null for the same as before
     */
    public function __construct(public object $made, public array $cells, public ?array $from = null)
    {
    }
}
