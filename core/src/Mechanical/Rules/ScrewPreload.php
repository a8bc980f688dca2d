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
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Quantity\Quantity;

/**
 * M05-preload: a ball screw built in is held until its play is measured (too loose) and its turning torque is felt (too
 * tight).
 */
final class ScrewPreload implements Check
{
    public function card(): Card
    {
        return new Card(
            'M05-preload',
            'Preload of the screw',
            'Built in and nudged both ways, is the screw free of play, and does it still turn easily?',
            Trade::Mechanical,
            'Play at most half of the accuracy wanted; turning torque at most a tenth of what the motor holds, a fifth at the worst: common practice, no source',
            [
                'play' => Threshold::share('share of the accuracy that play may take', 0.5),
                'drag' => Threshold::share('share of the motor that turning may take', 0.1),
            ],
            topics: [Topic::Axes],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->axes as $axis) {
            $screw = $axis->drive->by === null ? null : $survey->build->fitted($axis->drive->by);
            if (
                $screw?->part->can(Ability::HasLead) === true &&
                $screw->part->spec('kind')?->choice() !== 'lead screw'
            ) {
                yield Subject::ofAxis($axis, [$screw->need->ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $axis = $inquiry->build->axes[$inquiry->subject->ref];
        $motion = AxisMotion::of($inquiry->survey, $axis);
        $screw = $motion->by ?? $inquiry->lack("the screw of {$axis->name}");
        $play = $this->measured(
            $inquiry,
            $motion,
            $axis->drive->endPlay,
            $screw,
            'end_play',
            'e',
            'axial play',
            'dial indicator on the screw\'s end, pushed and pulled by hand',
        );
        $drag = $this->measured(
            $inquiry,
            $motion,
            $axis->drive->turningTorque,
            $screw,
            'turning_torque',
            'T_d',
            'turning torque',
            'motor uncoupled, a spring scale on an arm',
        );
        $said = array_values(
            array_filter([
                $play === null ? null : $this->loose($inquiry, $play),
                $drag === null ? null : $this->stiff($inquiry, $motion, $drag),
            ]),
        );
        if ($said === []) {
            return $inquiry->unproven();
        }
        usort($said, static fn (array $a, array $b): int => $a[0]->rank() <=> $b[0]->rank());
        [[$verdict, , $margin, $limit]] = $said;

        return $inquiry->conclude($verdict, implode(' ', array_column($said, 1)), $margin, $limit);
    }

    public function examples(): Examples
    {
        $file = static function (string $drag): array {
            [$part, $need] = Examples::part('screw', 'drive_screw', ['kind' => 'ball screw']);
            $part = array_replace_recursive($part, [
                'specs' => [
                    'end_play' => ['value' => '10 µm', 'evidence' => 'measured'],
                    'turning_torque' => ['value' => $drag, 'evidence' => 'measured'],
                ],
            ]);

            return Examples::file(
                [[$part, $need], Examples::part('motor', 'stepper_motor', ['holding_torque' => '1 N m'])],
                [
                    'brief' => ['accuracy' => '0.05 mm'],
                    'axes' => [
                        [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'drive' => ['motors' => ['motor'], 'by' => 'screw', 'evidence' => 'measured'],
                        ],
                    ],
                ],
            );
        };

        return new Examples(
            static fn (): array => $file('0.3 N m'),
            static fn (): array => $file('0.05 N m'),
            Verdict::Fails,
        );
    }

    /**
     * A value counts only once it was measured on the machine: a catalogue knows the screw, not how it was built in.
     * That of the axis goes before one on the screw's sheet, which other axes may share.
     */
    private function measured(
        Inquiry $inquiry,
        AxisMotion $motion,
        ?Quantity $own,
        Fitted $screw,
        string $key,
        string $symbol,
        string $name,
        string $how,
    ): ?Quantity {
        if ($own !== null) {
            return $inquiry->given(
                "{$name} of {$motion->axis->name}",
                $symbol,
                $own,
                Evidence::Measured,
                $motion->where($key),
            );
        }
        if ($inquiry->evidenceOf($screw, $key) === Evidence::Measured) {
            return $inquiry->tryRead($screw, $key, $symbol, Bound::Highest);
        }

        return $inquiry->missUntil(
            Stage::Made,
            "{$name} of {$screw->need->role} as built ({$how})",
            $motion->where($key),
        );
    }

    /**
     * @return array{Verdict, string, Quantity, string}|null
     */
    private function loose(Inquiry $inquiry, Quantity $play): ?array
    {
        $accuracy = $inquiry->build->brief->accuracy;
        if ($accuracy === null) {
            return $inquiry->miss('the accuracy wanted', 'brief/accuracy');
        }
        $inquiry->given('accuracy wanted', 'a', $accuracy, Evidence::Measured, 'brief/accuracy');
        $inquiry->work(
            'Play, of the accuracy wanted',
            'k_e = e / a',
            ['e' => $play, 'a' => $accuracy],
            $play->over($accuracy),
            '%',
        );
        $verdict = $inquiry->band($play, $accuracy, $inquiry->threshold('play'), Quantity::ratio(1), Verdict::Fails);

        return [
            $verdict,
            "A play of {$play} where {$accuracy} is wanted".
            ($verdict === Verdict::Holds ? '.' : ': too loose, take up the preload.'),
            $inquiry->margin($play, $accuracy),
            "{$accuracy}",
        ];
    }

    /**
     * @return array{Verdict, string, Quantity, string}
     */
    private function stiff(Inquiry $inquiry, AxisMotion $motion, Quantity $drag): array
    {
        $motor = $motion->motor($inquiry);
        $torque = $inquiry->read(
            $motor,
            $motor->part->can(Ability::Steps) ? 'holding_torque' : 'rated_torque',
            'T_m',
            Bound::Lowest,
        );
        $inquiry->work(
            'Turning torque, of the motor\'s',
            'k_d = T_d / T_m',
            ['T_d' => $drag, 'T_m' => $torque],
            $drag->over($torque),
            '%',
        );
        $share = $inquiry->threshold('drag');
        $verdict = $inquiry->band($drag, $torque, $share, $share->times(2), Verdict::Fails);

        return [
            $verdict,
            "It takes {$drag} to turn, of {$torque}".
            ($verdict === Verdict::Holds ? '.' : ': too tight, it warms and wears; ease the preload or align it.'),
            $inquiry->margin($drag, $torque),
            "{$torque}",
        ];
    }
}
