<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Builds\Document;
use App\Builds\Judging;
use App\Builds\Store;
use App\Builds\Workspace;
use App\Models\Build;
use App\Models\Snapshot;
use App\Models\Workshop;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Magpie\Core\Format\BuildFile;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * A build that cannot be read: it hides no other, its file can always be saved, and there is always a way to mend it.
 */
final class RepairTest extends FeatureTestCase
{
    /** Breaks a build the way nothing in the application can: behind its back. */
    private function broken(): Build
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $this->edit($build, self::setting('needs', 'belt', ['quantity'], 6))->assertOk();
        DB::table('needs')
            ->where(['build_id' => $build->id, 'ref' => 'belt'])
            ->update(['family' => 'no_such_family']);
        Snapshot::query()
            ->whereKey($build->id)
            ->update(['revision' => 0, 'judged' => 0]);

        return $build->refresh();
    }

    public function test_it_opens_with_the_place_of_the_trouble_and_hides_no_other(): void
    {
        $build = $this->broken();

        $opened = $this->getJson("/api/builds/{$build->id}")
            ->assertOk()
            ->assertJsonPath('overview', null);
        self::assertShape('Build', $opened);
        self::assertMatchesRegularExpression('#^/needs/\d+/family$#', $opened->json('trouble.pointer'));
        self::assertStringContainsString('no_such_family', $opened->json('trouble.reason'));
        $this->getJson("/api/builds/{$build->id}/file")
            ->assertOk()
            ->assertJsonPath('build.name', 'Dunlin');
        $list = $this->getJson('/api/builds')->assertOk();
        self::assertShape('WorkshopBuilds', $this->wrapped($list->json('0')));
        self::assertContains('Linnet', array_column($list->json('0.builds'), 'name'));
        foreach (['power', 'money', 'wiring', 'scope', 'measure-first', 'motion'] as $view) {
            $this->getJson("/api/builds/{$build->id}/{$view}")
                ->assertStatus(422)
                ->assertJsonPath('errors.0.pointer', $opened->json('trouble.pointer'));
        }
    }

    public function test_its_entries_can_be_mended_deleted_and_its_edits_undone(): void
    {
        $build = $this->broken();
        // Another entry of it can be edited meanwhile, and the last edit taken back.
        $this->edit($build, self::setting('build', '', ['purpose'], 'edited while broken'))
            ->assertOk()
            ->assertJsonPath('overview', null);
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        $this->edit($build, self::setting('needs', 'belt', ['family'], 'still_none', 'no_such_family', true))
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/needs/belt/family');
        $mended = $this->edit($build, self::setting('needs', 'belt', ['family'], 'belt', 'no_such_family', true))
            ->assertOk()
            ->assertJsonPath('trouble', null);

        self::assertNotEmpty($mended->json('overview.findings'));
        $this->getJson("/api/builds/{$build->id}/power")->assertOk();
        // With something of no family that nothing refers to, deleting is a way out too.
        $this->edit($build, [
            ['section' => 'needs', 'create' => ['ref' => 'lone', 'role' => 'Lone', 'family' => 'fan']],
        ])->assertOk();
        DB::table('needs')
            ->where(['build_id' => $build->id, 'ref' => 'lone'])
            ->update(['family' => 'none']);
        Snapshot::query()
            ->whereKey($build->id)
            ->update(['revision' => 0]);
        $this->edit($build, [['section' => 'needs', 'ref' => 'lone', 'delete' => true]])
            ->assertOk()
            ->assertJsonPath('trouble', null);
    }

    public function test_the_background_names_what_it_cannot_judge(): void
    {
        $build = $this->broken();
        DB::table('judgings')->delete();
        Judging::queue($build);
        self::assertTrue(Judging::next());
        self::assertFalse(Judging::next(), 'One that failed is not tried for ever.');
        $card = collect($this->getJson('/api/builds')->json('0.builds'))->firstWhere('id', $build->id);
        self::assertStringContainsString('no_such_family', $card['trouble']);
    }

    public function test_a_large_build_is_judged_in_the_background_and_shows_what_was_judged_last(): void
    {
        $this->as($this->isla());
        $workshop = Workshop::query()->where('demo', true)->firstOrFail();
        $parts = $needs = [];
        for ($i = 0; $i < 4_100; $i++) {
            $parts[] = ['ref' => "p{$i}", 'family' => 'screw', 'name' => "Screw {$i}"];
            $needs[] = [
                'ref' => "p{$i}",
                'role' => "Screw {$i}",
                'family' => 'screw',
                'quantity' => 4,
                'candidates' => ["p{$i}"],
                'choice' => "p{$i}",
            ];
        }
        $machine = BuildFile::build([
            'magpie' => 1,
            'build' => ['name' => 'Many', 'kind' => 'router', 'currency' => 'GBP'],
            'parts' => $parts,
            'needs' => $needs,
        ]);
        DB::table('judgings')->delete();
        $build = Workspace::add($workshop, $machine);

        $first = $this->getJson("/api/builds/{$build->id}")
            ->assertOk()
            ->assertJsonPath('overview', null)
            ->assertJsonPath('judging.state', 'queued');
        self::assertCount(4_100, $first->json('document.needs'), 'It can be seen and edited before it is judged.');
        self::assertNull(
            collect($this->getJson('/api/builds')->json('0.builds'))->firstWhere('id', $build->id)['summary'],
        );
        self::assertTrue(Judging::next());
        $judged = $this->getJson("/api/builds/{$build->id}/overview")
            ->assertOk()
            ->assertJsonPath('judging', null);
        self::assertSame(
            4_100,
            array_sum(array_intersect_key($judged->json('overview.tally'), ['tight' => 0])),
            'Every lone screw wants a spare.',
        );

        $edited = $this->edit($build, self::setting('needs', 'p7', ['spares'], '50 %'))
            ->assertOk()
            ->assertJsonPath('judging.state', 'queued');
        self::assertSame(4_100, $edited->json('overview.tally.tight'), 'What was judged last, said to be old.');
        $card = collect($this->getJson('/api/builds')->json('0.builds'))->firstWhere('id', $build->id);
        self::assertSame([false, 4_100], [$card['judged'], $card['summary']['tally']['tight']]);
        self::assertTrue(Judging::next());
        self::assertSame(4_099, $this->getJson("/api/builds/{$build->id}/overview")->json('overview.tally.tight'));
    }

    /**
     * Lists that once bricked the build they were brought into.
     *
     * @return iterable<string, array{string, int}>
     */
    public static function lists(): iterable
    {
        yield 'a name that is a number' => ["name,family,quantity\n608,bearing,4\n", 1];
        yield 'short names that are numbers' => ["ref,name,family\n1,Screw,screw\n2,Nut,nut\n3,Fan,fan\n", 3];
        yield 'fewer than no spares' => ["name,family,spares\nScrew,screw,-10 %\n", 1];
        yield 'more than there are' => ["name,family,owned\nScrew,screw,5000000\n", 1];
        yield 'a pack for a continent' => ["name,family,price,pack\nScrew,screw,1.00,200000\n", 1];
        yield 'a board of a billion fans' => ["name,family,fan_outputs\nBoard,controller board,1000000000\n", 1];
        yield 'a screw that leads nowhere' => ["name,family,lead\nScrew,drive screw,0 mm\n", 1];
        yield 'names that differ in case' => ["ref,name,family\nfan,Fan,fan\nFAN,Fan,fan\n", 2];
    }

    #[DataProvider('lists')]
    public function test_no_list_bricks_a_build(string $csv, int $stored): void
    {
        $this->as($this->isla());
        $build = Workspace::add(
            Workshop::query()->where('demo', true)->firstOrFail(),
            BuildFile::build(['magpie' => 1, 'build' => ['name' => 'List', 'kind' => 'router', 'currency' => 'GBP']]),
        );
        $file = \Illuminate\Http\UploadedFile::fake()->createWithContent('list.csv', $csv);
        $key = $this->post("/api/builds/{$build->id}/imports", ['file' => $file])
            ->assertCreated()
            ->json('key');
        $this->postJson("/api/imports/{$key}/confirm")
            ->assertOk()
            ->assertJsonPath('stored', $stored);

        $opened = $this->getJson("/api/builds/{$build->id}")
            ->assertOk()
            ->assertJsonPath('trouble', null);
        self::assertCount($stored, $opened->json('document.needs'));
        $this->getJson("/api/builds/{$build->id}/file")->assertOk();
        $this->getJson('/api/builds')->assertOk();
        $this->postJson("/api/builds/{$build->id}/undo")
            ->assertOk()
            ->assertJsonPath('left', []);
        self::assertSame(0, DB::table('parts')->where('build_id', $build->id)->count());
        $this->postJson("/api/builds/{$build->id}/redo")->assertOk();
        self::assertSame(
            Document::json((new Store($build->refresh()))->document()),
            Document::json(Document::of($build)->data),
        );
    }

    public function test_two_builds_of_one_name_and_two_names_that_differ_in_case_live_side_by_side(): void
    {
        $this->as($this->isla());
        $workshop = Workshop::query()->where('demo', true)->firstOrFail();
        foreach (['Wren', 'wren', 'Wren'] as $name) {
            $this->postJson('/api/builds', [
                'workshop' => $workshop->id,
                'name' => $name,
                'kind' => 'plotter',
                'currency' => 'GBP',
            ])->assertCreated();
        }
        $build = $this->dunlin();
        $this->edit($build, [
            ['section' => 'suppliers', 'create' => ['ref' => 'Quay', 'name' => 'One', 'currency' => 'GBP']],
            ['section' => 'suppliers', 'create' => ['ref' => 'quay', 'name' => 'Other', 'currency' => 'GBP']],
        ])->assertOk();
        $this->edit($build, [
            ['section' => 'suppliers', 'create' => ['ref' => 'quay', 'name' => 'Third', 'currency' => 'GBP']],
        ])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.reason', 'there is already a "quay" among the suppliers.');
    }

    /**
     * @return iterable<string, array{mixed, string}>
     */
    public static function malformed(): iterable
    {
        yield 'no list' => ['all of it', '/changes'];
        yield 'an object' => [['section' => 'needs'], '/changes'];
        yield 'a change that is a text' => [['delete everything'], '/changes/0'];
        yield 'a section that is a list' => [
            [['section' => ['needs'], 'ref' => 'x', 'delete' => true]],
            '/changes/0/section',
        ];
        yield 'a name that is a list' => [[['section' => 'needs', 'ref' => ['x'], 'delete' => true]], '/changes/0/ref'];
        yield 'a new name that is a number' => [
            [['section' => 'needs', 'create' => ['ref' => 7]]],
            '/changes/0/create/ref',
        ];
        yield 'two things at once' => [
            [['section' => 'needs', 'ref' => 'x', 'delete' => true, 'create' => ['ref' => 'x']]],
            '/changes/0',
        ];
        yield 'a place that is a text' => [
            [['section' => 'needs', 'ref' => 'belt', 'set' => ['quantity']]],
            '/changes/0/set/0',
        ];
        yield 'a path that is a text' => [
            [['section' => 'needs', 'ref' => 'belt', 'set' => [['path' => 'quantity']]]],
            '/changes/0/set/0/path',
        ];
        yield 'a path of objects' => [
            [['section' => 'needs', 'ref' => 'belt', 'set' => [['path' => [['a' => 1]]]]]],
            '/changes/0/set/0/path/0',
        ];
        yield 'a place at the end of memory' => [
            [['section' => 'mates', 'ref' => 'ma', 'set' => [['path' => ['screws', 999_999_999, 'count'], 'to' => 1]]]],
            '/changes/0/set/0/path/1',
        ];
    }

    #[DataProvider('malformed')]
    public function test_a_malformed_body_is_named_by_its_place(mixed $changes, string $pointer): void
    {
        $this->as($this->isla());
        $this->postJson("/api/builds/{$this->dunlin()->id}/edits", [
            'key' => (string) Str::uuid(),
            'label' => 'x',
            'changes' => $changes,
        ])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', $pointer);
    }

    public function test_what_is_not_there_names_no_part_of_the_program(): void
    {
        $this->as($this->isla());
        foreach (
            [
                '/api/builds/99999999',
                '/api/imports/none',
                '/api/nowhere',
                '/api/builds/x',
                "/api/builds/{$this->dunlin()->id}/photos/x.jpg",
            ] as $path
        ) {
            $answer = $this->getJson($path)->assertNotFound();
            self::assertDoesNotMatchRegularExpression(
                '/App|Model|Illuminate|route|\\\\/',
                $answer->json('detail').$answer->json('title'),
                $path,
            );
        }
        $this->call(
            'POST',
            '/api/builds',
            content: '{"name": "x',
            server: [
                'CONTENT_TYPE' => 'application/json',
                'HTTP_ACCEPT' => 'application/json',
                'HTTP_REFERER' => (string) config('app.url'),
            ],
        )->assertStatus(422);
        $this->putJson('/api/builds')
            ->assertStatus(405)
            ->assertJsonPath('detail', 'This address does not take that kind of request.');
    }

    public function test_a_picture_is_measured_before_it_is_unpacked(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        // A header that claims forty thousand pixels a side, and nothing behind it.
        $chunk = static fn (string $type, string $data): string => pack('N', strlen($data)).
            $type.
            $data.
            pack('N', crc32($type.$data));
        $bomb =
            "\x89PNG\r\n\x1a\n".
            $chunk('IHDR', pack('NNCCCCC', 40_000, 40_000, 8, 2, 0, 0, 0)).
            $chunk('IDAT', (string) gzcompress(str_repeat("\0", 1000))).
            $chunk('IEND', '');
        memory_reset_peak_usage();
        $before = memory_get_usage();
        $this->post("/api/builds/{$build->id}/photos", [
            'photo' => \Illuminate\Http\UploadedFile::fake()->createWithContent('bomb.png', $bomb),
        ])
            ->assertStatus(422)
            ->assertJsonPath(
                'errors.0.reason',
                'This picture is 40000 × 40000 pixels; at most 40 million can be taken.',
            );
        self::assertLessThan(32 << 20, memory_get_peak_usage() - $before);
        $this->post("/api/builds/{$build->id}/photos", [
            'photo' => \Illuminate\Http\UploadedFile::fake()->createWithContent('x.jpg', 'no picture'),
        ])->assertStatus(422);
    }

    public function test_a_variant_keeps_its_pictures_and_the_archive_holds_them(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $image = imagecreatetruecolor(30, 20) ?: throw new \RuntimeException('no picture');
        $path = (string) tempnam(sys_get_temp_dir(), 'magpie');
        imagejpeg($image, $path);
        $name = $this->post("/api/builds/{$build->id}/photos", [
            'photo' => new \Illuminate\Http\UploadedFile($path, 'a.jpg', 'image/jpeg', null, true),
        ])
            ->assertCreated()
            ->json('name');
        $variant = $this->postJson("/api/builds/{$build->id}/variants", ['name' => 'With pictures'])
            ->assertCreated()
            ->json('id');

        $this->get("/api/builds/{$variant}/photos/{$name}")
            ->assertOk()
            ->assertHeader('Content-Type', 'image/jpeg');
        $archive = $this->get("/api/builds/{$variant}/archive")
            ->assertOk()
            ->assertHeader('Content-Type', 'application/zip');
        $zip = new \ZipArchive;
        $file = $archive->baseResponse;
        self::assertInstanceOf(\Symfony\Component\HttpFoundation\BinaryFileResponse::class, $file);
        self::assertTrue($zip->open($file->getFile()->getPathname()));
        self::assertNotFalse($zip->locateName("photos/{$name}"));
        self::assertSame('With pictures', json_decode((string) $zip->getFromIndex(0), true)['build']['name']);
        $zip->close();
    }

    /**
     * @param  array<string, mixed>  $json
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function wrapped(array $json): \Illuminate\Testing\TestResponse
    {
        return \Illuminate\Testing\TestResponse::fromBaseResponse(
            new \Symfony\Component\HttpFoundation\Response((string) json_encode($json), 200, [
                'Content-Type' => 'application/json',
            ]),
        );
    }
}
