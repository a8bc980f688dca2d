<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

/** Something one cannot find out alone: who was asked, and what they said. */
final readonly class Question
{
    /**
     * @param  string  $asked  day, YYYY-MM-DD
     * @param  string|null  $answered  day the answer came
     */
    public function __construct(
        public string $ref,
        public string $asks,
        public string $of,
        public string $asked,
        public ?string $answer = null,
        public ?string $answered = null,
        public ?string $need = null,
        public ?string $step = null,
        public ?string $fault = null,
    ) {
    }

    public function isOpen(): bool
    {
        return $this->answer === null;
    }
}
