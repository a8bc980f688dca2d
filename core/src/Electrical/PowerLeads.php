<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Input;
use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\PortRef;
use Magpie\Core\Quantity\Quantity;

/** What the checks of leads share: which leads carry power, and how much in the scenario that loads them most. */
final class PowerLeads
{
    /**
     * @return iterable<Subject> one a lead that carries power
     */
    public static function subjects(Survey $survey): iterable
    {
        $topology = Circuits::of($survey)->topology;
        foreach ($survey->build->runs() as $ref => [$from, $to]) {
            if ($topology->carries((string) $ref)) {
                yield self::between((string) $ref, $from, $to, $survey);
            }
        }
    }

    /**
     * @return iterable<Lead> those that carry power
     */
    public static function of(Survey $survey): iterable
    {
        $topology = Circuits::of($survey)->topology;
        foreach ($survey->build->runs() as $ref => $_) {
            $lead = $topology->carries((string) $ref) ? $survey->build->lead((string) $ref) : null;
            if ($lead !== null) {
                yield $lead;
            }
        }
    }

    public static function subject(Lead $lead, Survey $survey): Subject
    {
        return self::between($lead->ref, $lead->from, $lead->to, $survey);
    }

    private static function between(string $ref, PortRef $from, PortRef $to, Survey $survey): Subject
    {
        $label = "{$ref}: {$survey->build->roleOf($from->need)} to {$survey->build->roleOf($to->need)}";

        return new Subject('lead', $ref, $label, array_values(array_unique([$from->need, $to->need])));
    }

    /**
     * Cross-section of one conductor of a lead.
     *
     * @throws \Magpie\Core\Inspection\InputMissing when it is not known
     */
    public static function size(Inquiry $inquiry, Lead $lead): Quantity
    {
        return $inquiry->given(
            "conductor size of {$lead->ref}",
            'A',
            $lead->conductor->size,
            $lead->conductor->evidence,
            "leads/{$lead->ref}/conductor/size",
        );
    }

    public static function named(Inquiry $inquiry): Lead
    {
        return $inquiry->build->lead($inquiry->subject->ref) ?? $inquiry->lack('this lead');
    }

    /**
     * Current of the whole lead in the scenario that loads it most; loads that are not known are named as missing.
     *
     * @throws \Magpie\Core\Inspection\InputMissing when nothing can be said of it
     */
    public static function current(Inquiry $inquiry, Survey $survey, Lead $lead): Quantity
    {
        $circuits = Circuits::of($survey);
        $node = $circuits->topology->nearEnd($lead->ref);
        $flow = $circuits->worstFor($lead->ref);
        if ($flow === null) {
            $why = ($circuits->flows()[0] ?? null)?->whyUnsolved($node);
            $inquiry->lack($why === null ? 'a supply that feeds it' : "its current, since {$why}");
        }
        $behind = $flow->behind($lead->ref);
        if ($behind === []) {
            $inquiry->lack('a load at its far end');
        }
        $inquiry->in($flow->scenario->name);
        self::missing($inquiry, array_map(static fn (Flow $f): array => $f->behind($lead->ref), $circuits->flows()));
        $symbols = [];
        $terms = [];
        foreach ($behind as $demand) {
            $inquiry->absorb($demand->inputs);
            $taken = $flow->taken($demand);
            if ($taken !== null && $taken->isPositive()) {
                $symbol = 'I_'.(count($terms) + 1);
                $symbols[$symbol] = $taken;
                $terms[] = [$symbol, $survey->build->roleOf($demand->need)];
            }
        }
        $current = $inquiry->leaning(
            $flow->current($lead->ref) ?? $inquiry->lack('its current'),
            static fn (): array => self::shares($flow, $behind),
        );
        if ($terms === []) {
            // Nothing it feeds is known to run: no current is not one of 0 A.
            if (! $inquiry->isIncomplete()) {
                $inquiry->lack('a scenario in which what it feeds runs');
            }
            throw new InputMissing;
        }
        $names = array_column(array_slice($terms, 0, 6), 1);
        $label =
            'Current in "'.
            $flow->scenario->name.
            '" for '.
            implode(', ', $names).
            (count($terms) > 6 ? ' and '.(count($terms) - 6).' more' : '');

        return $inquiry->work($label, 'I = '.implode(' + ', array_column($terms, 0)), $symbols, $current, 'A');
    }

    /**
     * What each of some loads takes, with what that rests on.
     *
     * @param  list<Demand>  $demands
     * @return list<array{Quantity, list<Input>}>
     */
    public static function shares(Flow $flow, array $demands): array
    {
        $shares = [];
        foreach ($demands as $demand) {
            $taken = $flow->taken($demand);
            if ($taken !== null) {
                $shares[] = [$taken, $demand->inputs];
            }
        }

        return $shares;
    }

    /**
     * Names what is not known of any load in any scenario: the one that loads most may be one of those.
     *
     * @param  list<list<Demand>>  $demands  by scenario
     */
    public static function missing(Inquiry $inquiry, array $demands): void
    {
        foreach ($demands as $ofScenario) {
            foreach ($ofScenario as $demand) {
                foreach ($demand->missing as $missing) {
                    $inquiry->miss($missing);
                }
            }
        }
    }
}
