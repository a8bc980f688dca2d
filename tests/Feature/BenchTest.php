<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Builds\Workspace;
use App\Models\Build;
use App\Models\Workshop;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Magpie\Core\Format\BuildFile;
use PHPUnit\Framework\Attributes\TestWith;

/** What the bench reads over the wire, what it may not do, and what reaches the server twice. */
final class BenchTest extends FeatureTestCase
{
    #[TestWith(['Documents', '/documents'])]
    #[TestWith(['LookAhead', '/look-ahead'])]
    #[TestWith(['Hours', '/hours'])]
    #[TestWith(['FaultCase', '/faults/X1/case?offset=60'])]
    #[TestWith(['Overview', '/overview', 'overview'])]
    public function test_what_is_worked_out_of_a_demo_has_the_shape_it_is_said_to_have(
        string $shape,
        string $path,
        ?string $member = null,
    ): void {
        $this->as($this->isla());
        foreach (['dunlin', 'plover'] as $slug) {
            $build = Build::query()->where('slug', $slug)->firstOrFail();
            $answer = $this->getJson("/api/builds/{$build->id}{$path}")->assertOk();
            $member === null
                ? self::assertShape($shape, $answer)
                : self::assertNotSame([], $answer->json($member), $slug);
        }
    }

    public function test_bags_and_a_screw_in_hand_come_by_name_and_what_is_no_length_is_said_at_its_field(): void
    {
        $this->as($this->isla());
        $at = "/api/builds/{$this->dunlin()->id}";
        $bags = $this->getJson("{$at}/bags")
            ->assertOk()
            ->json();
        $lines = array_column(array_column($bags, 'lines', 'ref')['bag3'], null, 'need');
        self::assertContains('2 were never in the bag.', $lines['n-m3']['why']);
        $found = $this->getJson("{$at}/screw-in-hand?length=11.9&thread=M3")
            ->assertOk()
            ->json();
        self::assertSame(['s-m3-12'], array_column($found, 'need'));
        $this->getJson("{$at}/screw-in-hand?length=twelve")
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/length');
        $this->getJson("{$at}/faults/X99/case")->assertNotFound();
    }

    public function test_documents_bags_questions_and_all_of_a_fault_are_kept_undone_and_refused_at_their_field(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $before = $this->held($build);
        $made = [
            'documents' => [
                'ref' => 'leaflet',
                'title' => 'Leaflet',
                'kind' => 'correction',
                'date' => '2026-11-01',
                'over' => ['later'],
                'covers' => [['step' => 'd7', 'pages' => 'p. 1', 'superseded' => true]],
                'says' => [['what' => 'Screws', 'says' => '8', 'need' => 's-m3-12', 'step' => 'd7']],
                'corrections' => [['says' => 'six', 'right' => 'eight', 'step' => 'd7', 'sent' => '2026-11-02']],
            ],
            'bags' => [
                'ref' => 'bag9',
                'label' => 'Bag 9',
                'holds' => [['need' => 'belt', 'expected' => 5, 'found' => 0, 'instead_of' => 'idler']],
                'for' => ['d6'],
            ],
            'questions' => [
                'ref' => 'Q9',
                'asks' => 'Why?',
                'of' => 'the club',
                'asked' => '2026-11-01',
                'fault' => 'X1',
            ],
            'faults' => [
                'ref' => 'X9',
                'what' => 'Pin loose',
                'severity' => 'defect',
                'state' => 'open',
                'found' => '2026-11-20',
                'need' => 'idler',
                'photos' => ['a.jpg'],
                'lead' => 'W4',
                'by' => 'testing',
                'tried' => 'Pulled',
                'hand' => 'own',
                'days' => 3,
                'marks' => [['photo' => 'a.jpg', 'x' => 250, 'y' => 0]],
                'lot' => 'L1',
                'practice' => 'pliers',
                'rework' => ['d7'],
                'caught' => 'a pull',
            ],
        ];
        $changes = array_map(
            static fn (string $section, array $entry): array => ['section' => $section, 'create' => $entry],
            array_keys($made),
            $made,
        );
        // What it prevails over is made in the same edit, after it.
        $changes[] = ['section' => 'documents', 'create' => ['ref' => 'later', 'title' => 'Later', 'kind' => 'sheet']];
        $this->edit($build, $changes)->assertOk();
        foreach ($made as $section => $entry) {
            self::assertEquals($entry, array_column($this->held($build)[$section], null, 'ref')[$entry['ref']]);
        }
        foreach (
            [
                ['documents', 'leaflet', ['over'], ['leaflet'], 'cannot prevail over itself'],
                ['documents', 'leaflet', ['covers', 0, 'step'], 'd99', 'd99'],
                ['documents', 'later', ['over'], ['leaflet'], 'in a circle'],
                ['bags', 'bag9', ['holds', 0, 'instead_of'], 'belt', 'cannot go in for itself'],
                ['questions', 'Q9', ['answered'], '2026-11-03', 'is missing, though there is a day'],
                ['faults', 'X9', ['marks', 0, 'photo'], 'b.jpg', 'a picture this fault does not have'],
                ['faults', 'X9', ['marks', 0, 'x'], 1001, 'from 0 to 1000'],
                ['steps', 'd7', ['sets'], '-1 h', 'negative'],
                ['steps', 'd5', ['timings'], [['start' => 20, 'stop' => 10]], 'before the start'],
            ] as [$section, $ref, $path, $to, $reason]
        ) {
            $answer = $this->edit($build, self::setting($section, $ref, $path, $to))->assertStatus(422);
            self::assertStringContainsString($reason, $answer->json('errors.0.reason'), "{$section}/{$ref}");
        }
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertEquals($before, $this->held($build));
        $this->postJson("/api/builds/{$build->id}/redo")->assertOk();
        self::assertContains('leaflet', array_column($this->held($build)['documents'], 'ref'));
    }

    public function test_what_cannot_be_taken_back_is_neither_begun_nor_done_before_its_condition_whatever_the_reason(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $done = ['path' => ['state'], 'was' => 'open', 'to' => 'done'];
        $why = ['path' => ['waived'], 'to' => 'It is late.'];
        $on = ['path' => ['timings'], 'to' => [['start' => 1_790_000_000]]];
        foreach ([[$done, $why], [$on]] as $set) {
            $answer = $this->edit($build, [['section' => 'steps', 'ref' => 'd11', 'set' => $set]])->assertStatus(422);
            self::assertStringContainsString('stays locked', $answer->json('errors.0.reason'));
        }
        foreach (['d6', 'd7', 'd9', 'd10'] as $before) {
            $this->edit($build, [
                [
                    'section' => 'steps',
                    'ref' => $before,
                    'set' => [$done, ['path' => ['waived'], 'to' => 'For the test.']],
                ],
            ])->assertOk();
        }
        $this->edit($build, [['section' => 'steps', 'ref' => 'd11', 'set' => [$on]]])->assertOk();
    }

    public function test_a_place_is_still_as_it_was_in_whatever_form_that_is_said_and_otherwise_it_is_not(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $read = static fn (mixed $was, string $to): array => [
            [
                'section' => 'steps',
                'ref' => 'd4',
                'set' => [['path' => ['check', 'measured'], 'was' => $was, 'to' => $to]],
            ],
        ];
        $this->edit($build, $read('0,07 mm', '0,05mm'))->assertOk();
        $this->edit($build, $read('0.05 mm', '0.06 mm'))->assertOk();
        $this->edit($build, $read('0.05 mm', '0.04 mm'))->assertStatus(409);
        $this->edit($build, $read('no length', '0.04 mm'))->assertStatus(409);
        // Members in another order are the same.
        $on = ['start' => 1_790_000_000, 'by' => 'Tam'];
        $clock = static fn (mixed $was, array $to): array => [
            ['section' => 'steps', 'ref' => 'd7', 'set' => [['path' => ['timings'], 'was' => $was, 'to' => $to]]],
        ];
        $this->edit($build, $clock(null, [$on + ['stop' => 1_790_000_600]]))->assertOk();
        $this->edit($build, $clock([$on + ['stop' => 1_790_000_600]], [$on]))->assertOk();
        $this->edit($build, $clock([['stop' => 1_790_000_600] + $on], [$on + ['stop' => 1_790_000_900]]))->assertStatus(409);
    }

    public function test_a_picture_sent_twice_under_its_name_is_one_picture(): void
    {
        Storage::fake();
        $this->as($this->isla());
        $at = "/api/builds/{$this->dunlin()->id}/photos";
        $name = Str::uuid().'.jpg';
        $send = fn (string $called) => $this->post(
            $at,
            ['photo' => UploadedFile::fake()->image('x.png', 40, 30), 'name' => $called],
            ['Accept' => 'application/json'],
        );
        $send($name)->assertCreated()->assertJsonPath('name', $name);
        $send($name)->assertCreated()->assertJsonPath('name', $name);
        self::assertSame(1, $this->dunlin()->photos()->where('name', $name)->count());
        $send('../../x.jpg')->assertStatus(422)->assertJsonPath('errors.0.pointer', '/name');
    }

    public function test_what_a_second_build_took_is_laid_beside_the_first(): void
    {
        $this->as($this->isla());
        $plover = Build::query()->where('slug', 'plover')->firstOrFail();
        $data = BuildFile::data(BuildFile::read((string) file_get_contents(base_path('demo/plover.json'))));
        $data['build']['name'] = 'Plover again';
        foreach ($data['steps'] as $i => $step) {
            $spell = $step['timings'][0];
            // A year later, and in four fifths of the time.
            $start = $spell['start'] + 31_536_000;
            $data['steps'][$i]['timings'] = [
                ['start' => $start, 'stop' => $start + (int) round(($spell['stop'] - $spell['start']) * 0.8)],
            ];
        }
        $again = Workspace::add(Workshop::query()->where('demo', true)->firstOrFail(), BuildFile::build($data));
        $learnt = array_column($this->getJson("/api/builds/{$plover->id}/hours")->json('learnt'), null, 'build')[
            $again->id
        ];
        self::assertSame([false, 0.8], [$learnt['is_first'], $learnt['rate']]);
        self::assertEqualsWithDelta($learnt['first'] * 0.8, $learnt['second'], 0.1);
        $learnt = array_column($this->getJson("/api/builds/{$again->id}/hours")->json('learnt'), null, 'build')[
            $plover->id
        ];
        self::assertTrue($learnt['is_first']);
    }

    public function test_the_worker_is_served_from_the_top_and_asked_for_afresh(): void
    {
        $answer = $this->get('/worker.js')->assertOk();
        self::assertStringContainsString('javascript', (string) $answer->headers->get('Content-Type'));
        self::assertStringContainsString('no-cache', (string) $answer->headers->get('Cache-Control'));
    }
}
