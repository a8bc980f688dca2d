<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

/** Two nodes joined by a lead, or through a part (lead null). */
final readonly class Joint
{
    public function __construct(public int $a, public int $b, public ?string $lead)
    {
    }
}
