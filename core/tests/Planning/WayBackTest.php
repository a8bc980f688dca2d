<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Planning;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Machine\Build;
use Magpie\Core\Planning\Derivation;
use Magpie\Core\Planning\LookAhead;
use Magpie\Core\Planning\OpenItems;
use Magpie\Core\Planning\WayBack;
use PHPUnit\Framework\TestCase;

/** What comes off to reach a part, and what of a build is not as it is meant to stay. */
final class WayBackTest extends TestCase
{
    /**
     * @return array<string, mixed>
     */
    private static function data(string $name): array
    {
        return BuildFile::data(BuildFile::read((string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json")));
    }

    /**
     * @return list<string>
     */
    private static function off(Build $build, string $need): array
    {
        return array_column((new WayBack($build, $need))->toArray()['off'], 'key');
    }

    public function test_covers_come_off_first_then_leads_then_the_part_and_no_more(): void
    {
        $build = BuildFile::build(self::data('dunlin'));
        $off = self::off($build, 'bed');
        $groups = [array_slice($off, 0, 2), array_slice($off, 2, 3), array_slice($off, 5)];
        foreach ($groups as $i => $group) {
            sort($groups[$i]);
        }
        self::assertSame(
            [['fit/panel-door', 'fit/panel-side'], ['lead/W24', 'lead/W31', 'lead/W4'], ['fit/bed']],
            $groups,
            'W24 is of the thermistor that sits in it.',
        );
        $way = (new WayBack($build, 'bed'))->toArray();
        self::assertContains(
            'earth bond, the worst of them: 0 Ω ± 0.1 Ω',
            $way['again'],
            'A lead of the earth was undone.',
        );
        self::assertContains('thermistor.th-bed.table: 100k, B 3950', $way['again']);
        self::assertContains('mains', array_merge(...array_column($way['off'], 'cautions')));
        self::assertEqualsWithDelta($way['hours_on'] / 2, $way['hours_off'], 0.011);
        self::assertNotContains(
            'earth bond, the worst of them: 0 Ω ± 0.1 Ω',
            (new WayBack($build, 'board'))->toArray()['again'],
        );
    }

    public function test_a_cover_that_closes_another_box_stays_on_and_what_is_joined_to_it_comes_off(): void
    {
        $linnet = BuildFile::build(self::data('linnet'));
        self::assertContains('join/cb', self::off($linnet, 'drv-x'), 'The cover of the cabinet it stands in.');
        self::assertNotContains('join/cb', self::off($linnet, 'rail-x'), 'It stands in no box.');
        self::assertSame(
            ['join/rx'],
            array_values(
                array_filter(self::off($linnet, 'rail-x'), static fn (string $k): bool => str_starts_with($k, 'join/')),
            ),
        );
        $way = (new WayBack($linnet, 'rail-x'))->toArray();
        self::assertSame(['X, across: guides parallel over the travel: 0 mm ± 0.05 mm'], $way['again']);
    }

    public function test_nothing_comes_off_before_what_was_put_on_after_it(): void
    {
        for ($seed = 1; $seed <= 120; $seed++) {
            $build = Machines::random($seed);
            foreach (array_slice(array_keys($build->needs), 0, 6) as $need) {
                $way = new WayBack($build, (string) $need);
                $at = array_flip(array_map(static fn ($d): string => $d->key, $way->off));
                foreach ($way->off as $i => $step) {
                    foreach ($step->after as $before) {
                        self::assertTrue(! isset($at[$before]) || $at[$before] > $i, "{$seed} {$need}");
                    }
                }
            }
        }
    }

    public function test_open_items_go_by_themselves_when_what_releases_them_is_there(): void
    {
        $data = self::data('dunlin');
        $kinds = static fn (array $d): array => array_count_values(
            array_column(OpenItems::of(BuildFile::build($d)), 'kind'),
        );
        $before = $kinds($data);
        self::assertSame(2, $before['not proven'], 'Rails out of parallel, and a rail that was sent back.');
        self::assertSame('danger', OpenItems::of(BuildFile::build($data))[0]['kind'], 'What can hurt comes first.');
        self::assertSame(
            [1, 2, 1, 1, 2],
            [$before['danger'], $before['fault'], $before['temporary'], $before['thin'], $before['claimed']],
        );

        $change = static function (array $d, string $section, string $ref, array $to): array {
            foreach ($d[$section] as $i => $entry) {
                $d[$section][$i] = $entry['ref'] === $ref ? $to + $entry : $entry;
            }

            return $d;
        };
        // Done without its reading, for a reason: open until the reading is there.
        $waived = $change($data, 'steps', 'd6', ['state' => 'done', 'waived' => 'a dry fit']);
        self::assertSame(1, $kinds($waived)['waived']);
        $measured = $change($waived, 'steps', 'd6', [
            'check' => ['measured' => '110 Hz'] + array_column($data['steps'], null, 'ref')['d6']['check'],
        ]);
        $here = $change($measured, 'purchases', 'B7', ['received' => 8, 'accepted' => 8]);
        self::assertSame(1, $kinds($here)['waived'], 'Its sheet is not read, and a guess it shows is not settled.');
        $told = $change($change($here, 'documents', 'belts', ['read' => '2026-11-20']), 'steps', 'd5', [
            'guesses' => [['what' => 'arrow', 'settled_by' => 'd6', 'settled' => 'right']],
        ]);
        self::assertArrayNotHasKey('waived', $kinds($told), 'Read within its limits, all of it here and told.');
        self::assertArrayNotHasKey('guessed', $kinds($told));
        self::assertSame(1, $kinds($change($data, 'steps', 'd6', ['state' => 'skipped']))['left out']);
        self::assertSame(1, $kinds($change($data, 'purchases', 'B7', ['claim' => 'settled']))['short']);
        $half = $data['leads'][0]['ends'];
        $half[0]['made'] = true;
        self::assertSame(1, $kinds($change($data, 'leads', $data['leads'][0]['ref'], ['ends' => $half]))['half made']);
    }

    public function test_a_step_closes_in_what_is_reached_only_by_undoing_it_and_nothing_that_comes_after(): void
    {
        $build = BuildFile::build(self::data('dunlin'));
        $ahead = (new LookAhead($build))->toArray();
        $closing = array_column($ahead['closing'], null, 'key');
        $within = static fn (string $key): array => array_column($closing[$key]['within'] ?? [], 'ref');

        self::assertContains('bed', $within('fit/panel-door'), 'The door is in the way of the bed.');
        self::assertContains('W31', $within('fit/panel-door'), 'A lead that ends on it.');
        $door = array_column($closing['fit/panel-door']['within'], 'is_in', 'ref');
        self::assertSame(
            [true, false],
            [$door['bed'], $door['board']],
            'By steps typed by hand: d8 is done, d10 open.',
        );
        foreach ($ahead['closing'] as $one) {
            self::assertStringNotContainsString('lead/', $one['key'], 'A lead closes nothing in.');
            foreach ($one['within'] as $part) {
                if ($part['section'] === 'needs') {
                    self::assertContains(
                        $one['key'],
                        self::off($build, $part['ref']),
                        "{$one['key']} over {$part['ref']}",
                    );
                    $way = (new WayBack($build, $part['ref']))->toArray();
                    self::assertEqualsWithDelta($way['hours_off'] + $way['hours_on'], $part['hours'], 0.02);
                    self::assertEqualsWithDelta($part['hours'] / $ahead['hours'], $part['share'], 0.01);
                }
            }
        }
        self::assertNotContains('panel-door', $within('fit/panel-door'));
    }

    public function test_slot_nuts_lie_in_before_the_ends_are_closed_and_a_missed_one_opens_the_corner_again(): void
    {
        $file = static function (string $corner): Build {
            $part = static fn (string $ref, string $family, array $specs = [], int $quantity = 1): array => [
                ['ref' => $ref, 'family' => $family, 'name' => $ref, 'specs' => Examples::sheet($specs)],
                [
                    'ref' => $ref,
                    'role' => ucfirst($ref),
                    'family' => $family,
                    'candidates' => [$ref],
                    'choice' => $ref,
                    'quantity' => $quantity,
                ],
            ];

            return BuildFile::build(
                Examples::file(
                    [
                        $part('beam', 'extrusion'),
                        $part('rail', 'linear_rail'),
                        $part('foot', 'plate'),
                        $part('screw', 'screw', ['thread' => 'M3', 'length' => '8 mm'], 7),
                        $part('nut', 'nut', ['thread' => 'M3', 'kind' => 'slot nut'], 7),
                    ],
                    [
                        'magpie' => BuildFile::VERSION,
                        'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                        'mates' => [
                            [
                                'ref' => 'rx',
                                'kind' => 'rail',
                                'between' => ['rail', 'beam'],
                                'screws' => [['screw' => 'screw', 'count' => 7, 'into' => 'slot_nut']],
                            ],
                            ['ref' => 'fc', 'kind' => $corner, 'between' => ['beam', 'foot']],
                        ],
                    ],
                ),
            );
        };
        $build = $file('frame corner');
        $order = array_map(static fn ($d): string => $d->key, (new Derivation($build))->steps);
        self::assertLessThan(array_search('join/fc', $order, true), array_search('nuts/rx/0', $order, true));
        self::assertContains('join/fc', self::off($build, 'nut'), 'To lay one in afterwards the corner is opened.');
        $closing = array_column((new LookAhead($build))->toArray()['closing'], null, 'key');
        self::assertContains('nut', array_column($closing['join/fc']['within'], 'ref'));

        $flat = array_map(static fn ($d): string => $d->key, (new Derivation($file('foot screwed below')))->steps);
        self::assertNotContains('nuts/rx/0', $flat, 'Nothing closes an end.');
    }
}
