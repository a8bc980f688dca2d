<?php

declare(strict_types=1);

namespace Magpie\Core\Layout\Rules;

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
use Magpie\Core\Layout\Body;
use Magpie\Core\Layout\Layout;
use Magpie\Core\Layout\Resting;
use Magpie\Core\Layout\Warmth;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Thermal\HeatLimit;

/** T04-near: a part against the skin of what is hot and lies on it. */
final class WarmNeighbour implements Check
{
    public function card(): Card
    {
        return new Card(
            'T04-near',
            'Warm neighbour',
            'Does it bear what is hot and lies against it?',
            Trade::Thermal,
            'Nearer than 3 mm a part is taken to get as warm as its neighbour; limits as in T04 and M13: common practice, no source',
            ['touches' => new Threshold('nearer than this it gets as warm as its neighbour', Quantity::of(3, 'mm'))],
            topics: [Topic::Layout],
            supposes: false,
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach (array_keys(Warmth::of($survey)->touching) as $need) {
            yield new Subject('need', (string) $need, $survey->build->roleOf((string) $need), [(string) $need]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $fitted = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $near = [];
        $layout = Layout::of($survey);
        $places = array_map(
            static fn (Body $b): string => $b->place->ref,
            $layout->ofNeed($inquiry->build, $inquiry->subject->ref),
        );
        foreach (Warmth::of($survey)->touching[$inquiry->subject->ref] as $neighbour) {
            foreach ($layout->ofNeed($inquiry->build, $neighbour->need) as $body) {
                $places[] = $body->place->ref;
                Resting::onTravel($inquiry, $body->carried);
            }
            if ($neighbour->gap <= $inquiry->threshold('touches')->in('mm')) {
                $hot = $inquiry->build->fitted($neighbour->need);
                if ($hot !== null) {
                    $near[$neighbour->need] = $inquiry->read($hot, $neighbour->key, 'T_s', Bound::Highest);
                }
            }
        }
        Resting::on($inquiry, ...$places);
        if ($near === []) {
            return $inquiry->conclude(Verdict::Holds, 'Nothing hot lies against it.');
        }
        uasort($near, static fn (Quantity $a, Quantity $b): int => $b->compare($a));
        $need = (string) array_key_first($near);
        $hot = $near[$need];
        $glass = HeatLimit::glass($fitted);
        $limit = HeatLimit::of($fitted) ?? $inquiry->lack("what {$fitted->need->role} bears");
        $key = HeatLimit::keyOf($fitted);
        $read = $key === null ? null : $inquiry->tryRead($fitted, $key, 'T_max', Bound::Lowest);
        if ($read === null) {
            $inquiry->given(
                "what {$fitted->need->role} bears",
                'T_max',
                $limit,
                Evidence::Standard,
                'reference/plastics',
            );
        }
        $clear = $inquiry->work(
            'To spare',
            'ΔT = T_max − T_s',
            ['T_max' => $limit, 'T_s' => $hot],
            $limit->minus($hot),
            'K',
        );
        $verdict = match (true) {
            $glass !== null => HeatLimit::ofPrint($glass->minus($hot)->to('K')),
            $clear->isBelow(Quantity::of(0, 'K')) => Verdict::Fails,
            $clear->isBelow(Quantity::of(5, 'K')) => Verdict::Tight,
            default => Verdict::Holds,
        };

        return $inquiry->conclude(
            $verdict,
            "{$inquiry->build->roleOf($need)} lies against it and gets {$hot} warm; it bears {$limit}.".
                ($verdict === Verdict::Fails ? ' A gap, a shield, or another material.' : ''),
            null,
            "{$limit}",
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $gap): array => Examples::file(
            [
                Examples::part('motor', 'stepper_motor', [
                    'skin_temperature' => '80 °C',
                    'body_length' => '42 mm',
                    'body_width' => '42 mm',
                    'body_height' => '40 mm',
                ]),
                Examples::part('mount', 'printed_part', [
                    'material' => 'PLA',
                    'length' => '60 mm',
                    'width' => '60 mm',
                    'height' => '6 mm',
                ]),
            ],
            [
                'places' => [
                    [
                        'ref' => 'motor',
                        'need' => 'motor',
                        'x' => ['at' => 'low'],
                        'y' => ['at' => 'low'],
                        'z' => ['at' => 'low'],
                    ],
                    [
                        'ref' => 'mount',
                        'need' => 'mount',
                        'x' => ['at' => 'low'],
                        'y' => ['at' => 'low'],
                        'z' => ['at' => 'after', 'of' => 'motor', 'by' => $gap],
                    ],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('0 mm'), static fn (): array => $file('8 mm'), Verdict::Fails);
    }
}
