<?php

declare(strict_types=1);

// Figures of the picture: a machine of 150 parts placed, routed, swept and judged, and an edit of it. `bin/magpie bench picture`.

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Layout\Layout;
use Magpie\Core\Layout\Meetings;
use Magpie\Core\Layout\Rules as LayoutRules;
use Magpie\Core\Layout\Views\Picture;
use Magpie\Core\Layout\Ways;
use Magpie\Core\Machine\Placing\Anchor;
use Magpie\Core\Machine\Placing\Place;
use Magpie\Core\Machine\Placing\Position;
use Magpie\Core\Quantity\Quantity;
use Tests\Support\LargeBuild;

require __DIR__.'/../vendor/autoload.php';

$at = static fn (float $by): Position => new Position(Anchor::Low, null, Quantity::of($by, 'mm'));
$took = static fn (int $start): float => (hrtime(true) - $start) / 1e6;

$plain = LargeBuild::ofThreeAxes(150);
$drawn = LargeBuild::placed(150);

$middle = static function (callable $do) use ($took): float {
    $times = [];
    for ($i = 0; $i < 7; $i++) {
        $start = hrtime(true);
        $do();
        $times[] = $took($start);
    }
    sort($times);

    return $times[3];
};
$survey = static fn (): Survey => new Survey($drawn);
printf("%d bodies, %d leads\n", count(Layout::of($survey())->bodies), count($drawn->leads));
printf("placed: %.1f ms\n", $middle(static fn () => Layout::of($survey())));
printf("sweep of three axes with all bodies: %.0f ms (budget 500)\n", $middle(static fn () => Meetings::of($survey())));
printf("ways of all leads: %.0f ms\n", $middle(static fn () => Ways::of($survey())));
$rules = [
    new LayoutRules\MeetsNothing,
    new LayoutRules\ReachFree,
    new LayoutRules\InOutline,
    new LayoutRules\LeadReaches,
    new LayoutRules\DuctsApart,
];
printf(
    "placed, routed and judged: %.0f ms (budget 300)\n",
    $middle(static function () use ($rules, $drawn): void {
        $inspector = Rules::inspector();
        $survey = new Survey($drawn);
        Ways::of($survey);
        foreach ($rules as $rule) {
            foreach ($inspector->asked($inspector->numberOf($rule->card()->id), $survey) as $inquiry) {
                $inspector->ask($rule, $inquiry, $survey);
            }
        }
    }),
);
printf("all that the picture shows: %.0f ms\n", $middle(static fn () => (new Picture($survey()))->toArray()));
printf("whole inspection without places: %.0f ms\n", $middle(static fn () => Rules::inspector()->inspect($plain)));
printf("whole inspection with them: %.0f ms\n", $middle(static fn () => Rules::inspector()->inspect($drawn)));
$standing = Standing::of(Rules::inspector(), $drawn);
$step = 0;
printf(
    "a place moved, to its findings: %.0f ms\n",
    $middle(static function () use ($standing, $drawn, $at, &$step): void {
        $place = $drawn->places['p7'];
        $moved = new Place(...['at' => ['x' => $at(500 + ++$step)] + $place->at] + get_object_vars($place));
        $standing->after($drawn->with(['places' => ['p7' => $moved] + $drawn->places]));
    }),
);
