<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\ContactsAtEnd;
use Magpie\Core\Electrical\Cures\MoreContacts;
use Magpie\Core\Electrical\Cures\StrainRelief;
use Magpie\Core\Electrical\LeadsTogether;
use Magpie\Core\Electrical\PowerLeads;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\PortRef;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E02: what each contact of a lead carries, at the weaker of its two ends, and whether a moving joint is relieved. */
final class ContactLoad implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E02',
            'Contact load',
            'Does any contact of this lead carry more than it may?',
            Trade::Electrical,
            "Maker's contact rating; 80 % continuous and strain relief are common practice, no source",
            [
                'holds' => Threshold::share("share of a contact's rating that holds", 0.8),
                'tight' => Threshold::share('share above which it is a danger', 1.0),
            ],
            topics: [Topic::Contacts],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        return PowerLeads::subjects($survey);
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $lead = PowerLeads::named($inquiry);
        $loose = $this->unrelievedEnd($inquiry, $lead);
        if ($loose !== null) {
            return $inquiry->conclude(
                Verdict::Danger,
                "This lead moves, and its joint at {$loose} has no strain relief: it works loose, arcs and burns.",
                null,
                'strain relief at both ends of a moving lead',
            );
        }
        $current = PowerLeads::current($inquiry, $survey, $lead);
        $worst = null;
        foreach ([0, 1] as $side) {
            if ($this->endsOnJunction($inquiry, $lead, $side)) {
                continue;
            }
            $contacts = ContactsAtEnd::find($inquiry, $survey, $lead, $side);
            if ($contacts === null) {
                continue;
            }
            $each = $inquiry->work(
                "Each contact at {$contacts->place}",
                'I_e = I / n',
                ['I' => $current, 'n' => $contacts->perPole],
                $current->over($contacts->perPole),
                'A',
            );
            [$of, $each] = $this->together(
                $inquiry,
                $survey,
                $contacts,
                $side === 0 ? $lead->from : $lead->to,
                $each,
            ) ?? [$current, $each];
            $margin = $inquiry->margin($each, $contacts->rating);
            if ($worst === null || $margin->isBelow($worst[0])) {
                $worst = [$margin, $each, $contacts, $of];
            }
        }
        if ($worst === null) {
            if ($inquiry->isIncomplete()) {
                return $inquiry->unproven();
            }

            return $inquiry->conclude(
                Verdict::Holds,
                'No contact of its own to overload: soldered or moulded, or on a junction that is judged for all of its leads.',
            );
        }
        [$margin, $each, $contacts, $of] = $worst;
        $verdict = $inquiry->band(
            $each,
            $contacts->rating,
            $inquiry->threshold('holds'),
            $inquiry->threshold('tight'),
            Verdict::Danger,
        );
        $several = $of !== $current;
        $count = (int) (($several ? $contacts->all : null) ?? $contacts->perPole)->in('');
        $sharing = $count === 1 ? "One contact carries all {$of}" : "{$count} contacts share {$of}: {$each} each";
        $says =
            "{$sharing} at {$contacts->place}".
            ($several ? ', of '.implode(' and ', $contacts->shared).' together' : '').
            "; its rating is {$contacts->rating}.".
            ($verdict !== Verdict::Danger
                ? ''
                : ($contacts->kind === 'plug'
                    ? ' The plug overheats; a further contact pair costs a few coins.'
                    : ' The terminal overheats; a second one beside it, or one that is rated for more.'));

        return $inquiry->conclude(
            $verdict,
            $says,
            $margin,
            $inquiry->threshold('holds')->to('%').
                ' of '.
                $contacts->rating.
                ' holds, above '.
                $contacts->rating.
                ' is a danger',
        );
    }

    public function cures(): array
    {
        return [new MoreContacts, new StrainRelief];
    }

    public function examples(): Examples
    {
        return new Examples(static fn (): array => self::bedOn(1), static fn (): array => self::bedOn(2));
    }

    /**
     * The burnt bed plug: 12 A through contacts of 10 A.
     *
     * @return array<string, mixed>
     */
    public static function bedOn(int $contacts): array
    {
        return Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '20 A',
                    'contact_rating' => '20 A',
                ]),
                Examples::part('bed', 'heater', ['rated_power' => '288 W', 'rated_voltage' => '24 V']),
                Examples::part('plug', 'contact_housing', ['contact_rating' => '10 A']),
            ],
            [
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'psu.out',
                        'to' => 'bed.power',
                        'route' => 'fixed',
                        'ends' => [
                            ['termination' => 'ferrule'],
                            ['termination' => 'crimp', 'contact' => 'plug', 'contacts_per_pole' => $contacts],
                        ],
                    ],
                ],
            ],
        );
    }

    /**
     * Where several leads end on the same contacts and load them more together than this one alone.
     *
     * @param  PortRef  $at  where they end
     * @return array{Quantity, Quantity}|null what all of them carry, and each contact of it
     */
    private function together(
        Inquiry $inquiry,
        Survey $survey,
        ContactsAtEnd $contacts,
        PortRef $at,
        Quantity $alone,
    ): ?array {
        if ($contacts->all === null) {
            return null;
        }
        if (! $contacts->counted || $contacts->shared === []) {
            // Asked only where it matters.
            $most = self::mostAt($inquiry, $survey, $at);
            if (
                $most?->exceeds($contacts->rating->times($inquiry->threshold('holds'))) === true &&
                $most->exceeds($alone)
            ) {
                $inquiry->miss("contacts per pole at {$contacts->place}");
            }

            return null;
        }
        $all = LeadsTogether::current($inquiry, $survey, $contacts->shared, $contacts->place);
        $each = $all->over($contacts->all);
        if (! $each->exceeds($alone)) {
            return null;
        }
        $inquiry->work(
            "Each contact at {$contacts->place}, of all leads that end there",
            'I_e = I / n',
            ['I' => $all, 'n' => $contacts->all],
            $each,
            'A',
        );

        return [$all, $each];
    }

    /** All that goes through a port, in the scenario in which it is most: what leaves a source, or all leads at it. */
    private static function mostAt(Inquiry $inquiry, Survey $survey, PortRef $at): ?Quantity
    {
        $circuits = Circuits::of($survey);
        $node = $circuits->topology->node($at->text());
        if ($node === null) {
            return null;
        }
        $feeding = $circuits->topology->upstream($node);
        $leads = array_values(
            array_filter(
                $circuits->topology->outward($node),
                static fn (string $j): bool => $j !== $feeding && $circuits->topology->joints[$j]->lead !== null,
            ),
        );
        if (count($leads) > 1) {
            return LeadsTogether::atMost($inquiry, $survey, $leads);
        }
        $most = null;
        foreach ($circuits->flows() as $flow) {
            $through = $flow->through($node);
            $most = $through === null || $most?->exceeds($through) === true ? $most : $through;
        }

        return $most;
    }

    /** Whether an end is held by a plug, terminal or splice of its own, which E27 judges for all leads together. */
    private function endsOnJunction(Inquiry $inquiry, Lead $lead, int $side): bool
    {
        $at = $inquiry->build->fitted($side === 0 ? $lead->from->need : $lead->to->need);

        return $lead->ends[$side]->contact === null && $at?->part->can(Ability::Joins) === true;
    }

    private function unrelievedEnd(Inquiry $inquiry, Lead $lead): ?string
    {
        if ($lead->route === null) {
            $inquiry->miss("whether {$lead->ref} moves");
        }
        foreach ($lead->route === 'flexing' ? $lead->ends : [] as $side => $end) {
            $at = $inquiry->build->roleOf($side === 0 ? $lead->from->need : $lead->to->need);
            if ($end->strainRelief === false) {
                $inquiry->because("leads/{$lead->ref}/ends/{$side}/strain_relief");

                return $at;
            }
            if ($end->strainRelief === null) {
                $inquiry->missUntil(
                    Stage::Made,
                    "strain relief at {$at}",
                    "leads/{$lead->ref}/ends/{$side}/strain_relief",
                );
            }
        }

        return null;
    }
}
