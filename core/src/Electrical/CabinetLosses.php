<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Zone;
use Magpie\Core\Quantity\Quantity;

/** What the things in a zone turn into heat there, in the scenario that heats it most. */
final class CabinetLosses
{
    /** Of what a driver takes, the part it keeps as heat: common practice, no source. */
    private const DRIVER = 0.1;

    /**
     * @return array{Quantity, string, array<string, Quantity>} heat, scenario, terms by symbol
     */
    public static function worst(Survey $survey, Zone $zone, Inquiry $inquiry): array
    {
        $worst = null;
        foreach (Circuits::of($survey)->flows() as $flow) {
            $terms = [];
            foreach ($zone->holds as $ref) {
                $fitted = $inquiry->build->fitted($ref);
                $loss = $fitted === null ? null : self::of($survey, $flow, $fitted, $inquiry);
                if ($loss !== null && $loss->isPositive()) {
                    $terms['P_'.$ref] = $loss->to('W');
                }
            }
            $sum = array_reduce(
                $terms,
                static fn (Quantity $sum, Quantity $one): Quantity => $sum->plus($one),
                Quantity::of(0, 'W'),
            );
            if ($worst === null || $sum->exceeds($worst[0])) {
                $worst = [$sum, $flow->scenario->name, $terms];
            }
        }
        if ($worst === null || $worst[2] === []) {
            $inquiry->lack("something in {$zone->name} that gives off heat");
        }

        return $worst;
    }

    private static function of(Survey $survey, Flow $flow, Fitted $fitted, Inquiry $inquiry): ?Quantity
    {
        return match (true) {
            $fitted->part->can(Ability::Converts) => self::supply($survey, $flow, $fitted, $inquiry),
            $fitted->part->can(Ability::Switches) => self::switched($survey, $flow, $fitted, $inquiry),
            $fitted->part->can(Ability::FeedsPhases) => self::taken($survey, $flow, $fitted, $inquiry)?->times(
                self::DRIVER,
            ),
            $fitted->part->can(Ability::SetsSpeed) => self::drive($survey, $flow, $fitted, $inquiry),
            $fitted->part->can(Ability::WarmsByAllItTakes) => self::taken($survey, $flow, $fitted, $inquiry),
            default => null,
        };
    }

    private static function supply(Survey $survey, Flow $flow, Fitted $fitted, Inquiry $inquiry): Quantity
    {
        $efficiency = $inquiry->read($fitted, 'efficiency', 'η', Bound::Lowest);
        $out = Quantity::of(0, 'W');
        $topology = Circuits::of($survey)->topology;
        foreach ($topology->nodesOf($fitted->need->ref) as $node) {
            if ($topology->shapes[$node]->kind === PortKind::Source) {
                $volts = Circuits::of($survey)->heldBy($node);
                $amps = $flow->delivered($node);
                if ($volts === null || $amps === null) {
                    $inquiry->miss("what {$fitted->need->role} gives");

                    continue;
                }
                PowerLeads::missing($inquiry, [$flow->demands($node)]);
                $inquiry->absorb(Circuits::of($survey)->restOf($node));
                foreach ($flow->demands($node) as $demand) {
                    $inquiry->absorb($demand->inputs);
                }
                $out = $out->plus($volts->times($amps));
            }
        }

        return $out->over($efficiency)->minus($out);
    }

    /** What a semiconductor makes of the current it switches; contacts make next to nothing of it. */
    private static function switched(Survey $survey, Flow $flow, Fitted $fitted, Inquiry $inquiry): ?Quantity
    {
        $sum = Quantity::of(0, 'A');
        foreach (Circuits::of($survey)->topology->leadsFrom("{$fitted->need->ref}.out") as $lead) {
            $current = $flow->current($lead->ref);
            $sum = $current === null ? $sum : $sum->plus($current);
            PowerLeads::missing($inquiry, [$flow->behind($lead->ref)]);
            foreach ($flow->behind($lead->ref) as $demand) {
                $inquiry->absorb($demand->inputs);
            }
        }
        $kind = $sum->isPositive() ? SwitchKind::of($inquiry, $fitted) : SwitchKind::Contacts;
        if ($kind === SwitchKind::Contacts) {
            return null;
        }
        if ($kind === SwitchKind::AlternatingSolidState) {
            return Quantity::of(1.2, 'V')->times($sum);
        }
        $on = $inquiry->tryRead($fitted, 'on_resistance', 'R_on', Bound::Highest);
        if ($on === null) {
            $what = $kind === null ? 'kind' : 'on_resistance';
            $inquiry->miss(
                $kind === null ? "kind of {$fitted->need->role}" : "resistance of {$fitted->need->role} when it is on",
                "parts/{$fitted->part->ref}/specs/{$what}",
            );
        }

        return $on === null ? null : $sum->squared()->times($on);
    }

    private static function drive(Survey $survey, Flow $flow, Fitted $fitted, Inquiry $inquiry): ?Quantity
    {
        $taken = self::taken($survey, $flow, $fitted, $inquiry);

        return $taken?->times(Quantity::ratio(1)->minus($inquiry->read($fitted, 'efficiency', 'η', Bound::Lowest)));
    }

    /** What it takes from its supplies. */
    private static function taken(Survey $survey, Flow $flow, Fitted $fitted, Inquiry $inquiry): ?Quantity
    {
        $sum = null;
        foreach ($flow->demandsOf($fitted->need->ref) as $demand) {
            $volts = $flow->volts($demand->node);
            if ($volts !== null) {
                PowerLeads::missing($inquiry, [[$demand]]);
                $inquiry->absorb($demand->inputs);
                $amps = $flow->taken($demand);
                $sum = $amps === null ? $sum : ($sum ?? Quantity::of(0, 'W'))->plus($volts->times($amps));
            }
        }

        return $sum;
    }
}
