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
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Mechanical\CutChart;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Motion\CannotReadCurve;
use Magpie\Core\Quantity\Quantity;

/** M18: whether the axes are as fast as the torch's chart wants for each sheet. */
final class CutSpeed implements Check
{
    public function card(): Card
    {
        return new Card(
            'M18',
            'Feed of the torch',
            'Do the axes go as fast as the chart of the torch wants for this sheet?',
            Trade::Mechanical,
            "Maker's chart, straight between its rows; a tenth of the top speed to spare for corners is common practice, no source",
            topics: [Topic::Scope],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $arcs = array_map(strval(...), array_keys([...$survey->build->fittedThat(Ability::Arcs)]));
        foreach ($arcs === [] ? [] : $survey->build->workpieces as $piece) {
            yield new Subject('workpiece', $piece->ref, $piece->name, $arcs);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $piece = $inquiry->build->workpieces[$inquiry->subject->ref];
        $sheet = $inquiry->given(
            "height of {$piece->name}",
            't',
            $piece->height,
            Evidence::Measured,
            "workpieces/{$piece->ref}/height",
        );
        $arc = $inquiry->build->fitted($inquiry->subject->needs[0] ?? '') ?? $inquiry->lack('an arc source');
        $text = $inquiry->tryChoice($arc, 'cut_chart');
        if ($text === null) {
            $inquiry->miss("cut chart of {$arc->need->role}", "parts/{$arc->part->ref}/specs/cut_chart");

            return $inquiry->unproven();
        }
        try {
            $chart = CutChart::read($text);
        } catch (CannotReadCurve $e) {
            $inquiry->lack("a cut chart of {$arc->need->role} that can be read ({$e->getMessage()})");
        }
        $feed = $chart->feed($sheet);
        if ($feed === null) {
            $inquiry->remark("Its chart reaches {$chart->thickest()}.");

            return $inquiry->conclude(Verdict::Fails, "The chart of {$arc->need->role} has no sheet of {$sheet}.");
        }
        $inquiry->work('Feed the chart wants', 'v = chart(t)', ['t' => $sheet], $feed, 'mm/min');
        $slowest = null;
        foreach ($inquiry->build->axes as $axis) {
            if ($axis->along !== Along::Z) {
                $top = AxisMotion::of($survey, $axis)->given(
                    $inquiry,
                    'top_speed',
                    'top speed',
                    "v_{$axis->ref}",
                    $axis->drive->topSpeed,
                );
                $slowest = $slowest === null ? $top : Quantity::min($slowest, $top);
            }
        }
        $slowest = ($slowest ?? $inquiry->lack('an axis that moves across'))->to('mm/min');
        $kerf = $chart->kerf($sheet);
        $inquiry->remark(
            $kerf === null
                ? 'The chart does not say how wide it cuts: half of that is lost on each side.'
                : "It cuts {$kerf} wide: the path goes half of that beside the line.",
        );

        return $inquiry->conclude(
            $inquiry->band($feed, $slowest, Quantity::ratio(0.9), Quantity::ratio(1), Verdict::Fails),
            "{$sheet} wants {$feed}; the slower axis reaches {$slowest}.".
                ($feed->exceeds($slowest) ? ' Slower than its chart it leaves dross, and the arc wanders.' : ''),
            $inquiry->margin($feed, $slowest),
            "90 % of {$slowest}",
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $top): array => Examples::file(
            [
                Examples::part('arc', 'arc_source', [
                    'cut_chart' => '1.5 mm 4000 mm/min 1.2 mm; 3 mm 2000 mm/min 1.5 mm',
                ]),
            ],
            [
                'workpieces' => [['ref' => 'p', 'name' => 'Panel', 'height' => '2 mm']],
                'axes' => [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'drive' => ['top_speed' => $top, 'evidence' => 'measured'],
                    ],
                ],
            ],
        );

        return new Examples(
            static fn (): array => $file('40 mm/s'),
            static fn (): array => $file('100 mm/s'),
            Verdict::Fails,
        );
    }
}
