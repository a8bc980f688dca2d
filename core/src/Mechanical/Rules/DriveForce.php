<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

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
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Motion\Cures\GearedDown;
use Magpie\Core\Motion\Cures\GentlerAcceleration;
use Magpie\Core\Motion\Cures\LowerTopSpeed;
use Magpie\Core\Motion\Cures\SlowerAndGentler;
use Magpie\Core\Motion\DriveLoad;
use Magpie\Core\Motion\MotorTorque;
use Magpie\Core\Motion\SampleAxis;
use Magpie\Core\Quantity\Quantity;

/** M03: torque the move asks for, against what the motors have at that speed. */
final class DriveForce implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M03',
            'Drive force',
            'Have the motors enough torque for the whole move, at the speed of each part of it?',
            Trade::Mechanical,
            'T = F·s/(2πη) + ΣJ·α; twice the torque for open-loop and 1.3 times for closed-loop motors, and torque as one over the speed above the corner: common practice, no source',
            [
                'open' => Threshold::share(
                    'torque wanted of an open-loop motor, of what the move asks',
                    AxisMotion::WANTED['open'],
                ),
                'closed' => Threshold::share(
                    'torque wanted of a closed-loop motor, of what the move asks',
                    AxisMotion::WANTED['closed'],
                ),
            ],
            topics: [Topic::Axes],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->axes as $axis) {
            if ($axis->drive->handWheel !== null && $axis->drive->motors === []) {
                // A hand turns it: what that takes is asked by M19.
                continue;
            }
            yield Subject::ofAxis($axis, [...$axis->drive->motors, ...array_filter([$axis->drive->by])]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $axis = $inquiry->build->axes[$inquiry->subject->ref];
        $motion = AxisMotion::of($inquiry->survey, $axis);
        $motion->motor($inquiry);
        $measured = $axis->drive->measuredLoad;
        if ($measured !== null) {
            return $this->measured($inquiry, $axis, $measured, $motion);
        }
        $load = DriveLoad::of($inquiry, $motion);
        $curve = MotorTorque::of($inquiry, $survey, $motion);
        $wanted = $inquiry->threshold($motion->loop());
        $worst = null;
        foreach ($load->phases as $phase) {
            if (! $phase['torque']->isPositive()) {
                continue;
            }
            $has = $curve->at($load->shaft($phase['speed']));
            $factor = $has->over($phase['torque']);
            if ($worst === null || $factor->isBelow($worst[0])) {
                $worst = [$factor, $phase, $has];
            }
        }
        [$factor, $phase, $has] = $worst ?? $inquiry->lack("a move of {$axis->name} that asks for torque");
        $rpm = $load->shaft($phase['speed'])->to('rpm');
        $factor = $inquiry->work(
            "Torque there is at {$rpm}, of what is asked to {$phase['phase']}",
            'k = T / T_req',
            ['T' => $has, 'T_req' => $phase['torque']],
            $factor,
            '%',
        );
        if ($curve->estimated) {
            $inquiry->remark(
                'Torque above the corner speed is an estimate, until points of the curve are on its sheet. A measured load or following error is better than either.',
            );
        }
        $most = $load->acceleration($inquiry, $curve, $wanted);
        if ($most !== null) {
            $inquiry->figure('acceleration', 'Acceleration it has torque for', $most);
        }
        $inquiry->figure(
            'stall',
            $motion->motor($inquiry)->part->can(Ability::Steps)
                ? 'Push when stopped'
                : 'Push when stopped, at rated torque; its peak is more',
            $load->stalled($inquiry, $curve),
        );
        $tight = Quantity::ratio(1)->plus($wanted->minus(Quantity::ratio(1))->over(2));
        $verdict = match (true) {
            ! $factor->isBelow($wanted) => Verdict::Holds,
            ! $factor->isBelow($tight) => Verdict::Tight,
            default => Verdict::Fails,
        };
        $says =
            "To {$phase['phase']} at {$rpm} asks for {$phase['torque']->to('N m')}; there are {$has->to(
                'N m',
            )}, {$factor} of it where {$wanted} is wanted.".
            ($verdict === Verdict::Fails ? ' It stalls or loses steps.' : '');

        return $inquiry->conclude(
            $verdict,
            $says,
            $inquiry->margin($wanted, Quantity::max($factor, Quantity::ratio(0.001))),
            "{$wanted} of the torque asked",
        );
    }

    public function cures(): array
    {
        return [
            new GentlerAcceleration,
            new LowerTopSpeed,
            new SlowerAndGentler,
            new GearedDown,
            new OtherPart,
        ];
    }

    public function examples(): Examples
    {
        return new Examples(
            static fn (): array => SampleAxis::file(['mass' => '12 kg']),
            static fn (): array => SampleAxis::file(),
            Verdict::Fails,
        );
    }

    /** A load read while it worked settles what sums only estimate, a smaller motor included. */
    private function measured(Inquiry $inquiry, Axis $axis, Quantity $measured, AxisMotion $motion): Finding
    {
        $inquiry->given(
            "load read on {$axis->name}",
            'k',
            $measured,
            Evidence::Measured,
            "axes/{$axis->ref}/drive/measured_load",
        );
        $wanted = $inquiry->threshold($motion->loop());
        $factor = $inquiry->work(
            'Torque there is, of what was read',
            'f = 1 / k',
            ['k' => $measured],
            Quantity::ratio(1)->over($measured),
            '%',
        );
        $tight = Quantity::ratio(1)->plus($wanted->minus(Quantity::ratio(1))->over(2));
        $verdict = $factor->isBelow($tight)
            ? Verdict::Fails
            : ($factor->isBelow($wanted)
                ? Verdict::Tight
                : Verdict::Holds);

        return $inquiry->conclude(
            $verdict,
            "At most {$measured} of its torque was taken while it worked; {$factor} is there where {$wanted} is wanted.",
            $inquiry->margin($wanted, $factor),
            "{$wanted} of the torque asked",
        );
    }
}
