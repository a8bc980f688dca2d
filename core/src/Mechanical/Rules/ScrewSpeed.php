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
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Motion\Cures\BetterHeldEnds;
use Magpie\Core\Motion\Cures\LowerTopSpeed;
use Magpie\Core\Motion\DriveLoad;
use Magpie\Core\Motion\ScrewEnds;
use Magpie\Core\Quantity\Quantity;

/** M05: a screw that whirls, or buckles. */
final class ScrewSpeed implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M05',
            'Screw whirl and buckling',
            'Does the screw run below the speed at which it whips, and carry its load without buckling?',
            Trade::Mechanical,
            'n_c = f·10⁷·d/L² rpm and F = f·10⁴·d⁴/L² N in mm, with 80 % of the whirling speed and half the load of Euler taken as allowed: constants as ball-screw catalogues print them (from memory)',
            ['holds' => Threshold::share('share of what is allowed that holds', 1.0)],
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
            if ($axis->drive->by !== null && $survey->build->need($axis->drive->by)?->family === 'drive_screw') {
                yield Subject::ofAxis($axis, [$axis->drive->by]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $axis = $inquiry->build->axes[$inquiry->subject->ref];
        $motion = AxisMotion::of($inquiry->survey, $axis);
        $screw = $motion->by ?? $inquiry->lack("the screw of {$axis->name}");
        $root = $inquiry->tryRead($screw, 'root_diameter', 'd', Bound::Lowest);
        if ($root === null) {
            $outer = $inquiry->read($screw, 'diameter', 'd_o');
            $root = $inquiry->work(
                'Root, taken as 80 % of its diameter',
                'd = 0.8 × d_o',
                ['d_o' => $outer],
                $outer->times(0.8),
                'mm',
            );
        }
        $length = $motion->given($inquiry, 'unsupported', 'screw between its bearings', 'L', $axis->drive->unsupported);
        $support = $axis->drive->support;
        if ($support === null) {
            $inquiry->miss("how the screw of {$axis->name} is held at its ends", $motion->where('support'));
            $inquiry->lack("how the screw of {$axis->name} is held at its ends");
        }
        [$whirl, $buckle] = ScrewEnds::of($support);
        $inquiry->remark("Ends: {$support->value}.");
        $speed = $motion->given($inquiry, 'top_speed', 'top speed', 'v', $axis->drive->topSpeed);
        $lead = $inquiry->read($screw, 'lead', 'p_h');
        $turns = $inquiry->work(
            'Screw at top speed',
            'n = v / p_h',
            ['v' => $speed, 'p_h' => $lead],
            Quantity::of($speed->in('mm/s') / $lead->in('mm'), 'rev/s'),
            'rpm',
        );
        $allowed = $inquiry->work(
            'Allowed before it whirls',
            "n_c = {$whirl} × 10⁷ × d / L²",
            ['d' => $root, 'L' => $length],
            ScrewEnds::whirl($support, $root, $length),
            'rpm',
        );
        $push = $this->push($inquiry, $motion);
        $holds = $inquiry->work(
            'Load it carries without buckling',
            "F_b = {$buckle} × 10⁴ × d⁴ / L²",
            ['d' => $root, 'L' => $length],
            Quantity::of(($buckle * 1e4 * $root->in('mm') ** 4) / $length->in('mm') ** 2, 'N'),
            'N',
        );
        if ($push->exceeds($holds)) {
            return $inquiry->conclude(
                Verdict::Danger,
                "{$push} push a screw that carries {$holds}: it buckles.",
                $inquiry->margin($push, $holds),
                "{$holds}",
            );
        }
        $verdict = match (true) {
            $turns->exceeds($allowed->times(1.25)) => Verdict::Fails,
            $turns->exceeds($allowed->times($inquiry->threshold('holds'))) => Verdict::Tight,
            default => Verdict::Holds,
        };
        $reach = Quantity::of($allowed->in('rev/s') * $lead->in('mm'), 'mm/s');

        $inquiry->figure('reach', 'Fastest before it whirls', $reach);

        return $inquiry->conclude(
            $verdict,
            "{$turns} at top speed; it may turn {$allowed}, which is {$reach} on the axis.".
                ($verdict === Verdict::Holds ? '' : ' It whips: slower, a larger lead, or a fixed second end.'),
            $inquiry->margin($turns, $allowed),
            "{$allowed}, {$holds}",
        );
    }

    public function cures(): array
    {
        return [new LowerTopSpeed, new BetterHeldEnds, new OtherPart];
    }

    public function examples(): Examples
    {
        $file = static fn (string $length): array => Examples::file(
            [
                Examples::part('screw', 'drive_screw', [
                    'diameter' => '16 mm',
                    'root_diameter' => '13.5 mm',
                    'lead' => '5 mm',
                ]),
            ],
            [
                'axes' => [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'drive' => [
                            'by' => 'screw',
                            'top_speed' => '100 mm/s',
                            'acceleration' => '1 m/s²',
                            'mass' => '10 kg',
                            'force' => '0 N',
                            'friction' => '20 N',
                            'incline' => '0 °',
                            'support' => 'fixed-supported',
                            'unsupported' => $length,
                            'evidence' => 'measured',
                        ],
                    ],
                ],
            ],
        );

        return new Examples(
            static fn (): array => $file('1700 mm'),
            static fn (): array => $file('600 mm'),
            Verdict::Fails,
        );
    }

    /** The most the screw is pushed with: accelerating, or cutting. */
    private function push(Inquiry $inquiry, AxisMotion $motion): Quantity
    {
        $drive = $motion->axis->drive;
        $mass = $motion->mass($inquiry);
        $acceleration = $motion->given($inquiry, 'acceleration', 'acceleration', 'a', $drive->acceleration);
        $friction = $motion->given($inquiry, 'friction', 'friction', 'F_f', $drive->friction);
        $force = $motion->given($inquiry, 'force', 'process force (0 N where there is none)', 'F_p', $drive->force);
        $incline = $motion->given($inquiry, 'incline', 'incline', 'θ', $drive->incline);
        $weight = $mass->times(Quantity::of(DriveLoad::G * sin($incline->in('rad')), 'm/s²'));

        $push = Quantity::max($mass->times($acceleration)->to('N'), $force)
            ->plus($weight)
            ->plus($friction);
        $screws = max(1, $motion->by->need->quantity ?? 1);

        return $inquiry->work(
            $screws === 1 ? 'Largest push on it' : 'Largest push on each of its screws',
            'F = (max(m·a, F_p) + m·g·sinθ + F_f)'.($screws === 1 ? '' : ' / n'),
            ['m' => $mass, 'a' => $acceleration, 'F_p' => $force, 'F_f' => $friction] +
                ($screws === 1 ? [] : ['n' => Quantity::ratio($screws)]),
            $push->over($screws),
            'N',
        );
    }
}
