<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Buying;

/** What one unit of a currency was worth in another on a day (YYYY-MM-DD). */
final readonly class Rate
{
    public function __construct(public string $from, public string $to, public string $worth, public string $date)
    {
    }
}
