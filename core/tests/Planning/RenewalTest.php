<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Planning;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Planning\Derivation;
use Magpie\Core\Planning\Renewal;
use PHPUnit\Framework\TestCase;

/** Steps taken from the model, and the model changed after that. */
final class RenewalTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $data
     * @return array{rows: array<string, array<string, mixed>>, gone: list<array<string, mixed>>}
     */
    private static function renewal(array $data): array
    {
        $build = BuildFile::build($data);
        $found = (new Renewal($build, new Derivation($build)))->toArray();

        return ['rows' => array_column($found['rows'], null, 'key'), 'gone' => $found['gone']];
    }

    /**
     * Linnet with all its steps taken as they follow from it.
     *
     * @return array<string, mixed>
     */
    private static function taken(): array
    {
        $data = BuildFile::data(BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/linnet.json')));
        $data['steps'] = [];

        return self::followed($data);
    }

    /**
     * What the interface writes when steps are taken and brought up to date, the builder's own kept where it is asked.
     *
     * @param  array<string, mixed>  $data
     * @return array<string, mixed>
     */
    private static function followed(array $data): array
    {
        $build = BuildFile::build($data);
        $derived = new Derivation($build);
        $steps = array_column($data['steps'], null, 'derived');
        $drafts = array_column($derived->toArray()['steps'], null, 'key');
        foreach ((new Renewal($build, $derived))->toArray()['rows'] as $i => $row) {
            $base = json_decode($row['base'], true);
            $step = $steps[$row['key']] ?? null;
            if ($step === null) {
                $step =
                    ['ref' => "m{$i}", 'section' => $drafts[$row['key']]['section'], 'derived' => $row['key']] +
                    array_filter($base, static fn (mixed $v): bool => $v !== null);
            }
            foreach ($row['fields'] as $field) {
                if ($field['choice'] === 'model') {
                    $step[$field['field']] = $field['model'];
                }
            }
            $steps[$row['key']] = array_filter(
                ['base' => $row['base']] + $step,
                static fn (mixed $v): bool => $v !== null,
            );
        }
        $data['steps'] = array_values($steps);

        return $data;
    }

    /**
     * @param  array<string, mixed>  $data
     * @param  array<string, mixed>  $to
     * @return array<string, mixed>
     */
    private static function with(array $data, string $section, string $ref, array $to, string $by = 'ref'): array
    {
        foreach ($data[$section] as $i => $entry) {
            $data[$section][$i] = ($entry[$by] ?? null) === $ref ? $to + $entry : $entry;
        }

        return $data;
    }

    public function test_taken_twice_nothing_changes(): void
    {
        $data = self::taken();
        $found = self::renewal($data);
        self::assertGreaterThan(60, count($found['rows']));
        self::assertSame(['same'], array_values(array_unique(array_column($found['rows'], 'state'))));
        self::assertSame([], $found['gone']);
        self::assertEquals($data, self::followed($data));
    }

    public function test_a_change_of_the_model_is_followed_and_taking_it_back_brings_the_steps_back(): void
    {
        $data = self::taken();
        $role = static fn (array $d, string $called): array => self::with($d, 'needs', 'board', ['role' => $called]);
        $was = array_column($data['needs'], 'role', 'ref')['board'];
        $renamed = $role($data, 'Motion board');
        $row = self::renewal($renamed)['rows']['fit/board'];
        self::assertSame(['changed', 'model'], [$row['state'], $row['fields'][0]['choice']]);
        $followed = self::followed($renamed);
        self::assertSame('Fit Motion board', array_column($followed['steps'], 'title', 'derived')['fit/board']);
        $back = $role($followed, $was);
        self::assertEquals($data['steps'], self::followed($back)['steps']);
    }

    public function test_what_the_builder_changed_stays_and_what_both_changed_is_asked(): void
    {
        $own = self::with(self::taken(), 'steps', 'fit/board', ['title' => 'Fit the board on its posts'], 'derived');
        $row = self::renewal($own)['rows']['fit/board'];
        self::assertSame(['same', 'own'], [$row['state'], $row['fields'][0]['choice']]);
        self::assertEquals($own, self::followed($own));

        $both = self::with($own, 'needs', 'board', ['role' => 'Motion board']);
        $row = self::renewal($both)['rows']['fit/board'];
        self::assertSame(['disputed', 'ask'], [$row['state'], $row['fields'][0]['choice']]);
        self::assertSame('Fit the board on its posts', $row['fields'][0]['own']);
        self::assertSame('Fit Motion board', $row['fields'][0]['model']);
        // Kept, it is not asked again until one of both changes.
        self::assertSame('same', self::renewal(self::followed($both))['rows']['fit/board']['state']);
        // Taken before anything was kept of it: nobody knows whose change it is.
        $old = self::with($own, 'steps', 'fit/board', ['base' => null], 'derived');
        $old['steps'] = array_map(
            static fn (array $s): array => array_filter($s, static fn (mixed $v): bool => $v !== null),
            $old['steps'],
        );
        self::assertSame('disputed', self::renewal($old)['rows']['fit/board']['state']);
    }

    public function test_what_is_done_stays_and_is_named_where_pieces_or_limits_are_wanted_otherwise_and_not_for_words(): void
    {
        $data = self::taken();
        $key = array_key_first(
            array_filter(
                self::renewal($data)['rows'],
                static fn (array $r, string $k): bool => str_starts_with($k, 'fit/fan'),
                ARRAY_FILTER_USE_BOTH,
            ),
        );
        self::assertIsString($key);
        $need = substr($key, 4);
        $done = self::with($data, 'steps', $key, ['state' => 'done'], 'derived');
        self::assertSame(
            'same',
            self::renewal(self::with($done, 'needs', $need, ['role' => 'Another name']))['rows'][$key]['state'],
        );
        $two = self::with($done, 'needs', $need, ['quantity' => 7]);
        self::assertSame('void', self::renewal($two)['rows'][$key]['state']);

        $gone = $done;
        $gone['needs'] = array_map(
            static fn (array $n): array => $n['ref'] === $need ? array_diff_key($n, ['choice' => 1]) : $n,
            $gone['needs'],
        );
        $found = self::renewal($gone)['gone'];
        self::assertContains(true, array_column($found, 'is_done'));
    }

    public function test_steps_merged_into_one_stay_merged_and_are_not_taken_again(): void
    {
        $data = self::taken();
        [$one, $other] = array_slice(array_values(preg_grep('~^lead/~', array_column($data['steps'], 'derived'))), 0, 2);
        $data['steps'] = array_values(
            array_filter($data['steps'], static fn (array $s): bool => $s['derived'] !== $other),
        );
        $data = self::with($data, 'steps', $one, ['also' => [$other], 'title' => 'Both leads'], 'derived');
        self::assertSame('same', self::renewal($data)['rows'][$one]['state']);
        self::assertSame('merged', self::renewal($data)['rows'][$other]['state']);
        self::assertSame([], self::renewal($data)['gone']);
    }
}
