<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;

/** M08-flow: plastic the hot end melts, against what the brief wants. */
final class MeltFlow implements Check
{
    public function card(): Card
    {
        return new Card(
            'M08-flow',
            'Melt flow',
            'Does the hot end melt what the brief wants, and which part caps the speed?',
            Trade::Mechanical,
            'v = flow / (width × height); a line of 1.125 × nozzle by half of it is common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Melts) as $ref => $fitted) {
            yield new Subject('need', $ref, $fitted->need->role, [$ref]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $hot = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $flow = $inquiry->read($hot, 'flow', 'Q', Bound::Lowest);
        $nozzle = $inquiry->read($hot, 'nozzle', 'd');
        $wanted = $inquiry->given(
            'flow the brief wants',
            'Q_w',
            $inquiry->build->brief->flow,
            Evidence::Measured,
            'brief/flow',
        );
        $width = $nozzle->times(1.125);
        $height = $nozzle->times(0.5);
        $speed = $inquiry->work(
            'Speed it can feed',
            'v = Q / (1.125·d × 0.5·d)',
            ['Q' => $flow, 'd' => $nozzle],
            $flow->over($width->times($height)),
            'mm/s',
        );
        foreach ($inquiry->build->axes as $axis) {
            if ($axis->along !== Along::Z && $axis->drive->topSpeed?->exceeds($speed) === true) {
                $inquiry->remark(
                    "{$axis->name} could do {$axis->drive->topSpeed->to('mm/s')}: the hot end caps the speed.",
                );
            }
        }

        return $wanted->exceeds($flow)
            ? $inquiry->conclude(
                Verdict::Fails,
                "The brief wants {$wanted}; it melts {$flow}.",
                $inquiry->margin($wanted, $flow),
                "{$flow}",
            )
            : $inquiry->conclude(
                $wanted->exceeds($flow->times(0.9)) ? Verdict::Tight : Verdict::Holds,
                "It melts {$flow}, {$speed} of a usual line; the brief wants {$wanted}.",
                $inquiry->margin($wanted, $flow),
                "{$flow}",
            );
    }

    public function examples(): Examples
    {
        $file = static fn (string $flow): array => Examples::file(
            [Examples::part('hot', 'hot_end', ['flow' => $flow, 'nozzle' => '0.4 mm'])],
            ['brief' => ['process' => 'printing', 'flow' => '12 mm³/s']],
        );

        return new Examples(
            static fn (): array => $file('8 mm³/s'),
            static fn (): array => $file('20 mm³/s'),
            Verdict::Fails,
        );
    }
}
