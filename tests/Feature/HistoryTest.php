<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Builds\Document;
use App\Builds\Path;
use App\Builds\Store;
use App\Models\Build;
use App\Models\Snapshot;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Magpie\Core\Format\BuildFile;

/** The record behind undo, the lists it takes back at once, and what the database keeps of a build. */
final class HistoryTest extends FeatureTestCase
{
    private function file(Build $build): string
    {
        return (string) $this->get("/api/builds/{$build->id}/file")
            ->assertOk()
            ->getContent();
    }

    public function test_a_large_edit_is_taken_back_and_done_again_whole(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $before = $this->file($build);
        $changes = [];
        for ($i = 0; $i < 450; $i++) {
            $changes[] = [
                'section' => 'parts',
                'create' => [
                    'ref' => "bulk-{$i}",
                    'family' => 'fan',
                    'name' => "Fan {$i}",
                    'specs' => [
                        'rated_current' => '0.1 A',
                        'rated_voltage' => ['value' => '24 V', 'evidence' => 'datasheet'],
                    ],
                ],
            ];
            $changes[] = [
                'section' => 'needs',
                'create' => [
                    'ref' => "bulk-{$i}",
                    'role' => "Fan {$i}",
                    'family' => 'fan',
                    'choice' => "bulk-{$i}",
                    'candidates' => ["bulk-{$i}"],
                ],
            ];
        }
        $made = $this->edit($build, $changes)->assertOk()->assertJsonPath('whole', true)->assertJsonPath('entries', []);
        self::assertShape('EditResult', $made);
        $after = $this->file($build);

        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertSame($before, $this->file($build));
        $this->postJson("/api/builds/{$build->id}/redo")->assertOk();
        self::assertSame($after, $this->file($build));
        DB::table('snapshots')->where('build_id', $build->id)->delete();
        self::assertSame($after, $this->file($build), 'And the tables alone say the same.');
    }

    public function test_an_imported_list_comes_back_by_redo_with_its_offers(): void
    {
        $this->as($this->isla());
        $id = $this->postJson('/api/builds', [
            'workshop' => $this->dunlin()->workshop_id,
            'name' => 'List',
            'kind' => 'x',
            'currency' => 'GBP',
        ])->json('id');
        $build = Build::query()->findOrFail($id);
        $csv =
            "Item,Qty,Voltage,Price,Supplier\n".
            implode("\n", array_map(static fn (int $i): string => "Fan {$i},1,24 V,4.20,Shop ".$i % 3, range(1, 900)));
        $key = $this->post("/api/builds/{$id}/imports", [
            'file' => \Illuminate\Http\UploadedFile::fake()->createWithContent('list.csv', $csv),
        ])->json('key');
        $this->postJson("/api/imports/{$key}/confirm")
            ->assertOk()
            ->assertJsonPath('stored', 900);
        $after = $this->file($build);
        $this->postJson("/api/builds/{$id}/undo")->assertOk();
        foreach (['parts', 'needs', 'offers', 'suppliers', 'part_specs'] as $table) {
            $left =
                $table === 'part_specs'
                    ? DB::table('part_specs')
                        ->join('parts', 'parts.id', '=', 'part_specs.owner_id')
                        ->where('build_id', $id)
                    : DB::table($table)->where('build_id', $id);
            self::assertSame(0, $left->count(), $table);
        }
        $this->postJson("/api/builds/{$id}/redo")->assertOk();

        self::assertSame($after, $this->file($build));
    }

    public function test_what_was_undone_is_dropped_by_the_next_edit(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $this->edit($build, self::setting('needs', 'belt', ['quantity'], 6))->assertOk();
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        $this->edit($build, self::setting('needs', 'belt', ['quantity'], 7))->assertOk();

        $this->postJson("/api/builds/{$build->id}/redo")->assertStatus(409);
        self::assertSame(
            ['done', 'dropped'],
            $this->getJson("/api/builds/{$build->id}/edits")
                ->collect()
                ->pluck('state')
                ->all(),
        );
    }

    public function test_an_edit_that_fails_half_way_leaves_nothing(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $before = $this->file($build);
        $this->edit($build, [
            ['section' => 'needs', 'ref' => 'belt', 'set' => [['path' => ['quantity'], 'to' => 9]]],
            ['section' => 'parts', 'create' => ['ref' => 'half', 'family' => 'fan', 'name' => 'Half']],
            ['section' => 'leads', 'create' => ['ref' => 'W99', 'from' => 'psu.out', 'to' => 'half.power']],
        ])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.reason', 'there is no need "half".');

        self::assertSame($before, $this->file($build->refresh()));
        self::assertSame(0, DB::table('parts')->where('build_id', $build->id)->where('ref', 'half')->count());
        self::assertSame(0, $build->edits()->count());
    }

    public function test_an_old_snapshot_is_never_answered_from(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $this->getJson("/api/builds/{$build->id}/overview")->assertOk();
        Snapshot::query()
            ->whereKey($build->id)
            ->update(['inspection' => '{"stale":true}', 'day' => '2020-01-01']);
        $this->getJson("/api/builds/{$build->id}/overview")
            ->assertOk()
            ->assertJsonMissingPath('overview.stale');
        Snapshot::query()
            ->whereKey($build->id)
            ->update(['document' => '{"magpie":1}', 'revision' => 0]);
        self::assertGreaterThan(60, count($this->getJson("/api/builds/{$build->id}")->json('document.parts')));
        self::assertSame(0, \Illuminate\Support\Facades\Artisan::call('magpie:settle'));
        self::assertSame(
            0,
            (int) Snapshot::query()->sum('revision') + (int) Snapshot::query()->sum('judged'),
            'Judged by older rules, perhaps: judged again before it is believed.',
        );
    }

    public function test_every_demo_build_is_in_the_tables_whole(): void
    {
        foreach (
            Build::query()
                ->whereIn('slug', ['linnet', 'dunlin'])
                ->get() as $build
        ) {
            $data = json_decode((string) file_get_contents(base_path("demo/{$build->slug}.json")), true);

            self::assertSame(Document::json($data), Document::json((new Store($build))->document()));
            self::assertSame(
                BuildFile::write(BuildFile::build($data)),
                (string) file_get_contents(base_path("demo/{$build->slug}.json")),
            );
        }
    }

    public function test_a_place_in_an_entry_is_found_and_set(): void
    {
        $entry = ['ref' => 'W1', 'ends' => [['termination' => 'ferrule'], []], 'loads' => ['a' => '1']];

        self::assertSame('ferrule', Path::get($entry, ['ends', 0, 'termination']));
        self::assertNull(Path::get($entry, ['ends', 7, 'termination']));
        self::assertSame(
            2,
            Path::get(Path::set($entry, ['ends', 1, 'contacts_per_pole'], 2), ['ends', 1, 'contacts_per_pole']),
        );
        self::assertSame(
            [[], ['contact' => 'p']],
            Path::set([], ['ends', 1, 'contact'], 'p')['ends'],
            'The other end is there, with nothing said of it.',
        );
        self::assertSame(['a'], Path::set(['tools' => ['b', 'a']], ['tools', 0], null)['tools'], 'A list closes up.');
        self::assertSame([], Path::set($entry, ['loads', 'a'], null)['loads']);
        self::assertArrayNotHasKey('ends', Path::set($entry, ['ends'], null));
    }

    public function test_sign_in_is_slowed_down_after_many_tries(): void
    {
        // From an address of its own, so that nobody else is slowed down.
        $this->withServerVariables(['REMOTE_ADDR' => '127.9.8.7']);
        $email = Str::random(6).'@nowhere.example';
        for ($i = 0; $i < 20; $i++) {
            $this->postJson('/api/session', ['email' => $email, 'password' => 'x']);
        }
        $this->postJson('/api/session', ['email' => $email, 'password' => 'x'])->assertStatus(429);
    }
}
