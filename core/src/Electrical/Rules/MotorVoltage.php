<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\DrivenMotor;
use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\OtherPart;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E09: the voltage on a stepper's driver against what its inductance can use, and where its torque begins to fall. */
final class MotorVoltage implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E09',
            'Motor supply and speed',
            'Does the motor get a voltage that suits it, and up to which speed does its torque hold?',
            Trade::Electrical,
            'V ≈ 32·√L (mH) and the corner speed V/(2·L·I·steps) are common practice, no source',
            ['ceiling' => Threshold::share('share of the sensible ceiling that holds', 1.0)],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        return DrivenMotor::subjects($survey);
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $driven = DrivenMotor::of($inquiry->survey, $inquiry->subject->ref) ?? $inquiry->lack('a motor on it');
        $motor = $driven->motors[0];
        $topology = Circuits::of($survey)->topology;
        $node = $topology->node("{$driven->driver->need->ref}.power");
        $source = $node === null ? null : $topology->sourceOf($node);
        if ($source === null) {
            $inquiry->lack("a supply that feeds {$driven->driver->need->role}");
        }
        [$supply, $port] = $topology->at($source);
        $volts = $inquiry->port($supply, $port, 'voltage', 'V');
        // The least heats soonest, the most is slowest.
        $least = $inquiry->read($motor, 'inductance', 'L', Bound::Lowest);
        $inductance = $inquiry->read($motor, 'inductance', 'L', Bound::Highest);
        $set = $inquiry->read($driven->driver, 'set_current', 'I_s');
        $current =
            $driven->sharing() === 1
                ? $set
                : $inquiry->work(
                    'Motors in parallel share it',
                    'I = I_s / n',
                    ['I_s' => $set, 'n' => Quantity::ratio($driven->sharing())],
                    $set->over($driven->sharing()),
                    'A',
                );
        $angle =
            $inquiry->tryRead($motor, 'step_angle', 'θ') ??
            $inquiry->given(
                "step angle of {$motor->need->role}",
                'θ',
                Quantity::of(1.8, '°'),
                Evidence::Standard,
                "parts/{$motor->part->ref}/specs/step_angle",
            );
        $ceiling = $inquiry->work(
            'Sensible ceiling',
            'V_max = 32 × √L',
            ['L' => $least],
            Quantity::of(32 * sqrt($least->in('mH')), 'V'),
            'V',
        );
        $steps = Quantity::ratio(360 / $angle->in('°'));
        $corner = Quantity::of(
            $volts->in('V') / (2 * $inductance->in('H') * $current->in('A') * $steps->in('')),
            'rev/s',
        );
        $corner = $inquiry->work(
            'Torque holds up to',
            'n = V / (2 × L × I × N)',
            ['V' => $volts, 'L' => $inductance, 'I' => $current, 'N' => $steps],
            $corner,
            'rpm',
        );
        $inquiry->remark(
            'By the time the current takes to turn round within a step; with the driver\'s sine it comes to a tenth less. Above '.
                'that the torque falls about as one over the speed: an estimate, until the curve of the maker says more.',
        );
        $verdict = $volts->exceeds($ceiling->times($inquiry->threshold('ceiling'))) ? Verdict::Tight : Verdict::Holds;

        return $inquiry->conclude(
            $verdict,
            "{$volts} on {$inductance}: torque holds to about {$corner}.".
                ($verdict === Verdict::Tight ? " More than {$ceiling} only heats it." : ''),
            $inquiry->margin($volts, $ceiling),
            "{$ceiling} by its inductance",
        );
    }

    public function cures(): array
    {
        return [new OtherPart];
    }

    public function examples(): Examples
    {
        return new Examples(
            static fn (): array => MotorCurrent::axis([], ['inductance' => '1 mH'], '48 V'),
            static fn (): array => MotorCurrent::axis(),
            Verdict::Tight,
        );
    }
}
