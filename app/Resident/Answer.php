<?php

declare(strict_types=1);

namespace App\Resident;

/** What the resident inspector says of a build. */
final readonly class Answer
{
    /**
     * @param  string  $overview  JSON text; without findings where only those that changed are told
     * @param  array{since: int, changed: list<array<string, mixed>>, gone: list<string>}|null  $findings
     * @param  array{pointer: string, reason: string}|null  $trouble  why it cannot be read
     */
    public function __construct(public string $overview, public ?array $findings, public ?array $trouble)
    {
    }
}
