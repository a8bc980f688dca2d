<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Build;
use Illuminate\Testing\TestResponse;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;

/** Where everything sits, over HTTP: given a place, moved, arranged, taken away, taken back. */
final class PictureTest extends FeatureTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->as($this->isla());
    }

    private function wren(): Build
    {
        $body = static fn (string $l, string $w, string $h): array => [
            'body_length' => $l,
            'body_width' => $w,
            'body_height' => $h,
        ];
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', $body('215 mm', '115 mm', '50 mm')),
                Examples::part('fan', 'fan', $body('40 mm', '40 mm', '20 mm')),
            ],
            [
                'magpie' => BuildFile::VERSION,
                'build' => ['name' => 'Wren', 'kind' => 'printer', 'currency' => 'GBP'],
                'leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'fan.power']],
            ],
        );
        $file['needs'][1]['quantity'] = 2;
        $id = $this->postJson('/api/builds', [
            'workshop' => $this->dunlin()->workshop_id,
            'file' => (string) json_encode($file),
        ])
            ->assertCreated()
            ->json('id');

        return Build::query()->findOrFail($id);
    }

    /**
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function picture(Build $build): TestResponse
    {
        $picture = $this->getJson("/api/builds/{$build->id}/picture")->assertOk();
        self::assertShape('MachinePicture', $picture);

        return $picture;
    }

    /** 300 mm of way; the second fan stands no farther off than the supply is deep. 5 % and 150 mm more, to the next 10. */
    public function test_a_machine_is_laid_out_and_its_leads_get_their_lengths_until_one_is_typed(): void
    {
        $build = $this->wren();
        $tray = $this->picture($build)->json('tray');
        self::assertSame(
            [['psu', 1, true, ['W1']], ['fan', 2, true, ['W1']]],
            array_map(static fn (array $t): array => [$t['need'], $t['pieces'], $t['sized'], $t['leads']], $tray),
        );
        $place = static fn (string $ref, array $x, array $more = []): array => [
            'section' => 'places',
            'create' => $more + [
                'ref' => $ref,
                'need' => $ref,
                'x' => $x,
                'y' => ['at' => 'low'],
                'z' => ['at' => 'low'],
            ],
        ];
        $this->edit($build, [
            $place('psu', ['at' => 'low']),
            $place('fan', ['at' => 'after', 'of' => 'psu', 'by' => '300 mm'], ['row' => 'y', 'pitch' => '60 mm']),
        ])->assertOk();
        $picture = $this->picture($build);
        self::assertSame(['psu', 'fan', 'fan#2'], array_column($picture->json('bodies'), 'key'));
        self::assertSame([], $picture->json('tray'));
        self::assertEquals(
            [300, '0.47 m', null],
            [$picture->json('ways.0.bare'), $picture->json('ways.0.cut'), $picture->json('ways.0.typed')],
        );
        self::assertArrayNotHasKey('length', $this->held($build)['leads'][0]);
        self::assertStringContainsString(
            '0.47 m',
            (string) $this->getJson("/api/builds/{$build->id}/harness")
                ->assertOk()
                ->getContent(),
        );
        // What is typed stays, and is held against it; taken back, the way counts again.
        $this->edit($build, self::setting('leads', 'W1', ['length'], '0.2 m'))->assertOk();
        self::assertSame('0.2 m', $this->picture($build)->json('ways.0.typed'));
        $this->getJson("/api/builds/{$build->id}/findings/E28/W1")
            ->assertOk()
            ->assertJsonPath('verdict', 'fails');
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertNull($this->picture($build)->json('ways.0.typed'));
        // Placed in a circle, it is said, and nothing is lost; told from nothing at all, it is refused.
        $this->edit(
            $build,
            self::setting('places', 'psu', ['x'], ['at' => 'before', 'of' => 'fan'], ['at' => 'low']),
        )->assertOk();
        self::assertStringContainsString('circle', (string) $this->picture($build)->json('waiting.0.why'));
        $this->edit($build, self::setting('places', 'psu', ['on'], 'nowhere'))
            ->assertStatus(422)
            ->assertJsonPath('errors.0.reason', 'there is no place "nowhere".');
        self::assertCount(2, $this->held($build)['places']);
        // Another size is put where it was.
        $this->edit(
            $build,
            self::setting('parts', 'fan', ['specs', 'body_length', 'value'], '80 mm', '40 mm'),
        )->assertOk();
        self::assertCount(2, $this->held($build)['places']);
    }

    public function test_the_demo_is_drawn_arranged_and_taken_away(): void
    {
        $build = $this->linnet();
        $api = "/api/builds/{$build->id}";
        $picture = $this->picture($build);
        $count = count($picture->json('bodies'));
        $meets = static fn (TestResponse $p): array => array_values(
            array_filter($p->json('meetings'), static fn (array $m): bool => ($m['gap'] ?? 0) < 0),
        );
        self::assertGreaterThan(30, $count);
        self::assertSame([], $meets($picture));
        $content = fn (string $path): string => (string) $this->get("{$api}/{$path}")
            ->assertOk()
            ->getContent();
        foreach (['plan', 'front', 'side'] as $view) {
            self::assertNotFalse(simplexml_load_string($content("picture/{$view}.svg")));
        }
        $this->get("{$api}/picture/below.svg")->assertNotFound();
        self::assertCount($count + 1, explode("\r\n", rtrim($content('positions.csv'))));
        self::assertCount($count, json_decode($content('machine.gltf'), true)['nodes']);
        self::assertContains('cabinet', array_column($picture->json('sheets'), 'place'));
        self::assertStringContainsString('AC1009', $content('sheets/cabinet.dxf'));
        self::assertStringContainsString('1:1', $content('sheets/cabinet.svg'));
        $this->get("{$api}/sheets/spindle.dxf")->assertNotFound();

        $proposed = $this->getJson("{$api}/arrangements/cabinet")->assertOk();
        self::assertShape('Arrangements', $proposed);
        $held = array_column($this->held($build)['places'], null, 'ref');
        foreach ($proposed->json('proposals') as $proposal) {
            $changes = [];
            foreach ($proposal['places'] as $place) {
                array_push(
                    $changes,
                    ...self::setting('places', $place['ref'], ['y'], $place['y'], $held[$place['ref']]['y']),
                    ...self::setting('places', $place['ref'], ['z'], $place['z'], $held[$place['ref']]['z']),
                );
                $changes[] = [
                    'section' => 'places',
                    'ref' => $place['ref'],
                    'set' => [
                        [
                            'path' => ['turned'],
                            'was' => $held[$place['ref']]['turned'] ?? null,
                            'to' => $place['turned'],
                        ],
                    ],
                ];
            }
            $this->edit($build, $changes)->assertOk();
            self::assertSame([], $meets($this->picture($build)), $proposal['name']);
            $this->postJson("{$api}/undo")->assertOk();
        }
        self::assertGreaterThanOrEqual(2, count($proposed->json('proposals')));
        $this->getJson("{$api}/arrangements/spindle")
            ->assertStatus(422)
            ->assertJsonPath('errors.0.reason', static fn (string $why): bool => str_contains($why, 'encloses nothing'));
        // A wall put where the gantry goes.
        $this->edit($build, [
            [
                'section' => 'places',
                'create' => [
                    'ref' => 'wall',
                    'name' => 'Wall',
                    'x' => ['at' => 'low'],
                    'y' => ['at' => 'high'],
                    'z' => ['at' => 'low'],
                    'size' => ['length' => '760 mm', 'width' => '60 mm', 'height' => '700 mm'],
                ],
            ],
        ])->assertOk();
        $met = array_column($meets($this->picture($build)), null, 'one');
        self::assertSame(['y'], array_column($met['uprights']['where'], 'axis'));
        $this->getJson("{$api}/findings/M11-place/layout")
            ->assertOk()
            ->assertJsonPath('verdict', 'fails');
    }
}
