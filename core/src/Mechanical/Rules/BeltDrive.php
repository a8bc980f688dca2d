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
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Quantity\Quantity;

/** M06: belt and pulley of an axis. */
final class BeltDrive implements Check
{
    public function card(): Card
    {
        return new Card(
            'M06',
            'Belt and pulley',
            'Do belt and pulley belong together, and does the pulley stay on its shaft?',
            Trade::Mechanical,
            'Pitch by pitch; six teeth in mesh and a flat under the grub screw: common practice, no source',
            topics: [Topic::Axes],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->axes as $axis) {
            if ($axis->drive->by !== null && $survey->build->need($axis->drive->by)?->family === 'pulley') {
                yield Subject::ofAxis($axis, [
                    $axis->drive->by,
                    ...array_keys([...$survey->build->fittedThat(Ability::RunsOnTeeth)]),
                ]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $axis = $inquiry->build->axes[$inquiry->subject->ref];
        $motion = AxisMotion::of($inquiry->survey, $axis);
        $pulley = $motion->by ?? $inquiry->lack("the pulley of {$axis->name}");
        [$teeth, $pitch] = $inquiry->readAll($pulley, ['z' => 'teeth', 'p' => 'pitch']);
        $inquiry->work(
            'Pitch diameter',
            'd = z × p / π',
            ['z' => $teeth, 'p' => $pitch],
            $teeth->times($pitch)->over(M_PI),
            'mm',
        );
        $mesh = $inquiry->work('Teeth in mesh, half of it wrapped', 'z_m = z / 2', ['z' => $teeth], $teeth->over(2));
        $belt = null;
        foreach ($inquiry->build->fittedThat(Ability::RunsOnTeeth) as $fitted) {
            $its = $inquiry->tryRead($fitted, 'pitch', 'p_b');
            $belt = $belt === null || $its?->compare($pitch) === 0 ? $fitted : $belt;
        }
        $belt ?? $inquiry->lack('a belt');
        $beltPitch = $inquiry->read($belt, 'pitch', 'p_b');
        if ($beltPitch->compare($pitch) !== 0) {
            return $inquiry->conclude(
                Verdict::Fails,
                "The belt has a pitch of {$beltPitch}, the pulley of {$pitch}: it climbs out.",
            );
        }
        $wide = $inquiry->tryRead($pulley, 'width', 'b_p');
        $belted = $inquiry->tryRead($belt, 'width', 'b');
        if ($wide !== null && $belted !== null && $belted->exceeds($wide)) {
            return $inquiry->conclude(Verdict::Fails, "A belt of {$belted} on a pulley for {$wide}.");
        }
        if ($mesh->isBelow(Quantity::ratio(6))) {
            return $inquiry->conclude(Verdict::Tight, "{$mesh} teeth in mesh; six are usual.");
        }

        return $this->onShaft($inquiry, $motion, $mesh);
    }

    public function examples(): Examples
    {
        $file = static fn (string $pitch): array => Examples::file(
            [
                Examples::part('pulley', 'pulley', [
                    'teeth' => '20',
                    'pitch' => '2 mm',
                    'bore' => '5 mm',
                    'grub_screws' => '2',
                ]),
                Examples::part('belt', 'belt', ['pitch' => $pitch, 'width' => '6 mm']),
                Examples::part('motor', 'stepper_motor', ['shaft_form' => 'flat', 'shaft_diameter' => '5 mm']),
            ],
            [
                'axes' => [
                    ['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['motors' => ['motor'], 'by' => 'pulley']],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('3 mm'), static fn (): array => $file('2 mm'), Verdict::Fails);
    }

    private function onShaft(Inquiry $inquiry, AxisMotion $motion, Quantity $mesh): Finding
    {
        $motor = $motion->motor($inquiry);
        $pulley = $motion->by ?? $inquiry->lack('the pulley');
        [$bore] = $inquiry->readAll($pulley, ['d_b' => 'bore']);
        $shaft = $inquiry->read($motor, 'shaft_diameter', 'd_s');
        if ($motion->axis->drive->ratio === null && abs($bore->in('mm') - $shaft->in('mm')) > 0.05) {
            return $inquiry->conclude(Verdict::Fails, "A bore of {$bore} on a shaft of {$shaft}.");
        }
        $form =
            $inquiry->tryChoice($motor, 'shaft_form') ??
            $inquiry->miss("shaft form of {$motor->need->role}", "parts/{$motor->part->ref}/specs/shaft_form");
        if ($form === 'round') {
            return $inquiry->conclude(
                Verdict::Tight,
                'A grub screw on a round shaft slips: grind a flat, and use thread lock and a witness mark.',
            );
        }

        return $inquiry->conclude(
            Verdict::Holds,
            "{$mesh} teeth in mesh, belt and pulley of one pitch, a flat under the grub screw. Thread lock and a witness mark; both runs level.",
        );
    }
}
