<?php

declare(strict_types=1);

namespace Magpie\Core\Site\Rules;

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
use Magpie\Core\Machine\Hazard;
use Magpie\Core\Machine\Process;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Machine\Ventilation;
use Magpie\Core\Reference\Tables;

/** M02-air: what the work gives off, against the ventilation of the place. */
final class Fumes implements Check
{
    public function card(): Card
    {
        return new Card(
            'M02-air',
            'Fumes',
            'Is there ventilation for what printing or cutting gives off here?',
            Trade::Site,
            'Extraction to the outside for arc fumes and styrene; a window thins them out: common practice, no source',
            topics: [Topic::Place, Topic::Scope],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $gives = self::arcs($survey);
        foreach ($survey->build->fittedThat(Ability::OfPlastic) as $fitted) {
            $gives = $gives || isset(self::table()[$fitted->part->spec('material')?->choice() ?? '']);
        }
        if ($gives) {
            yield new Subject('site', 'air', 'Air of the room');
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $arcs = self::arcs($survey);
        $gives = [];
        foreach ($inquiry->build->fittedThat(Ability::OfPlastic) as $fitted) {
            // The machine's own printed parts are printed too.
            $material = $inquiry->tryChoice($fitted, 'material') ?? '';
            if (isset(self::table()[$material])) {
                $gives["{$material} gives off ".self::table()[$material]] = true;
            }
        }
        $what = [...$arcs ? ['an arc gives off metal fumes'] : [], ...array_map(strval(...), array_keys($gives))];
        $says = ucfirst(implode('; ', $what));
        $air = $inquiry->build->site->ventilation ?? $inquiry->lack('the ventilation of the place');
        $inquiry->remark("Ventilation of the place: {$air->value}.");

        return match (true) {
            $air === Ventilation::ExtractionOutside => $inquiry->conclude(
                Verdict::Holds,
                "{$says}: it is drawn off to the outside.",
            ),
            $arcs => $inquiry->conclude(
                Verdict::Danger,
                "{$says}, and ".
                    ($air === Ventilation::None ? 'there is no ventilation' : 'a window is not enough').
                    ': extraction to the outside, or cut over water in the open.',
            ),
            $air === Ventilation::None => $inquiry->conclude(
                Verdict::Fails,
                "{$says}, and there is no ventilation: print with a window open and nobody in the room, or draw it off.",
            ),
            default => $inquiry->conclude(
                Verdict::Tight,
                "{$says}: with the window open while it prints, and nobody sitting beside it.",
            ),
        };
    }

    public function examples(): Examples
    {
        $file = static fn (string $air): array => Examples::file(
            [Examples::part('reel', 'filament', ['material' => 'ASA'])],
            ['site' => ['ventilation' => $air]],
        );

        return new Examples(
            static fn (): array => $file('none'),
            static fn (): array => $file('extraction outside'),
            Verdict::Fails,
        );
    }

    private static function arcs(Survey $survey): bool
    {
        if ($survey->build->brief->process === Process::Plasma) {
            return true;
        }
        foreach ($survey->build->allFitted() as $fitted) {
            if ($fitted->part->family->hazard() === Hazard::Torch) {
                return true;
            }
        }

        return false;
    }

    /**
     * @return array<string, string>
     */
    private static function table(): array
    {
        /** @var array<string, string> */
        return Tables::named('fumes');
    }
}
