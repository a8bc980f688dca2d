<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\ContactsAtEnd;
use Magpie\Core\Electrical\Cures\MoreContacts;
use Magpie\Core\Electrical\PowerLeads;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E02, one of several contacts open: paralleled contacts never share equally, and the survivor carries all. */
final class ContactOpens implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E02-open',
            'One of the paralleled contacts opens',
            'Does the rest of the plug stand it when one contact loosens?',
            Trade::Electrical,
            "Maker's contact rating; the single-fault case is common practice, no source",
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach (PowerLeads::of($survey) as $lead) {
            if (max($lead->ends[0]->contactsPerPole ?? 1, $lead->ends[1]->contactsPerPole ?? 1) > 1) {
                yield PowerLeads::subject($lead, $survey);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $lead = PowerLeads::named($inquiry);
        $current = PowerLeads::current($inquiry, $survey, $lead);
        $worst = null;
        foreach ([0, 1] as $side) {
            $contacts = ContactsAtEnd::find($inquiry, $survey, $lead, $side);
            if ($contacts === null || ! $contacts->perPole->exceeds(Quantity::ratio(1))) {
                continue;
            }
            $left = $contacts->perPole->minus(Quantity::ratio(1));
            $each = $inquiry->work(
                "Each contact left at {$contacts->place}",
                'I_e = I / (n − 1)',
                ['I' => $current, 'n' => $contacts->perPole],
                $current->over($left),
                'A',
            );
            $margin = $inquiry->margin($each, $contacts->rating);
            if ($worst === null || $margin->isBelow($worst[0])) {
                $worst = [$margin, $each, $contacts];
            }
        }
        if ($worst === null) {
            return $inquiry->isIncomplete()
                ? $inquiry->unproven()
                : $inquiry->conclude(Verdict::Holds, 'No end really has contacts in parallel.');
        }
        [$margin, $each, $contacts] = $worst;
        $stands = ! $each->exceeds($contacts->rating);
        $says =
            "With one contact open at {$contacts->place} each of the rest carries {$each}; its rating is {$contacts->rating}.".
            ($stands
                ? ''
                : ' The survivor overheats unseen: a further contact, or look at this plug on every upkeep round.');

        return $inquiry->conclude(
            $stands ? Verdict::Holds : Verdict::Fails,
            $says,
            $margin,
            "{$contacts->rating} a contact",
        );
    }

    public function cures(): array
    {
        return [new MoreContacts];
    }

    public function examples(): Examples
    {
        return new Examples(
            static fn (): array => ContactLoad::bedOn(2),
            static fn (): array => ContactLoad::bedOn(3),
            Verdict::Fails,
        );
    }
}
