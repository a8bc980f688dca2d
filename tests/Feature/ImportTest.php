<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Imports\Importer;
use App\Models\Build;
use App\Models\Import;
use App\Models\LibraryPart;
use Illuminate\Cache\Events\KeyWritten;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\Storage;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;

final class ImportTest extends FeatureTestCase
{
    private function emptyBuild(): Build
    {
        $this->as($this->isla());
        $id = $this->postJson('/api/builds', [
            'workshop' => $this->dunlin()->workshop_id,
            'name' => 'List',
            'kind' => 'plotter',
            'currency' => 'GBP',
        ])->json('id');

        return Build::query()->findOrFail($id);
    }

    /**
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function bring(Build $build, string $csv): TestResponse
    {
        return $this->post("/api/builds/{$build->id}/imports", [
            'file' => UploadedFile::fake()->createWithContent('list.csv', $csv),
        ]);
    }

    public function test_a_list_is_shown_first_then_stored_as_one_edit_that_undo_takes_back(): void
    {
        $build = $this->emptyBuild();
        $preview = $this->bring($build, (string) file_get_contents(base_path('tests/Browser/parts-list.csv')))
            ->assertCreated()
            ->assertJsonPath('states', ['good' => 6, 'guessed' => 0, 'doubted' => 1, 'partly' => 3, 'refused' => 2]);
        self::assertShape('Preview', $preview);
        self::assertSame(
            0,
            DB::table('parts')->where('build_id', $build->id)->count(),
            'Nothing is stored before it is confirmed.',
        );

        $mapping = ['units' => ['2' => 'V']] + $preview->json('mapping');
        $mapping['units'] += $preview->json('mapping.units');
        $this->putJson("/api/imports/{$preview->json('key')}", ['mapping' => ['family' => 'consumable'] + $mapping])
            ->assertOk()
            ->assertJsonPath('states.refused', 1)
            ->assertJsonPath('states.good', 8);
        $done = $this->postJson("/api/imports/{$preview->json('key')}/confirm")
            ->assertOk()
            ->assertJsonPath('state', 'done')
            ->assertJsonPath('stored', 11)
            ->assertJsonPath('skipped', 1);
        self::assertShape('ImportState', $done);
        $this->postJson("/api/imports/{$preview->json('key')}/confirm")->assertStatus(409);

        $after = $this->getJson("/api/builds/{$build->id}")->assertOk();
        self::assertCount(11, $after->json('document.needs'));
        $motor = collect($after->json('document.parts'))->firstWhere('family', 'stepper_motor');
        self::assertSame(['value' => '283 oz in', 'evidence' => 'listing'], $motor['specs']['holding_torque']);
        self::assertSame(['Bed-supply-small'], array_column($after->json('overview.doubts'), 'part'));
        self::assertCount(3, $after->json('document.suppliers'));

        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertNull($this->getJson("/api/builds/{$build->id}")->json('document.parts'));
    }

    public function test_headings_below_a_title_a_kind_said_for_one_line_and_the_library_by_name(): void
    {
        $build = $this->emptyBuild();
        $shelved = LibraryPart::query()
            ->where('workshop_id', $build->workshop_id)
            ->where('family', 'fan')
            ->firstOrFail();
        $sheet = $shelved->read()->part->specs;
        self::assertNotSame([], $sheet);
        $preview = $this->bring(
            $build,
            "Basket of 3 May,,\n,,\nItem,Qty,Price\nRelay board,1,4.00\n\"{$shelved->name}\",2,3.20\n",
        )
            ->assertCreated()
            ->assertJsonPath('mapping.header', 3)
            ->assertJsonPath('of', 2);
        self::assertShape('Preview', $preview);
        self::assertSame(
            [[false, 'controller_board', null], [true, 'fan', $shelved->ref]],
            array_map(static fn (array $r): array => [$r['sure'], $r['kind'], $r['library']], $preview->json('rows')),
        );

        $url = "/api/imports/{$preview->json('key')}";
        $this->putJson($url, ['mapping' => ['header' => 2] + $preview->json('mapping')])
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.pointer', '/mapping/header');
        $this->putJson($url, ['mapping' => ['families' => ['4' => 'switching_module']] + $preview->json('mapping')])
            ->assertOk()
            ->assertJsonPath('rows.0.kind', 'switching_module')
            ->assertJsonPath('rows.0.state', 'good');
        $this->postJson("{$url}/confirm")
            ->assertOk()
            ->assertJsonPath('stored', 2);

        $parts = $this->getJson("/api/builds/{$build->id}/file")->json('parts');
        self::assertSame(['switching_module', 'fan'], array_column($parts, 'family'));
        self::assertSame(array_keys($sheet), array_keys($parts[1]['specs']));
        self::assertSame($shelved->ref, $parts[1]['library']);
    }

    public function test_hostile_and_broken_files_do_no_harm(): void
    {
        $build = $this->emptyBuild();
        $this->bring($build, 'just one line without columns')
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/file');
        $this->bring($build, '')->assertStatus(422);

        $csv =
            "\xEF\xBB\xBFItem;Qty;Notes\r\n".
            "\"=cmd|' /C calc'!A0 fan\";1;\"two\nlines; and a \"\"quote\"\"\"\r\n".
            "Fan with \x00 nought;1;\r\n".
            "L\xFCfter fan;1;\r\n".
            str_repeat('x', 5000).
            ";1;\r\n".
            "<script>alert(1)</script> fan;1;\r\n".
            "\"'; DROP TABLE parts; -- fan\";1\r\n".
            "fan;1;a;b;c;d;e;f\r\n\r\n".
            '"never closed fan;1;';
        $preview = $this->bring($build, $csv)->assertCreated();
        $this->postJson("/api/imports/{$preview->json('key')}/confirm")
            ->assertOk()
            ->assertJsonPath('state', 'done');
        $names = DB::table('parts')->where('build_id', $build->id)->orderBy('id')->pluck('name')->all();

        self::assertContains("=cmd|' /C calc'!A0 fan", $names);
        self::assertContains('Lüfter fan', $names, 'Windows-1252 is read as such.');
        self::assertContains("'; DROP TABLE parts; -- fan", $names);
        $export = (string) $this->get("/api/builds/{$build->id}/parts.csv")
            ->assertOk()
            ->streamedContent();
        self::assertStringContainsString("'=cmd|", $export, 'A spreadsheet must not run it.');
    }

    public function test_twelve_thousand_lines_stream_in_little_memory_with_progress(): void
    {
        $build = $this->emptyBuild();
        $file = (string) tempnam(sys_get_temp_dir(), 'magpie');
        $handle = fopen($file, 'w') ?: throw new \RuntimeException('no temporary file');
        fwrite($handle, "Item,Qty,Voltage,Current,Unit price,Supplier\n");
        for ($i = 1; $i <= 12_000; $i++) {
            fwrite(
                $handle,
                $i % 1000 === 0 ? "Mystery {$i},1,,,,\n" : "Fan {$i},2,24 V,0.12 A,4.20,Two Stoves Electronics\n",
            );
        }
        fclose($handle);
        $import = $build->imports()->create([
            'key' => (string) \Illuminate\Support\Str::uuid(),
            'user_id' => $this->isla()->id,
            'file_name' => 'large.csv',
            'rows' => 12_000,
            'state' => 'running',
            'mapping' => \Magpie\Core\PartsList\Mapping::guess(
                ['Item', 'Qty', 'Voltage', 'Current', 'Unit price', 'Supplier'],
                'GBP',
            )->toArray(),
        ]);
        $reports = [];
        Event::listen(static function (KeyWritten $written) use (&$reports): void {
            $reports[] = is_array($written->value) ? $written->value['seen'] : 0;
        });
        gc_collect_cycles();
        memory_reset_peak_usage();
        $before = memory_get_usage();
        self::assertTrue((new Importer($import, $file, '2026-11-25'))->run());
        $used = memory_get_peak_usage() - $before;
        unlink($file);

        self::assertSame([11_988, 12], [$import->refresh()->stored, $import->skipped]);
        self::assertSame(11_988, DB::table('needs')->where('build_id', $build->id)->count());
        self::assertSame(
            23_976,
            DB::table('part_specs')
                ->whereIn('owner_id', DB::table('parts')->select('id')->where('build_id', $build->id))
                ->count(),
        );
        self::assertLessThan(24 * 1024 * 1024, $used, sprintf('%.0f MB', $used / 1048576));
        self::assertGreaterThan(20, count($reports));
        self::assertSame($reports, collect($reports)->sort()->values()->all());
    }

    public function test_a_list_that_is_being_stored_is_found_again_by_whoever_comes_back(): void
    {
        config(['queue.default' => 'database']);
        $build = $this->emptyBuild();
        $this->getJson("/api/builds/{$build->id}/imports")
            ->assertOk()
            ->assertExactJson([]);
        $key = $this->bring($build, "Item,Qty\nFan,1\nScrew,4\n")->assertCreated()->json('key');
        $this->postJson("/api/imports/{$key}/confirm")
            ->assertOk()
            ->assertJsonPath('state', 'running');
        $this->getJson("/api/builds/{$build->id}/imports")
            ->assertOk()
            ->assertJsonPath('0.key', $key);
        Artisan::call('queue:work', ['--once' => true, '--quiet' => true]);
        $this->getJson("/api/imports/{$key}")
            ->assertJsonPath('state', 'done')
            ->assertJsonPath('stored', 2);
        $this->getJson("/api/builds/{$build->id}/imports")->assertExactJson([]);
    }

    public function test_a_stopped_import_stores_nothing(): void
    {
        $build = $this->emptyBuild();
        $csv = "Item,Qty\n".implode("\n", array_map(static fn (int $i): string => "Fan {$i},1", range(1, 2000)));
        $preview = $this->bring($build, $csv)->assertCreated();
        $import = Import::query()->where('key', $preview->json('key'))->firstOrFail();
        Cache::put(Importer::cancelKey($import), true, 60);
        $this->postJson("/api/imports/{$import->key}/confirm")
            ->assertOk()
            ->assertJsonPath('state', 'cancelled');

        self::assertSame(0, DB::table('parts')->where('build_id', $build->id)->count());
        self::assertSame(0, $build->edits()->count());
        $this->postJson("/api/imports/{$import->key}/confirm")
            ->assertStatus(409)
            ->assertJsonPath('detail', 'This list was dealt with already.');
        self::assertFalse(Storage::exists("imports/{$import->key}.csv"), 'What is dealt with is not kept.');
        $again = $this->bring($build, $csv)->assertCreated()->json('key');
        $this->postJson("/api/imports/{$again}/confirm")
            ->assertOk()
            ->assertJsonPath('stored', 2000);
    }

    /**
     * @return iterable<string, array{string}>
     */
    public static function encodings(): iterable
    {
        $plain = "Item,Family,Qty,Notes\nVentilátor 24 V Ω,fan,2,\"two\nlines\"\nSchräubchen,screw,10,24\" bar\n";
        yield 'UTF-8' => [$plain];
        yield 'UTF-8 with a mark' => ["\u{feff}{$plain}"];
        yield 'UTF-16, small end first, with a mark' => ["\xFF\xFE".mb_convert_encoding($plain, 'UTF-16LE', 'UTF-8')];
        yield 'UTF-16, great end first, with a mark' => ["\xFE\xFF".mb_convert_encoding($plain, 'UTF-16BE', 'UTF-8')];
        yield 'UTF-16 without a mark' => [mb_convert_encoding($plain, 'UTF-16LE', 'UTF-8')];
        yield 'lines that end in CR alone' => [strtr($plain, "\n", "\r")];
        yield 'UTF-16 with CR alone and semicolons' => [
            "\xFF\xFE".mb_convert_encoding(strtr($plain, ["\n" => "\r", ',' => ';']), 'UTF-16LE', 'UTF-8'),
        ];
        yield 'lines that end in CR LF and tabs' => [strtr($plain, ["\n" => "\r\n", ',' => "\t"])];
    }

    #[DataProvider('encodings')]
    public function test_lists_of_every_program_are_read(string $csv): void
    {
        $build = $this->emptyBuild();
        $preview = $this->bring($build, $csv)
            ->assertCreated()
            ->assertJsonPath('headings', ['Item', 'Family', 'Qty', 'Notes'])
            ->assertJsonPath('of', 2);
        self::assertSame(['Ventilátor 24 V Ω', 'Schräubchen'], array_column($preview->json('rows'), 'name'));
        self::assertSame([2, 10], array_column($preview->json('rows'), 'quantity'));
        self::assertMatchesRegularExpression('/^two\s+lines$/', $preview->json('rows.0.cells.3'));
        self::assertSame('24" bar', $preview->json('rows.1.cells.3'));
    }

    /**
     * @return iterable<string, array{string, string}>
     */
    public static function tooMuch(): iterable
    {
        yield 'a table that is all columns' => ['Item,Qty'.str_repeat(',', 300)."\nFan,1\n", '200 columns'];
        yield 'a line of commas' => ["Item,Qty\n".str_repeat(',', 1_000_000)."\n", 'longer than'];
        yield 'a quotation mark that is never closed' => [
            "Item,Qty\n\"Fan,1\n".str_repeat("Fan,1\n", 100_000),
            'quotation mark may be open',
        ];
        yield 'more lines than a build holds' => [
            "Item,Qty\n".str_repeat("Fan,1\n", 100_001),
            'more than 100,000 lines',
        ];
        yield 'no table' => ["just words\nand more\n", 'not a table'];
    }

    #[DataProvider('tooMuch')]
    public function test_a_list_past_all_bounds_is_refused_and_not_kept(string $csv, string $reason): void
    {
        $files = count(Storage::files('imports'));
        $answer = $this->bring($this->emptyBuild(), $csv)
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/file');
        self::assertStringContainsString($reason, $answer->json('errors.0.reason'));
        self::assertCount($files, Storage::files('imports'));
    }

    public function test_refs_that_clash_are_told_apart(): void
    {
        $build = $this->emptyBuild();
        $preview = $this->bring($build, "Ref,Item,Qty\nfan,Fan,1\nfan,Fan,1\nfan,Fan,1\n")->assertCreated();
        $this->postJson("/api/imports/{$preview->json('key')}/confirm")->assertOk();

        self::assertSame(
            ['fan', 'fan-2', 'fan-3'],
            DB::table('needs')->where('build_id', $build->id)->orderBy('id')->pluck('ref')->all(),
        );
    }
}
