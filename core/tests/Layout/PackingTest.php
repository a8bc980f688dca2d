<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Layout;

use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Layout\Arranger;
use Magpie\Core\Layout\CannotArrange;
use Magpie\Core\Layout\Packing;
use PHPUnit\Framework\TestCase;

/** Rectangles on a wall, and a cabinet arranged. */
final class PackingTest extends TestCase
{
    /** 10,000 walls of up to 12 parts: what is laid lies inside, overlaps nothing, and is as large as it came. */
    public function test_it_never_overlaps_and_never_sticks_out(): void
    {
        mt_srand(11);
        $laid = 0;
        for ($case = 0; $case < 10_000; $case++) {
            [$width, $height] = [(float) mt_rand(200, 600), (float) mt_rand(200, 600)];
            $items = [];
            for ($i = mt_rand(1, 12); $i > 0; $i--) {
                $items[] = ['key' => "p{$i}", 'w' => (float) mt_rand(10, 250), 'h' => (float) mt_rand(10, 250)];
            }
            foreach (
                [
                    Packing::inOrder($items, $width, $height),
                    Packing::rows($items, $width, $height),
                    $case % 20 === 0 ? Packing::dense($items, $width, $height) : null,
                ] as $way
            ) {
                if ($way !== null) {
                    $laid++;
                    self::assertNull(self::fault($items, $way, $width, $height), "case {$case}");
                }
            }
        }
        self::assertGreaterThan(5000, $laid);
    }

    /**
     * @param  list<array{key: string, w: float, h: float}>  $items
     * @param  list<array{key: string, x: float, y: float, w: float, h: float, turned: bool}>  $laid
     */
    private static function fault(array $items, array $laid, float $width, float $height): ?string
    {
        $sizes = array_column($items, null, 'key');
        if (count($laid) !== count($items)) {
            return 'one is missing';
        }
        foreach ($laid as $i => $a) {
            $own = $sizes[$a['key']];
            $size = $a['turned'] ? [$own['h'], $own['w']] : [$own['w'], $own['h']];
            if ([$a['w'], $a['h']] !== $size) {
                return "{$a['key']} has another size";
            }
            if (
                $a['x'] < -1e-6 ||
                $a['y'] < -1e-6 ||
                $width + 1e-6 < $a['x'] + $a['w'] ||
                $height + 1e-6 < $a['y'] + $a['h']
            ) {
                return "{$a['key']} sticks out";
            }
            for ($j = 0; $j < $i; $j++) {
                $b = $laid[$j];
                if (
                    $a['x'] < $b['x'] + $b['w'] - 1e-6 &&
                    $b['x'] < $a['x'] + $a['w'] - 1e-6 &&
                    $a['y'] < $b['y'] + $b['h'] - 1e-6 &&
                    $b['y'] < $a['y'] + $a['h'] - 1e-6
                ) {
                    return "{$a['key']} lies on {$b['key']}";
                }
            }
        }

        return null;
    }

    /**
     * No packing is lower than the area of all parts over the width of the wall. Of 80 parts none wider or higher than an
     * eighth of the wall, what is found is within 10 % of that bound and the height of one part.
     */
    public function test_a_wall_with_nothing_on_it_is_used_to_no_height(): void
    {
        self::assertSame(0.0, Packing::used([]));
        self::assertSame([], Packing::dense([], 100.0, 100.0));
    }

    public function test_many_small_parts_take_little_more_than_their_area(): void
    {
        mt_srand(5);
        for ($case = 0; $case < 12; $case++) {
            $items = [];
            for ($i = 0; $i < 80; $i++) {
                $items[] = ['key' => "p{$i}", 'w' => (float) mt_rand(10, 50), 'h' => (float) mt_rand(10, 50)];
            }
            $bound = array_sum(array_map(static fn (array $i): float => $i['w'] * $i['h'], $items)) / 400;
            $used = Packing::used(Packing::dense($items, 400, 2000) ?? []);
            self::assertGreaterThanOrEqual($bound - 1e-6, $used);
            self::assertLessThan($bound * 1.1 + 50, $used, "case {$case}");
        }
    }

    public function test_a_cabinet_is_arranged_apart_or_near_and_says_what_does_not_go(): void
    {
        $body = static fn (string $l, string $w, string $h): array => [
            'body_length' => $l,
            'body_width' => $w,
            'body_height' => $h,
        ];
        $build = static fn (string $depth, string $width = '500 mm'): Survey => Machines::survey(
            Machines::build(
                [
                    [
                        'ref' => 'box',
                        'need' => 'box',
                        'x' => ['at' => 'low'],
                        'y' => ['at' => 'low'],
                        'z' => ['at' => 'low'],
                    ],
                ],
                [
                    'zones' => [
                        [
                            'ref' => 'z',
                            'name' => 'Box',
                            'kind' => 'cabinet',
                            'box' => 'box',
                            'holds' => ['psu', 'board', 'switch', 'bare'],
                        ],
                    ],
                    'leads' => [
                        [
                            'ref' => 'W1',
                            'from' => 'psu.out',
                            'to' => 'board.power',
                            'conductor' => ['size' => '2.5 mm²'],
                        ],
                    ],
                ],
                [
                    Examples::part('box', 'cabinet', ['width' => $width, 'height' => '400 mm', 'depth' => $depth]),
                    Examples::part('psu', 'power_supply', $body('215 mm', '50 mm', '115 mm')),
                    Examples::part('board', 'controller_board', $body('110 mm', '90 mm', '20 mm')),
                    Examples::part('switch', 'limit_switch', $body('30 mm', '20 mm', '10 mm')),
                    Examples::part('bare', 'controller_board', []),
                ],
            ),
        );
        $arranger = new Arranger($build('150 mm'), 'box');
        self::assertSame([['bare'], [500.0, 400.0]], [$arranger->without, $arranger->wall()]);
        $found = array_column(array_map(static fn ($a): array => $a->toArray(), $arranger->proposals()), null, 'name');
        self::assertSame(['Mains apart', 'Thick leads short', 'Least wall'], array_keys($found));
        self::assertGreaterThanOrEqual(30, $found['Mains apart']['apart']);
        self::assertLessThanOrEqual($found['Mains apart']['thick'], $found['Thick leads short']['thick']);
        self::assertLessThanOrEqual($found['Mains apart']['used'], $found['Least wall']['used']);
        // The supply lies with its two longest sides on the wall, against it, its 50 mm deep.
        $psu = array_column($found['Mains apart']['places'], null, 'ref')['psu'];
        self::assertSame([['at' => 'high'], 'lwh'], [$psu['y'], $psu['turned']]);
        $refused = static function (callable $try): string {
            try {
                $try();
            } catch (CannotArrange $e) {
                return $e->getMessage();
            }

            return '';
        };
        self::assertStringContainsString(
            'Psu, 215 × 115 × 50 mm, does not go into',
            ucfirst($refused(static fn () => new Arranger($build('40 mm'), 'box'))),
        );
        // Each of several pieces gets a place of its own.
        $nine = $build('150 mm')->build;
        $nine = Machines::survey(
            $nine->with(['needs' => ['switch' => $nine->needs['switch']->times(9)] + $nine->needs]),
        );
        foreach ((new Arranger($nine, 'box'))->proposals() as $proposal) {
            self::assertSame(
                ['switch', ...array_map(static fn (int $n): string => "switch-{$n}", range(2, 9))],
                array_values(
                    array_filter(
                        array_column($proposal->places, 'ref'),
                        static fn (string $ref): bool => str_starts_with($ref, 'switch'),
                    ),
                ),
            );
            self::assertSame(9, max(array_column($proposal->places, 'piece')));
        }
        // Where it is too wide with room for hands, it stands upright.
        $narrow = (new Arranger($build('150 mm', '236 mm'), 'box'))->proposals()[0]->places;
        self::assertSame('hwl', array_column($narrow, 'turned', 'ref')['psu']);
        self::assertStringContainsString(
            'no place "nowhere"',
            $refused(static fn () => new Arranger($build('150 mm'), 'nowhere')),
        );
    }
}
