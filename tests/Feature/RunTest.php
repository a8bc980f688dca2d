<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Build;
use App\Models\Errand;
use Illuminate\Http\UploadedFile;
use Magpie\Core\Simulation\SimulatedLog;
use PHPUnit\Framework\Attributes\TestWith;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use ZipArchive;

/** From the first power to years of use, over the wire. */
final class RunTest extends FeatureTestCase
{
    private function plover(): Build
    {
        return Build::query()->where('slug', 'plover')->firstOrFail();
    }

    private static function file(string $name, string $bytes): UploadedFile
    {
        return UploadedFile::fake()->createWithContent($name, $bytes);
    }

    #[TestWith(['Ladder', '/ladder'])]
    #[TestWith(['Alignments', '/alignments'])]
    #[TestWith(['Upkeep', '/upkeep'])]
    #[TestWith(['StartList', '/start-list?material=oak'])]
    #[TestWith(['BuildBook', '/book'])]
    public function test_what_is_worked_out_of_every_demo_has_the_shape_it_is_said_to_have(
        string $shape,
        string $path,
    ): void {
        $this->as($this->isla());
        foreach (Build::query()->get() as $build) {
            self::assertShape($shape, $this->getJson("/api/builds/{$build->id}{$path}")->assertOk());
        }
    }

    public function test_the_demo_stands_where_it_is_said_to(): void
    {
        $this->as($this->isla());
        $ladder = fn (Build $build): array => $this->getJson("/api/builds/{$build->id}/ladder")->json();
        self::assertNull($ladder($this->plover())['next']);
        $dunlin = $ladder($this->dunlin());
        self::assertSame('supply-psu', $dunlin['next']);
        $rung = array_column($dunlin['rungs'], null, 'key')['supply-psu'];
        self::assertSame(['out of band', 'fails'], [$rung['state'], $rung['readings'][0]['verdict']]);
        self::assertStringContainsString('trimmer', $rung['readings'][0]['points'][0]);
        self::assertNotSame([], $dunlin['dangers']);
    }

    public function test_everything_noted_on_a_machine_that_runs_is_kept_undone_and_refused_at_its_field(): void
    {
        $this->as($this->isla());
        $build = $this->plover();
        $before = $this->held($build);
        $made = [
            'readings' => [
                'ref' => 'R90',
                'what' => 'temperature',
                'value' => '-4 °C',
                'need' => 'psu',
                'port' => 'out',
                'scenario' => 'everything-on',
                'part' => 'P-psu',
                'accuracy' => '0.5 K',
                'instrument' => 'thermometer',
                'by' => 'Isla',
                'at' => 1790000000,
                'photo' => 'a.jpg',
                'note' => 'cold',
                'simulated' => true,
                'struck' => 'in the frost',
            ],
            'rungs' => [
                'ref' => 'tool-x',
                'ticks' => ['a@b'],
                'override' => 'why not',
                'by' => 'I',
                'at' => 1,
                'note' => 'n',
                'over' => ['this'],
            ],
            'attempts' => [
                'ref' => 'P9',
                'at' => 5,
                'breaker' => 'tripped',
                'stops' => 'pressed',
                'started' => false,
                'rung' => 'dry',
                'lamps' => 'none',
                'by' => 'I',
                'note' => 'n',
            ],
            'alignments' => [
                'ref' => 'A9',
                'kind' => 'cranks',
                'given' => ['distance' => '1 mm', 'lead' => '8 mm'],
                'axis' => 'x',
                'instrument' => 'i',
                'holder' => 'h',
                'by' => 'I',
                'at' => 1,
                'note' => 'n',
            ],
            'jobs' => [
                'ref' => 'J90',
                'name' => 'cut',
                'at' => 9,
                'time' => '2 h',
                'axes' => ['y'],
                'spindle' => '1 h',
                'heat' => '30 min',
                'material' => 'm',
                'note' => 'n',
            ],
            'rounds' => ['ref' => 'U9', 'task' => 'belts', 'at' => 9, 'found' => 'f', 'trouble' => true, 'by' => 'I'],
            'tests' => [
                'ref' => 'T9',
                'piece' => 'cube',
                'at' => 9,
                'recipe' => 'r',
                'material' => 'm',
                'features' => [
                    ['name' => 'x', 'nominal' => '20 mm', 'tolerance' => '0.1 mm', 'measured' => '20.05 mm'],
                ],
                'changed' => 'c',
                'by' => 'I',
            ],
        ];
        $this->edit(
            $build,
            array_map(
                static fn (string $section, array $entry): array => ['section' => $section, 'create' => $entry],
                array_keys($made),
                $made,
            ),
        )->assertOk();
        foreach ($made as $section => $entry) {
            self::assertEquals($entry, array_column($this->held($build)[$section], null, 'ref')[$entry['ref']]);
        }
        foreach (
            [
                ['readings', 'R90', ['value'], '4 kg', 'kg'],
                ['readings', 'R90', ['what'], 'colour', 'not one of'],
                ['readings', 'R90', ['need'], 'nobody', 'nobody'],
                ['readings', 'R90', ['axis'], 'x', 'not on both'],
                ['rungs', 'tool-x', ['override'], null, 'say why'],
                ['attempts', 'P9', ['breaker'], 'open', 'held'],
                ['alignments', 'A9', ['given', 'lead'], '0 mm', 'more than nothing'],
                ['alignments', 'A9', ['kind'], 'level', 'is none of'],
                ['jobs', 'J90', ['spindle'], '3 h', 'longer than the job'],
                ['jobs', 'J90', ['axes'], ['w'], 'w'],
                ['rounds', 'U9', ['at'], -1, 'whole number'],
                ['tests', 'T9', ['features', 0, 'tolerance'], '-1 mm', 'negative'],
            ] as [$section, $ref, $path, $to, $reason]
        ) {
            $answer = $this->edit($build, self::setting($section, $ref, $path, $to))->assertStatus(422);
            self::assertStringContainsString($reason, $answer->json('errors.0.reason'), "{$section}/{$ref}");
        }
        $this->edit($build, [['section' => 'readings', 'ref' => 'R90', 'delete' => true]])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/readings/R90');
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertEquals($before, $this->held($build));
    }

    public function test_a_reading_changes_what_is_judged_and_its_loss_does_not_bring_the_sheet_back(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $verdict = fn (string $key): string => $this->getJson("/api/builds/{$build->id}/findings/{$key}")
            ->assertOk()
            ->json('verdict');
        $reading = [
            'ref' => 'R70',
            'what' => 'cold_resistance',
            'need' => 'hot-end',
            'value' => '3.3 Ω',
            'at' => 1795000000,
        ];
        $this->edit($build, [['section' => 'readings', 'create' => $reading]])->assertOk();
        self::assertSame('fails', $verdict('C01/cold_resistance/hot-end'));
        // 24² / 3.3 Ω is three times its 60 W.
        self::assertSame('danger', $verdict('E01/hot-end'));
        $overview = $this->getJson("/api/builds/{$build->id}")->json('overview.findings');
        self::assertContains('C01/cold_resistance/hot-end', array_column($overview, 'key'));
    }

    public function test_an_alignment_is_tried_before_it_is_kept(): void
    {
        $this->as($this->isla());
        $at = "/api/builds/{$this->plover()->id}/alignments";
        $given = ['a' => '1000 mm', 'b' => '750 mm', 'd1' => '1251 mm', 'd2' => '1249 mm', 'limit' => ''];
        $answer = $this->postJson($at, ['kind' => 'diagonals', 'given' => $given])->assertOk();
        self::assertShape('AlignmentOutcome', $answer);
        self::assertEqualsWithDelta(0.0955, $answer->json('figures.0.value'), 0.0001);
        $this->postJson($at, ['kind' => 'diagonals', 'given' => ['d1' => '12'] + $given])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/given/d1');
    }

    public function test_logs_and_sounds_are_worked_and_what_is_none_is_said_at_its_field(): void
    {
        $this->as($this->isla());
        $at = "/api/builds/{$this->plover()->id}";
        $log = new SimulatedLog(5);
        $shapes = [
            'BeltNote' => [
                'note',
                [
                    'sound' => self::file('n.wav', $log->note()),
                    'span' => '150 mm',
                    'mass' => '8.4 g/m',
                    'tension' => '8 N',
                ],
            ],
            'Resonances' => [
                'spectrum',
                ['log' => self::file('l.csv', $log->acceleration(400, 10)), 'accepted' => '0.1'],
            ],
            'HeaterLoop' => [
                'step-response',
                ['log' => self::file('h.csv', $log->heating()), 'step' => '40', 'target' => '90'],
            ],
            'FollowingError' => ['following', ['log' => self::file('f.csv', $log->following()), 'limit' => '0.03']],
        ];
        foreach ($shapes as $shape => [$what, $form]) {
            self::assertShape(
                $shape,
                $this->post("{$at}/tune/{$what}", $form, ['Accept' => 'application/json'])->assertOk(),
            );
        }
        foreach (
            [
                ['note', ['sound' => self::file('n.wav', 'no sound'), 'span' => '150 mm', 'mass' => '8 g'], '/sound'],
                ['note', ['frequency' => '110 Hz', 'span' => '150 kg', 'mass' => '8 g'], '/span'],
                ['note', ['span' => '150 mm', 'mass' => '8 g'], '/sound'],
                ['spectrum', ['log' => self::file('l.csv', "time,x\n0,1\n1,high\n2,3\n")], '/log'],
                ['step-response', ['log' => self::file('l.csv', 'a'), 'step' => '400'], '/step'],
            ] as [$what, $form, $pointer]
        ) {
            $this->post("{$at}/tune/{$what}", $form, ['Accept' => 'application/json'])
                ->assertStatus(422)
                ->assertJsonPath('errors.0.pointer', $pointer);
        }
        foreach (['acceleration', 'heating', 'following', 'note'] as $what) {
            $this->get("{$at}/simulated-logs/{$what}")->assertOk();
        }
        $this->getJson("{$at}/simulated-logs/weather")->assertNotFound();
        self::assertShape('SimulatedReading', $this->getJson("{$at}/simulated-readings/bond/psu")->assertOk());
        $this->getJson("{$at}/simulated-readings/bond/nobody")->assertNotFound();
    }

    public function test_a_program_is_held_against_the_machine(): void
    {
        $this->as($this->isla());
        $at = "/api/builds/{$this->linnet()->id}/errands";
        $program = "G21 G90\nS8000 M3\nG0 X0 Y0 Z5\nG1 Z-1 F300\nG1 Y700 F1200\nG0 Z5\nM5\nM30\n";
        $answer = $this->post(
            $at,
            ['kind' => 'program', 'program' => self::file('p.nc', $program)],
            ['Accept' => 'application/json'],
        )->assertCreated();
        self::assertShape('Errand', $answer);
        self::assertSame('fails', $answer->json('answer.verdict'));
        $this->post(
            $at,
            ['kind' => 'program', 'program' => self::file('p.nc', $program), 'stock' => 'x'],
            ['Accept' => 'application/json'],
        )
            ->assertStatus(422)
            ->assertJsonPath('errors.0', ['pointer' => '/stock', 'reason' => '"x" is no workpiece of this build.']);
        $this->post($at, ['kind' => 'program'], ['Accept' => 'application/json'])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/program');
    }

    public function test_the_book_is_a_pdf_the_archive_reads_back_whole_and_the_next_begins_without_what_was_this_ones_own(): void
    {
        $this->as($this->isla());
        $build = $this->plover();
        $errand = $this->postJson("/api/builds/{$build->id}/errands", ['kind' => 'book'])
            ->assertCreated()
            ->assertJsonPath('file', true)
            ->json('key');
        $pdf = $this->get("/api/builds/{$build->id}/errands/{$errand}/file")
            ->assertOk()
            ->assertHeader('Content-Type', 'application/pdf');
        self::assertStringStartsWith('%PDF-', $pdf->streamedContent());
        $image = imagecreatetruecolor(30, 20) ?: throw new \RuntimeException('no picture');
        $path = (string) tempnam(sys_get_temp_dir(), 'magpie');
        imagejpeg($image, $path);
        $name = $this->post("/api/builds/{$build->id}/photos", [
            'photo' => new UploadedFile($path, 'a.jpg', 'image/jpeg', null, true),
        ])
            ->assertCreated()
            ->json('name');
        $archive = $this->get("/api/builds/{$build->id}/archive")->assertOk()->baseResponse;
        self::assertInstanceOf(BinaryFileResponse::class, $archive);
        $zip = new ZipArchive;
        self::assertTrue($zip->open($archive->getFile()->getPathname()));
        self::assertStringContainsString(
            '24 V supply',
            (string) $zip->getFromName('tables/02-parts-and-what-their-figures-rest-on.csv').
                $zip->getFromName('tables/03-parts-and-what-their-figures-rest-on.csv'),
        );
        $zip->close();
        $copy = $this->post(
            '/api/archives',
            [
                'workshop' => $build->workshop_id,
                'archive' => new UploadedFile(
                    $archive->getFile()->getPathname(),
                    'p.zip',
                    'application/zip',
                    null,
                    true,
                ),
            ],
            ['Accept' => 'application/json'],
        )
            ->assertCreated()
            ->json('id');
        $read = Build::query()->findOrFail($copy);
        self::assertEquals($this->held($build), $this->held($read));
        // Its pictures are drawn anew in the background, where nobody waits.
        $errand = Errand::query()->where(['build_id' => $copy, 'kind' => 'pictures'])->firstOrFail();
        self::assertSame(['done', 1], [$errand->state, $errand->answer?->kept]);
        $this->postJson("/api/builds/{$copy}/errands", ['kind' => 'pictures'])->assertStatus(422);
        $this->get("/api/builds/{$copy}/photos/{$name}")
            ->assertOk()
            ->assertHeader('Content-Type', 'image/jpeg');
        $this->post(
            '/api/archives',
            ['workshop' => $build->workshop_id, 'archive' => self::file('a.zip', 'none')],
            ['Accept' => 'application/json'],
        )
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/archive');

        $next = $this->postJson("/api/builds/{$build->id}/template", ['name' => 'Plover 2'])
            ->assertCreated()
            ->json('id');
        $made = Build::query()->findOrFail($next);
        self::assertSame('Plover 2', $made->name);
        $held = $this->held($made);
        self::assertCount(count($this->held($build)['steps']), $held['steps']);
        self::assertSame(['open'], array_values(array_unique(array_column($held['steps'], 'state'))));
        foreach (['purchases', 'faults', 'readings', 'rungs', 'jobs', 'tests'] as $section) {
            self::assertSame([], $held[$section] ?? [], $section);
        }
        self::assertSame([], array_filter(array_column($held['steps'], 'timings')));
        self::assertSame([], array_filter(array_column($held['leads'], 'made')));
    }
}
