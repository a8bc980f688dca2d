<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Input;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\LeadEnd;
use Magpie\Core\Quantity\Quantity;

/**
 * The contacts at one end of a lead: how many share the current of a pole, and what each may carry.
 */
final readonly class ContactsAtEnd
{
    private function __construct(public string $place, public Quantity $rating, public Quantity $perPole)
    {
    }

    /**
     * @return self|null null at an end that has no contact (soldered through),
     *     or whose rating is not known (then it is noted as missing)
     */
    public static function find(Inquiry $inquiry, Lead $lead, int $side): ?self
    {
        $end = $lead->ends[$side];
        if ($end->termination === 'soldered' || $end->termination === 'moulded') {
            return null;
        }
        $at = $side === 0 ? $lead->from : $lead->to;
        $place = $inquiry->build->roleOf($at->need).', port '.$at->port;

        return self::ofHousing($inquiry, $lead, $side, $end, $place) ??
            self::ofPort($inquiry, $lead, $side, $end, $place);
    }

    private static function ofHousing(Inquiry $inquiry, Lead $lead, int $side, LeadEnd $end, string $place): ?self
    {
        $housing = $end->contact === null ? null : $inquiry->build->part($end->contact);
        if ($housing === null) {
            return null;
        }
        $spec = $housing->spec('contact_rating');
        $rating = $spec?->lowest();
        if ($spec === null || $rating === null) {
            $inquiry->miss("contact rating of {$housing->name}");

            return null;
        }
        $inquiry->absorb([
            Input::ofSpec($housing, $spec, 'Contact rating', "parts/{$housing->ref}/specs/contact_rating", 'I_c'),
        ]);

        return new self($place, $rating, self::count($inquiry, $lead, $side, $end, null));
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
        if ($rating === null) {
            $inquiry->miss("contact rating at {$place}");

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
