<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\OtherPart;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Scope\Envelope;

/** M15: sheet and bed heater against the work area. */
final class PlateSize implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M15',
            'Sheet and heater size',
            'Are sheet and heater of the right size for the work area?',
            Trade::Mechanical,
            'Work area and 10 mm more a side for a sheet, 10 mm less for a heater: common practice, no source',
            ['cold' => Threshold::share('share of a side of the work area that a heater must at least warm', 0.8)],
            topics: [Topic::Scope],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $plates = [
            ...$survey->build->fittedThat(Ability::CarriesPrints),
            ...$survey->build->fittedThat(Ability::Heats),
        ];
        foreach ($plates as $ref => $fitted) {
            if (self::isSheet($fitted) || $fitted->part->spec('place')?->choice() === 'bed') {
                yield new Subject('need', $ref, $fitted->need->role, [$ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $fitted = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $inquiry->tryChoice($fitted, 'place');
        $sides = $this->sides($inquiry, $fitted);
        $envelope = new Envelope($inquiry->build);
        $areas = [];
        foreach (['x', 'y'] as $along) {
            $areas[] = $inquiry
                ->given(
                    "work area along {$along}, or the largest workpiece",
                    "a_{$along}",
                    $envelope->workArea($along),
                    Evidence::Measured,
                    "brief/size/{$along}",
                )
                ->to('mm');
        }
        usort($areas, static fn (Quantity $a, Quantity $b): int => $b->compare($a));
        $wanted = array_map(
            static fn (Quantity $area): Quantity => self::wanted($inquiry, $area, self::isSheet($fitted)),
            $areas,
        );
        $verdict = self::isSheet($fitted)
            ? $this->sheet($sides, $areas, $wanted)
            : $this->heater($sides, $areas, $wanted, $inquiry->threshold('cold'));
        $says =
            "{$sides[0]} × {$sides[1]} on a work area of {$areas[0]} × {$areas[1]}; {$wanted[0]} × {$wanted[1]} is usual.".
            match (true) {
                self::isSheet($fitted) => $verdict === Verdict::Holds ? '' : ' Prints reach its edge.',
                $verdict !== Verdict::Holds => ' The edges stay cold.',
                $sides[0]->exceeds($areas[0]) || $sides[1]->exceeds($areas[1]) => ' It warms more than is printed on.',
                default => '',
            };

        return $inquiry->conclude($verdict, $says, null, "{$wanted[0]} × {$wanted[1]}");
    }

    public function cures(): array
    {
        return [new OtherPart];
    }

    public function examples(): Examples
    {
        $file = static fn (string $side): array => Examples::file(
            [Examples::part('sheet', 'build_sheet', ['length' => $side, 'width' => $side])],
            ['brief' => ['size' => ['x' => '300 mm', 'y' => '300 mm', 'z' => '300 mm']]],
        );

        return new Examples(
            static fn (): array => $file('290 mm'),
            static fn (): array => $file('320 mm'),
            Verdict::Fails,
        );
    }

    /** A side of sheet or heater for one side of the work area, written into the working. */
    public static function wanted(Inquiry $inquiry, Quantity $area, bool $sheet): Quantity
    {
        $side = Quantity::of(10, 'mm');

        return $sheet
            ? $inquiry->work(
                'Side of a sheet',
                'w = a + 2 × s',
                ['a' => $area, 's' => $side],
                $area->plus($side->times(2)),
                'mm',
            )
            : $inquiry->work(
                'Side of a heater',
                'w = a − 2 × s',
                ['a' => $area, 's' => $side],
                $area->minus($side->times(2)),
                'mm',
            );
    }

    /**
     * @param  list<Quantity>  $sides
     * @param  list<Quantity>  $areas
     * @param  list<Quantity>  $wanted
     */
    private function sheet(array $sides, array $areas, array $wanted): Verdict
    {
        return match (true) {
            $sides[0]->isBelow($areas[0]) || $sides[1]->isBelow($areas[1]) => Verdict::Fails,
            self::short($sides, $wanted) => Verdict::Tight,
            default => Verdict::Holds,
        };
    }

    /**
     * @param  list<Quantity>  $sides
     * @param  list<Quantity>  $areas
     * @param  list<Quantity>  $wanted
     */
    private function heater(array $sides, array $areas, array $wanted, Quantity $cold): Verdict
    {
        return match (true) {
            $sides[0]->isBelow($areas[0]->times($cold)) || $sides[1]->isBelow($areas[1]->times($cold)) => Verdict::Fails,
            self::short($sides, $wanted) => Verdict::Tight,
            default => Verdict::Holds,
        };
    }

    /**
     * @param  list<Quantity>  $sides
     * @param  list<Quantity>  $wanted
     */
    private static function short(array $sides, array $wanted): bool
    {
        $slack = Quantity::of(5, 'mm');

        return $sides[0]->isBelow($wanted[0]->minus($slack)) || $sides[1]->isBelow($wanted[1]->minus($slack));
    }

    private static function isSheet(Fitted $fitted): bool
    {
        return $fitted->part->can(Ability::CarriesPrints);
    }

    /**
     * @return list<Quantity> longer first
     */
    private function sides(Inquiry $inquiry, Fitted $fitted): array
    {
        $sides = array_map(
            static fn (Quantity $q): Quantity => $q->to('mm'),
            $inquiry->readAll(
                $fitted,
                self::isSheet($fitted)
                    ? ['l' => 'length', 'b' => 'width']
                    : ['l' => 'heated_width', 'b' => 'heated_depth'],
                Bound::Lowest,
            ),
        );
        usort($sides, static fn (Quantity $a, Quantity $b): int => $b->compare($a));

        return $sides;
    }
}
