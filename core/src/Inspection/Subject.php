<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Machine\Axis;

/**
 * What a finding is about: a need, a lead, a port, a mate, an axis or a scenario.
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

    /**
     * @param  list<string>  $needs
     */
    public static function ofAxis(Axis $axis, array $needs = []): self
    {
        return new self('axis', $axis->ref, $axis->name, $needs);
    }
}
