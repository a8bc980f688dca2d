<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Planning;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Machine\Build;
use Magpie\Core\Money\ToOrder;
use Magpie\Core\Planning\Allotment;
use Magpie\Core\Planning\BuildDates;
use Magpie\Core\Planning\PrintQueue;
use PHPUnit\Framework\TestCase;

/** What is printed, on which printer, when, and from how many reels. */
final class PrintQueueTest extends TestCase
{
    private const TODAY = '2026-03-02';

    /**
     * A corner of 20 cm³, 45 % wall, 40 % infill: 14.3 g of ASA and, at 5 mm³/s, 0.745 h.
     *
     * @param  array<string, mixed>  $more
     * @param  array<string, mixed>  $specs
     */
    private static function build(array $more = [], array $specs = [], int $corners = 4): Build
    {
        $part = static fn (string $ref, string $family, array $values): array => [
            'ref' => $ref,
            'family' => $family,
            'name' => ucfirst($ref),
            'specs' => $values,
        ];
        $need = static fn (string $ref, string $family, int $quantity): array => [
            'ref' => $ref,
            'role' => $ref,
            'family' => $family,
            'quantity' => $quantity,
            'candidates' => [$ref],
            'choice' => $ref,
        ];

        return BuildFile::build(
            $more + [
                'magpie' => BuildFile::VERSION,
                'build' => ['name' => 'Prints', 'kind' => 'printer', 'currency' => 'GBP', 'weekly' => '7 h'],
                'parts' => [
                    $part(
                        'corner',
                        'printed_part',
                        $specs + [
                            'material' => 'ASA',
                            'infill' => '40 %',
                            'volume' => '20 cm³',
                            'wall_share' => '45 %',
                            'length' => '60 mm',
                            'width' => '40 mm',
                            'height' => '30 mm',
                            'supports' => 'none',
                        ],
                    ),
                    $part('reel', 'filament', ['material' => 'ASA', 'mass' => '1 kg']),
                ],
                'needs' => [$need('corner', 'printed_part', $corners), ['owned' => 1] + $need('reel', 'filament', 1)],
                'printers' => [self::printer('bench')],
            ],
        );
    }

    /**
     * @param  array<string, mixed>  $more
     * @return array<string, mixed>
     */
    private static function printer(string $ref, array $more = []): array
    {
        return array_filter(
            $more + [
                'ref' => $ref,
                'name' => ucfirst($ref),
                'length' => '220 mm',
                'width' => '220 mm',
                'height' => '250 mm',
                'plastics' => ['PLA', 'ASA'],
                'flow' => '5 mm³/s',
                'daily' => '10 h',
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }

    /**
     * @param  array<string, mixed>  $more
     * @return array<string, mixed>
     */
    private static function batch(array $more): array
    {
        return $more + ['ref' => 'r1', 'part' => 'corner', 'printer' => 'bench', 'date' => '2026-03-01'];
    }

    public function test_grams_and_hours_come_of_the_recipe_and_the_flow_of_the_printer_worked_by_hand(): void
    {
        $queue = (new PrintQueue(self::build(), self::TODAY))->toArray();
        [$fit, $corners] = $queue['printers'][0]['jobs'];

        // 1.07 × 20 × (0.45 + 0.55 × 0.4) = 14.338 g; 13.4 cm³ at 5 mm³/s are 2,680 s.
        self::assertNull($fit['part'], 'A fit piece goes before the batch.');
        self::assertSame([4, 57.4, 2.98], [$corners['pieces'], $corners['grams'], $corners['hours']]);
        self::assertSame(1.0, $fit['hours'], 'Three quarters of an hour, and a quarter to change the reel.');
        self::assertSame([], $corners['assumed']);
        self::assertSame('2026-03-03', $queue['finish'], 'Four hours are done on the first of the ten-hour days.');
        self::assertSame(0, ToOrder::of(self::build())[0]->order(), 'What is printed is not ordered.');
    }

    public function test_a_share_of_wall_nobody_says_comes_of_surface_and_walls(): void
    {
        // A cube of 20 mm: 24 cm², 8 cm³; two walls of 0.5 mm are 2400 × 1 / 8000 = 30 %.
        $cube = [
            'volume' => '8 cm³',
            'wall_share' => null,
            'area' => '24 cm²',
            'walls' => '2',
            'line_width' => '0.5 mm',
        ];
        $build = self::build(
            [],
            array_filter($cube + ['infill' => '20 %'], static fn ($v): bool => $v !== null) + ['material' => 'ASA'],
        );
        $build = BuildFile::build(self::without(BuildFile::data($build), 'wall_share'));
        $job = (new PrintQueue($build, self::TODAY))->jobs[1];

        self::assertEqualsWithDelta(4 * 1.07 * 8 * (0.3 + 0.7 * 0.2), $job->grams, 1e-9);
    }

    /**
     * @param  array<string, mixed>  $data
     * @return array<string, mixed>
     */
    private static function without(array $data, string $spec): array
    {
        unset($data['parts'][0]['specs'][$spec]);

        return $data;
    }

    public function test_what_came_off_before_puts_time_and_mass_right_and_need_not_be_printed_again(): void
    {
        $runs = [
            self::batch(['ref' => 'fit', 'good' => 1, 'fit' => true]),
            // Two took 2.2 h where 1.489 h were planned, and one weighs a tenth more than its recipe.
            self::batch(['good' => 2, 'time' => '2.2 h', 'mass' => '15.77 g']),
        ];
        $queue = (new PrintQueue(self::build(['prints' => $runs], corners: 5), self::TODAY))->toArray();
        $printer = $queue['printers'][0];

        self::assertCount(1, $printer['jobs'], 'The fit piece was good, so there is no other.');
        self::assertSame(3, $printer['jobs'][0]['pieces'], 'Two are there; the fit piece is not built with.');
        self::assertEqualsWithDelta(2.2 / ((2 * 13400) / 5 / 3600), $printer['pace'], 0.001);
        self::assertEqualsWithDelta(15.77 / 14.338, $printer['weighs'], 0.001);
        self::assertEqualsWithDelta(0.25 + 3 * 1.1, $printer['jobs'][0]['hours'], 0.01);
        self::assertSame(['as recipe', 'none'], array_column($queue['runs'], 'state'));
    }

    public function test_failed_pieces_are_printed_again_and_have_used_plastic(): void
    {
        $runs = [self::batch(['good' => 1, 'failed' => 3, 'time' => '0.5 h'])];
        $queue = (new PrintQueue(self::build(['prints' => $runs]), self::TODAY))->toArray();

        self::assertSame(3, $queue['pieces']);
        self::assertSame(57.4, $queue['reels'][0]['used']);
        self::assertSame(1.0, $queue['printers'][0]['pace'], 'A print that failed says nothing of how long one takes.');
    }

    public function test_a_thin_batch_corrects_nothing(): void
    {
        $queue = (new PrintQueue(
            self::build(['prints' => [self::batch(['good' => 1, 'mass' => '7.1 g'])]]),
            self::TODAY,
        ))->toArray();

        self::assertSame('thin', $queue['runs'][0]['state']);
        self::assertSame(1.0, $queue['printers'][0]['weighs']);
    }

    public function test_what_no_printer_can_be_given_waits_and_says_why(): void
    {
        $why = static fn (Build $build): array => array_column((new PrintQueue($build, self::TODAY))->waiting, 'why');

        self::assertSame(['no printer is noted that prints it'], $why(self::build(['printers' => []])));
        self::assertSame(
            ['Bench does not print ASA; it does not stand in Small'],
            $why(
                self::build(
                    [
                        'printers' => [
                            self::printer('bench', ['plastics' => ['PLA']]),
                            self::printer('small', ['length' => '100 mm', 'width' => '100 mm']),
                        ],
                    ],
                    ['length' => '150 mm'],
                ),
            ),
        );
        self::assertSame(
            ['its print time is not said, nor the flow of Bench'],
            $why(self::build(['printers' => [self::printer('bench', ['flow' => null])]])),
        );
        self::assertNull((new PrintQueue(self::build(['printers' => []]), self::TODAY))->toArray()['finish']);
    }

    public function test_a_part_may_be_turned_on_the_plate_but_not_tipped(): void
    {
        $slim = [self::printer('slim', ['length' => '50 mm', 'width' => '70 mm', 'height' => '30 mm'])];

        self::assertSame([], (new PrintQueue(self::build(['printers' => $slim]), self::TODAY))->waiting);
        self::assertCount(
            1,
            (new PrintQueue(self::build(['printers' => $slim], ['height' => '31 mm']), self::TODAY))->waiting,
        );
    }

    public function test_what_only_the_finished_machine_prints_is_kept_apart(): void
    {
        $printers = [self::printer('bench', ['plastics' => ['PLA']]), self::printer('itself', ['finished' => true])];
        $queue = new PrintQueue(self::build(['printers' => $printers]), self::TODAY);

        self::assertSame(['corner'], array_column($queue->apart, 'part'));
        self::assertSame([], $queue->waiting);
        self::assertSame([], $queue->jobs);
    }

    public function test_what_is_taken_for_granted_is_said(): void
    {
        $bare = [['ref' => 'bench', 'name' => 'Bench', 'flow' => '5 mm³/s']];
        $job = (new PrintQueue(self::build(['printers' => $bare]), self::TODAY))->toArray()['printers'][0];

        self::assertContains('that it fits, since the size of Bench is not said', $job['jobs'][1]['assumed']);
        self::assertContains('that Bench prints ASA', $job['jobs'][1]['assumed']);
        self::assertSame(['8 hours a day, since nobody says'], $job['assumed']);
    }

    public function test_reels_are_counted_by_what_is_on_them_and_what_was_used(): void
    {
        // 80 corners: 1147 g, a tenth more 1261.7 g, on one reel of a kilogram.
        $reels = (new PrintQueue(self::build(corners: 80), self::TODAY))->toArray()['reels'];
        self::assertSame(
            ['ASA', 1261.7, 1, 1],
            [$reels[0]['stuff'], $reels[0]['grams'], $reels[0]['there'], $reels[0]['more']],
        );

        $used = self::build(['prints' => [self::batch(['good' => 40])]], corners: 80);
        self::assertSame(
            1,
            (new PrintQueue($used, self::TODAY))->toArray()['reels'][0]['more'],
            '573.5 g used, 630.9 g to come.',
        );
        self::assertSame(0, (new PrintQueue(self::build(corners: 60), self::TODAY))->toArray()['reels'][0]['more']);
    }

    public function test_parts_of_two_colours_take_two_reels_and_one_without_a_colour_makes_them_one(): void
    {
        $data = BuildFile::data(self::build(corners: 30));
        $data['parts'][0]['specs']['colour'] = 'Black';
        $data['parts'][1]['specs']['colour'] = 'black';
        $data['parts'][] =
            ['ref' => 'cap', 'name' => 'Cap', 'specs' => ['colour' => 'Grey'] + $data['parts'][0]['specs']] +
            $data['parts'][0];
        $data['needs'][] =
            ['ref' => 'cap', 'role' => 'cap', 'quantity' => 30, 'candidates' => ['cap'], 'choice' => 'cap'] +
            $data['needs'][0];
        $reels = static fn (array $d): array => array_column(
            (new PrintQueue(BuildFile::build($d), self::TODAY))->toArray()['reels'],
            'more',
            'stuff',
        );
        self::assertSame(['grey ASA' => 1, 'black ASA' => 0], $reels($data));

        unset($data['parts'][2]['specs']['colour']);
        self::assertSame(['ASA' => 0], $reels($data), '946 g, on one reel.');
    }

    public function test_two_printers_share_the_work_and_the_bound_is_below_it(): void
    {
        $two = ['printers' => [self::printer('bench'), self::printer('other', ['daily' => '20 h'])]];
        $queue = (new PrintQueue(self::build($two, corners: 60), self::TODAY))->toArray();

        self::assertCount(2, $queue['printers']);
        self::assertLessThanOrEqual($queue['days'], $queue['bound']);
        // 60 × 0.744 h over thirty hours a day.
        self::assertEqualsWithDelta(1.49, $queue['bound'], 0.01);
        self::assertLessThan(1.65, $queue['days'], 'With fit pieces and reels changed.');
    }

    public function test_giving_out_loses_nothing_and_is_never_below_its_bound(): void
    {
        mt_srand(5);
        for ($case = 0; $case < 300; $case++) {
            $machines = array_slice(['a' => 0.01, 'b' => 0.02, 'c' => 0.03], 0, mt_rand(1, 3));
            $kinds = $groups = [];
            for ($i = 0, $n = mt_rand(1, 7); $i < $n; $i++) {
                $able = array_rand($machines, mt_rand(1, count($machines)));
                $days = array_fill_keys((array) $able, 0.0);
                $kinds["k{$i}"] = [mt_rand(1, 4), array_map(static fn (): float => mt_rand(1, 300) / 100, $days)];
                $groups["k{$i}"] = ['red', 'blue'][mt_rand(0, 1)];
            }
            $allotment = new Allotment($kinds, $groups, $machines);
            foreach ($kinds as $kind => [$count]) {
                self::assertSame($count, array_sum(array_column($allotment->given, $kind)), "{$case} {$kind}");
            }
            foreach ($allotment->given as $machine => $pieces) {
                foreach (array_keys($pieces) as $kind) {
                    self::assertArrayHasKey($machine, $kinds[$kind][1], "{$case}");
                }
            }
            self::assertGreaterThanOrEqual($allotment->bound - 1e-9, $allotment->end());
        }
    }

    public function test_giving_out_is_near_the_best_there_is_where_all_ways_can_be_tried(): void
    {
        mt_srand(11);
        $worst = 1.0;
        for ($case = 0; $case < 60; $case++) {
            $kinds = [];
            for ($i = 0; $i < 7; $i++) {
                $kinds["k{$i}"] = [1, ['a' => mt_rand(20, 300) / 100, 'b' => mt_rand(20, 300) / 100]];
            }
            $best = INF;
            for ($mask = 0; $mask < 128; $mask++) {
                $ends = [0.0, 0.0];
                foreach (array_values($kinds) as $i => [, $days]) {
                    $to = ($mask >> $i) & 1;
                    $ends[$to] += $days[['a', 'b'][$to]];
                }
                $best = min($best, max($ends));
            }
            $allotment = new Allotment($kinds, array_fill_keys(array_keys($kinds), 'x'), ['a' => 0.0, 'b' => 0.0]);
            self::assertLessThanOrEqual($best + 1e-9, $allotment->bound);
            $worst = max($worst, $allotment->end() / $best);
        }
        self::assertLessThan(1.25, $worst);
    }

    public function test_a_step_waits_for_its_prints_and_the_prints_for_their_reel(): void
    {
        $data = BuildFile::data(self::build());
        $data['needs'][1]['owned'] = 0;
        $data['suppliers'] = [['ref' => 'shop', 'name' => 'Shop', 'currency' => 'GBP', 'lead_days' => 10]];
        $data['offers'] = [
            ['ref' => 'o', 'part' => 'reel', 'supplier' => 'shop', 'price' => '20.00', 'date' => '2026-03-01'],
        ];
        $data['steps'] = [
            [
                'ref' => 's',
                'position' => 1,
                'section' => 'Frame',
                'title' => 'Corners',
                'uses' => ['corner' => 4],
                'guide' => '1 h',
            ],
        ];
        $dates = new BuildDates(BuildFile::build($data), self::TODAY, samples: 200);
        $key = 'print/corner/bench';

        self::assertSame('2026-03-12', BuildDates::on(self::TODAY, 10.0));
        self::assertGreaterThanOrEqual(10.0, $dates->network->begins['print/fit-ASA/bench']);
        self::assertGreaterThan($dates->network->begins[$key], $dates->network->begins['step/s']);
        self::assertSame(0.0, $dates->network->slack($key));

        $data['needs'][1]['owned'] = 1;
        $there = new BuildDates(BuildFile::build($data), self::TODAY, samples: 200);
        self::assertLessThan(2.0, $there->network->begins['step/s'], 'The reel is in the drawer.');

        $bare = $data;
        [$bare['needs'], $bare['offers']] = [[$bare['needs'][0]], []];
        self::assertStringContainsString(
            'that there is ASA',
            implode((new BuildDates(BuildFile::build($bare), self::TODAY, samples: 200))->assumed[$key]),
        );
        $data['printers'] = [];
        $lost = new BuildDates(BuildFile::build($data), self::TODAY, samples: 200);
        self::assertGreaterThanOrEqual(
            14.0,
            $lost->network->begins['step/s'],
            'Nothing missing reads as done at once.',
        );
    }

    public function test_what_cannot_be_meant_is_refused_at_its_field(): void
    {
        $at = static function (array $more): string {
            try {
                self::build($more);
            } catch (CannotReadBuildFile $e) {
                return $e->pointer;
            }

            return '';
        };

        self::assertSame('/prints/0/part', $at(['prints' => [self::batch(['part' => 'reel', 'good' => 1])]]));
        self::assertSame('/prints/0/good', $at(['prints' => [self::batch([])]]));
        self::assertSame('/prints/0/printer', $at(['prints' => [self::batch(['printer' => 'gone', 'good' => 1])]]));
        self::assertSame('/printers/0/plastics', $at(['printers' => [self::printer('p', ['plastics' => ['wax']])]]));
        self::assertSame('/printers/0/daily', $at(['printers' => [self::printer('p', ['daily' => '25 h'])]]));
    }
}
