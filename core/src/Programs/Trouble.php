<?php

declare(strict_types=1);

namespace Magpie\Core\Programs;

/** One thing that is wrong with a program, at its first line, with how often it comes. */
final readonly class Trouble
{
    /**
     * @param  string  $verdict  danger, fails, tight or unproven
     */
    public function __construct(
        public string $verdict,
        public string $says,
        public ?int $line = null,
        public int $times = 1,
    ) {
    }
}
