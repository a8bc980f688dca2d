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
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Motion\Cures\GentlerAcceleration;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Materials;

/** M12: how far the beam of an axis bends. */
final class BeamBend implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M12',
            'Stiffness',
            'Does the beam bend less than the accuracy wanted, under force and acceleration?',
            Trade::Mechanical,
            'Beam held at both ends, load in the middle: F·L³/48EI (theory of beams); E of aluminium 70 GPa; half of the accuracy for bending: common practice, no source',
            topics: [Topic::Axes],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->axes as $axis) {
            if ($axis->drive->beam !== null) {
                yield Subject::ofAxis($axis, [$axis->drive->beam]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $axis = $inquiry->build->axes[$inquiry->subject->ref];
        $beam = $inquiry->build->fitted($axis->drive->beam ?? '') ?? $inquiry->lack("the beam of {$axis->name}");
        $motion = AxisMotion::of($inquiry->survey, $axis);
        $length = $inquiry->read($beam, 'length', 'L', Bound::Highest);
        $moment = $inquiry->read($beam, 'second_moment', 'I', Bound::Lowest);
        // Aluminium is what profiles are made of.
        $material = $inquiry->tryChoice($beam, 'material') ?? 'aluminium';
        $modulus = Materials::modulus($material) ?? $inquiry->lack("modulus of {$material}");
        $force = $motion->given($inquiry, 'force', 'process force (0 N where there is none)', 'F', $axis->drive->force);
        if (! $force->isPositive()) {
            $mass = $motion->mass($inquiry);
            $acceleration = $motion->given($inquiry, 'acceleration', 'acceleration', 'a', $axis->drive->acceleration);
            $force = $inquiry->work(
                'Force of accelerating what it carries',
                'F = m × a',
                ['m' => $mass, 'a' => $acceleration],
                $mass->times($acceleration),
                'N',
            );
        }
        $count = max(1, $beam->need->quantity);
        $bend = Quantity::of(
            ($force->in('N') * $length->in('m') ** 3) / (48 * $modulus * $moment->in('m⁴') * $count),
            'm',
        );
        $bend = $inquiry->work(
            'It bends in the middle',
            'f = F × L³ / (48 × E × I'.($count > 1 ? ' × n' : '').')',
            ['F' => $force, 'L' => $length, 'I' => $moment],
            $bend,
            'mm',
        );
        $accuracy = $inquiry->given(
            'accuracy wanted',
            'a',
            $inquiry->build->brief->accuracy,
            Evidence::Measured,
            'brief/accuracy',
        );
        $verdict = $inquiry->band($bend, $accuracy, Quantity::ratio(0.5), Quantity::ratio(1), Verdict::Fails);
        $inquiry->remark('Joints, uprights and guides bend too: a measured push tells more.');

        return $inquiry->conclude(
            $verdict,
            "{$force} bend it by {$bend}; the brief wants {$accuracy}, and half of that may be bending.",
            $inquiry->margin($bend, $accuracy),
            "half of {$accuracy}",
        );
    }

    public function cures(): array
    {
        return [new GentlerAcceleration, new OtherPart];
    }

    public function examples(): Examples
    {
        $file = static fn (string $moment): array => Examples::file(
            [Examples::part('beam', 'extrusion', ['length' => '500 mm', 'second_moment' => $moment])],
            [
                'brief' => ['accuracy' => '0.1 mm'],
                'axes' => [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'drive' => ['beam' => 'beam', 'force' => '100 N', 'evidence' => 'measured'],
                    ],
                ],
            ],
        );

        return new Examples(
            static fn (): array => $file('7300 mm⁴'),
            static fn (): array => $file('150000 mm⁴'),
            Verdict::Fails,
        );
    }
}
