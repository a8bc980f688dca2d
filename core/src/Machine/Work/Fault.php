<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/** Something that went wrong, on a part or at a step. */
final readonly class Fault
{
    public const SEVERITIES = ['danger', 'stops_work', 'defect', 'blemish'];

    public const STATES = ['open', 'understood', 'fixed', 'closed'];

    public const KINDS = [
        'missing',
        'wrong',
        'damaged',
        'misfit',
        'out_of_tolerance',
        'undocumented',
        'electrical',
        'settings',
        'own_mistake',
    ];

    /**
     * @param  list<string>  $photos  names of stored pictures
     * @param  string  $found  day it was found, YYYY-MM-DD
     */
    public function __construct(
        public string $ref,
        public string $what,
        public string $severity,
        public string $state,
        public string $found,
        public ?string $kind = null,
        public ?string $need = null,
        public ?string $step = null,
        public ?string $cause = null,
        public ?string $fix = null,
        public ?Money $cost = null,
        public ?Quantity $lost = null,
        public array $photos = [],
    ) {
    }

    public function isOpen(): bool
    {
        return $this->state === 'open' || $this->state === 'understood';
    }

    public function forbidsPower(): bool
    {
        return $this->severity === 'danger' && $this->isOpen();
    }
}
