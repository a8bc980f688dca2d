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
use Magpie\Core\Layout\Envelope;
use Magpie\Core\Layout\Layout;
use Magpie\Core\Layout\Meetings;
use Magpie\Core\Layout\Resting;
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Trade;

/** M02-drawn: whether all that has a place stays within the outline that door, bench and room are held against. */
final class InOutline implements Check
{
    private const SIDES = [['left', 'right'], ['front', 'back'], ['bottom', 'top']];

    public function card(): Card
    {
        return new Card(
            'M02-drawn',
            'Within its outline',
            'Does all of it stay within the outline of the machine, wherever the axes stand?',
            Trade::Site,
            'The outline is what goes through the door and stands in the room, so nothing may reach beyond it',
            topics: [Topic::Layout, Topic::Place],
            supposes: false,
        );
    }

    public function subjects(Survey $survey): iterable
    {
        if (Layout::of($survey)->bodies !== []) {
            yield new Subject('build', 'outline', 'Outline of the machine');
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $layout = Layout::of($survey);
        Resting::onOutline($inquiry);
        $room = $layout->outline ?? $inquiry->lack('the outline of the machine');
        Resting::onAll($inquiry, $layout);
        $envelope = Envelope::of($survey);
        $beyond = [];
        foreach ([0, 1, 2] as $d) {
            $along = Along::words()[$d];
            $inquiry->work(
                "All of it along {$along}, over the whole travel",
                'w = b − a',
                ['a' => Resting::mm($envelope->box->low[$d]), 'b' => Resting::mm($envelope->box->high[$d])],
                Resting::mm($envelope->box->size($d)),
                'mm',
            );
            foreach (
                [
                    [self::SIDES[$d][0], $room->low[$d] - $envelope->box->low[$d], $envelope->by[$d][0]],
                    [self::SIDES[$d][1], $envelope->box->high[$d] - $room->high[$d], $envelope->by[$d][1]],
                ] as [$side, $over, $body]
            ) {
                if ($over > Meetings::TOUCH) {
                    $beyond[] = "{$body->label} reaches ".Resting::mm($over)." beyond it at the {$side}";
                }
            }
        }

        return $beyond === []
            ? $inquiry->conclude(Verdict::Holds, 'All that has a place stays within the outline.')
            : $inquiry->conclude(
                Verdict::Fails,
                ucfirst(implode('; ', $beyond)).
                    '. Door, bench and room are held against an outline that is too small.',
            );
    }

    public function examples(): Examples
    {
        $file = static fn (string $length): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'body_length' => '215 mm',
                    'body_width' => '115 mm',
                    'body_height' => '50 mm',
                ]),
            ],
            [
                'brief' => [
                    'outline' => [
                        'length' => $length,
                        'width' => '300 mm',
                        'height' => '300 mm',
                        'evidence' => 'measured',
                    ],
                ],
                'places' => [
                    [
                        'ref' => 'psu',
                        'need' => 'psu',
                        'x' => ['at' => 'low', 'by' => '20 mm'],
                        'y' => ['at' => 'low'],
                        'z' => ['at' => 'low'],
                    ],
                ],
            ],
        );

        return new Examples(
            static fn (): array => $file('200 mm'),
            static fn (): array => $file('300 mm'),
            Verdict::Fails,
        );
    }
}
