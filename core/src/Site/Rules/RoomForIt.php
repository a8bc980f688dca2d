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
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** M02: the outside of the machine through the door, on the bench and into the room. */
final class RoomForIt implements Check
{
    private const PLACES = [
        'door' => 'Through the door',
        'bench' => 'On the bench',
        'load' => 'Load on the bench',
        'room' => 'In the room',
    ];

    public function card(): Card
    {
        return new Card(
            'M02',
            'Place',
            'Does the machine go through the door, onto the bench and into the room?',
            Trade::Site,
            'Two smallest sides against the opening; 20 mm to spare and 80 % of a bench\'s load are common practice, no source',
            ['load' => Threshold::share('share of the bench\'s load that holds', 0.8)],
            topics: [Topic::Place, Topic::Scope],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $site = $survey->build->site;
        $given = [
            'door' => $site->doorWidth,
            'bench' => $site->benchLength,
            'load' => $site->benchLoad,
            'room' => $site->roomLength,
        ];
        foreach (self::PLACES as $place => $label) {
            // Whoever describes the outside of a machine at least has to get it through a door.
            if ($given[$place] !== null || ($place === 'door' && ! $survey->build->brief->outline->isEmpty())) {
                yield new Subject('site', $place, $label);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        return match ($inquiry->subject->ref) {
            'door' => $this->door($inquiry),
            'bench' => $this->bench($inquiry),
            'load' => $this->load($inquiry),
            default => $this->room($inquiry),
        };
    }

    public function examples(): Examples
    {
        $file = static fn (string $width, string $height): array => [
            'brief' => [
                'outline' => [
                    'length' => '900 mm',
                    'width' => $width,
                    'height' => $height,
                    'mass' => '60 kg',
                    'evidence' => 'measured',
                ],
            ],
            'site' => [
                'door' => ['width' => '760 mm', 'height' => '1980 mm'],
                'bench' => ['length' => '1200 mm', 'width' => '750 mm', 'load' => '100 kg'],
            ],
        ];

        return new Examples(
            static fn (): array => $file('800 mm', '850 mm'),
            static fn (): array => $file('700 mm', '600 mm'),
            Verdict::Fails,
        );
    }

    private function door(Inquiry $inquiry): Finding
    {
        $site = $inquiry->build->site;
        [, $middle, $small] = self::ordered(...$this->sides($inquiry));
        [$wide, $narrow] = self::ordered(
            $inquiry->given('width of the door', 'w', $site->doorWidth, Evidence::Measured, 'site/door/width'),
            $inquiry->given('height of the door', 'h', $site->doorHeight, Evidence::Measured, 'site/door/height'),
        );

        return $this->fits(
            $inquiry,
            [$middle, $small],
            [$wide, $narrow],
            "Its two smallest sides, {$small} and {$middle}, meet an opening of {$narrow} × {$wide}",
            'it does not go through in one piece',
        );
    }

    private function bench(Inquiry $inquiry): Finding
    {
        $site = $inquiry->build->site;
        [$length, $width] = $this->sides($inquiry);
        $top = self::ordered(
            $inquiry->given('length of the bench', 'l', $site->benchLength, Evidence::Measured, 'site/bench/length'),
            $inquiry->given('width of the bench', 'b', $site->benchWidth, Evidence::Measured, 'site/bench/width'),
        );
        $foot = self::ordered($length, $width);

        return $this->fits(
            $inquiry,
            $foot,
            $top,
            "{$foot[0]} × {$foot[1]} on a bench of {$top[0]} × {$top[1]}",
            'it hangs over',
        );
    }

    private function room(Inquiry $inquiry): Finding
    {
        $site = $inquiry->build->site;
        [$length, $width] = $this->sides($inquiry);
        $service = $inquiry->given(
            'room kept free on each side of it',
            'f',
            $site->service,
            Evidence::Measured,
            'site/service',
        );
        $room = self::ordered(
            $inquiry->given('length of the room', 'l', $site->roomLength, Evidence::Measured, 'site/room/length'),
            $inquiry->given('width of the room', 'b', $site->roomWidth, Evidence::Measured, 'site/room/width'),
        );
        $wanted = self::ordered($length->plus($service->times(2)), $width->plus($service->times(2)));

        return $this->fits(
            $inquiry,
            $wanted,
            $room,
            "With {$service} on each side to get at it, it asks for {$wanted[0]} × {$wanted[1]} of a room of {$room[0]} × {$room[1]}",
            'that is not there',
        );
    }

    private function load(Inquiry $inquiry): Finding
    {
        $outline = $inquiry->build->brief->outline;
        $mass = $inquiry->given('mass of the machine', 'm', $outline->mass, $outline->evidence, 'brief/outline/mass');
        $load = $inquiry->given(
            'load the bench may carry',
            'm_max',
            $inquiry->build->site->benchLoad,
            Evidence::Measured,
            'site/bench/load',
        );
        $share = $inquiry->work(
            'Share of it',
            'k = m / m_max',
            ['m' => $mass, 'm_max' => $load],
            $load->isPositive() ? $mass->over($load) : Quantity::ratio(9),
            '%',
        );

        return $inquiry->conclude(
            $inquiry->band($mass, $load, $inquiry->threshold('load'), Quantity::ratio(1), Verdict::Fails),
            "{$mass} on a bench for {$load}: {$share}. What is worked on comes on top.",
            $inquiry->margin($mass, $load),
            "{$load}",
        );
    }

    /**
     * @param  list<Quantity>  $sides  of the machine, longer first
     * @param  list<Quantity>  $place  of where it has to go, longer first
     */
    private function fits(Inquiry $inquiry, array $sides, array $place, string $says, string $otherwise): Finding
    {
        $spare = Quantity::min(
            $inquiry->work(
                'To spare in the longer direction',
                's_1 = d_1 − a_1',
                ['d_1' => $place[0], 'a_1' => $sides[0]],
                $place[0]->minus($sides[0]),
                'mm',
            ),
            $inquiry->work(
                'To spare in the shorter direction',
                's_2 = d_2 − a_2',
                ['d_2' => $place[1], 'a_2' => $sides[1]],
                $place[1]->minus($sides[1]),
                'mm',
            ),
        );
        $verdict = match (true) {
            $spare->isBelow(Quantity::of(0, 'mm')) => Verdict::Fails,
            $spare->isBelow(Quantity::of(20, 'mm')) => Verdict::Tight,
            default => Verdict::Holds,
        };
        $margins = [$inquiry->margin($sides[0], $place[0]), $inquiry->margin($sides[1], $place[1])];

        return $inquiry->conclude(
            $verdict,
            $says.($verdict === Verdict::Fails ? ": {$otherwise}." : ": {$spare} to spare."),
            Quantity::min(...$margins),
            "{$place[0]} × {$place[1]}",
        );
    }

    /**
     * @return list<Quantity> length, width, height
     */
    private function sides(Inquiry $inquiry): array
    {
        $outline = $inquiry->build->brief->outline;
        $sides = ['length' => $outline->length, 'width' => $outline->width, 'height' => $outline->height];
        foreach (array_keys($sides, null, true) as $name) {
            $inquiry->miss("outer {$name} of the machine", "brief/outline/{$name}");
        }
        $read = [];
        foreach ($sides as $name => $side) {
            $read[] = $inquiry
                ->given("outer {$name} of the machine", $name[0], $side, $outline->evidence, "brief/outline/{$name}")
                ->to('mm');
        }

        return $read;
    }

    /**
     * @return list<Quantity> longest first, in millimetres
     */
    private static function ordered(Quantity ...$sides): array
    {
        usort($sides, static fn (Quantity $a, Quantity $b): int => $b->compare($a));

        return array_map(static fn (Quantity $q): Quantity => $q->to('mm'), $sides);
    }
}
