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
use Magpie\Core\Mechanical\MatedParts;

/**
 * M09-grip: what carries the torque from a motor's shaft into its coupling. Pulleys are judged with their belt, by M06.
 */
final class ShaftGrip implements Check
{
    /** How the coupling holds → form of the shaft → verdict and why. Common practice, no source. */
    private const MEETINGS = [
        'clamp' => [
            'round' => [Verdict::Holds, 'a clamp on a round shaft grips all round'],
            'flat' => [Verdict::Holds, 'a clamp holds on a flat as long as its slit does not face it'],
            'two flats' => [Verdict::Tight, 'a clamp has little left to grip on two flats'],
            'keyed' => [Verdict::Holds, 'a clamp over an empty keyway; leave the key out'],
        ],
        'set screws' => [
            'round' => [Verdict::Tight, 'a set screw on a round shaft slips and scores it: file a flat'],
            'flat' => [Verdict::Holds, 'a set screw stands on the flat'],
            'two flats' => [Verdict::Holds, 'set screws stand on the flats'],
            'keyed' => [Verdict::Tight, 'a set screw over a keyway has nothing to stand on'],
        ],
        'keyway' => [
            'round' => [Verdict::Fails, 'the coupling wants a key and the shaft is round: nothing turns it'],
            'flat' => [Verdict::Fails, 'the coupling wants a key and the shaft has a flat: nothing turns it'],
            'two flats' => [Verdict::Fails, 'the coupling wants a key and the shaft has flats: nothing turns it'],
            'keyed' => [Verdict::Holds, 'a key in both keyways'],
        ],
    ];

    public function card(): Card
    {
        return new Card(
            'M09-grip',
            'Key, flat or clamp',
            'Does the coupling hold on a shaft of this form without slipping?',
            Trade::Mechanical,
            'Clamp, set screw and key against round, flat and keyed shafts: common practice, no source',
            topics: [Topic::Joints],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach (MatedParts::all($survey->build, self::turns(...)) as $met) {
            yield new Subject(
                'mate',
                $met->mate->ref,
                "{$met->mate->kind}: {$met->first->need->role} to {$met->second->need->role}",
                $met->mate->between,
            );
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $met =
            MatedParts::of($inquiry->build, $inquiry->build->mates[$inquiry->subject->ref], self::turns(...)) ??
            $inquiry->lack('a motor and the coupling on its shaft');
        [$motor, $coupling] = [$met->first, $met->second];
        $form =
            $inquiry->tryChoice($motor, 'shaft_form') ??
            $inquiry->miss("shaft form of {$motor->need->role}", "parts/{$motor->part->ref}/specs/shaft_form");
        $grip =
            $inquiry->tryChoice($coupling, 'grip') ??
            $inquiry->miss("how {$coupling->need->role} holds its shafts", "parts/{$coupling->part->ref}/specs/grip");
        if ($form === null || $grip === null) {
            return $inquiry->unproven();
        }
        $inquiry->remark("Shaft: {$form}. Held by: {$grip}.");
        [$verdict, $why] = self::MEETINGS[$grip][$form];

        return $inquiry->conclude($verdict, ucfirst($why).'.');
    }

    public function examples(): Examples
    {
        $file = static fn (string $form): array => Examples::file(
            [
                Examples::part('motor', 'servo_motor', ['shaft_form' => $form]),
                Examples::part('coupling', 'coupling', ['grip' => 'keyway']),
            ],
            ['mates' => [['ref' => 'm', 'kind' => 'shaft', 'between' => ['motor', 'coupling']]]],
        );

        return new Examples(static fn (): array => $file('round'), static fn (): array => $file('keyed'), Verdict::Fails);
    }

    private static function turns(Fitted $motor, Fitted $coupling): bool
    {
        return $coupling->part->can(Ability::JoinsShafts) && $motor->part->can(Ability::Drives);
    }
}
