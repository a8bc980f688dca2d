<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Ampacity;
use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Cures\FuseInLead;
use Magpie\Core\Electrical\Cures\LargerConductor;
use Magpie\Core\Electrical\LeadsTogether;
use Magpie\Core\Electrical\PowerLeads;
use Magpie\Core\Electrical\ProtectiveElement;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E13: the fuse before a lead lets its load through, and opens before the lead burns. */
final class Protection implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E13',
            'Protection of a lead',
            'Does the fuse carry the load, and open before the lead gets too hot?',
            Trade::Electrical,
            'IEC 60364-4-43 §433.1: I_load ≤ I_n ≤ I_z; half as much again out of an unfused supply is common practice, no source',
            ['holds' => Threshold::share("share of a fuse's rating that holds for continuous load", 0.8)],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        return PowerLeads::subjects($survey);
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $lead = PowerLeads::named($inquiry);
        $current = PowerLeads::current($inquiry, $survey, $lead);
        $ampacity = Ampacity::of($inquiry, $lead);
        $element = ProtectiveElement::before($inquiry, $survey, $lead);
        if ($element === null) {
            return $this->unfused($inquiry, $survey, $lead, $ampacity);
        }
        [$fuse, $where] = [$element->rating, $element->where];
        Ampacity::askForAir($inquiry, $lead);
        $kind = $element->kind;
        $inquiry->work(ucfirst($kind)." before it, {$where}", 'I_n = I_r', ['I_r' => $fuse], $fuse, 'A');
        $alone = $element->leads === [] || $element->leads === [$lead->ref];
        $load = $alone ? $current : LeadsTogether::current($inquiry, $survey, $element->leads, $where);
        $margin = Quantity::min($inquiry->margin($load, $fuse), $inquiry->margin($fuse, $ampacity));
        $verdict = match (true) {
            $fuse->exceeds($ampacity) => Verdict::Danger,
            $load->exceeds($fuse) => Verdict::Fails,
            $load->exceeds($fuse->times($inquiry->threshold('holds'))) => Verdict::Tight,
            default => Verdict::Holds,
        };
        $over = $alone ? "a load of {$load}" : "{$load} through ".implode(' and ', $element->leads).' together';
        $says = match ($verdict) {
            Verdict::Danger => "The {$fuse} {$kind} ({$where}) does not protect it: the lead may carry only {$ampacity}.",
            Verdict::Fails => "The {$fuse} {$kind} ({$where}) opens in normal use: {$over}.",
            Verdict::Tight => "The {$fuse} {$kind} ({$where}) protects it, with little to spare over {$over}.",
            default => "The {$fuse} {$kind} ({$where}) carries {$load} and opens before the lead's {$ampacity}.",
        };

        return $inquiry->conclude($verdict, $says, $margin, "{$load} ≤ {$kind} ≤ {$ampacity}");
    }

    public function cures(): array
    {
        return [new LargerConductor, new FuseInLead];
    }

    public function examples(): Examples
    {
        $with = static function (string $amps): array {
            [$part, $need] = Examples::part('F1', 'fuse', ['rated_current' => $amps]);

            return array_merge_recursive(
                array_replace_recursive(ContactLoad::bedOn(2), [
                    'leads' => [
                        [
                            'conductor' => ['size' => '2.5 mm²', 'evidence' => 'datasheet'],
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
     * Without a fuse a lead is protected only where its source cannot give more than it may carry.
     */
    private function unfused(Inquiry $inquiry, Survey $survey, Lead $lead, Quantity $ampacity): Finding
    {
        $topology = Circuits::of($survey)->topology;
        $source = $topology->sourceOf($topology->nearEnd($lead->ref));
        if ($source === null) {
            $inquiry->lack('one supply that feeds it');
        }
        [$supply, $out] = $topology->at($source);
        if ($out->mains) {
            return $inquiry->conclude(
                Verdict::Danger,
                'No fuse or breaker stands between the wall and this lead.',
                null,
                "a fuse of at most {$ampacity}",
            );
        }
        $most =
            $supply->part->family->field('peak_current') === null
                ? null
                : $inquiry->tryRead($supply, 'peak_current', 'I_p');
        if ($most === null) {
            $rated = $inquiry->port($supply, $out, 'rated_current', 'I_r');
            $most = $inquiry->work(
                'What the supply gives into a short, until it shuts down',
                'I_p = 1.5 × I_r',
                ['I_r' => $rated],
                $rated->times(1.5),
                'A',
            );
        }
        $margin = $inquiry->margin($most, $ampacity);
        if ($most->exceeds($ampacity)) {
            return $inquiry->conclude(
                Verdict::Danger,
                "No fuse: {$supply->need->role} can push {$most} into a lead that may carry {$ampacity}.",
                $margin,
                "a fuse of at most {$ampacity}",
            );
        }

        return $inquiry->conclude(
            Verdict::Holds,
            "No fuse, and none needed: {$supply->need->role} cannot give more than {$most}, the lead may carry {$ampacity}.",
            $margin,
            "source ≤ {$ampacity}",
        );
    }
}
