<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Quantity\Quantity;

/** The power a heater really gives: by its resistance, at the voltage of what feeds it. */
final readonly class HeaterPower
{
    private function __construct(
        public Quantity $rated,
        public Quantity $ratedVoltage,
        public Quantity $held,
        public Quantity $gives,
        public string $supply,
    ) {
    }

    /**
     * @param  Bound  $bound  whether the most or the least it may give is asked for: highest or lowest
     *
     * @throws \Magpie\Core\Inspection\InputMissing when its rating or its supply is not known
     */
    public static function of(Inquiry $inquiry, Survey $survey, Fitted $heater, Bound $bound = Bound::Highest): self
    {
        $rated = $inquiry->read($heater, 'rated_voltage', 'V_r');
        $power = $inquiry->read($heater, 'rated_power', 'P_r', $bound);
        if (! $rated->isPositive() || ! $power->isPositive()) {
            $inquiry->lack('a rated voltage and power above nought');
        }
        $topology = Circuits::of($survey)->topology;
        $source = self::sourceOf($topology, $heater) ?? $inquiry->lack('one supply that feeds it');
        [$supply, $out] = $topology->at($source);
        $held = $out->mains ? $inquiry->mains() : $inquiry->port($supply, $out, 'voltage', 'V', $bound);
        $resistance =
            $inquiry->evidenceOf($heater, 'cold_resistance') === Evidence::Measured
                ? $inquiry->read(
                    $heater,
                    'cold_resistance',
                    'R',
                    $bound === Bound::Highest ? Bound::Lowest : Bound::Highest,
                )
                : $inquiry->work(
                    'Resistance of the heater',
                    'R = V_r² / P_r',
                    ['V_r' => $rated, 'P_r' => $power],
                    $rated->squared()->over($power),
                    'Ω',
                );
        $inquiry->work('Current', 'I = V / R', ['V' => $held, 'R' => $resistance], $held->over($resistance), 'A');
        $gives = $inquiry->work(
            'Power it gives',
            'P = V² / R',
            ['V' => $held, 'R' => $resistance],
            $held->squared()->over($resistance),
            'W',
        );

        return new self($power, $rated, $held, $gives, $supply->need->role);
    }

    /**
     * The same for a plan: where nothing feeds it yet, what its label promises, and that it is not known is named.
     *
     * @throws \Magpie\Core\Inspection\InputMissing when not even its label is known
     */
    public static function planned(
        Inquiry $inquiry,
        Survey $survey,
        Fitted $heater,
        Bound $bound = Bound::Highest,
    ): self {
        $volts = $heater->part->spec('rated_voltage')?->nominal();
        if ($volts !== null && self::sourceOf(Circuits::of($survey)->topology, $heater) !== null) {
            return self::of($inquiry, $survey, $heater, $bound);
        }
        $power = $inquiry->read($heater, 'rated_power', 'P_r', $bound);
        $rated = $inquiry->tryRead($heater, 'rated_voltage', 'V_r');
        $inquiry->miss(
            $rated === null
                ? "rated voltage of {$heater->need->role}"
                : "what feeds {$heater->need->role}, and its voltage",
            "parts/{$heater->part->ref}/specs/rated_voltage",
        );
        $rated ??= Quantity::of(24, 'V');

        return new self($power, $rated, $rated, $power, 'its label');
    }

    private static function sourceOf(Topology $topology, Fitted $heater): ?int
    {
        $node = null;
        foreach ($heater->part->ports as $port) {
            $node = $port->draw === Draw::Resistive ? $topology->node("{$heater->need->ref}.{$port->name}") : $node;
        }

        return $node === null ? null : $topology->sourceOf($node);
    }
}
