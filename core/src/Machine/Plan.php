<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/** What the build is and what may be spent on it. */
final readonly class Plan
{
    /**
     * @param  Quantity|null  $contingency  share of the planned money kept back
     * @param  Quantity|null  $weekly  hours a week the builder can give
     * @param  Stage|null  $stage  how far it is; where nobody says, all may be asked
     * @param  Quantity|null  $pace  own hours over guide hours
     */
    public function __construct(
        public string $name,
        public string $kind,
        public string $currency,
        public UnitSystem $units = UnitSystem::Metric,
        public ?string $purpose = null,
        public ?Money $budget = null,
        public ?Quantity $contingency = null,
        public ?Quantity $weekly = null,
        public ?Quantity $pace = null,
        public ?Stage $stage = null,
    ) {
    }

    public function named(string $name): self
    {
        return new self(...['name' => $name] + get_object_vars($this));
    }

    public function atPace(Quantity $pace): self
    {
        return new self(...['pace' => $pace] + get_object_vars($this));
    }
}
