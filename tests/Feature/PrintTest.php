<?php

declare(strict_types=1);

namespace Tests\Feature;

use Illuminate\Http\UploadedFile;

/** Printers, prints and files of triangles over the wire. */
final class PrintTest extends FeatureTestCase
{
    public function test_the_queue_of_the_demo_is_given_out_and_says_by_when(): void
    {
        $this->as($this->isla());
        $prints = $this->getJson("/api/builds/{$this->dunlin()->id}/prints")->assertOk();
        self::assertShape('Prints', $prints);
        self::assertSame([], $prints->json('waiting'));
        self::assertContains('thin', array_column($prints->json('runs'), 'state'));
        foreach ($prints->json('printers') as $printer) {
            self::assertNotSame('itself', $printer['ref'], 'The machine prints nothing before it runs.');
            foreach ($printer['jobs'] as $job) {
                self::assertGreaterThanOrEqual($prints->json('today'), $job['start_by'], $job['name']);
            }
        }
        self::assertShape('Dates', $this->getJson("/api/builds/{$this->dunlin()->id}/dates")->assertOk());
    }

    public function test_a_printer_and_a_print_are_kept_and_what_cannot_be_is_refused_at_its_field(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $printer = [
            'ref' => 'loft',
            'name' => 'Loft printer',
            'length' => '180 mm',
            'width' => '180 mm',
            'height' => '180 mm',
            'plastics' => ['PLA', 'PC'],
            'flow' => '3.5 mm³/s',
            'daily' => '4 h',
        ];
        $run = [
            'ref' => 'N1',
            'part' => 'P-spool',
            'printer' => 'loft',
            'date' => '2026-11-20',
            'good' => 1,
            'time' => '3.5 h',
        ];
        $this->edit($build, [
            ['section' => 'printers', 'create' => $printer],
            ['section' => 'prints', 'create' => $run],
        ])->assertOk();
        $held = $this->held($build);
        self::assertSame($printer, array_column($held['printers'], null, 'ref')['loft']);
        self::assertSame($run, array_column($held['prints'], null, 'ref')['N1']);
        $names = static fn (array $prints): array => array_column(
            array_merge(...array_column($prints['printers'], 'jobs')),
            'part',
        );
        self::assertNotContains('P-spool', $names($this->getJson("/api/builds/{$build->id}/prints")->json()));

        $this->edit($build, [['section' => 'printers', 'ref' => 'loft', 'delete' => true]])->assertStatus(422);
        $this->edit($build, [['section' => 'prints', 'ref' => 'N1', 'set' => [['path' => ['good'], 'to' => 0]]]])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.reason', 'a print is of at least one piece, good or failed.');
        $this->edit($build, [['section' => 'prints', 'ref' => 'N1', 'set' => [['path' => ['part'], 'to' => 'P-asa']]]])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.reason', '"P-asa" is a filament, not a printed part.');
        self::assertSame($run, array_column($this->held($build)['prints'], null, 'ref')['N1']);
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertArrayNotHasKey('N1', array_column($this->held($build)['prints'], null, 'ref'));
    }

    public function test_a_file_of_triangles_is_read_in_its_unit_and_what_is_wrong_with_it_is_said(): void
    {
        $this->as($this->isla());
        $cube = (string) file_get_contents(dirname(__DIR__).'/Browser/cube.stl');
        $send = fn (string $content, array $more = []) => $this->post(
            "/api/builds/{$this->dunlin()->id}/errands",
            ['kind' => 'mesh', 'mesh' => UploadedFile::fake()->createWithContent('cube.stl', $content)] + $more,
            ['Accept' => 'application/json'],
        );
        $whole = [
            'volume' => '8 cm³',
            'area' => '24 cm²',
            'length' => '20 mm',
            'width' => '20 mm',
            'height' => '20 mm',
        ];
        self::assertShape('Errand', $send($cube)->assertCreated()->assertJsonPath('answer.specs', $whole));
        $send($cube, ['unit' => 'in'])
            ->assertCreated()
            ->assertJsonPath('answer.specs.length', '508 mm');
        $send($cube, ['unit' => 'ell'])->assertStatus(422);
        // Without its last two triangles it is open, and has no volume to be taken.
        $open = (string) preg_replace('/( facet(?:(?! facet).)*){2}endsolid/s', 'endsolid', $cube);
        self::assertArrayNotHasKey('volume', $send($open)->assertCreated()->assertJsonPath('answer.closed', false)->json('answer.specs'));
        $send('')->assertStatus(422);
        $send(substr($cube, 0, 400))->assertStatus(422)->assertJsonPath('errors.0.pointer', '/mesh');
        $this->as($this->stranger());
        $send($cube)->assertNotFound();
    }

    public function test_steps_follow_from_the_model_and_are_kept_with_what_they_follow_from(): void
    {
        $this->as($this->isla());
        $derived = $this->getJson("/api/builds/{$this->dunlin()->id}/derived-steps")->assertOk();
        self::assertShape('DerivedSteps', $derived);
        self::assertShape('Evening', $this->getJson("/api/builds/{$this->dunlin()->id}/evening?hours=2")->assertOk());
        $this->getJson("/api/builds/{$this->dunlin()->id}/evening?hours=-1")->assertStatus(422);
        self::assertShape('WayBack', $this->getJson("/api/builds/{$this->dunlin()->id}/way-back/bed")->assertOk());
        $this->getJson("/api/builds/{$this->dunlin()->id}/way-back/nobody")->assertNotFound();
        self::assertSame(
            'danger',
            $this->getJson("/api/builds/{$this->dunlin()->id}/open-items")
                ->assertOk()
                ->json('0.kind'),
        );
        $step = array_column($derived->json('steps'), null, 'key')['lead/W3'];
        $this->edit($this->dunlin(), [
            [
                'section' => 'steps',
                'create' => [
                    'ref' => 'm1',
                    'position' => 900,
                    'section' => $step['section'],
                    'title' => $step['title'],
                    'derived' => 'lead/W3',
                ],
            ],
        ])->assertOk();
        self::assertSame('lead/W3', array_column($this->held($this->dunlin())['steps'], null, 'ref')['m1']['derived']);
    }
}
