<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** "psu24.out": a port of the part that fills a need. */
final readonly class PortRef
{
    public function __construct(public string $need, public string $port)
    {
    }

    public static function of(string $text): ?self
    {
        return preg_match('/^([A-Za-z0-9][\w-]*)\.([A-Za-z0-9][\w-]*)$/', $text, $m) === 1
            ? new self($m[1], $m[2])
            : null;
    }

    public function text(): string
    {
        return $this->need.'.'.$this->port;
    }
}
