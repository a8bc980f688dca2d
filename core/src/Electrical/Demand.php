<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Input;
use Magpie\Core\Quantity\Quantity;

/**
 * What one part takes at one inlet in one scenario.
 */
final readonly class Demand
{
    /**
     * @param  Quantity|null  $current  steady current; null for a heater, or when it is not known
     * @param  Quantity|null  $resistance  of a heater that is on
     * @param  Quantity|null  $power  volts times amps it takes at whatever voltage arrives: of a converter, of a motor
     *     with electronics of its own
     * @param  Quantity  $share  part of the time or of the rating, for energy
     * @param  list<Input>  $inputs  what it rests on
     * @param  list<string>  $missing  what must be known to tell
     */
    public function __construct(
        public string $need,
        public int $node,
        public ?Quantity $current,
        public ?Quantity $resistance,
        public Quantity $share,
        public array $inputs,
        public array $missing,
        public ?Quantity $power = null,
    ) {
    }

    /**
     * The same demand, which follows from something more.
     *
     * @param  list<Input>  $inputs
     */
    public function resting(array $inputs): self
    {
        return $inputs === []
            ? $this
            : new self(...['inputs' => [...$this->inputs, ...$inputs]] + get_object_vars($this));
    }
}
