<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Quantity\Quantity;

/** What takes the heat off a part: a sink that sits on it, or one its sheet says is fitted. */
final readonly class Cooling
{
    /**
     * @param  bool|null  $fitted  null when nobody has said
     * @param  Quantity|null  $resistance  rise of the sink for one watt, where it is known
     */
    private function __construct(public ?bool $fitted, public ?Quantity $resistance)
    {
    }

    public static function of(Inquiry $inquiry, Fitted $fitted): self
    {
        $sink = $inquiry->build->fitted(HeatSinks::of($inquiry->survey)->on($fitted->need->ref) ?? '');

        return $sink === null
            ? new self($inquiry->tryFlag($fitted, 'heat_sink'), null)
            : new self(true, $inquiry->tryRead($sink, 'thermal_resistance', 'R_s', Bound::Highest));
    }
}
