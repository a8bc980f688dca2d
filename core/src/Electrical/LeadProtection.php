<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\FuseBands;

/**
 * Whether what stands before a lead keeps it from getting too hot: when its load takes too much, where it can
 * (IEC 60364-4-43 §433), and in a short anywhere in it (§434.5.2).
 */
final readonly class LeadProtection
{
    /** Points at which a short between the near end and the far one is judged. */
    private const POINTS = 8;

    private const AN_HOUR = 3600.0;

    /**
     * @param  Verdict  $verdict  holds, fails, danger, or unproven where something must be known first
     * @param  Quantity|null  $margin  share of what the lead stands that is left; negative where it gets too hot
     * @param  string  $how  how it is kept, or why it is not, in words that go on from its name
     * @param  float|null  $amps  the short that is worst for it
     */
    private function __construct(
        public Lead $lead,
        public Quantity $ampacity,
        public Verdict $verdict,
        public ?Quantity $margin,
        public string $how,
        public ?float $amps = null,
    ) {
    }

    /**
     * @param  ProtectiveElement|null  $element  the one before it
     *
     * @throws \Magpie\Core\Inspection\InputMissing
     */
    public static function of(
        Inquiry $inquiry,
        Survey $survey,
        Lead $lead,
        ?ProtectiveElement $element,
        string $key,
    ): self {
        $ampacity = Ampacity::quiet($inquiry, $lead);
        Air::of($inquiry->build, $lead)->askFor($inquiry);
        $load = self::overloading($inquiry, $survey, $lead, $ampacity);
        if ($element !== null && $element->coversOverload($ampacity)) {
            return new self(
                $lead,
                $ampacity,
                Verdict::Holds,
                $inquiry->margin($element->rating, $ampacity),
                "may carry {$ampacity}, more than the {$element->named()} lets through",
            );
        }
        if ($load !== null) {
            $limit = $element === null ? null : $element->rating;
            if ($limit === null || $limit->exceeds($ampacity)) {
                $burns = $limit === null || $limit->exceeds($ampacity->times(ProtectiveElement::FOR_AN_HOUR));

                return new self(
                    $lead,
                    $ampacity,
                    $burns ? Verdict::Danger : Verdict::Fails,
                    $limit === null ? null : $inquiry->margin($limit, $ampacity),
                    "may carry {$ampacity}, and {$load} takes more when it is overloaded",
                );
            }
        }

        return self::inAShort($inquiry, $survey, $lead, $element, $key, $ampacity);
    }

    /**
     * A load behind a lead that may take more than it is rated for, and more than the lead may carry: none that has a fuse of
     * its own on the way, which may stand anywhere along it (§433.2.2).
     */
    private static function overloading(Inquiry $inquiry, Survey $survey, Lead $lead, Quantity $ampacity): ?string
    {
        foreach (Circuits::of($survey)->flows() as $flow) {
            foreach ($flow->behind($lead->ref) as $demand) {
                if (
                    $survey->build->fitted($demand->need)?->part->can(Ability::Overloads) === true &&
                    ! self::fusedBehind($inquiry, $survey, $lead, $demand, $ampacity)
                ) {
                    return $survey->build->roleOf($demand->need);
                }
            }
        }

        return null;
    }

    private static function fusedBehind(
        Inquiry $inquiry,
        Survey $survey,
        Lead $lead,
        Demand $demand,
        Quantity $ampacity,
    ): bool {
        $topology = Circuits::of($survey)->topology;
        $node = $demand->node;
        foreach ($topology->wayBack($node) as $joint) {
            if ($joint->lead === $lead->ref) {
                return false;
            }
            $before = $joint->a === $node ? $joint->b : $joint->a;
            [$fitted, $port] = $topology->at($before);
            $found = [ProtectionZones::ofLead($topology, $topology->leadOf($joint))];
            $found[] = ProtectionZones::protects($fitted, $port) ? "{$fitted->need->ref}.{$port->name}" : null;
            foreach (array_filter($found) as $key) {
                if (ProtectiveElement::of($inquiry, $key)?->rating->exceeds($ampacity) === false) {
                    return true;
                }
            }
            $node = $before;
        }

        return false;
    }

    private static function inAShort(
        Inquiry $inquiry,
        Survey $survey,
        Lead $lead,
        ?ProtectiveElement $element,
        string $key,
        Quantity $ampacity,
    ): self {
        $fault = FaultCurrent::of($inquiry, $survey, $lead);
        if ($fault->shutsDown) {
            return new self(
                $lead,
                $ampacity,
                Verdict::Holds,
                null,
                'draws so much in a short that its supply shuts down',
            );
        }
        $elements = $element === null ? [] : [$element];
        $worst = self::judged($inquiry, $lead, $ampacity, $fault, $elements);
        if ($worst->verdict === Verdict::Holds) {
            return $worst;
        }
        foreach (ProtectiveElement::beyond($inquiry, $survey, $lead, $key) as $further) {
            $elements[] = $further;
            $with = self::judged($inquiry, $lead, $ampacity, $fault, $elements);
            if ($with->verdict === Verdict::Holds) {
                return $with;
            }
        }

        return $worst;
    }

    /**
     * @param  list<ProtectiveElement>  $elements  any of which may open
     */
    private static function judged(
        Inquiry $inquiry,
        Lead $lead,
        Quantity $ampacity,
        FaultCurrent $fault,
        array $elements,
    ): self {
        $limits = [
            $ampacity->in('A'),
            FuseBands::stands(($lead->conductor->size?->in('mm²') ?? 0.0) * $lead->effectiveConductors()),
        ];
        [$worst, $amps] = self::scan($fault->least, $fault->most, $limits, $elements, true);
        $says = self::says($elements, $amps, $ampacity);
        $margin = Quantity::ratio(1 - $worst)->to('%');
        if ($worst <= 1) {
            return new self($lead, $ampacity, Verdict::Holds, $margin, $says, $amps);
        }
        [$anyhow, $at] = self::scan($fault->leastKnown, $fault->most, $limits, $elements, false);
        if ($anyhow > 1 && $fault->mayShutDown) {
            self::missLengths($inquiry, $fault);

            return new self($lead, $ampacity, Verdict::Unproven, $margin, $says, $amps);
        }
        if ($anyhow > 1) {
            $burns = $at > ProtectiveElement::FOR_AN_HOUR * $ampacity->in('A');
            $verdict = $burns ? Verdict::Danger : Verdict::Fails;
            $margin = Quantity::ratio(1 - $anyhow)->to('%');

            return new self($lead, $ampacity, $verdict, $margin, self::says($elements, $at, $ampacity), $at);
        }
        if (self::scan($fault->least, $fault->most, $limits, $elements, false)[0] > 1) {
            self::missLengths($inquiry, $fault);
        }
        if (self::scan($fault->leastKnown, $fault->most, $limits, $elements, true)[0] > 1) {
            foreach ($elements as $element) {
                if ($element->asks !== null) {
                    $inquiry->miss("kind and speed of the {$element->named()}", $element->asks);
                }
            }
        }

        return new self($lead, $ampacity, Verdict::Unproven, $margin, $says, $amps);
    }

    private static function missLengths(Inquiry $inquiry, FaultCurrent $fault): void
    {
        foreach ($fault->unknown as $ref) {
            $inquiry->miss("length of {$ref}", "leads/{$ref}/length");
        }
    }

    /**
     * The short between two currents that heats a conductor most.
     *
     * @param  array{float, float}  $limits  A it may carry for ever, A²s it stands
     * @param  list<ProtectiveElement>  $elements  any of which may open
     * @param  bool  $slow  of what an element may be, by what is known of it, the slowest; else the quickest
     * @return array{float, float} share of what it stands, at that current in A
     */
    private static function scan(float $least, float $most, array $limits, array $elements, bool $slow): array
    {
        $found = [-INF, $least];
        $most = max($least, $most);
        if ($elements === [] || $most <= $limits[0]) {
            return [$most / $limits[0], $most];
        }
        for ($i = 0; $i <= self::POINTS; $i++) {
            $amps = $least * ($most / $least) ** ($i / self::POINTS);
            $heat = $amps / $limits[0];
            foreach ($heat <= 1 ? [] : $elements as $element) {
                $heats = [];
                foreach ($element->bands as $band) {
                    $heats[] = self::heat($element, $band, $amps, $limits);
                }
                $heat = min($heat, $slow ? max($heats) : min($heats));
            }
            $found = $heat > $found[0] ? [$heat, $amps] : $found;
        }

        return $found;
    }

    /**
     * @param  array{float, float}  $limits
     */
    private static function heat(ProtectiveElement $element, string $band, float $amps, array $limits): float
    {
        [$ampacity, $stands] = $limits;
        $rating = $element->rating->in('A');
        if (! $element->opens) {
            return min($amps, $rating) / $ampacity;
        }
        $seconds = FuseBands::slowest($band, $amps / $rating);
        $energy = $seconds === null ? null : FuseBands::letsThrough($band, $rating, $amps, $seconds);
        if ($energy === null) {
            return $amps / $ampacity;
        }
        $forAnHour = ProtectiveElement::FOR_AN_HOUR * $ampacity;

        return $seconds <= self::AN_HOUR && $amps <= $forAnHour
            ? min($amps / $forAnHour, $energy / $stands)
            : $energy / $stands;
    }

    /**
     * @param  list<ProtectiveElement>  $elements
     */
    private static function says(array $elements, float $amps, Quantity $ampacity): string
    {
        if ($amps <= $ampacity->in('A')) {
            return 'carries all that can flow in a short';
        }
        $current = Quantity::of($amps, 'A');
        foreach ($elements as $element) {
            $times = array_map(
                static fn (string $band): ?float => FuseBands::slowest($band, $amps / $element->rating->in('A')),
                $element->bands,
            );
            $says = match (true) {
                ! $element->opens => "is held to {$element->named()}",
                in_array(null, $times, true) => "draws {$current} in a short, at which the {$element->named()} need not open",
                default => "draws {$current} in a short, which the {$element->named()} ends within ".
                    Quantity::of(max($times), 's'),
            };
        }

        return $says ?? "draws {$current} in a short, which nothing ends";
    }
}
