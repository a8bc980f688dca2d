<?php

declare(strict_types=1);

namespace Magpie\Core\Layout\Rules;

use Magpie\Core\Inspection\Bound;
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
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\UsableTravel;
use Magpie\Core\Quantity\Quantity;

/** E19-length: a cable chain against the travel of the axis it goes with. */
final class ChainLongEnough implements Check
{
    public function card(): Card
    {
        return new Card(
            'E19-length',
            'Length of a chain',
            'Is this chain long enough for the travel of its axis?',
            Trade::Electrical,
            'Half the travel and half a turn of its bend, fixed in the middle of the travel: common practice, no source',
            topics: [Topic::Layout],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->places as $place) {
            $fitted = $place->need === null ? null : $survey->build->fitted($place->need);
            if ($place->spans !== [] && $fitted?->part->can(Ability::LeadsMove) === true) {
                yield new Subject('place', $place->ref, $fitted->need->role, [$fitted->need->ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $place = $inquiry->build->places[$inquiry->subject->ref];
        $chain = $inquiry->build->fitted($place->need ?? '') ?? $inquiry->lack('a chain');
        $travel = Quantity::of(0, 'mm');
        foreach ($place->spans as $ref) {
            $travel = Quantity::max($travel, UsableTravel::of($inquiry, $inquiry->build->axes[$ref]));
        }
        $radius = $inquiry->read($chain, 'bend_radius', 'R', Bound::Highest);
        $length = $inquiry->read($chain, 'length', 'L_k', Bound::Lowest);
        $wanted = $inquiry->work(
            'Length it has to have',
            'L = S / 2 + π × R',
            ['S' => $travel, 'R' => $radius],
            $travel->over(2)->plus($radius->times(M_PI)),
            'mm',
        );

        return $inquiry->conclude(
            $length->isBelow($wanted)
                ? Verdict::Fails
                : ($length->isBelow($wanted->plus($radius->over(2)))
                    ? Verdict::Tight
                    : Verdict::Holds),
            "{$length} for {$travel->to(
                'mm',
            )} of travel: {$wanted} are wanted with its fixed end in the middle, more where that is not.".
                ($length->isBelow($wanted) ? ' It tears at the end of the travel.' : ''),
            $inquiry->margin($wanted, $length),
            "{$wanted}",
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $length): array => Examples::file(
            [Examples::part('chain', 'cable_chain', ['bend_radius' => '28 mm', 'length' => $length])],
            [
                'axes' => [
                    ['ref' => 'x', 'name' => 'X', 'along' => 'x', 'span' => '400 mm', 'span_evidence' => 'measured'],
                ],
                'places' => [['ref' => 'chain', 'need' => 'chain', 'spans' => ['x']]],
            ],
        );

        return new Examples(
            static fn (): array => $file('250 mm'),
            static fn (): array => $file('400 mm'),
            Verdict::Fails,
        );
    }
}
