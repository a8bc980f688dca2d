<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Experience;
use Magpie\Core\Machine\Trade;

/** E14-hands: who works on the mains side. */
final class MainsHands implements Check
{
    public function card(): Card
    {
        return new Card(
            'E14-hands',
            'Hands on the mains',
            'Does somebody who knows mains wiring do the mains work?',
            Trade::Electrical,
            'Common practice, no source; local code may reserve this work for a licensed electrician',
            topics: [Topic::Scope],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::TakesMains) as $ref => $fitted) {
            yield new Subject('need', $ref, $fitted->need->role, [$ref]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $brief = $inquiry->build->brief;
        if ($brief->helper !== null) {
            $inquiry->remark("Named in the brief: {$brief->helper}.");

            return $inquiry->conclude(
                Verdict::Holds,
                "{$brief->helper} does the mains work, or checks it before power. Local code and a licensed electrician decide.",
            );
        }
        $experience =
            $brief->experience['mains'] ?? $inquiry->lack('your experience with mains wiring, or who helps with it');
        $inquiry->remark("The builder's experience with mains wiring: {$experience->value}.");

        return $experience === Experience::Practised
            ? $inquiry->conclude(
                Verdict::Holds,
                'The builder is practised in mains wiring. Local code and a licensed electrician decide.',
            )
            : $inquiry->conclude(
                Verdict::Fails,
                "There is mains wiring to do, the builder's experience with it is \"{$experience->value}\", and nobody is named who helps. Name a helper or a licensed electrician before anything is bought.",
            );
    }

    public function examples(): Examples
    {
        $file = static fn (array $brief): array => Examples::file(
            [Examples::part('inlet', 'mains_inlet', ['rated_current' => '10 A'])],
            ['brief' => $brief],
        );

        return new Examples(
            static fn (): array => $file(['experience' => ['mains' => 'none']]),
            static fn (): array => $file(['experience' => ['mains' => 'none'], 'helper' => 'Effie Lorne, electrician']),
            Verdict::Fails,
        );
    }
}
