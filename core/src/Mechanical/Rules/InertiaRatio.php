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
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Motion\Cures\GearedDown;
use Magpie\Core\Motion\DriveLoad;
use Magpie\Core\Motion\SampleAxis;
use Magpie\Core\Quantity\Quantity;

/** M04: inertia the motor has to turn, against its own. */
final class InertiaRatio implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M04',
            'Inertia ratio',
            'Is the load light enough for the motor to follow?',
            Trade::Mechanical,
            'J·i²; up to 10 times the rotor, and beyond that what the maker allows: common practice, no source',
            ['usual' => Threshold::share('load for one of rotor inertia that holds', 10.0)],
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
        [$load, $guessed, $mass] = DriveLoad::inertia($inquiry, $motion);
        $motor = $motion->motor($inquiry);
        $rotor = $inquiry->read($motor, 'rotor_inertia', 'J_r', Bound::Lowest)->times(max(1, $motion->motors));
        $ratio = $inquiry->work(
            'Load for one of rotor',
            'k = J_L / ΣJ_r',
            ['J_L' => $load, 'J_r' => $rotor],
            $load->over($rotor),
        );
        $usual = $inquiry->threshold('usual')->to('');
        $makers =
            $motor->part->family->field('inertia_limit') === null
                ? null
                : $inquiry->tryRead($motor, 'inertia_limit', 'k_max', Bound::Lowest);
        $most = $makers === null ? $usual : Quantity::max($usual, $makers);
        $inquiry->figure(
            'speed_up',
            'Largest speed-up within the limit',
            $inquiry->work(
                'Largest speed-up within that',
                'i = √(k_max × ΣJ_r / J_L)',
                ['k_max' => $most, 'J_r' => $rotor, 'J_L' => $load],
                Quantity::ratio(sqrt(($most->in('') * $rotor->in('kg m²')) / max(1e-12, $load->in('kg m²')))),
            ),
        );
        $this->steps($inquiry, $motion, $load, $mass, $rotor);
        $inquiry->remark(
            'Left out: bearings, seals and couplings that are not given.'.
                ($guessed
                    ? ' A tenth more on the diameter of the screw is half as much again on its inertia (d⁴).'
                    : ''),
        );
        $verdict = match (true) {
            // At the limit there is nothing left: tight, and rounding decides nothing.
            $ratio->isBelow($usual->times(0.999)) => Verdict::Holds,
            ! $ratio->exceeds($most->times(1.001)) => Verdict::Tight,
            default => Verdict::Fails,
        };

        return $inquiry->conclude(
            $verdict,
            "The load is {$ratio} times the rotor; {$usual} is usual".
                ($makers === null ? '' : ", {$makers} the most its maker allows").
                '.'.
                ($verdict === Verdict::Fails ? ' It cannot be tuned, or loses steps.' : ''),
            $inquiry->margin($ratio, $most),
            "below {$usual}",
        );
    }

    public function cures(): array
    {
        return [new GearedDown, new OtherPart];
    }

    public function examples(): Examples
    {
        return new Examples(
            static fn (): array => SampleAxis::file(['mass' => '4 kg']),
            static fn (): array => SampleAxis::file(),
            Verdict::Fails,
        );
    }

    /** What each pulley that is a candidate would make of it: the mass is felt by the square of the travel, the rest stays. */
    private function steps(Inquiry $inquiry, AxisMotion $motion, Quantity $load, Quantity $mass, Quantity $rotor): void
    {
        $by = $motion->by;
        if ($by?->part->can(Ability::CarriesBelt) !== true) {
            return;
        }
        // What is not fitted is no ground for this verdict: it is asked apart.
        $apart = Inquiry::forFigures($inquiry->survey, $inquiry->subject);
        $rest = $load->minus(DriveLoad::felt($mass, $motion->perTurn($apart)));
        foreach ($by->need->candidates as $candidate) {
            $part = $candidate === $by->part->ref ? null : $inquiry->build->part($candidate);
            $other = $part === null ? null : new Fitted($by->need, $part);
            $teeth = $other === null ? null : $apart->tryRead($other, 'teeth', 'z');
            $pitch = $other === null ? null : $apart->tryRead($other, 'pitch', 'p');
            if ($part !== null && $teeth !== null && $pitch !== null) {
                $travel = $pitch->times($teeth)->over($motion->axis->drive->ratio ?? Quantity::ratio(1));
                $ratio = $rest->plus(DriveLoad::felt($mass, $travel))->over($rotor);
                $inquiry->remark("With {$part->name}, {$teeth} teeth: {$ratio} times.");
            }
        }
    }
}
