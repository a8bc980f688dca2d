<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\ContactsAtEnd;
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
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E26: what breaks or insulates a circuit is rated for its voltage, direct and alternating apart. */
final class RatedVoltage implements Curable
{
    /** What any fuse in the trade is made for, in volts direct: not asked up to here. */
    private const ANY = 32;

    /** What any contact and insulation is made for: extra-low voltage, direct (IEC 61140, from memory). */
    private const EXTRA_LOW = 60;

    /** Fuses made for vehicles: their voltage is direct, and none of them is for the mains. */
    private const VEHICLE = ['blade', 'resettable'];

    public function card(): Card
    {
        return new Card(
            'E26',
            'Rated voltage',
            'Are fuses, contacts, switches and insulation rated for the voltage of this circuit?',
            Trade::Electrical,
            'IEC 60269 and UL 248 (fuses), ISO 8820-3 (blade fuses, 32 or 58 V direct), from memory; a contact rated for alternating current need not break direct current',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $topology = Circuits::of($survey)->topology;
        foreach ($survey->build->runs() as $ref => [$from, $to]) {
            $ref = (string) $ref;
            $found = $topology->carries($ref) ? self::volts($survey, $topology->nearEnd($ref)) : null;
            $fuse = $survey->build->lead($ref)?->protection;
            if ($found !== null && ($fuse !== null || $found[1] || $found[0]->in('V') > self::EXTRA_LOW)) {
                $label = "{$ref}: {$survey->build->roleOf($from->need)} to {$survey->build->roleOf($to->need)}";
                $needs = array_values(array_unique(array_filter([$fuse, $from->need, $to->need])));
                yield new Subject('lead', $ref, $label, $needs);
            }
        }
        foreach ($survey->build->fittedThat(Ability::Interrupts) as $ref => $fitted) {
            $node = $topology->node("{$ref}.in");
            if ($node !== null && self::volts($survey, $node) !== null) {
                yield new Subject('need', (string) $ref, $fitted->need->role, [(string) $ref]);
            }
        }
        foreach ($survey->build->fittedThat(Ability::Joins) as $ref => $fitted) {
            $found = self::highest($survey, (string) $ref);
            if ($found !== null && ($found[1] || $found[0]->in('V') > self::EXTRA_LOW)) {
                yield new Subject('need', (string) $ref, $fitted->need->role, [(string) $ref]);
            }
        }
    }

    /**
     * @return array{Quantity, bool, int}|null the highest voltage on any circuit of a part, whether it alternates, and
     *     where; the mains before all
     */
    private static function highest(Survey $survey, string $need): ?array
    {
        $highest = null;
        foreach (Circuits::of($survey)->topology->nodesOf($need) as $node) {
            $found = self::volts($survey, $node);
            if (
                $found !== null &&
                ($highest === null || [$found[1], $found[0]->in('V')] > [$highest[1], $highest[0]->in('V')])
            ) {
                $highest = [...$found, $node];
            }
        }

        return $highest;
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $topology = Circuits::of($survey)->topology;
        $lead = $inquiry->subject->kind === 'lead' ? PowerLeads::named($inquiry) : null;
        $node =
            $lead === null
                ? $topology->node("{$inquiry->subject->ref}.in") ??
                    (self::highest($survey, $inquiry->subject->ref)[2] ?? null)
                : $topology->nearEnd($lead->ref);
        [$volts, $alternating] = ($node === null ? null : self::volts($survey, $node)) ?? $inquiry->lack('its voltage');
        if ($alternating) {
            $volts = $inquiry->mains();
        } else {
            $source = $node === null ? null : $topology->sourceOf($node);
            $inquiry->absorb($source === null ? [] : Circuits::of($survey)->restOf($source));
        }
        $kind = $alternating ? 'alternating' : 'direct';
        $least = $said = null;
        foreach ($this->elements($inquiry, $lead, $alternating, $volts) as [$what, $rating]) {
            if ($rating === null) {
                $inquiry->miss("the {$kind} voltage that {$what} is rated for");
            } elseif ($least === null || $rating->isBelow($least)) {
                [$least, $said] = [$rating, $what];
            }
        }
        if ($least === null) {
            return $inquiry->isIncomplete()
                ? $inquiry->unproven()
                : $inquiry->conclude(
                    Verdict::Holds,
                    "{$volts} {$kind}: nothing on it has to be rated for more than anything is.",
                );
        }
        $inquiry->work('What is rated least here', 'V ≤ V_r', ['V' => $volts, 'V_r' => $least], $least, 'V');
        if ($volts->exceeds($least)) {
            return $inquiry->conclude(
                Verdict::Danger,
                $least->isZero()
                    ? "{$volts} {$kind}, and ".
                        lcfirst($said ?? '').
                        ' is not made for that at all: it may go on arcing when it opens.'
                    : "{$volts} {$kind}, and ".
                        lcfirst($said ?? '').
                        " is rated for {$least}: it may go on arcing when it opens.",
                $least->isZero() ? null : $inquiry->margin($volts, $least),
                "at least {$volts}",
            );
        }

        return $inquiry->conclude(
            Verdict::Holds,
            "{$volts} {$kind}; the least that is rated here is {$least}.",
            $inquiry->margin($volts, $least),
            "at least {$volts}",
        );
    }

    public function cures(): array
    {
        return [new OtherPart];
    }

    public function examples(): Examples
    {
        $with = static fn (string $kind, string $volts): array => Examples::file(
            [
                Examples::part('inlet', 'mains_inlet', []),
                Examples::part('F1', 'fuse', [
                    'kind' => $kind,
                    'rated_current' => '6.3 A',
                    'voltage_rating' => $volts,
                ]),
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
            ],
            [
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'inlet.out',
                        'to' => 'psu.mains',
                        'protection' => 'F1',
                        'conductor' => ['insulation' => 'PVC 500 V'],
                    ],
                ],
            ],
        );

        return new Examples(
            static fn (): array => $with('blade', '58 V'),
            static fn (): array => $with('glass', '250 V'),
        );
    }

    /**
     * @return array{Quantity, bool}|null voltage and whether it alternates; null where it is not known, or so low that
     *     nothing is asked
     */
    private static function volts(Survey $survey, int $node): ?array
    {
        $circuits = Circuits::of($survey);
        $source = $circuits->topology->sourceOf($node);
        $volts = $source === null ? null : $circuits->heldBy($source);
        $alternating = $source !== null && $circuits->topology->shapes[$source]->mains;

        return $volts === null || (! $alternating && $volts->in('V') <= self::ANY) ? null : [$volts, $alternating];
    }

    /**
     * @return iterable<array{string, Quantity|null}> what, and the voltage it is rated for; nought when it never is
     */
    private function elements(Inquiry $inquiry, ?Lead $lead, bool $alternating, Quantity $volts): iterable
    {
        if ($lead === null) {
            $fitted = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
            yield [$fitted->need->role, $this->rating($inquiry, $fitted, $alternating)];

            return;
        }
        $fuse = $lead->protection === null ? null : $inquiry->build->fitted($lead->protection);
        if ($fuse !== null) {
            yield [$fuse->need->role, $this->rating($inquiry, $fuse, $alternating)];
        }
        $low = ! $alternating && $volts->in('V') <= self::EXTRA_LOW;
        foreach ($low ? [] : $lead->ends as $end) {
            $housing = $end->contact === null ? null : $inquiry->build->part($end->contact);
            if ($housing !== null) {
                yield [$housing->name, ContactsAtEnd::voltage($inquiry, $housing)];
            }
        }
        if ($alternating) {
            // "PVC 300/500 V": the second is between conductors, the first to earth.
            $text = $lead->conductor->insulation ?? '';
            $found = preg_match('/(\d{2,4})(?:\s*\/\s*\d{2,4})?\s*V\b/u', $text, $m) === 1;
            yield ["the insulation of {$lead->ref}", $found ? Quantity::of($m[1], 'V') : null];
        }
    }

    private function rating(Inquiry $inquiry, Fitted $fitted, bool $alternating): ?Quantity
    {
        $kind = $inquiry->tryChoice($fitted, 'kind');
        $direct =
            $fitted->part->family->field('dc_voltage') === null
                ? null
                : $inquiry->tryRead($fitted, 'dc_voltage', 'V_dc', Bound::Lowest);
        $key = $fitted->part->family->field('voltage_rating') === null ? 'max_voltage' : 'voltage_rating';
        $stated = $inquiry->tryRead($fitted, $key, 'V_r', Bound::Lowest);
        $vehicle = in_array($kind, self::VEHICLE, true);

        return match (true) {
            $alternating => $vehicle ? Quantity::of(0, 'V') : $stated,
            $direct !== null => $direct,
            // What only holds two leads together opens nothing, so that its one voltage counts for direct current too.
            $fitted->part->can(Ability::Joins) => $stated,
            default => $vehicle || in_array($kind, ['solid state, DC'], true) ? $stated : null,
        };
    }
}
