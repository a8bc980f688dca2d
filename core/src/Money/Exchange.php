<?php

declare(strict_types=1);

namespace Magpie\Core\Money;

use Magpie\Core\Machine\Buying\Rate;
use Magpie\Core\Quantity\Money;

/** Turns amounts into one currency at the rates of a build, either way round. */
final readonly class Exchange
{
    /**
     * @param  array<string, Rate>  $rates
     */
    public function __construct(private array $rates, public string $currency)
    {
    }

    /** The amount in the build's currency, or null when no rate is known. */
    public function convert(Money $amount): ?Money
    {
        if ($amount->currency === $this->currency) {
            return $amount;
        }
        $rate = $this->rateFor($amount->currency);

        return match (true) {
            $rate === null => null,
            $rate->from === $amount->currency => $amount->at($rate->worth, $rate->to),
            default => $amount->against($rate->worth, $rate->from),
        };
    }

    public function rateFor(string $currency): ?Rate
    {
        $latest = null;
        foreach ($this->rates as $rate) {
            if (
                [$rate->from, $rate->to] === [$currency, $this->currency] ||
                [$rate->to, $rate->from] === [$currency, $this->currency]
            ) {
                $latest = $latest === null || $rate->date > $latest->date ? $rate : $latest;
            }
        }

        return $latest;
    }
}
