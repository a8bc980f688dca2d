<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

/**
 * What a finding is about: a need, a lead, a port, a mate or a scenario.
 */
final readonly class Subject
{
    /**
     * @param  string  $ref  "psu24", "W7", "psu24.out", "mx/0"
     * @param  list<string>  $needs  needs it concerns, for grouping by part
     */
    public function __construct(
        public string $kind,
        public string $ref,
        public string $label,
        public array $needs = [],
    ) {
    }
}
