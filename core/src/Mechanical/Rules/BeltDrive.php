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
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Quantity\Quantity;

/** M06: belt and pulley of an axis. */
final class BeltDrive implements Check
{
    /** Up to this pitch, in mm, nearly all that is sold has one profile; above it several do. Common practice, no source. */
    private const TOLD_BY_PITCH = 2.1;

    public function card(): Card
    {
        return new Card(
            'M06',
            'Belt and pulley',
            'Do belt and pulley belong together, and does the pulley stay on its shaft?',
            Trade::Mechanical,
            'Pitch by pitch, profile by profile (ISO 13050, ISO 17396, ISO 5296); six teeth in mesh and a flat under the grub screw: common practice, no source',
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
        $belts = [...$inquiry->build->fittedThat(Ability::RunsOnTeeth)];
        if ($belts === []) {
            $inquiry->lack('a belt');
        }
        // With a belt for each axis, one of them is this one's.
        $clash = null;
        $fits = false;
        $unknown = [];
        foreach ($belts as $belt) {
            $clash = $this->clash($inquiry, $belt, $pulley, $pitch);
            if ($clash === null) {
                $open = $this->unknown($inquiry, $belt, $pulley, $pitch);
                $fits = $fits || $open === [];
                $unknown += $open;
            }
        }
        if (! $fits && $unknown === []) {
            return $inquiry->conclude(Verdict::Fails, (string) $clash);
        }
        foreach ($fits ? [] : $unknown as $where => $what) {
            $inquiry->miss($what, $where);
        }
        [$verdict, $says] = $this->onShaft($inquiry, $motion, $pulley);
        if ($mesh->isBelow(Quantity::ratio(6))) {
            [$verdict, $says] = [
                Verdict::worst($verdict, Verdict::Tight),
                trim("{$mesh} teeth in mesh; six are usual. ".($verdict === Verdict::Holds ? '' : $says)),
            ];
        } elseif ($verdict === Verdict::Holds) {
            $says = "{$mesh} teeth in mesh, belt and pulley of one pitch, {$says}";
        }

        return $inquiry->conclude($verdict, $says);
    }

    /** Why this belt does not run on that pulley; null where nothing known speaks against it. */
    private function clash(Inquiry $inquiry, Fitted $belt, Fitted $pulley, Quantity $pitch): ?string
    {
        $its = $inquiry->tryRead($belt, 'pitch', 'p_b');
        if ($its !== null && $its->compare($pitch) !== 0) {
            return "The belt has a pitch of {$its}, the pulley of {$pitch}: it climbs out.";
        }
        [$one, $other] = [$inquiry->tryChoice($belt, 'profile'), $inquiry->tryChoice($pulley, 'profile')];
        if ($one !== null && $other !== null && $one !== $other) {
            return "The belt has teeth of profile {$one}, the pulley of profile {$other}: of one pitch, and they do not mesh.";
        }
        $wide = $inquiry->tryRead($pulley, 'width', 'b_p');
        $belted = $inquiry->tryRead($belt, 'width', 'b');

        return $wide !== null && $belted !== null && $belted->exceeds($wide)
            ? "A belt of {$belted} on a pulley for {$wide}."
            : null;
    }

    /**
     * @return array<string, string> where it would stand → what must be known before the two are sure to mesh
     */
    private function unknown(Inquiry $inquiry, Fitted $belt, Fitted $pulley, Quantity $pitch): array
    {
        $unknown = [];
        if ($inquiry->tryRead($belt, 'pitch', 'p_b') === null) {
            $unknown["parts/{$belt->part->ref}/specs/pitch"] = "pitch of {$belt->need->role}";
        }
        foreach ($pitch->exceeds(Quantity::of(self::TOLD_BY_PITCH, 'mm')) ? [$belt, $pulley] : [] as $one) {
            if ($inquiry->tryChoice($one, 'profile') === null) {
                $unknown["parts/{$one->part->ref}/specs/profile"] = "tooth profile of {$one->need->role}";
            }
        }

        return $unknown;
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

    /**
     * @return array{Verdict, string}
     */
    private function onShaft(Inquiry $inquiry, AxisMotion $motion, Fitted $pulley): array
    {
        $motor = $motion->motor($inquiry);
        [$bore] = $inquiry->readAll($pulley, ['d_b' => 'bore']);
        $shaft = $inquiry->read($motor, 'shaft_diameter', 'd_s');
        if ($motion->axis->drive->ratio === null && abs($bore->in('mm') - $shaft->in('mm')) > 0.05) {
            return [Verdict::Fails, "A bore of {$bore} on a shaft of {$shaft}."];
        }
        $form =
            $inquiry->tryChoice($motor, 'shaft_form') ??
            $inquiry->miss("shaft form of {$motor->need->role}", "parts/{$motor->part->ref}/specs/shaft_form");

        return $form === 'round'
            ? [
                Verdict::Tight,
                'A grub screw on a round shaft slips: grind a flat, and use thread lock and a witness mark.',
            ]
            : [Verdict::Holds, 'a flat under the grub screw. Thread lock and a witness mark; both runs level.'];
    }
}
