<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\LeadsTogether;
use Magpie\Core\Electrical\PowerLeads;
use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\OtherPart;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E27: what a plug, a terminal or a splice carries and holds, of all leads that end on it together. */
final class Junctions implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E27',
            'Plugs, terminals and splices',
            'Does this junction carry what goes through it, and hold the conductors that end on it?',
            Trade::Electrical,
            "Maker's ratings; 80 % of a contact continuously is common practice, no source; terminals take the conductors they are made for: IEC 60947-7-1, from memory",
            [
                'holds' => Threshold::share("share of a contact's rating that holds", 0.8),
                'tight' => Threshold::share('share above which it is a danger', 1.0),
            ],
            topics: [Topic::Contacts],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $topology = Circuits::of($survey)->topology;
        foreach ($survey->build->fittedThat(Ability::Joins) as $ref => $fitted) {
            $ends = array_map(
                static fn (Port $port): int => $topology->countAt("{$ref}.{$port->name}"),
                $fitted->part->ports,
            );
            if (array_sum($ends) > 0) {
                yield new Subject('need', (string) $ref, $fitted->need->role, [(string) $ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $fitted = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $wrong = [];
        $used = 0;
        $worst = null;
        foreach ($fitted->part->ports as $port) {
            $leads = self::leadsAt($survey, $fitted, $port);
            if ($leads === []) {
                continue;
            }
            $used++;
            array_push($wrong, ...$this->held($inquiry, $fitted, $port, $leads));
            $loaded =
                $this->loaded($inquiry, $survey, $fitted, $port, $leads) ??
                $this->driven($inquiry, $fitted, $port, $leads);
            if ($loaded !== null && ($worst === null || $loaded[0]->isBelow($worst[0]))) {
                $worst = $loaded;
            }
        }
        array_push($wrong, ...$this->ways($inquiry, $fitted, $used));
        $verdict = $wrong === [] ? Verdict::Holds : Verdict::Fails;
        $says = $wrong;
        if ($worst !== null) {
            [, $each, $rating, $count, $label] = $worst;
            $band = $inquiry->band(
                $each,
                $rating,
                $inquiry->threshold('holds'),
                $inquiry->threshold('tight'),
                Verdict::Danger,
            );
            $verdict = $band->rank() < $verdict->rank() ? $band : $verdict;
            array_unshift(
                $says,
                "{$each} through ".
                    ($count === 1 ? 'one contact' : "each of {$count} contacts").
                    " of {$label}; it is rated {$rating}".
                    ($band === Verdict::Danger ? ' and overheats' : ''),
            );
        }
        if ($says === []) {
            return $inquiry->isIncomplete()
                ? $inquiry->unproven()
                : $inquiry->conclude(
                    Verdict::Holds,
                    'Nothing is known to go through it, and it holds what ends on it.',
                );
        }

        return $inquiry->conclude(
            $verdict,
            ucfirst(implode('; ', $says)).'.',
            $worst[0] ?? null,
            $worst === null ? null : "{$inquiry->threshold('holds')->to('%')} of {$worst[2]}",
        );
    }

    public function cures(): array
    {
        return [new OtherPart];
    }

    public function examples(): Examples
    {
        return new Examples(static fn (): array => self::bedBehind('1'), static fn (): array => self::bedBehind('2'));
    }

    /**
     * A bed and its second half behind one plug, 12 A in all.
     *
     * @param  array<string, string|bool>  $plug
     * @return array<string, mixed>
     */
    public static function bedBehind(string $contacts, array $plug = []): array
    {
        return Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '20 A',
                    'contact_rating' => '20 A',
                ]),
                Examples::part(
                    'plug',
                    'connector',
                    $plug + [
                        'contact_rating' => '10 A',
                        'contacts_per_circuit' => $contacts,
                        'ways' => '4',
                        'wire_from' => '0.5 mm²',
                        'wire_to' => '4 mm²',
                    ],
                ),
                Examples::part('left', 'heater', ['rated_power' => '144 W', 'rated_voltage' => '24 V']),
                Examples::part('right', 'heater', ['rated_power' => '144 W', 'rated_voltage' => '24 V']),
            ],
            [
                'leads' => array_map(
                    static fn (array $run): array => [
                        'ref' => $run[0],
                        'from' => $run[1],
                        'to' => $run[2],
                        'route' => 'fixed',
                        'length' => '0.3 m',
                        'conductor' => ['size' => '2.5 mm²', 'evidence' => 'datasheet'],
                    ],
                    [
                        ['W1', 'psu.out', 'plug.circuit'],
                        ['W2', 'plug.circuit', 'left.power'],
                        ['W3', 'plug.circuit', 'right.power'],
                    ],
                ),
            ],
        );
    }

    /**
     * @return list<Lead> that end on a circuit, whatever they carry
     */
    private static function leadsAt(Survey $survey, Fitted $fitted, Port $port): array
    {
        $topology = Circuits::of($survey)->topology;
        $here = "{$fitted->need->ref}.{$port->name}";

        return [...$topology->leadsFrom($here), ...$topology->leadsTo($here)];
    }

    /**
     * @param  non-empty-list<Lead>  $leads  at this circuit
     * @return array{Quantity, Quantity, Quantity, int, string}|null margin, current of each contact, its rating, how many
     *     share the current, of what; null when nothing can go through
     */
    private function loaded(Inquiry $inquiry, Survey $survey, Fitted $fitted, Port $port, array $leads): ?array
    {
        $topology = Circuits::of($survey)->topology;
        $here = "{$fitted->need->ref}.{$port->name}";
        $node = $topology->node($here);
        $feeding = $node === null ? null : $topology->upstream($node);
        $refs = array_values(
            array_filter(array_map(static fn (Lead $lead): string => $lead->ref, $leads), $topology->carries(...)),
        );
        $onward = array_values(array_diff($refs, [$feeding]));
        if ($feeding === null || $onward === [] || $refs === []) {
            // Nothing feeds it, or it leads nowhere yet.
            return null;
        }
        $label = self::label($fitted, $port);
        $rating = $this->rating($inquiry, $fitted, $port);
        // Fed from two sides, half of all that its leads carry goes through.
        $meshed = $node !== null && $topology->isMeshed($node);
        $through = LeadsTogether::current($inquiry, $survey, $meshed ? $refs : $onward, $label);
        $through = $meshed ? $through->over(2) : $through;
        if ($rating === null) {
            return null;
        }

        return $this->share($inquiry, $fitted, $port, $through, $rating);
    }

    /**
     * The same of a motor's phases, whose current is the one its driver is set to.
     *
     * @param  non-empty-list<Lead>  $leads  at this circuit
     * @return array{Quantity, Quantity, Quantity, int, string}|null
     */
    private function driven(Inquiry $inquiry, Fitted $fitted, Port $port, array $leads): ?array
    {
        foreach ($leads as $lead) {
            foreach ([$lead->from, $lead->to] as $end) {
                $driver = $end->port === 'motor' ? $inquiry->build->fitted($end->need) : null;
                if ($driver?->part->can(Ability::FeedsPhases) !== true) {
                    continue;
                }
                $current = $inquiry->tryRead($driver, 'set_current', 'I_s', Bound::Highest);
                $rating = $this->rating($inquiry, $fitted, $port);
                if ($current === null) {
                    $inquiry->miss(
                        "set phase current of {$driver->need->role}",
                        "parts/{$driver->part->ref}/specs/set_current",
                    );
                }

                return $current === null || $rating === null
                    ? null
                    : $this->share($inquiry, $fitted, $port, $current, $rating);
            }
        }

        return null;
    }

    private function rating(Inquiry $inquiry, Fitted $fitted, Port $port): ?Quantity
    {
        return $inquiry->tryPort($fitted, $port, 'contact_rating', 'I_c', Bound::Lowest) ??
            $inquiry->miss(
                "contact rating of {$fitted->need->role}",
                "parts/{$fitted->part->ref}/specs/contact_rating",
            );
    }

    private static function label(Fitted $fitted, Port $port): string
    {
        return $fitted->part->family->countedBy() === null
            ? $fitted->need->role
            : "{$fitted->need->role}, {$port->name}";
    }

    /**
     * @return array{Quantity, Quantity, Quantity, int, string} margin, current of each contact, its rating, how many share
     *     the current, of what
     */
    private function share(Inquiry $inquiry, Fitted $fitted, Port $port, Quantity $through, Quantity $rating): array
    {
        $several = $inquiry->tryPort($fitted, $port, 'contacts_per_pole', 'n', Bound::Lowest);
        $count = max(1, (int) ($several?->in('') ?? 1));
        $label = self::label($fitted, $port);
        $each = $through->over($count);
        if ($count > 1) {
            $each = $inquiry->work(
                "Each contact of {$label}",
                'I_e = I / n',
                ['I' => $through, 'n' => Quantity::ratio($count)],
                $each,
                'A',
            );
        }

        return [$inquiry->margin($each, $rating), $each, $rating, $count, $label];
    }

    /**
     * @param  non-empty-list<Lead>  $leads
     * @return list<string> what it does not hold of the conductors that end on a circuit
     */
    private function held(Inquiry $inquiry, Fitted $fitted, Port $port, array $leads): array
    {
        $wrong = [];
        [$from, $to] = [
            $inquiry->tryRead($fitted, 'wire_from', 'A_min', Bound::Highest),
            $inquiry->tryRead($fitted, 'wire_to', 'A_max', Bound::Lowest),
        ];
        if ($to === null) {
            $inquiry->miss(
                "thickest conductor {$fitted->need->role} takes",
                "parts/{$fitted->part->ref}/specs/wire_to",
            );
        }
        foreach ($leads as $lead) {
            if ($lead->conductor->size === null) {
                $inquiry->miss("conductor size of {$lead->ref}", "leads/{$lead->ref}/conductor/size");

                continue;
            }
            $size = PowerLeads::size($inquiry, $lead);
            if ($to !== null && $size->exceeds($to)) {
                $wrong[] = "{$lead->ref} ({$size->text()}) is too thick for it: at most {$to}";
            } elseif ($from !== null && $size->isBelow($from)) {
                $wrong[] = "{$lead->ref} ({$size->text()}) is too thin for it: at least {$from}";
            }
        }
        if ($fitted->part->family->field('per_terminal') === null) {
            return $wrong;
        }
        $ends = array_sum(array_map(static fn (Lead $l): int => $l->conductor->parallel, $leads));
        $most = $inquiry->tryRead($fitted, 'per_terminal', 'n_t', Bound::Lowest);
        if ($most === null) {
            $inquiry->miss(
                "conductors one circuit of {$fitted->need->role} takes",
                "parts/{$fitted->part->ref}/specs/per_terminal",
            );
        } elseif (Quantity::ratio($ends)->exceeds($most)) {
            $wrong[] = "{$ends} conductors end on {$port->name}, which takes {$most}";
        }

        return $wrong;
    }

    /**
     * @param  int  $used  circuits that something ends on
     * @return list<string>
     */
    private function ways(Inquiry $inquiry, Fitted $fitted, int $used): array
    {
        if ($fitted->part->family->field('ways') === null) {
            return [];
        }
        $each = max(1, (int) ($inquiry->tryRead($fitted, 'contacts_per_circuit', 'n')?->in('') ?? 1));
        $asked = Quantity::ratio(2 * $each * $used);
        $ways = $inquiry->tryRead($fitted, 'ways', 'N', Bound::Lowest);
        if ($ways === null) {
            $inquiry->miss("ways of {$fitted->need->role}", "parts/{$fitted->part->ref}/specs/ways");

            return [];
        }
        $inquiry->work(
            'Ways its circuits ask for, out and back',
            'N_a = 2 × n × circuits',
            ['n' => Quantity::ratio($each), 'circuits' => Quantity::ratio($used)],
            $asked,
            '',
        );

        return $asked->exceeds($ways) ? ["its circuits ask for {$asked} ways, and it has {$ways}"] : [];
    }
}
