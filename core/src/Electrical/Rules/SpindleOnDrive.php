<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\SpindleLine;
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
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E22: a spindle on its drive: current, frequency, and the power left at the speed it is used at. */
final class SpindleOnDrive implements Check
{
    public function card(): Card
    {
        return new Card(
            'E22',
            'Spindle drive',
            'Does the drive give the spindle its current and its frequency, and does the spindle cool itself at the speed it is used at?',
            Trade::Electrical,
            'n = 120·f/p (synchronous speed); torque about constant below the rated frequency: machine theory',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::SetsSpeed) as $ref => $fitted) {
            $spindle = SpindleLine::spindleOf(Circuits::of($survey)->topology, (string) $ref);
            if ($spindle !== null) {
                yield new Subject('need', $ref, $fitted->need->role, [$ref, $spindle->need->ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $drive = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $spindle =
            SpindleLine::spindleOf(Circuits::of($survey)->topology, $inquiry->subject->ref) ??
            $inquiry->lack('a spindle on it');
        $gives = $inquiry->read($drive, 'output_current', 'I_d', Bound::Lowest);
        $takes = $inquiry->read($spindle, 'rated_current', 'I_m', Bound::Highest);
        $share = (int) ceil($spindle->need->quantity / max(1, $drive->need->quantity));
        $takes = $inquiry->together('Spindles on one drive', 'I = n × I_m', 'I_m', $takes, $share, 'A');
        $poles = $inquiry->read($spindle, 'poles', 'p');
        $speed = $inquiry->read($spindle, 'top_speed', 'n', Bound::Highest);
        $wanted = $inquiry->work(
            'Frequency at its highest speed',
            'f = n × p / 120',
            ['n' => $speed, 'p' => $poles],
            Quantity::of(($speed->in('rpm') * $poles->in('')) / 120, 'Hz'),
            'Hz',
        );
        $top = $inquiry->read($drive, 'top_frequency', 'f_max', Bound::Lowest);
        $power = $inquiry->tryRead($spindle, 'rated_power', 'P');
        $lowest = $inquiry->tryRead($spindle, 'lowest_speed', 'n_min');
        if ($power !== null) {
            $inquiry->work(
                'Torque',
                'T = P / (2π × n)',
                ['P' => $power, 'n' => $speed],
                Quantity::of($power->in('W') / (2 * M_PI * $speed->in('rev/s')), 'N m'),
                'N m',
            );
            if ($lowest !== null) {
                $inquiry->work(
                    'Power left at its lowest speed',
                    'P_min = P × n_min / n',
                    ['P' => $power, 'n_min' => $lowest, 'n' => $speed],
                    $power->times($lowest->over($speed)),
                    'W',
                );
            }
        }
        $lock = $inquiry->tryFlag($drive, 'reverse_lock');
        $lock ??
            $inquiry->miss(
                "whether reverse can be locked out on {$drive->need->role}",
                "parts/{$drive->part->ref}/specs/reverse_lock",
            );
        if ($inquiry->tryChoice($spindle, 'cooling') === 'own fan') {
            $inquiry->remark(
                'Its fan turns with it: below '.($lowest ?? 'its lowest speed').' it does not cool itself.',
            );
        }
        if ($inquiry->tryChoice($drive, 'input_phases') === 'three') {
            $inquiry->miss(
                "three phases at the outlet of {$drive->need->role}: on one it gives less, and its manual says how much",
            );
        }
        $wait = $inquiry->tryRead($drive, 'discharge_time', 't', Bound::Highest);
        $inquiry->remark(
            'Its capacitors stay charged after switching off: wait '.
                ($wait ?? 'as long as its manual says').
                ' and measure before touching.',
        );
        if ($takes->exceeds($gives)) {
            return $inquiry->conclude(
                Verdict::Fails,
                ($share > 1 ? "{$share} spindles take" : 'The spindle takes')." {$takes}; the drive gives {$gives}.",
                $inquiry->margin($takes, $gives),
                "{$gives}",
            );
        }
        if ($wanted->exceeds($top)) {
            $reach = Quantity::of((120 * $top->in('Hz')) / $poles->in(''), 'rpm');

            return $inquiry->conclude(
                Verdict::Fails,
                "{$speed} asks for {$wanted}; the drive ends at {$top}, which is {$reach}.",
                $inquiry->margin($wanted, $top),
                "{$top}",
            );
        }
        if ($lock === false) {
            return $inquiry->conclude(
                Verdict::Fails,
                'Reverse cannot be locked out: the nut of a cutter that turns backwards unscrews.',
            );
        }

        return $inquiry->conclude(
            Verdict::Holds,
            "{$takes} of {$gives}, and {$wanted} of {$top} for {$speed}. Lock reverse out, then test that the key does nothing.",
            $inquiry->margin($takes, $gives),
            "{$gives}, {$top}",
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $top): array => Examples::file(
            [
                Examples::part('drive', 'spindle_drive', [
                    'output_current' => '7 A',
                    'top_frequency' => $top,
                    'reverse_lock' => true,
                    'input_phases' => 'single',
                ]),
                Examples::part('spindle', 'spindle', [
                    'rated_current' => '5 A',
                    'poles' => '2',
                    'top_speed' => '24000 rpm',
                    'rated_power' => '1.5 kW',
                    'lowest_speed' => '8000 rpm',
                ]),
            ],
            ['leads' => [['ref' => 'W1', 'from' => 'drive.motor', 'to' => 'spindle.power']]],
        );

        return new Examples(
            static fn (): array => $file('150 Hz'),
            static fn (): array => $file('400 Hz'),
            Verdict::Fails,
        );
    }
}
