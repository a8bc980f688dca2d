<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Builds\Workspace;
use App\Models\Build;
use Illuminate\Database\QueryException;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use PHPUnit\Framework\Attributes\DataProvider;

final class BuildTest extends FeatureTestCase
{
    public function test_a_build_file_goes_in_and_comes_out_as_it_was(): void
    {
        $this->as($this->isla());
        foreach (['linnet', 'dunlin'] as $name) {
            $text = (string) file_get_contents(base_path("demo/{$name}.json"));
            $id = $this->postJson('/api/builds', ['workshop' => $this->dunlin()->workshop_id, 'file' => $text])
                ->assertCreated()
                ->json('id');

            self::assertSame(
                $text,
                $this->get("/api/builds/{$id}/file")
                    ->assertOk()
                    ->getContent(),
            );
            // And once more from the tables alone, without the snapshot.
            DB::table('snapshots')->where('build_id', $id)->delete();
            self::assertSame($text, $this->get("/api/builds/{$id}/file")->getContent());
        }
    }

    public function test_a_file_that_cannot_be_read_says_where_and_stores_nothing(): void
    {
        $this->as($this->isla());
        $count = Build::query()->count();
        $this->postJson('/api/builds', [
            'workshop' => $this->dunlin()->workshop_id,
            'file' => '{"magpie":1,"build":{"name":"A","kind":"b","currency":"GBP"},"needs":[{"ref":"x"}]}',
        ])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/needs/0/family');
        $this->postJson('/api/builds', ['workshop' => $this->dunlin()->workshop_id, 'file' => 'ten parts please'])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '');
        $this->postJson('/api/builds', [
            'workshop' => $this->dunlin()->workshop_id,
            'name' => 'A',
            'kind' => 'b',
            'currency' => 'pounds',
        ])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/currency');

        self::assertSame($count, Build::query()->count());
    }

    public function test_a_build_is_taken_away_whole(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $this->deleteJson("/api/builds/{$build->id}")->assertNoContent();

        foreach (['parts', 'needs', 'leads', 'steps', 'edits', 'snapshots'] as $table) {
            self::assertSame(0, DB::table($table)->where('build_id', $build->id)->count(), $table);
        }
    }

    /**
     * @return iterable<string, array{string, string}>
     */
    public static function answers(): iterable
    {
        yield 'a build' => ['', 'Build'];
        yield 'its overview' => ['/overview', 'Changed'];
        yield 'its money' => ['/money', 'Money'];
        yield 'a finding without a margin' => ['/findings/E05-kit/psu', 'Finding'];
        yield 'a mechanical finding' => ['/findings/M10/ma/0', 'Finding'];
        yield 'a simulated reading' => ['/steps/d6/simulated-reading', 'Reading'];
        yield 'its revision' => ['/revision', 'Revision'];
    }

    #[DataProvider('answers')]
    public function test_answers_keep_to_the_published_contract(string $path, string $shape): void
    {
        $this->as($this->isla());

        self::assertShape($shape, $this->getJson("/api/builds/{$this->dunlin()->id}{$path}")->assertOk());
    }

    public function test_a_build_begins_with_a_starter(): void
    {
        $this->as($this->isla());
        $starters = $this->getJson('/api/starters')->assertOk()->json();
        self::assertCount(8, $starters, 'Five, and a copy of each build of the demo.');
        foreach ($starters as $starter) {
            self::assertNotSame('', $starter['says']);
        }
        $new = ['workshop' => $this->dunlin()->workshop_id, 'name' => 'Mine', 'kind' => 'router', 'currency' => 'USD'];
        $id = $this->postJson('/api/builds', ['starter' => 'router'] + $new)
            ->assertCreated()
            ->json('id');
        $made = $this->getJson("/api/builds/{$id}")->assertOk();

        $made->assertJsonPath('document.build.name', 'Mine')->assertJsonPath('document.build.currency', 'USD');
        self::assertCount(array_column($starters, 'needs', 'key')['router'], $made->json('document.needs'));
        self::assertSame([0, 0], [$made->json('overview.tally.danger'), $made->json('overview.tally.fails')]);
        $copy = $this->postJson('/api/builds', ['starter' => 'dunlin'] + $new)
            ->assertCreated()
            ->json('id');
        $this->getJson("/api/builds/{$copy}")
            ->assertJsonPath('document.build.name', 'Mine')
            ->assertJsonPath('document.build.currency', 'GBP')
            ->assertJsonPath('overview.tally.danger', 10);
        $this->postJson('/api/builds', ['starter' => '../linnet'] + $new)->assertStatus(422);
        $this->postJson('/api/builds', ['starter' => null] + $new)->assertCreated();
    }

    public function test_a_reading_is_simulated_in_the_demo_only(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $build->workshop->update(['demo' => false]);

        $this->getJson("/api/builds/{$build->id}/steps/d6/simulated-reading")->assertForbidden();
        $this->getJson("/api/builds/{$build->id}")
            ->assertOk()
            ->assertJsonPath('demo', false);
    }

    public function test_lists_keep_to_the_contract_too(): void
    {
        $this->as($this->isla());
        foreach (
            [
                ['/api/builds', 'WorkshopBuilds'],
                ['/api/starters', 'Starter'],
                ["/api/builds/{$this->dunlin()->id}/power", 'PowerScenario'],
            ] as [$path, $shape]
        ) {
            foreach ($this->getJson($path)->assertOk()->json() as $item) {
                self::assertSame(
                    [],
                    \Tests\Support\Schemas::breaks(
                        (string) json_encode($item),
                        "api/openapi.json#/components/schemas/{$shape}",
                    ),
                    $shape,
                );
            }
        }
        self::assertShape('Catalogue', $this->getJson('/api/catalogue')->assertOk());
        $this->getJson("/api/builds/{$this->dunlin()->id}/findings/E99/nothing")->assertNotFound();
    }

    public function test_a_picture_of_a_fault_is_made_small_and_only_a_picture_is_taken(): void
    {
        Storage::fake('local');
        $this->as($this->isla());
        $build = $this->dunlin();
        $name = $this->post("/api/builds/{$build->id}/photos", [
            'photo' => UploadedFile::fake()->image('plug.png', 3000, 2000),
        ])
            ->assertCreated()
            ->json('name');
        $size = getimagesizefromstring(
            (string) $this->get("/api/builds/{$build->id}/photos/{$name}")
                ->assertOk()
                ->getContent(),
        );

        self::assertSame([1600, 1067, 'image/jpeg'], [$size[0] ?? 0, $size[1] ?? 0, $size['mime'] ?? '']);
        $this->post("/api/builds/{$build->id}/photos", [
            'photo' => UploadedFile::fake()->createWithContent('evil.jpg', '<?php echo 1;'),
        ])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/photo');
        $this->get("/api/builds/{$build->id}/photos/../../.env")->assertNotFound();
    }

    public function test_the_database_itself_refuses_what_makes_no_sense(): void
    {
        $build = $this->dunlin();
        $part = DB::table('parts')->where('build_id', $build->id)->value('id');
        foreach (
            [
                fn () => DB::table('parts')->insert([
                    'build_id' => $build->id,
                    'ref' => 'P-bed',
                    'family' => 'heater',
                    'name' => 'twice',
                ]),
                fn () => DB::table('part_specs')->insert([
                    'owner_id' => $part,
                    'key' => 'x',
                    'value' => '1 m',
                    'evidence' => 'rumour',
                ]),
                fn () => DB::table('part_specs')->insert(['owner_id' => $part, 'key' => 'y', 'evidence' => 'measured']),
                fn () => DB::table('needs')->insert([
                    'build_id' => $build->id,
                    'ref' => 'none',
                    'role' => 'r',
                    'family' => 'fan',
                    'quantity' => 0,
                ]),
                fn () => DB::table('needs')->insert([
                    'build_id' => $build->id,
                    'ref' => 'n2',
                    'role' => 'r',
                    'family' => 'fan',
                    'quantity' => 1,
                    'choice_id' => 99999999,
                ]),
                fn () => DB::table('offers')
                    ->where('build_id', $build->id)
                    ->update(['price' => -1]),
                fn () => DB::table('builds')
                    ->where('id', $build->id)
                    ->update(['name' => str_repeat('x', 300)]),
                fn () => DB::table('parts')->where('id', $part)->delete(),
            ] as $i => $nonsense
        ) {
            try {
                DB::transaction($nonsense);
                self::fail("The database took nonsense number {$i}.");
            } catch (QueryException) {
                $this->addToAssertionCount(1);
            }
        }
    }

    public function test_answers_worth_it_go_out_compressed_to_whoever_takes_them_so(): void
    {
        $this->as($this->isla());
        $path = "/api/builds/{$this->dunlin()->id}";
        $plain = (string) $this->getJson($path)->assertOk()->assertHeaderMissing('Content-Encoding')->getContent();
        $packed = $this->getJson($path, ['Accept-Encoding' => 'br, gzip;q=0.8'])
            ->assertOk()
            ->assertHeader('Content-Encoding', 'gzip');

        self::assertSame($plain, gzdecode((string) $packed->getContent()));
        self::assertLessThan(strlen($plain) / 4, strlen((string) $packed->getContent()));
        self::assertStringContainsString('Accept-Encoding', (string) $packed->headers->get('Vary'));
        $this->getJson("{$path}/revision", ['Accept-Encoding' => 'gzip'])
            ->assertOk()
            ->assertHeaderMissing('Content-Encoding');
    }

    /** Found by attack: a build whose places stand on one another could not be deleted, nor could an account with it. */
    public function test_any_build_can_be_deleted_whatever_its_entries_name_of_one_another(): void
    {
        $workshop = $this->linnet()->workshop()->firstOrFail();
        $builds = [];
        foreach (['linnet', 'dunlin', 'plover'] as $name) {
            $data = json_decode((string) file_get_contents(base_path("demo/{$name}.json")), true);
            $builds[] = $data;
        }
        $most = (int) (getenv('MAGPIE_FUZZ') ?: 24);
        mt_srand(20261202);
        for ($i = 0; $i < max(3, min(1000, $most)); $i++) {
            $data = $builds[$i % 3];
            // Each thing waits for, stands on or meets others of its own kind, at random and in both directions.
            foreach (['places' => 'meets', 'steps' => 'after', 'documents' => 'over'] as $section => $field) {
                $refs = array_column($data[$section] ?? [], 'ref');
                foreach ($refs as $at => $ref) {
                    $others = $section === 'places' ? array_values(array_diff($refs, [$ref])) : array_slice($refs, 0, $at);
                    if ($others !== [] && mt_rand(0, 1) === 1) {
                        $data[$section][$at][$field] = [$others[mt_rand(0, count($others) - 1)]];
                    }
                }
            }
            try {
                $machine = BuildFile::build($data, kept: true);
            } catch (CannotReadBuildFile) {
                $machine = BuildFile::build($builds[$i % 3], kept: true);
            }
            $build = Workspace::add($workshop, $machine);
            // Rows in any order: a later one may be named by an earlier one.
            $places = DB::table('places')->where('build_id', $build->id)->pluck('id')->shuffle();
            for ($j = 1; $j < $places->count(); $j++) {
                DB::table('place_meets')->insertOrIgnore(['owner_id' => $places[$j - 1], 'other_id' => $places[$j]]);
            }
            Workspace::remove($build);
            self::assertNull(Build::query()->find($build->id));
        }
    }
}
