<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Layout;

use Magpie\Core\Book\Template;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Layout\Box;
use Magpie\Core\Layout\Layout;
use Magpie\Core\Layout\Surroundings;
use Magpie\Core\Layout\Views\Picture;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Where things sit, by the rules of their places. */
final class LayoutTest extends TestCase
{
    private static Build $build;

    /**
     * @param  list<array<string, mixed>>  $places
     * @param  array<string, mixed>  $with
     * @param  list<array{array<string, mixed>, array<string, mixed>}>  $parts
     */
    private static function layout(array $places, array $with = [], array $parts = []): Layout
    {
        return Layout::of(Machines::survey(self::$build = Machines::build($places, $with, $parts)));
    }

    /**
     * A host from 100 to 400 along x; something 50 long.
     *
     * @return iterable<string, array{array<string, string>, float}>
     */
    public static function anchors(): iterable
    {
        yield 'so far in from its left' => [['at' => 'low', 'by' => '20 mm'], 120.0];
        yield 'so far in from its right' => [['at' => 'high', 'by' => '20 mm'], 330.0];
        yield 'in its middle, a little to the right' => [['at' => 'centre', 'by' => '5 mm'], 230.0];
        yield 'right of it' => [['at' => 'after', 'by' => '10 mm'], 410.0];
        yield 'left of it' => [['at' => 'before', 'by' => '10 mm'], 40.0];
        yield 'right of another' => [['at' => 'after', 'of' => 'other', 'by' => '1 cm'], 1060.0];
        yield 'level with the right side of another' => [['at' => 'high', 'of' => 'other'], 1000.0];
    }

    /**
     * @param  array<string, string>  $position
     */
    #[DataProvider('anchors')]
    public function test_a_position_is_told_from_what_it_stands_on_or_from_another(array $position, float $low): void
    {
        $layout = self::layout([
            Machines::box('thing', [0, 0, 0], [50, 20, 10], ['on' => 'host', 'x' => $position]),
            Machines::box('host', [100, 0, 0], [300, 100, 100]),
            Machines::box('other', [1000, 0, 0], [50, 10, 10]),
        ]);
        self::assertEqualsWithDelta($low, $layout->bodies['thing']->box->low[0], 1e-9);
        self::assertEqualsWithDelta(50, $layout->bodies['thing']->box->size(0), 1e-9);
        self::assertSame([], $layout->waiting);
    }

    public function test_a_part_takes_its_size_from_its_sheet_turned_as_it_stands_and_moves_with_what_it_is_on(): void
    {
        $layout = self::layout(
            [
                [
                    'ref' => 'motor',
                    'need' => 'motor',
                    'on' => 'plate',
                    'turned' => 'hwl',
                    'x' => ['at' => 'low'],
                    'y' => ['at' => 'low'],
                    'z' => ['at' => 'after'],
                    'size' => ['height' => '70 mm'],
                    'moves' => ['z'],
                ],
                Machines::box('plate', [0, 0, 0], [80, 80, 8], ['moves' => ['x', 'y']]),
                [
                    'ref' => 'feet',
                    'need' => 'feet',
                    'row' => 'y',
                    'pitch' => '60 mm',
                    'x' => ['at' => 'low'],
                    'y' => ['at' => 'low'],
                    'z' => ['at' => 'low'],
                ],
            ],
            [],
            [
                Examples::part('motor', 'stepper_motor', [
                    'body_length' => '42 mm',
                    'body_width' => '43 mm',
                    'body_height' => '40 mm',
                ]),
                self::feet(),
            ],
        );
        $motor = $layout->bodies['motor'];
        self::assertSame([70.0, 43.0, 42.0], [$motor->box->size(0), $motor->box->size(1), $motor->box->size(2)]);
        self::assertSame(8.0, $motor->box->low[2]);
        self::assertEqualsCanonicalizing(['x', 'y', 'z'], $motor->carried);
        self::assertSame(
            ['feet', 'feet#2', 'feet#3'],
            array_values(
                array_filter(array_keys($layout->bodies), static fn ($k): bool => str_starts_with((string) $k, 'feet')),
            ),
        );
        self::assertSame(120.0, $layout->bodies['feet#3']->box->low[1]);
        self::assertSame([], $layout->tray(self::$build));
    }

    /**
     * @return array{array<string, mixed>, array<string, mixed>}
     */
    private static function feet(): array
    {
        [$part, $need] = Examples::part('feet', 'printed_part', [
            'length' => '40 mm',
            'width' => '40 mm',
            'height' => '20 mm',
        ]);

        return [$part, ['quantity' => 3] + $need];
    }

    public function test_what_cannot_be_placed_says_why_and_what_has_no_place_waits_in_the_tray(): void
    {
        $layout = self::layout(
            [
                array_diff_key(Machines::box('half', [0, 0, 0], [10, 10, 10]), ['y' => 0]),
                ['size' => ['length' => '10 mm']] + Machines::box('flat', [0, 0, 0], [10, 10, 10]),
                Machines::box('a', [0, 0, 0], [10, 10, 10], ['x' => ['at' => 'after', 'of' => 'b']]),
                Machines::box('b', [0, 0, 0], [10, 10, 10], ['x' => ['at' => 'after', 'of' => 'a']]),
                Machines::box('far', [0, 0, 0], [10, 10, 10], ['x' => ['at' => 'high']]),
                Machines::box('on-flat', [0, 0, 0], [10, 10, 10], ['on' => 'flat']),
                [
                    'ref' => 'foot',
                    'need' => 'feet',
                    'x' => ['at' => 'low'],
                    'y' => ['at' => 'low'],
                    'z' => ['at' => 'low'],
                ],
            ],
            [],
            [self::feet()],
        );
        self::assertSame('nobody says where it is along y', $layout->waiting['half']);
        self::assertSame('its width and height are not known', $layout->waiting['flat']);
        self::assertStringContainsString('goes round in a circle: a, b', $layout->waiting['a']);
        self::assertStringContainsString('outline of the machine is not known', $layout->waiting['far']);
        self::assertStringContainsString('what it stands on has no place: flat', $layout->waiting['on-flat']);
        self::assertSame(['foot'], array_keys($layout->bodies));
        self::assertSame([2], array_column($layout->tray(self::$build), 'pieces'));
        $tray = (new Picture(Machines::survey(self::$build)))->toArray()['tray'];
        self::assertSame([['Nothing meets', 'Within its outline']], array_column($tray, 'checks'));
    }

    /** 600 × 400 × 300 mm on a bench of 1.2 × 0.75 m, which lies along it whichever side is named its length. */
    public function test_bench_door_and_room_stand_about_the_middle_of_the_machine(): void
    {
        $around = static function (string $length, string $width, array $site): array {
            $outline = ['length' => $length, 'width' => $width, 'height' => '300 mm', 'evidence' => 'measured'];
            $build = Machines::build([], ['brief' => ['outline' => $outline], 'site' => $site]);

            return array_map(
                static fn (Box $b): array => [$b->low, $b->high],
                Surroundings::of(Machines::survey($build)),
            );
        };
        $site = [
            'bench' => ['length' => '750 mm', 'width' => '1.2 m'],
            'door' => ['width' => '760 mm', 'height' => '1980 mm'],
            'service' => '500 mm',
        ];
        self::assertEquals(
            [
                'bench' => [[-300, -175, 0], [900, 575, 0]],
                'service' => [[-500, -500, 0], [1100, 900, 300]],
                'door' => [[-80, 400, 0], [680, 400, 1980]],
            ],
            $around('600 mm', '400 mm', $site),
        );
        self::assertEquals([[-175, -300, 0], [575, 900, 0]], $around('400 mm', '600 mm', $site)['bench']);
        self::assertSame([], $around('600 mm', '400 mm', ['door' => ['width' => '760 mm']]));
    }

    /**
     * @return iterable<string, array{array<string, mixed>, string, string}>
     */
    public static function slips(): iterable
    {
        $box = Machines::box('a', [0, 0, 0], [10, 10, 10]);
        yield 'two things at once' => [['zone' => 'z'] + $box, '/places/0', 'one thing'];
        yield 'itself' => [['on' => 'a'] + $box, '/places/0/on', 'by itself'];
        yield 'a row without a distance' => [['row' => 'x'] + $box, '/places/0', 'row'];
        yield 'no such place' => [['on' => 'nowhere'] + $box, '/places/0/on', 'nowhere'];
        yield 'no such axis' => [['moves' => ['w']] + $box, '/places/0/moves/0', 'w'];
        yield 'no size of anything' => [
            ['size' => ['length' => '0 mm']] + $box,
            '/places/0/size/length',
            'can be taken',
        ];
        yield 'another kind of size' => [['free' => '3 V'] + $box, '/places/0/free', 'length'];
    }

    /**
     * @param  array<string, mixed>  $place
     */
    #[DataProvider('slips')]
    public function test_a_slip_is_named_at_its_field(array $place, string $pointer, string $reason): void
    {
        try {
            Machines::build([$place]);
            self::fail('It was read.');
        } catch (CannotReadBuildFile $e) {
            self::assertStringStartsWith($pointer, $e->pointer);
            self::assertStringContainsString($reason, $e->reason);
        }
    }

    public function test_a_file_with_places_reads_back_as_it_was(): void
    {
        $build = Machines::build([
            Machines::box(
                'a',
                [0, 0, 0],
                [10, 10, 10],
                [
                    'moves' => ['x'],
                    'free' => '5 mm',
                    'reach' => [['side' => 'front', 'depth' => '80 mm', 'for' => 'key']],
                    'duct' => 'signal',
                    'meets' => ['b'],
                    'preference' => true,
                    'evidence' => 'measured',
                    'turned' => 'hlw',
                    'row' => 'z',
                    'pitch' => '12 mm',
                    'spans' => ['y'],
                ],
            ),
            Machines::box(
                'b',
                [0, 0, 0],
                [10, 10, 10],
                ['on' => 'a', 'x' => ['at' => 'after', 'of' => 'a', 'by' => '-2 mm']],
            ),
        ]);
        self::assertEquals($build, BuildFile::read(BuildFile::write($build)));
    }

    /** What was measured on one machine is decided for the next of its kind; what was assumed there is no better here. */
    public function test_the_next_of_its_kind_begins_with_the_places_and_not_with_what_was_measured_of_them(): void
    {
        $next = Template::of(
            Machines::build([
                Machines::box('a', [0, 0, 0], [10, 10, 10], ['evidence' => 'measured']),
                Machines::box('b', [20, 0, 0], [10, 10, 10], ['evidence' => 'assumed']),
            ]),
            'Next',
        );
        self::assertSame([null, Evidence::Assumed], [$next->places['a']->evidence, $next->places['b']->evidence]);
    }
}
