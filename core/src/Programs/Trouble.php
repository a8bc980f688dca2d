<?php

declare(strict_types=1);

namespace Magpie\Core\Programs;

use Magpie\Core\Inspection\Verdict;

/** One thing that is wrong with a program, at its first line, with how often it comes. */
final readonly class Trouble
{
    public function __construct(
        public Verdict $verdict,
        public string $says,
        public ?int $line = null,
        public int $times = 1,
    ) {
    }
}
