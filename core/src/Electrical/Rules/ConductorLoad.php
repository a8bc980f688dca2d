<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Air;
use Magpie\Core\Electrical\Ampacity;
use Magpie\Core\Electrical\Cures\LargerConductor;
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
use Magpie\Core\Machine\Trade;

/** E03: conductor ampacity. */
final class ConductorLoad implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E03',
            'Conductor load',
            'Does this lead get too hot for its insulation?',
            Trade::Electrical,
            'IEC 60204-1 table 6; NFPA 79 small conductors (from memory); IEC 60364-5-52 grouping (from memory)',
            [
                'holds' => Threshold::share("share of a conductor's ampacity that holds", 0.8),
                'tight' => Threshold::share('share above which it is a danger', 1.0),
            ],
            topics: [Topic::Conductors],
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
        $inquiry->because("leads/{$lead->ref}/conductor/size");
        Air::of($inquiry->build, $lead)->askFor($inquiry);
        $verdict = $inquiry->band(
            $current,
            $ampacity,
            $inquiry->threshold('holds'),
            $inquiry->threshold('tight'),
            Verdict::Danger,
        );
        $margin = $inquiry->margin($current, $ampacity);

        return $inquiry->conclude(
            $verdict,
            "{$current} through {$lead->conductor->size}, which may carry {$ampacity} here.",
            $margin,
            "{$inquiry->threshold('holds')->to('%')} of {$ampacity} holds, above {$ampacity} is a danger",
        );
    }

    public function cures(): array
    {
        return [new LargerConductor];
    }

    public function examples(): Examples
    {
        $on = static function (string $size): array {
            $lead = ['conductor' => ['size' => $size, 'evidence' => 'datasheet'], 'length' => '0.5 m'];

            return array_replace_recursive(ContactLoad::bedOn(2), ['leads' => [$lead]]);
        };

        return new Examples(static fn (): array => $on('18 AWG'), static fn (): array => $on('2.5 mm²'));
    }
}
