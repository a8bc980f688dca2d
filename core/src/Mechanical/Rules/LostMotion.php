<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

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
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\CutDirection;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Running\AsMeasured;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Quantity\Quantity;

/** M16: what an axis loses when it turns back, against the accuracy wanted. */
final class LostMotion implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M16',
            'Lost motion',
            'Is what this axis loses when it turns back small against the accuracy wanted?',
            Trade::Mechanical,
            'Backlash of the nut and axial play of the screw add up (ISO 230-2 calls it reversal error); half of the accuracy for them, and at most 0.02 mm where cutters climb: common practice, no source',
            [
                'holds' => Threshold::share('share of the accuracy that turning back may cost', 0.5),
                'tight' => Threshold::share('share above which it fails', 1.0),
                'climb' => new Threshold('most that may be lost where cutters climb', Quantity::of(0.02, 'mm')),
            ],
            topics: [Topic::Axes],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->axes as $axis) {
            $screw = $axis->drive->by === null ? null : $survey->build->fitted($axis->drive->by);
            if ($screw?->part->can(Ability::HasLead) === true && $survey->build->brief->accuracy !== null) {
                yield Subject::ofAxis($axis, [$screw->need->ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $axis = $inquiry->build->axes[$inquiry->subject->ref];
        $motion = AxisMotion::of($inquiry->survey, $axis);
        $screw = $motion->by ?? $inquiry->lack("the screw of {$axis->name}");
        $accuracy = $inquiry->given(
            'accuracy wanted',
            'a',
            $inquiry->build->brief->accuracy,
            Evidence::Measured,
            'brief/accuracy',
        );
        if (AsMeasured::isStruck($inquiry->build, Measured::Backlash, $axis->ref)) {
            $inquiry->miss("what {$axis->name} loses when it turns back, read again", 'readings');
        }
        $lost =
            $axis->drive->lost === null
                ? $this->added($inquiry, $axis, $motion, $screw)
                : $inquiry->given(
                    "what {$axis->name} loses when it turns back, all of it, as read",
                    'u',
                    $axis->drive->lost,
                    Evidence::Measured,
                    'readings',
                );
        $verdict = $inquiry->band(
            $lost,
            $accuracy,
            $inquiry->threshold('holds'),
            $inquiry->threshold('tight'),
            Verdict::Fails,
        );

        $grabs =
            $inquiry->build->brief->cutDirection === CutDirection::Climb &&
            $lost->exceeds($inquiry->threshold('climb'));
        if ($grabs && $verdict === Verdict::Holds) {
            $verdict = Verdict::Tight;
        }

        return $inquiry->conclude(
            $verdict,
            "{$lost} is lost when it turns back; the brief wants {$accuracy}".
                ($verdict === Verdict::Fails
                    ? ': a preloaded nut, or less play. Compensation in software does not hold against a cutter.'
                    : '.').
                ($grabs
                    ? ' Climb cutting pulls the work into the cutter by as much: cut conventionally, or take up the play.'
                    : ''),
            $inquiry->margin($lost, $accuracy),
            "{$inquiry->threshold('holds')->to('%')} of {$accuracy}",
        );
    }

    /** Nut and screw end, where nobody read the whole. */
    private function added(Inquiry $inquiry, Axis $axis, AxisMotion $motion, Fitted $screw): Quantity
    {
        $backlash = $inquiry->read($screw, 'backlash', 'b', Bound::Highest);
        $play = match (true) {
            $axis->drive->endPlay !== null => $inquiry->given(
                "axial play of {$axis->name}",
                'e',
                $axis->drive->endPlay,
                Evidence::Measured,
                $motion->where('end_play'),
            ),
            $inquiry->evidenceOf($screw, 'end_play') === Evidence::Measured => $inquiry->tryRead(
                $screw,
                'end_play',
                'e',
                Bound::Highest,
            ),
            default => null,
        };
        if ($play === null) {
            $inquiry->missUntil(
                Stage::Made,
                "axial play of {$screw->need->role} as built (dial indicator on the screw's end, pushed and pulled by hand)",
                $motion->where('end_play'),
            );
        }

        return $inquiry->work(
            'Lost when it turns back',
            $play === null ? 'u = b' : 'u = b + e',
            ['b' => $backlash] + ($play === null ? [] : ['e' => $play]),
            $play === null ? $backlash : $backlash->plus($play),
            'mm',
        );
    }

    public function cures(): array
    {
        return [new OtherPart];
    }

    public function examples(): Examples
    {
        $file = static fn (string $backlash): array => Examples::file(
            [Examples::part('screw', 'drive_screw', ['kind' => 'ball screw', 'backlash' => $backlash])],
            [
                'brief' => ['accuracy' => '0.05 mm'],
                'axes' => [
                    ['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['by' => 'screw', 'end_play' => '5 µm']],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('80 µm'), static fn (): array => $file('10 µm'), Verdict::Fails);
    }
}
