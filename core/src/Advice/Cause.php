<?php

declare(strict_types=1);

namespace Magpie\Core\Advice;

use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Verdict;

/** One thing to put right or to find out, and all that is said because of it. */
final readonly class Cause
{
    /**
     * @param  non-empty-list<Finding>  $findings  worst first
     * @param  string  $says  what it is, in one sentence
     * @param  string|null  $asks  where what is unknown would be written; null of what is known to be wrong
     * @param  float  $watts  that stand behind it where it may burn or hurt; 0 where nothing is known of it
     */
    public function __construct(
        public array $findings,
        public string $says,
        public ?string $asks,
        public float $watts,
    ) {
    }

    public function verdict(): Verdict
    {
        return $this->findings[0]->verdict;
    }

    /** The worst any of it may come to once it is known. */
    public function could(): ?Verdict
    {
        $could = null;
        foreach ($this->findings as $finding) {
            if ($finding->could !== null && ($could === null || $finding->could->rank() < $could->rank())) {
                $could = $finding->could;
            }
        }

        return $could;
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        return [
            'key' => $this->findings[0]->key(),
            'verdict' => $this->verdict()->value,
            'could' => $this->could()?->value,
            'says' => $this->says,
            'asks' => $this->asks,
            'findings' => array_map(static fn (Finding $f): string => $f->key(), $this->findings),
        ];
    }
}
