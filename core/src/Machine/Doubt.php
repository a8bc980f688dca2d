<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** A question about a value that is probably a slip, with what may have been meant. */
final readonly class Doubt
{
    /**
     * @param  array<string, string>  $suggestion  spec key → value that would make sense
     */
    public function __construct(
        public string $part,
        public string $key,
        public string $question,
        public array $suggestion = [],
    ) {
    }

    /**
     * @return array{part: string, key: string, question: string, suggestion: array<string, string>}
     */
    public function toArray(): array
    {
        return [
            'part' => $this->part,
            'key' => $this->key,
            'question' => $this->question,
            'suggestion' => $this->suggestion,
        ];
    }
}
