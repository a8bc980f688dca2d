<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** Counts how often something had to be started again, and says when that has become too often. */
final class Restarts
{
    private const MOST = 5;

    private const SECONDS = 60;

    /** @var list<float> */
    private array $at = [];

    /** @throws Failure when it died again and again within a minute */
    public function note(string $name, string $log): void
    {
        $now = microtime(true);
        $this->at = [...array_filter($this->at, static fn (float $at): bool => $now - $at < self::SECONDS), $now];
        if (count($this->at) > self::MOST) {
            throw new Failure(
                "the {$name} has stopped ".
                    self::MOST.
                    " times within a minute; see {$log}. Nothing that was confirmed is lost: start again.",
            );
        }
    }
}
