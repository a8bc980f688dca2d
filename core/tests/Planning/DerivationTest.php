<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Planning;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Machine\Build;
use Magpie\Core\Planning\Crosswise;
use Magpie\Core\Planning\Derivation;
use Magpie\Core\Planning\StepDraft;
use Magpie\Core\Quantity\Quantity;
use PHPUnit\Framework\TestCase;

/** Steps that follow from the model: nothing is missing, nothing doubled, nothing closed in before it is in. */
final class DerivationTest extends TestCase
{
    private static function demo(string $name): Build
    {
        return BuildFile::read((string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json"));
    }

    /**
     * @return array<string, int> place of each step in the order, by key
     */
    private static function places(Derivation $derived): array
    {
        return array_flip(array_map(static fn (StepDraft $d): string => $d->key, $derived->steps));
    }

    /**
     * @return \Generator<string, array{Build}>
     */
    private static function machines(): \Generator
    {
        yield 'dunlin' => [self::demo('dunlin')];
        yield 'linnet' => [self::demo('linnet')];
        for ($seed = 1; $seed <= 500; $seed++) {
            yield "machine {$seed}" => [Machines::random($seed)];
        }
    }

    public function test_every_piece_and_lead_is_used_once_and_every_step_comes_after_what_it_waits_for(): void
    {
        foreach (self::machines() as $name => [$build]) {
            $derived = new Derivation($build);
            $places = self::places($derived);
            self::assertSame([], $derived->circle, $name);
            self::assertCount(count($derived->steps), $places, "{$name}: a key of its own for each");
            $used = $leads = [];
            foreach ($derived->steps as $i => $step) {
                foreach ($step->after as $before) {
                    self::assertLessThan($i, $places[$before], "{$name}: {$step->key} after {$before}");
                }
                foreach ($step->uses as $need => $pieces) {
                    self::assertGreaterThan(0, $pieces);
                    $used[$need] = ($used[$need] ?? 0) + $pieces;
                }
                $leads = [...$leads, ...$step->leads];
            }
            foreach ($derived->unplaced as $row) {
                $used[$row['need']] = ($used[$row['need']] ?? 0) + $row['pieces'];
            }
            foreach ($build->needs as $need) {
                if (isset($used[$need->ref])) {
                    self::assertSame($need->quantity, $used[$need->ref], "{$name}: {$need->ref}");
                } else {
                    self::assertContains(
                        $build->fitted($need->ref)?->part->family->key(),
                        ['filament', 'tool', 'consumable', 'cutter', 'compressor', 'wire', 'contact_housing'],
                        "{$name}: {$need->ref} is nowhere",
                    );
                }
            }
            sort($leads);
            $all = array_map(strval(...), array_keys($build->leads));
            sort($all);
            self::assertSame($all, $leads, $name);
        }
    }

    public function test_mains_go_last_earth_first_of_them_and_covers_after_the_test_of_the_earth(): void
    {
        foreach (self::machines() as $name => [$build]) {
            $places = self::places(new Derivation($build));
            if (! isset($places['lead/W-mains'])) {
                continue;
            }
            foreach ($places as $key => $place) {
                if (str_starts_with($key, 'lead/W-fan')) {
                    self::assertLessThan($places['lead/W-earth'], $place, $name);
                }
            }
            self::assertLessThan($places['lead/W-mains'], $places['lead/W-earth'], $name);
            self::assertLessThan($places['test/earth'], $places['lead/W-mains'], $name);
            foreach ((new Derivation($build))->steps as $i => $step) {
                if ($step->section() === 'Covers') {
                    self::assertGreaterThan($places['test/earth'], $i, "{$name}: {$step->key}");
                }
            }
        }
    }

    public function test_inserts_are_in_before_their_joint_and_a_short_bag_is_told(): void
    {
        $seen = 0;
        for ($seed = 1; $seed <= 200; $seed++) {
            $build = Machines::random($seed);
            $derived = new Derivation($build);
            $places = self::places($derived);
            foreach ($places as $key => $place) {
                if (str_starts_with($key, 'inserts/')) {
                    self::assertLessThan($places['join/'.explode('/', $key)[1]], $place);
                    $seen++;
                }
            }
            $wanted = 0;
            foreach ($build->mates as $mate) {
                foreach ($mate->screws as $stack) {
                    $wanted += $stack->count;
                }
            }
            self::assertSame(
                max(0, $wanted - $build->needs['screw']->quantity),
                $derived->short['screw'] ?? 0,
                "{$seed}",
            );
        }
        self::assertGreaterThan(50, $seen);
    }

    public function test_guides_are_aligned_before_what_hangs_on_them_and_a_single_rail_is_not(): void
    {
        $places = self::places(new Derivation(self::demo('linnet')));

        self::assertGreaterThan($places['join/rx'], $places['align/x']);
        self::assertLessThan($places['join/mx'], $places['align/x']);
        self::assertArrayNotHasKey(
            'align/x',
            self::places(new Derivation(self::demo('dunlin'))),
            'One X rail has no other.',
        );
    }

    public function test_the_same_model_gives_the_same_steps_and_a_lead_more_or_less_is_one_step_more_or_less(): void
    {
        $data = BuildFile::data(self::demo('linnet'));
        $keys = static fn (array $d): array => array_map(
            static fn (StepDraft $s): string => $s->key,
            (new Derivation(BuildFile::build($d)))->steps,
        );
        $before = $keys($data);
        self::assertSame($before, $keys($data));
        $without = $data;
        $without['leads'] = array_values(
            array_filter($data['leads'], static fn (array $l): bool => $l['ref'] !== 'W13'),
        );
        self::assertSame(['lead/W13'], array_values(array_diff($before, $keys($without))));
        self::assertSame([], array_diff($keys($without), $before));
    }

    public function test_screws_are_tightened_crosswise_as_published(): void
    {
        // ASME PCC-1, from memory: 4, 8, 12 and 16 bolts.
        self::assertSame([1, 3, 2, 4], Crosswise::order(4));
        self::assertSame([1, 5, 3, 7, 2, 6, 4, 8], Crosswise::order(8));
        self::assertSame([1, 7, 4, 10, 2, 8, 5, 11, 3, 9, 6, 12], Crosswise::order(12));
        self::assertSame([1, 9, 5, 13, 3, 11, 7, 15, 2, 10, 6, 14, 4, 12, 8, 16], Crosswise::order(16));
        for ($count = 1; $count <= 40; $count++) {
            $order = Crosswise::order($count);
            sort($order);
            self::assertSame(range(1, $count), $order, "Each of {$count} once.");
        }
        self::assertSame(
            'crosswise, 1-3-2-4, at 0.9, then 2.1, then 3 N m, then once round',
            Crosswise::says(4, Quantity::of(3, 'N m')),
        );
        self::assertSame('at 3 N m', Crosswise::says(2, Quantity::of(3, 'N m')));
    }

    public function test_sections_say_their_share_of_the_whole_and_mains_make_one_hard(): void
    {
        $sections = (new Derivation(BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/linnet.json'))))->sections();
        self::assertEqualsWithDelta(1.0, array_sum(array_column($sections, 'share')), 0.005);
        $wiring = array_column($sections, null, 'section')['Wiring'];
        self::assertSame('hard', $wiring['difficulty']);
        self::assertContains('mains, for somebody practised', $wiring['why']);
    }
}
