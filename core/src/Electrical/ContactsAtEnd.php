<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Input;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\LeadEnd;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\PortRef;
use Magpie\Core\Machine\Termination;
use Magpie\Core\Quantity\Quantity;

/**
 * The contacts at one end of a lead: how many share the current of a pole, and what each may carry; and which other
 * leads end on the same ones.
 */
final readonly class ContactsAtEnd
{
    /**
     * @param  Quantity  $perPole  contacts in parallel that this lead has of each pole
     * @param  list<string>  $shared  leads that end on the same contacts, this one among them; none when it is alone
     * @param  Quantity|null  $all  contacts of each pole that carry all of those together
     * @param  string  $kind  "plug" or "terminal"
     * @param  bool  $counted  whether that many are known to be there: else one is taken
     */
    private function __construct(
        public string $place,
        public Quantity $rating,
        public Quantity $perPole,
        public array $shared = [],
        public ?Quantity $all = null,
        public bool $counted = true,
        public string $kind = 'terminal',
    ) {
    }

    /**
     * @return self|null null at an end that has no contact (soldered through),
     *     or whose rating is not known (then it is noted as missing)
     */
    public static function find(Inquiry $inquiry, Survey $survey, Lead $lead, int $side): ?self
    {
        $end = $lead->ends[$side];
        if ($end->termination === Termination::Soldered || $end->termination === Termination::Moulded) {
            return null;
        }
        $at = $side === 0 ? $lead->from : $lead->to;
        $place = $inquiry->build->roleOf($at->need).', port '.$at->port;

        $contacts =
            self::ofHousing($inquiry, $lead, $side, $end, $place) ?? self::ofPort($inquiry, $lead, $side, $end, $place);

        return $contacts?->sharedBy($inquiry, $survey, $lead, $at, $end);
    }

    /** The same, where other leads end in the same plug or terminal and there are not contacts enough for each. */
    private function sharedBy(Inquiry $inquiry, Survey $survey, Lead $lead, PortRef $at, LeadEnd $end): self
    {
        $topology = Circuits::of($survey)->topology;
        $here = $at->text();
        $fitted = $inquiry->build->fitted($at->need);
        $port = $inquiry->build->port($at);
        if ($topology->countAt($here) < 2 || $fitted === null || $port === null) {
            return $this;
        }
        $there = $inquiry->tryPort($fitted, $port, 'contacts_per_pole', 'n_p');
        $counted = $there !== null || $end->contact !== null;
        if (! $counted) {
            // Terminals of which nobody has said how many there are: each lead may have its own.
            return $this->with([], Quantity::ratio(1), false);
        }
        $leads = [$lead->ref];
        $claimed = $most = $end->contactsPerPole ?? 1;
        foreach ([...$topology->leadsFrom($here), ...$topology->leadsTo($here)] as $other) {
            $its = $other->ends[$other->from->text() === $here ? 0 : 1];
            if (
                $other->ref !== $lead->ref &&
                $topology->carries($other->ref) &&
                $its->contact === $end->contact &&
                ! in_array($its->termination, [Termination::Soldered, Termination::Moulded], true)
            ) {
                $leads[] = $other->ref;
                $claimed += $its->contactsPerPole ?? 1;
                $most = max($most, $its->contactsPerPole ?? 1);
            }
        }
        if (count($leads) === 1 || ($there !== null && ! Quantity::ratio($claimed)->exceeds($there))) {
            return $this;
        }

        return $this->with($leads, $there ?? Quantity::ratio($most), true);
    }

    /**
     * @param  list<string>  $shared
     */
    private function with(array $shared, Quantity $all, bool $counted): self
    {
        return new self($this->place, $this->rating, $this->perPole, $shared, $all, $counted, $this->kind);
    }

    /** Voltage a housing is rated for; null when its sheet does not say. */
    public static function voltage(Inquiry $inquiry, Part $housing): ?Quantity
    {
        return $inquiry->tryPart($housing, 'voltage_rating', 'V_r', Bound::Lowest);
    }

    private static function ofHousing(Inquiry $inquiry, Lead $lead, int $side, LeadEnd $end, string $place): ?self
    {
        $housing = $end->contact === null ? null : $inquiry->build->part($end->contact);
        if ($housing === null) {
            return null;
        }
        $rating = $inquiry->tryPart($housing, 'contact_rating', 'I_c', Bound::Lowest);
        if ($rating === null) {
            $inquiry->missSize("contact rating of {$housing->name}", "parts/{$housing->ref}/specs/contact_rating");

            return null;
        }

        return new self($place, $rating, self::count($inquiry, $lead, $side, $end, null), kind: 'plug');
    }

    private static function ofPort(Inquiry $inquiry, Lead $lead, int $side, LeadEnd $end, string $place): ?self
    {
        $at = $side === 0 ? $lead->from : $lead->to;
        $fitted = $inquiry->build->fitted($at->need);
        $port = $inquiry->build->port($at);
        if ($end->contact !== null || $fitted === null || $port === null) {
            return null;
        }
        $rating = $inquiry->tryPort($fitted, $port, 'contact_rating', 'I_c', Bound::Lowest);
        if ($rating === null && $port->draw !== null && $port->draw !== Draw::Resistive) {
            // What a bought part takes in by terminals of its own is its maker's business; of a heater it is not.
            $inquiry->remark("{$place}: its own terminals, for what it takes itself.");

            return null;
        }
        if ($rating === null) {
            $inquiry->missSize("contact rating at {$place}", Inquiry::whereOf($fitted, $port, 'contact_rating'));

            return null;
        }

        return new self(
            $place,
            $rating,
            self::count($inquiry, $lead, $side, $end, $inquiry->tryPort($fitted, $port, 'contacts_per_pole', 'n')),
        );
    }

    /** Contacts in parallel per pole: never more than there are conductors to reach them. */
    private static function count(Inquiry $inquiry, Lead $lead, int $side, LeadEnd $end, ?Quantity $ofPort): Quantity
    {
        if ($end->contactsPerPole === null) {
            // One contact per pole is the careful reading when nothing is said.
            return Quantity::ratio(1);
        }
        $count = Quantity::ratio($end->contactsPerPole);
        $inquiry->absorb([
            new Input(
                'Contacts per pole at end '.($side + 1)." of {$lead->ref}",
                'n',
                $count,
                Evidence::Measured,
                null,
                "leads/{$lead->ref}/ends/{$side}/contacts_per_pole",
            ),
        ]);
        $reached = Quantity::ratio($lead->effectiveConductors() > 1 ? $lead->effectiveConductors() : 1);
        $wired = $lead->conductor->parallel > 1 ? Quantity::min($count, $reached) : $count;
        if ($wired->isBelow($count)) {
            $inquiry->remark("The lead is doubled at one end only: {$wired} contact carries all of it.");
        }

        return $ofPort === null ? $wired : Quantity::min($wired, $ofPort);
    }
}
