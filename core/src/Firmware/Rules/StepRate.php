<?php

declare(strict_types=1);

namespace Magpie\Core\Firmware\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Motion\Cures\LowerTopSpeed;
use Magpie\Core\Motion\SampleAxis;
use Magpie\Core\Quantity\Quantity;

/** E10: steps for a millimetre, how fast they come, and what one of them moves. */
final class StepRate implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E10',
            'Steps and step rate',
            'Can the board send the steps this axis needs at its top speed, and is one step fine enough?',
            Trade::Electrical,
            "Arithmetic; 80 % of the board's limit is common practice, no source",
            ['holds' => Threshold::share("share of the board's step rate that holds", 0.8)],
            topics: [Topic::Axes],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        return AxisMotion::driven($survey);
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $axis = $inquiry->build->axes[$inquiry->subject->ref];
        $motion = AxisMotion::of($inquiry->survey, $axis);
        $steps = $motion->stepsPerMillimetre($inquiry);
        $one = $inquiry->work(
            'One step moves',
            'r = 1 mm / k',
            ['k' => $steps],
            Quantity::of(1000 / $steps->in(''), 'µm'),
            'µm',
        );
        $accuracy = $inquiry->build->brief->accuracy;
        if (
            $accuracy !== null &&
            $one->exceeds($inquiry->given('accuracy wanted', 'a', $accuracy, Evidence::Measured, 'brief/accuracy'))
        ) {
            return $inquiry->conclude(
                Verdict::Fails,
                "One step moves {$one}; the brief wants {$accuracy}.",
                $inquiry->margin($one, $accuracy),
                "{$accuracy} wanted",
            );
        }
        $speed = $motion->given($inquiry, 'top_speed', 'top speed', 'v', $axis->drive->topSpeed);
        $rate = $inquiry->work(
            'Steps a second at top speed',
            'f = v × k',
            ['v' => $speed, 'k' => $steps],
            Quantity::of($speed->in('mm/s') * $steps->in(''), 'Hz'),
            'kHz',
        );
        $board = $axis->drive->board === null ? null : $inquiry->build->fitted($axis->drive->board);
        $limit = $inquiry->read(
            $board ?? $inquiry->lack("the board that sends the steps of {$axis->name}"),
            'step_rate',
            'f_max',
            Bound::Lowest,
        );
        $verdict = $inquiry->band($rate, $limit, $inquiry->threshold('holds'), Quantity::ratio(1), Verdict::Fails);
        $inquiry->remark('Resolution is not accuracy: screw error, lash and bending come on top.');

        return $inquiry->conclude(
            $verdict,
            "{$steps} steps for a millimetre, {$rate} at {$speed}; the board sends {$limit}. One step moves {$one}.",
            $inquiry->margin($rate, $limit),
            "{$inquiry->threshold('holds')} of {$limit}",
        );
    }

    public function cures(): array
    {
        return [new LowerTopSpeed];
    }

    public function examples(): Examples
    {
        return new Examples(
            static fn (): array => SampleAxis::file(['top_speed' => '1500 mm/s']),
            static fn (): array => SampleAxis::file(),
            Verdict::Fails,
        );
    }
}
