<?php

declare(strict_types=1);

namespace Magpie\Core\Layout\Rules;

use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Layout\Body;
use Magpie\Core\Layout\Layout;
use Magpie\Core\Layout\Reaches;
use Magpie\Core\Layout\Resting;
use Magpie\Core\Machine\Trade;

/** M11-reach: whether a hand, a key, a plug or a door gets where it has to, once all is in its place. */
final class ReachFree implements Check
{
    public function card(): Card
    {
        return new Card(
            'M11-reach',
            'Room to reach it',
            'Does a hand, a key, a plug or a door get at it, once its neighbours are in?',
            Trade::Mechanical,
            'Room before a side of it, free in one position of the axes at least',
            topics: [Topic::Layout],
            supposes: false,
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->places as $place) {
            if ($place->reach !== []) {
                yield new Subject('build', 'reach', 'All that has to be reached');

                return;
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $layout = Layout::of($survey);
        Resting::onAll($inquiry, $layout);
        $blocked = $free = [];
        foreach ($layout->bodies as $body) {
            $stuck = Reaches::of($survey)->blocked($body);
            foreach ($stuck as [$reach, $others]) {
                $blocked[] =
                    implode(' and ', array_map(static fn (Body $b): string => $b->label, array_slice($others, 0, 3))).
                    " in the way of {$reach->for} at {$body->label} ({$reach->side->value}, {$reach->depth->text()})";
            }
            foreach ($body->place->reach as $reach) {
                $inquiry->work(
                    "{$body->label}, {$reach->side->value}, for {$reach->for}",
                    'd',
                    [],
                    $reach->depth,
                    'mm',
                );
                $free[] = "{$reach->for} at {$body->label}";
            }
        }
        if ($blocked !== []) {
            return $inquiry->conclude(
                Verdict::Tight,
                ucfirst(implode('; ', array_slice($blocked, 0, 5))).
                    '. What has to be reached there is done before they go in, and after they come out.',
            );
        }

        return $inquiry->conclude(Verdict::Holds, 'There is room for '.implode(', ', array_slice($free, 0, 6)).'.');
    }

    public function examples(): Examples
    {
        $file = static fn (string $gap): array => Examples::file(
            [
                Examples::part('board', 'controller_board', [
                    'body_length' => '110 mm',
                    'body_width' => '90 mm',
                    'body_height' => '20 mm',
                ]),
            ],
            [
                'places' => [
                    [
                        'ref' => 'board',
                        'need' => 'board',
                        'x' => ['at' => 'low'],
                        'y' => ['at' => 'low'],
                        'z' => ['at' => 'low'],
                        'reach' => [['side' => 'right', 'depth' => '40 mm', 'for' => 'its plug']],
                    ],
                    [
                        'ref' => 'wall',
                        'name' => 'Side wall',
                        'size' => ['length' => '3 mm', 'width' => '300 mm', 'height' => '300 mm'],
                        'x' => ['at' => 'after', 'of' => 'board', 'by' => $gap],
                        'y' => ['at' => 'low'],
                        'z' => ['at' => 'low'],
                    ],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('15 mm'), static fn (): array => $file('60 mm'), Verdict::Tight);
    }
}
