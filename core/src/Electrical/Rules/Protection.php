<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Cures\FuseInLead;
use Magpie\Core\Electrical\Cures\FusesInLeads;
use Magpie\Core\Electrical\Cures\LargerConductor;
use Magpie\Core\Electrical\LeadProtection;
use Magpie\Core\Electrical\LeadsTogether;
use Magpie\Core\Electrical\ProtectionZones;
use Magpie\Core\Electrical\ProtectiveElement;
use Magpie\Core\Electrical\SupplyLimit;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/**
 * E13: each fuse, breaker and limited output lets its load through, and keeps the leads behind it from getting too hot;
 * where there is none, a source cannot give more than its leads stand.
 */
final class Protection implements Curable
{
    /** Leads told in the working. */
    private const SHOWN = 12;

    /** Leads named in a sentence. */
    private const NAMED = 5;

    public function card(): Card
    {
        return new Card(
            'E13',
            'Protection of leads',
            'Does the fuse carry the load, and open before a lead behind it gets too hot?',
            Trade::Electrical,
            'IEC 60364-4-43: overload by §433.1, and by §433.3.1 only where a load can overload its lead; a short by §434.5.2, k²S² against the slow end of the fuse (ISO 8820-3, IEC 60127-2, IEC 60898-1; from memory)',
            ['holds' => Threshold::share("share of a fuse's rating that holds for continuous load", 0.8)],
            mayGo: true,
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $zones = ProtectionZones::of($survey);
        foreach ($zones->all() as $element) {
            [$need, $port] = ProtectionZones::placeOf($element);
            $role = $survey->build->roleOf($need);
            $label = $port === null ? $role : "{$role}, port {$port}";

            yield new Subject($port === null ? 'need' : 'port', $element, $label, [$need]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $key = $inquiry->subject->ref;
        $element = ProtectiveElement::of($inquiry, $key);
        if ($element === null) {
            [$source, $out] = self::source($inquiry, $key);
            if ($out->mains) {
                $inquiry->naming($leads = ProtectionZones::of($survey)->leads($key));

                return $inquiry->conclude(
                    Verdict::Danger,
                    'No fuse or breaker stands between the wall and '.self::list($leads).'.',
                    null,
                    'a fuse that protects its lead',
                );
            }
            SupplyLimit::intoShort($inquiry, $source, $out);
        }
        $load = $element === null ? null : $this->load($inquiry, $survey, $element);
        $leads = $this->leads($inquiry, $survey, $element);
        $worst = $leads === [] ? Verdict::Unproven : $leads[0]->verdict;
        if ($leads !== [] && in_array($worst, [Verdict::Danger, Verdict::Fails], true)) {
            $says = $this->tooHot($inquiry, $leads, $element, $source ?? null);

            return $inquiry->conclude($worst, $says, $leads[0]->margin, 'opens before k²S² of each lead');
        }
        if ($load !== null && $element !== null && $load->exceeds($element->rating)) {
            $inquiry->naming(ProtectionZones::of($survey)->leads($key));

            return $inquiry->conclude(
                Verdict::Fails,
                "The {$element->named()} opens in normal use: {$load} through it.",
                $inquiry->margin($load, $element->rating),
                "load ≤ {$element->rating}",
            );
        }
        if ($inquiry->isIncomplete() && $worst === Verdict::Unproven) {
            throw new InputMissing;
        }

        return $this->holds($inquiry, $element, $source ?? null, $load, $leads);
    }

    public function cures(): array
    {
        return [new LargerConductor, new FuseInLead, new FusesInLeads];
    }

    public function examples(): Examples
    {
        $with = static function (string $amps): array {
            [$part, $need] = Examples::part('F1', 'fuse', ['rated_current' => $amps, 'kind' => 'blade']);

            return array_merge_recursive(
                array_replace_recursive(ContactLoad::bedOn(2), [
                    'leads' => [
                        [
                            'conductor' => ['size' => '1.5 mm²', 'evidence' => 'datasheet'],
                            'length' => '0.5 m',
                            'protection' => 'F1',
                        ],
                    ],
                ]),
                ['parts' => [$part], 'needs' => [$need]],
            );
        };

        return new Examples(static fn (): array => $with('30 A'), static fn (): array => $with('16 A'));
    }

    /**
     * @return array{Fitted, Port}
     */
    private static function source(Inquiry $inquiry, string $key): array
    {
        [$need, $name] = ProtectionZones::placeOf($key);
        $fitted = $inquiry->build->fitted($need) ?? $inquiry->lack('a part that feeds it');

        return [$fitted, $fitted->part->ports[(string) $name] ?? $inquiry->lack('a port that feeds it')];
    }

    /** What goes through it, or through the one of its pieces that carries most; null when that is not known. */
    private function load(Inquiry $inquiry, Survey $survey, ProtectiveElement $element): ?Quantity
    {
        $most = null;
        foreach ($element->loads($survey) as $leads) {
            try {
                $load =
                    $leads === []
                        ? $inquiry->lack('a lead that takes its load away')
                        : LeadsTogether::current($inquiry, $survey, $leads, $element->fitted->need->role);
            } catch (InputMissing) {
                return null;
            }
            $most = $most === null || $load->exceeds($most) ? $load : $most;
        }

        return $most;
    }

    /**
     * What becomes of each lead, worst first. One of which too little is known is left out, and what is missing named.
     *
     * @return list<LeadProtection>
     */
    private function leads(Inquiry $inquiry, Survey $survey, ?ProtectiveElement $element): array
    {
        $found = [];
        $key = $inquiry->subject->ref;
        foreach (ProtectionZones::of($survey)->leads($key) as $ref) {
            $lead = $survey->build->lead($ref);
            try {
                $found[] = LeadProtection::of(
                    $inquiry,
                    $survey,
                    $lead ?? $inquiry->lack("lead {$ref}"),
                    $element,
                    $key,
                );
            } catch (InputMissing) {
                continue;
            }
        }
        usort(
            $found,
            static fn (LeadProtection $a, LeadProtection $b): int => [
                $a->verdict->rank(),
                $a->margin?->in('') ?? 1.0,
            ] <=> [$b->verdict->rank(), $b->margin?->in('') ?? 1.0],
        );
        foreach (array_slice($found, 0, self::SHOWN) as $lead) {
            $inquiry->remark("{$lead->lead->ref} {$lead->how}.");
        }
        if (count($found) > self::SHOWN) {
            $inquiry->remark(count($found) - self::SHOWN.' more leads stand better.');
        }

        return $found;
    }

    /**
     * @param  non-empty-list<LeadProtection>  $leads  worst first
     */
    private function tooHot(Inquiry $inquiry, array $leads, ?ProtectiveElement $element, ?Fitted $source): string
    {
        $hot = array_values(
            array_filter(
                $leads,
                static fn (LeadProtection $l): bool => in_array($l->verdict, [Verdict::Danger, Verdict::Fails], true),
            ),
        );
        $inquiry->naming($refs = array_map(static fn (LeadProtection $l): string => $l->lead->ref, $hot));
        $worst = $leads[0];
        $names = self::list($refs);
        $before = $element === null ? 'No fuse: ' : '';
        if ($worst->amps === null) {
            return "{$before}".ucfirst("{$worst->lead->ref} {$worst->how}.");
        }
        $amps = $inquiry->figure('short', 'A short draws', Quantity::of($worst->amps, 'A'));
        $ends = $worst->verdict === Verdict::Danger ? 'burns' : 'overheats';
        $what = count($refs) === 1 ? "a short in {$names} {$ends} it" : "a short in any of {$names} {$ends} that lead";

        return $element === null
            ? "No fuse: {$source?->need->role} can push {$amps} into a short; {$what}".
                    ($worst->verdict === Verdict::Danger ? '' : ' if it lasts').
                    ". {$worst->lead->ref} may carry {$worst->ampacity}."
            : ucfirst($what).": {$worst->lead->ref} may carry {$worst->ampacity} and {$worst->how}.";
    }

    /**
     * @param  list<LeadProtection>  $leads  worst first
     */
    private function holds(
        Inquiry $inquiry,
        ?ProtectiveElement $element,
        ?Fitted $source,
        ?Quantity $load,
        array $leads,
    ): Finding {
        $refs = array_map(static fn (LeadProtection $l): string => $l->lead->ref, $leads);
        $inquiry->naming($refs);
        $names = self::list($refs);
        $margins = array_values(array_filter(array_map(static fn (LeadProtection $l): ?Quantity => $l->margin, $leads)));
        if ($element === null) {
            $worst = $leads[0] ?? $inquiry->lack('a lead it feeds');

            return $inquiry->conclude(
                Verdict::Holds,
                "No fuse, and none needed: {$worst->lead->ref} {$worst->how}".
                    (count($refs) > 1 ? ', and so with the others' : '').
                    '.',
                $margins === [] ? null : Quantity::min(...$margins),
                'source ≤ what each lead may carry',
            );
        }
        $tight = $load?->exceeds($element->rating->times($inquiry->threshold('holds'))) === true;
        if ($load !== null) {
            $margins[] = $inquiry->margin($load, $element->rating);
        }
        $through = $load ?? 'its load';

        return $inquiry->conclude(
            $tight ? Verdict::Tight : Verdict::Holds,
            $tight
                ? "The {$element->named()} protects {$names}, with little to spare over {$through}."
                : "The {$element->named()} carries {$through} and protects {$names}.",
            $margins === [] ? null : Quantity::min(...$margins),
            "load ≤ {$element->rating}, and it opens before k²S² of each lead",
        );
    }

    /**
     * @param  list<string>  $leads
     */
    private static function list(array $leads): string
    {
        $more = count($leads) - self::NAMED;

        return $more > 0
            ? implode(', ', array_slice($leads, 0, self::NAMED))." and {$more} more"
            : implode(' and ', array_filter([implode(', ', array_slice($leads, 0, -1)), end($leads)]));
    }
}
