<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Motion\Cures\BrakeOnMotor;
use Magpie\Core\Motion\Cures\GearedDown;
use Magpie\Core\Motion\DriveLoad;
use Magpie\Core\Quantity\Quantity;

/** M03-drop: an axis that comes down when the power goes. */
final class PowerDrop implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M03-drop',
            'Power loss',
            'Does this axis stay up when the power drops?',
            Trade::Mechanical,
            'A screw below 50 % efficiency locks itself (machine theory); detent of a stepper 5 % of its holding torque: common practice, no source',
            ['detent' => Threshold::share('detent of a stepper, of its holding torque', 0.05)],
            topics: [Topic::Axes],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->axes as $axis) {
            if ($axis->drive->motors !== [] && ($axis->drive->incline?->isPositive() ?? $axis->along === Along::Z)) {
                yield Subject::ofAxis($axis, $axis->drive->motors);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $axis = $inquiry->build->axes[$inquiry->subject->ref];
        $motion = AxisMotion::of($inquiry->survey, $axis);
        $motor = $motion->motor($inquiry);
        $brake = $inquiry->tryFlag($motor, 'brake');
        $efficiency = $motion->given($inquiry, 'efficiency', 'efficiency', 'η', $axis->drive->efficiency);
        if ($efficiency->isBelow(Quantity::ratio(0.5)) && $motion->by?->part->can(Ability::HasLead) === true) {
            $inquiry->work('Efficiency of the screw', 'η', ['η' => $efficiency], $efficiency, '%');

            return $inquiry->conclude(
                Verdict::Holds,
                "A screw of {$efficiency} locks itself: it stays where it is. Vibration may still let it creep.",
            );
        }
        $mass = $motion->mass($inquiry);
        $incline = $motion->given($inquiry, 'incline', 'incline', 'θ', $axis->drive->incline);
        $travel = $motion->perTurn($inquiry);
        $weight = $mass->times(Quantity::of(DriveLoad::G * sin($incline->in('rad')), 'm/s²'));
        // Where nobody says, nothing rubs: what comes down then comes down the more.
        $friction =
            $axis->drive->friction === null
                ? Quantity::of(0, 'N')
                : $motion->given($inquiry, 'friction', 'friction', 'F_f', $axis->drive->friction);
        $net = Quantity::max(Quantity::of(0, 'N'), $weight->minus($friction));
        $pull = $inquiry->work(
            'Torque that turns the motor backwards',
            'T_b = (m·g·sinθ − F_f) × s × η / 2π',
            ['m' => $mass, 'θ' => $incline, 'F_f' => $friction, 's' => $travel, 'η' => $efficiency],
            $net->times($travel)->times($efficiency)->over(Quantity::ratio(2 * M_PI)),
            'N m',
        );
        if ($brake === true) {
            return $inquiry->conclude(Verdict::Holds, 'Its motor has a holding brake.');
        }
        if (! $motor->part->can(Ability::Steps)) {
            $brake ??
                $inquiry->miss("whether {$motor->need->role} has a brake", "parts/{$motor->part->ref}/specs/brake");

            return $pull->isPositive()
                ? $inquiry->conclude(Verdict::Fails, "It comes down: {$pull} turn a motor without a brake.")
                : $inquiry->conclude(Verdict::Holds, 'Friction alone keeps it up.');
        }
        $detent = $inquiry->work(
            'Detent of the motor without current',
            'T_d = 5 % × T_h',
            ['T_h' => $motion->holding($inquiry)],
            $motion->holding($inquiry)->times($inquiry->threshold('detent')),
            'N m',
        );

        return $pull->exceeds($detent)
            ? $inquiry->conclude(
                Verdict::Fails,
                "It comes down when the power drops: {$pull} against {$detent} of detent. A brake, a counterweight, or a screw of smaller lead. Keep hands away from below it.",
                $inquiry->margin($pull, $detent),
                "{$detent}",
            )
            : $inquiry->conclude(
                Verdict::Holds,
                "{$pull} against {$detent} of detent: it stays up.",
                $inquiry->margin($pull, $detent),
                "{$detent}",
            );
    }

    public function cures(): array
    {
        return [new GearedDown, new BrakeOnMotor];
    }

    public function examples(): Examples
    {
        $file = static fn (string $mass): array => Examples::file(
            [
                Examples::part('motor', 'stepper_motor', ['holding_torque' => '1 N m', 'brake' => false]),
                Examples::part('screw', 'drive_screw', ['lead' => '5 mm']),
            ],
            [
                'axes' => [
                    [
                        'ref' => 'z',
                        'name' => 'Z',
                        'along' => 'z',
                        'drive' => [
                            'motors' => ['motor'],
                            'by' => 'screw',
                            'mass' => $mass,
                            'friction' => '5 N',
                            'efficiency' => '90 %',
                            'incline' => '90 °',
                            'evidence' => 'measured',
                        ],
                    ],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('12 kg'), static fn (): array => $file('2 kg'), Verdict::Fails);
    }
}
