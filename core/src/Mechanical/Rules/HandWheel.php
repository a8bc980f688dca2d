<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Motion\DriveLoad;
use Magpie\Core\Quantity\Quantity;

/** M19: an axis that is turned by hand, against the force of a hand at its wheel. */
final class HandWheel implements Check
{
    public function card(): Card
    {
        return new Card(
            'M19',
            'Turned by hand',
            'Can a hand turn this axis, and does it stay where it is left?',
            Trade::Mechanical,
            'T = F·p_h / (2·π·η); 50 N at the rim for long turning, 120 N at the most: common practice, no source',
            [
                'holds' => new Threshold('force at the rim that holds', Quantity::of(50, 'N')),
                'tight' => new Threshold('force at the rim above which it fails', Quantity::of(120, 'N')),
            ],
            topics: [Topic::Axes],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->axes as $axis) {
            if ($axis->drive->handWheel !== null) {
                yield Subject::ofAxis($axis, array_values(array_filter([$axis->drive->by])));
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $axis = $inquiry->build->axes[$inquiry->subject->ref];
        $motion = AxisMotion::of($survey, $axis);
        $drive = $axis->drive;
        $radius = $motion->given($inquiry, 'hand_wheel', 'radius of the hand wheel', 'r', $drive->handWheel);
        $force = $motion->given($inquiry, 'force', 'process force (0 N where there is none)', 'F_p', $drive->force);
        $friction = $motion->given($inquiry, 'friction', 'friction (0 N where it is nothing)', 'F_f', $drive->friction);
        $mass = $motion->mass($inquiry);
        $incline = $motion->given($inquiry, 'incline', 'incline (0° where it is level)', 'θ', $drive->incline);
        $screw = $motion->by ?? $inquiry->lack("the screw of {$axis->name}");
        $travel = $motion->advance($inquiry);
        $efficiency = $motion->given($inquiry, 'efficiency', 'efficiency of its screw', 'η', $drive->efficiency);
        $along = $inquiry->work(
            'Against it, along the axis',
            'F = F_p + F_f + m·g·sinθ',
            ['F_p' => $force, 'F_f' => $friction, 'm' => $mass, 'θ' => $incline],
            $force
                ->plus($friction)
                ->plus($mass->times(Quantity::of(DriveLoad::G, 'm/s²'))->times(sin($incline->in('rad')))),
            'N',
        );
        $rim = $inquiry->work(
            'Force of the hand',
            'F_h = F·p_h / (2·π·η·r)',
            ['F' => $along, 'p_h' => $travel, 'η' => $efficiency, 'r' => $radius],
            $along->times($travel)->over($efficiency->times($radius)->times(2 * M_PI)),
            'N',
        );
        $inquiry->figure('hand', 'Force of the hand at the rim', $rim);
        [$holds, $most] = [$inquiry->threshold('holds'), $inquiry->threshold('tight')];
        $verdict = match (true) {
            $rim->exceeds($most) => Verdict::Fails,
            $rim->exceeds($holds) => Verdict::Tight,
            default => Verdict::Holds,
        };
        // Above one half a screw gives way under what hangs on it.
        $runs = $incline->isPositive() && $efficiency->exceeds(Quantity::ratio(0.5));

        return $inquiry->conclude(
            $runs && $verdict === Verdict::Holds ? Verdict::Tight : $verdict,
            "{$rim} at the rim of its wheel turns {$axis->name}".
                ($verdict === Verdict::Fails ? ': more than a hand gives. A larger wheel, or a finer screw.' : '.').
                ($runs ? " {$screw->need->role} runs back under its load: it needs a lock." : ''),
            $inquiry->margin($rim, $most),
            "{$holds} for long, {$most} at the most",
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $radius): array => Examples::file(
            [Examples::part('screw', 'drive_screw', ['lead' => '5 mm'])],
            [
                'axes' => [
                    [
                        'ref' => 'z',
                        'name' => 'Z',
                        'along' => 'z',
                        'drive' => [
                            'by' => 'screw',
                            'hand_wheel' => $radius,
                            'force' => '500 N',
                            'friction' => '50 N',
                            'mass' => '20 kg',
                            'incline' => '90°',
                            'efficiency' => '40 %',
                            'evidence' => 'measured',
                        ],
                    ],
                ],
            ],
        );

        // 550 N and 20 kg at 5 mm a turn: 1.49 N m.
        return new Examples(static fn (): array => $file('10 mm'), static fn (): array => $file('60 mm'), Verdict::Fails);
    }
}
