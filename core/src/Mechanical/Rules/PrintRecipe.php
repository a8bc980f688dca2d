<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Mechanical\Cures\StrongerPrint;
use Magpie\Core\Quantity\Quantity;

/** M13-recipe: walls, infill and layers. */
final class PrintRecipe implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M13-recipe',
            'Print recipe',
            'Is this part printed strong enough?',
            Trade::Mechanical,
            'Four walls, 40 % infill, five top and bottom layers: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Printed) as $ref => $fitted) {
            if ($fitted->part->spec('walls') !== null || $fitted->part->spec('infill') !== null) {
                yield new Subject('need', $ref, $fitted->need->role, [$ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $part = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        [$walls, $infill] = $inquiry->readAll($part, ['n' => 'walls', 'i' => 'infill'], Bound::Lowest);
        $layers =
            $inquiry->tryRead($part, 'top_bottom_layers', 'n_t') ??
            $inquiry->miss(
                "top and bottom layers of {$part->need->role}",
                "parts/{$part->part->ref}/specs/top_bottom_layers",
            );
        $inquiry->remark(
            "{$walls} walls, {$infill} infill".($layers === null ? '' : ", {$layers} top and bottom layers").'.',
        );
        $verdict = match (true) {
            ! $walls->exceeds(Quantity::ratio(2)) && $infill->isBelow(Quantity::ratio(0.2)) => Verdict::Fails,
            $walls->isBelow(Quantity::ratio(4)),
            $infill->isBelow(Quantity::ratio(0.4)),
            $layers?->isBelow(Quantity::ratio(5)) === true => Verdict::Tight,
            default => Verdict::Holds,
        };
        $says =
            "{$walls} walls and {$infill} infill".
            match ($verdict) {
                Verdict::Fails => ': such parts come apart in assembly.',
                Verdict::Tight => '; four walls and 40 % are usual where a part is loaded.',
                default => ', as a loaded part wants.',
            };

        $inquiry->because('print recipes');

        return $inquiry->conclude($verdict, $says, null, '4 walls, 40 %');
    }

    public function cures(): array
    {
        return [new StrongerPrint];
    }

    public function examples(): Examples
    {
        $file = static fn (string $walls, string $infill): array => Examples::file([
            Examples::part('corner', 'printed_part', [
                'material' => 'ASA',
                'walls' => $walls,
                'infill' => $infill,
                'top_bottom_layers' => '5',
            ]),
        ]);

        return new Examples(
            static fn (): array => $file('2', '12 %'),
            static fn (): array => $file('4', '40 %'),
            Verdict::Fails,
        );
    }
}
