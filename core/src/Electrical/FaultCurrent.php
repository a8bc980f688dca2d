<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\PortSheet;
use Magpie\Core\Quantity\Quantity;

/**
 * What a short in a lead draws, from its near end to its far one: as much as the source gives, through all that lies
 * before it (IEC 60364-4-43 §434.2).
 */
final readonly class FaultCurrent
{
    /** What a supply gives into a short before it shuts down, against its rating: common practice, no source. */
    public const OVER_RATING = 1.5;

    /** A circuit's breaker opens at once at five times its rating, so its wiring lets as much flow (IEC 60364-4-41, type B (m)). */
    private const AT_OUTLET = 5.0;

    /** The smallest circuit a machine is plugged into where nothing is said of it, A: common practice, no source. */
    private const SMALLEST_CIRCUIT = 10.0;

    /** Most that flows at a socket of a house, A: common practice, no source. */
    private const MOST_AT_OUTLET = 1000.0;

    /** Resistance of a lead nobody has measured, Ω out and back: ten metres of 0.34 mm². */
    private const LONG = 1.0;

    /**
     * @param  float  $least  A, at its far end, with ten metres for every lead whose length is not known
     * @param  float  $leastKnown  the same with nothing for them
     * @param  float  $most  A, at its near end
     * @param  bool  $shutsDown  the source stops at any short of it, however long what is not known is
     * @param  bool  $mayShutDown  it does if that is short
     * @param  list<string>  $unknown  leads whose length or size is not known: it may be anything up to ten metres
     */
    private function __construct(
        public float $least,
        public float $leastKnown,
        public float $most,
        public bool $shutsDown,
        public bool $mayShutDown,
        public array $unknown,
    ) {
    }

    /**
     * @throws \Magpie\Core\Inspection\InputMissing when its source, or what that gives, is not known
     */
    public static function of(Inquiry $inquiry, Survey $survey, Lead $lead): self
    {
        $circuits = Circuits::of($survey);
        $topology = $circuits->topology;
        $near = $topology->nearEnd($lead->ref);
        $source = $topology->sourceOf($near) ?? $inquiry->lack('one supply that feeds it');
        [$before, $longer, $unknown] = self::resistance($inquiry, $circuits, $topology->wayBack($near));
        [$own, $ownLonger, $ownUnknown] = self::resistance($inquiry, $circuits, [$topology->joints[$lead->ref]]);
        $known = $before + $own;
        $far = $known + $longer + $ownLonger;
        [$supply, $out] = $topology->at($source);
        if ($out->mains) {
            $volts = $inquiry->mains()->in('V');
            $circuit = $inquiry->build->site->outlet?->in('A') ?? self::SMALLEST_CIRCUIT;
            $inquiry->remark(
                'A short at the outlet is taken to draw between '.
                    Quantity::of(self::AT_OUTLET * $circuit, 'A').
                    ' and '.
                    Quantity::of(self::MOST_AT_OUTLET, 'A').
                    '.',
            );

            $source = $volts / (self::AT_OUTLET * $circuit);

            return new self(
                $volts / ($source + $far),
                $volts / ($source + $known),
                $volts / ($volts / self::MOST_AT_OUTLET + $before),
                false,
                false,
                [...$unknown, ...$ownUnknown],
            );
        }
        $volts = $inquiry->port($supply, $out, 'voltage', 'V')->in('V');
        [$rated, $most] = SupplyLimit::intoShort($inquiry, $supply, $out);
        $flows = $far > 0 ? $volts / $far : INF;
        $onShort =
            $inquiry->tryPortWord($supply, $out, 'on_short')?->choice() ?? $inquiry->tryChoice($supply, 'on_short');
        $stops = $onShort === PortSheet::ON_SHORT[0];
        $short = $known > 0 ? $volts / $known : INF;

        return new self(
            min($flows, $rated->in('A')),
            min($short, $rated->in('A')),
            min($before > 0 ? $volts / $before : INF, $most->in('A')),
            $stops && $flows > $most->in('A'),
            $stops && $short > $most->in('A'),
            [...$unknown, ...$ownUnknown],
        );
    }

    /**
     * @param  list<Joint>  $way
     * @return array{float, float, list<string>} Ω that are known, Ω there may be more, and of which leads
     */
    private static function resistance(Inquiry $inquiry, Circuits $circuits, array $way): array
    {
        [$known, $more, $unknown] = [0.0, 0.0, []];
        foreach ($way as $joint) {
            $lead = $circuits->topology->leadOf($joint);
            if ($lead === null) {
                [$fitted, $port] = $circuits->topology->at($joint->b);
                $known += $inquiry->tryPort($fitted, $port, 'resistance', 'R')?->in('Ω') ?? 0.0;

                continue;
            }
            $resistance = $circuits->loopResistance($lead);
            if ($resistance === null) {
                [$more, $unknown] = [$more + self::LONG, [...$unknown, $lead->ref]];

                continue;
            }
            PowerLeads::size($inquiry, $lead);
            $known += $resistance->in('Ω');
        }

        return [$known, $more, $unknown];
    }
}
