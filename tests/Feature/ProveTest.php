<?php

declare(strict_types=1);

namespace Tests\Feature;

use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\Schemas;

/** Wiring on a bad day, ports, stops, settings and fixes together, as the interface asks for them. */
final class ProveTest extends FeatureTestCase
{
    /**
     * @return iterable<string, array{string, string, bool}>
     */
    public static function answers(): iterable
    {
        yield 'wiring when a load doubles' => ['wiring?doubled=spindle', 'Wiring', false];
        yield 'stops' => ['stops', 'Stops', false];
        yield 'ports' => ['ports', 'Ports', false];
        yield 'settings' => ['settings', 'SettingLine', true];
        yield 'motion' => ['motion', 'AxisMotion', true];
        yield 'joints' => ['joints', 'Joints', false];
        yield 'heat' => ['heat', 'Heat', false];
        yield 'proposed leads' => ['proposed-leads', 'ProposedLeads', false];
    }

    #[DataProvider('answers')]
    public function test_answers_keep_to_the_published_contract(string $path, string $shape, bool $list): void
    {
        $this->as($this->isla());
        foreach ([$this->dunlin(), $this->linnet()] as $build) {
            $answer = $this->getJson("/api/builds/{$build->id}/{$path}")->assertOk();
            $found = $list ? $answer->json() : [$answer->json()];
            self::assertNotSame([], $found);
            foreach ($list ? $found : [json_decode((string) $answer->getContent())] as $one) {
                self::assertSame(
                    [],
                    Schemas::breaks((string) json_encode($one), "api/openapi.json#/components/schemas/{$shape}"),
                    (string) json_encode($one),
                );
            }
        }
    }

    public function test_a_bad_day_says_what_gets_worse_and_changes_nothing(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $calm = $this->getJson("/api/builds/{$build->id}/wiring")->json();
        $doubled = $this->getJson("/api/builds/{$build->id}/wiring?doubled=light")->json();
        $amps = static fn (array $map, string $lead): float => (float) collect($map['leads'])->firstWhere('ref', $lead)[
            'amps'
        ]['worst'];

        self::assertSame([], $calm['worse']);
        self::assertEqualsWithDelta(2 * $amps($calm, 'W15'), $amps($doubled, 'W15'), 0.001);
        $sag = $this->getJson("/api/builds/{$build->id}/wiring?sag=1")->json();
        self::assertEqualsWithDelta(48 * 0.98, $sag['volts']['worst']['psu48.out'], 0.001);
        $pressed = $this->getJson("/api/builds/{$build->id}/wiring?pressed=stop")->json();
        self::assertArrayNotHasKey(
            'worst',
            collect($pressed['leads'])->firstWhere('ref', 'W10')['amps'],
            'Nothing flows behind a pressed stop.',
        );
        self::assertSame($calm, $this->getJson("/api/builds/{$build->id}/wiring")->json());
    }

    public function test_a_setting_read_back_settles_its_line_and_a_link_stays_open_until_undone(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $line = fn (string $key): array => collect(
            (array) $this->getJson("/api/builds/{$build->id}/settings")->json(),
        )->firstWhere('key', $key);

        self::assertSame('not read', $line('driver.drv-z.current')['state']);
        $this->edit($build, [
            [
                'section' => 'settings',
                'create' => [
                    'ref' => 'S-9',
                    'kind' => 'setting',
                    'about' => 'driver.drv-z.current',
                    'value' => '1.1 A',
                ],
            ],
        ])->assertOk();
        self::assertSame('agrees', $line('driver.drv-z.current')['state']);
        $this->edit($build, [
            [
                'section' => 'settings',
                'create' => ['ref' => 'S-10', 'kind' => 'temporary', 'about' => 'Low current for first motion'],
            ],
        ])
            ->assertStatus(422)
            ->assertJsonPath(
                'errors.0.reason',
                'is missing; say by when it must be undone, such as "before main power".',
            );
        $this->edit($build, self::setting('settings', 'S-7', ['done'], true))->assertOk();
        self::assertTrue($line('USB power link on the board, for flashing')['done']);
    }

    public function test_axes_zones_and_clearances_are_stored_whole_and_come_back_as_they_were(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $create = [
            'ref' => 'c1',
            'name' => 'Motor and side',
            'between' => [
                ['what' => 'Motor', 'x' => '0 mm to 40 mm', 'moves' => ['x']],
                ['what' => 'Side', 'x' => '400 mm to 420 mm'],
            ],
            'least' => '2 mm',
        ];
        $this->edit($build, [['section' => 'clearances', 'create' => $create]])->assertOk();
        $this->edit(
            $build,
            self::setting('axes', 'x', ['drive', 'motors'], ['motor-x', 'motor-z'], ['motor-x']),
        )->assertOk();
        $document = $this->getJson("/api/builds/{$build->id}")->json('document');

        self::assertSame($create, collect($document['clearances'])->firstWhere('ref', 'c1'));
        self::assertSame(['motor-x', 'motor-z'], $document['axes'][0]['drive']['motors']);
        $this->edit($build, self::setting('axes', 'x', ['drive', 'ratio'], '0'))
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/axes/x/drive/ratio');
        $this->edit(
            $build,
            self::setting('zones', 'dust', ['holds'], ['psu48'], $document['zones'][1]['holds']),
        )->assertStatus(422);
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertSame(
            file_get_contents(base_path('demo/linnet.json')),
            $this->get("/api/builds/{$build->id}/file")->getContent(),
        );
    }

    public function test_a_screw_and_a_cut_out_are_held_until_they_are_measured(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $file = (string) $this->get("/api/builds/{$build->id}/file")->getContent();
        $verdict = fn (string $key): string => (string) $this->getJson("/api/builds/{$build->id}/findings/{$key}")
            ->assertOk()
            ->json('verdict');
        self::assertSame(
            ['holds', 'unproven'],
            [$verdict('M05-preload/x'), $verdict('M05-preload/y')],
            'Of X the motor is known from a listing only, which turns nothing; of Y nothing was measured.',
        );
        self::assertMatchesRegularExpression(
            '/of 1\.07\sN\sm/u',
            (string) $this->getJson("/api/builds/{$build->id}/findings/M05-preload/x")->json('headline'),
            'A tolerance leaves the unit as it was.',
        );

        $this->edit(
            $build,
            self::setting(
                'parts',
                'M-57-56',
                ['specs', 'holding_torque'],
                ['value' => '1.1 N m', 'evidence' => 'measured'],
            ),
        )->assertOk();
        self::assertSame('holds', $verdict('M05-preload/x'));
        $this->edit($build, self::setting('axes', 'x', ['drive', 'turning_torque'], '0.4 N m', '0.06 N m'))->assertOk();
        self::assertSame('fails', $verdict('M05-preload/x'), 'A screw that turns this heavily is too tight.');
        $this->edit($build, [
            [
                'section' => 'parts',
                'create' => [
                    'ref' => 'P-door',
                    'family' => 'panel',
                    'name' => 'Cabinet door',
                    'specs' => [
                        'length' => ['value' => '300 mm', 'evidence' => 'measured'],
                        'width' => ['value' => '60 mm', 'evidence' => 'measured'],
                    ],
                ],
            ],
            [
                'section' => 'needs',
                'create' => [
                    'ref' => 'door',
                    'role' => 'Cabinet door',
                    'family' => 'panel',
                    'choice' => 'P-door',
                    'candidates' => ['P-door'],
                ],
            ],
            ['section' => 'mates', 'create' => ['ref' => 'co', 'kind' => 'cut-out', 'between' => ['inlet', 'door']]],
        ])->assertOk();
        $this->edit(
            $build,
            self::setting('parts', 'P-inlet', ['specs', 'cut_out'], ['value' => '30 mm', 'evidence' => 'listing']),
        )->assertOk();
        self::assertSame('unproven', $verdict('M09-cutout/co'));
        $joints = collect((array) $this->getJson("/api/builds/{$build->id}/joints")->json('joints'));
        self::assertSame('unproven', $joints->firstWhere('mate', 'co')['verdict']);
        $this->edit(
            $build,
            self::setting('parts', 'P-inlet', ['specs', 'cut_out'], ['value' => '32 mm', 'evidence' => 'measured']),
        )->assertOk();
        self::assertSame('holds', $verdict('M09-cutout/co'));

        $this->edit($build, [['section' => 'needs', 'ref' => 'door', 'delete' => true]])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/needs/door')
            ->assertJsonPath('errors.0.reason', fn (string $reason): bool => str_contains($reason, 'mate co'));
        $this->edit($build, self::setting('axes', 'x', ['drive', 'friction'], '30 N', '26 N', true))
            ->assertStatus(409)
            ->assertJsonPath('clashes.0.now', '25 N');
        for ($i = 0; $i < 5; $i++) {
            $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        }
        self::assertSame($file, $this->get("/api/builds/{$build->id}/file")->getContent());
    }

    public function test_a_finding_is_accepted_with_a_reason_and_comes_back_when_it_changes(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $overview = fn (): array => $this->getJson("/api/builds/{$build->id}")
            ->assertOk()
            ->json('overview');
        $before = $overview();
        $finding = $this->getJson("/api/builds/{$build->id}/findings/E02/W4")
            ->assertOk()
            ->json();
        $accept = static fn (string $why): array => [
            [
                'section' => 'accepted',
                'create' => [
                    'ref' => 'A-1',
                    'finding' => 'E02/W4',
                    'why' => $why,
                    'who' => 'Isla',
                    'of' => $finding['digest'],
                ],
            ],
        ];
        $this->edit($build, $accept('ok'))->assertStatus(422)->assertJsonPath('errors.0.pointer', '/accepted/A-1/why');
        $this->edit($build, $accept('A larger plug is on its way; it is not powered until then.'))->assertOk();

        $after = $overview();
        self::assertSame($before['tally']['danger'] - 1, $after['tally']['danger']);
        self::assertSame(['E02/W4', 'Isla'], [$after['accepted'][0]['finding'], $after['accepted'][0]['who']]);
        self::assertContains(
            'E02/W4',
            array_column($after['findings'], 'key'),
            'It still shows where it concerns somebody.',
        );
        self::assertNotContains('E02/W4', array_merge(...array_column($after['causes'], 'findings')));

        $this->edit(
            $build,
            self::setting('readings', 'R2', ['value'], '1.92 Ω', '2 Ω'),
        )->assertOk();
        self::assertSame([], $overview()['accepted']);
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertCount(1, $overview()['accepted']);
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertSame($before['tally'], $overview()['tally']);
    }

    public function test_what_is_told_later_follows_how_far_the_build_is(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $later = fn (): int => $this->getJson("/api/builds/{$build->id}")
            ->assertOk()
            ->json('overview.later');
        self::assertSame(0, $later());
        $this->edit($build, self::setting('build', '', ['stage'], 'planned', null))->assertOk();
        self::assertGreaterThan(10, $later());
        $this->edit($build, self::setting('build', '', ['stage'], 'finished', 'planned'))->assertStatus(422);
    }

    public function test_several_findings_are_cured_together(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $keys = ['E03/W3', 'E03/W6', 'E02/W4'];
        $offers = [];
        foreach ($keys as $key) {
            foreach ($this->getJson("/api/builds/{$build->id}/remedies/{$key}")->json('remedies') as $remedy) {
                $offers[] = [
                    'says' => $remedy['says'],
                    'changes' => $remedy['changes'],
                    'cured' => array_keys($remedy['cured']),
                    'cost' => (float) $remedy['cost'],
                    'buys' => $remedy['buys'],
                ];
            }
        }
        $answer = $this->postJson("/api/builds/{$build->id}/remedies", [
            'keys' => $keys,
            'offers' => $offers,
        ])->assertOk();
        self::assertSame(
            [],
            Schemas::breaks((string) $answer->getContent(), 'api/openapi.json#/components/schemas/RemedySet'),
        );
        self::assertTrue($answer->json('proven'));
        self::assertSame([], $answer->json('left'));
        $result = $this->edit($build, $answer->json('changes'))->assertOk();
        foreach ($keys as $key) {
            self::assertContains(
                collect($result->json('overview.findings'))->firstWhere('key', $key)['verdict'],
                ['holds', 'tight', 'unproven'],
                $key,
            );
        }
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        $this->postJson("/api/builds/{$build->id}/remedies", ['keys' => []])->assertStatus(422);
    }

    public function test_the_transfer_table_is_for_candidates_only(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $this->getJson("/api/builds/{$build->id}/ports/board/P-psu")->assertNotFound();
        $moves = $this->getJson("/api/builds/{$build->id}/ports/board/P-board")
            ->assertOk()
            ->json();
        self::assertNotSame([], $moves);
        self::assertSame([], array_filter($moves, static fn (array $m): bool => $m['after'] === null));
    }

    public function test_the_motor_picker_says_what_choosing_says(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $answer = $this->getJson("/api/builds/{$build->id}/axes/x/motors")->assertOk();
        self::assertSame(
            [],
            Schemas::breaks((string) $answer->getContent(), 'api/openapi.json#/components/schemas/PickedMotors'),
        );
        $motors = collect((array) $answer->json('motors'));
        self::assertGreaterThan(8, $motors->count());
        $picked = $motors->firstOrFail();
        $this->postJson("/api/builds/{$build->id}/needs/motor-x/candidates", [
            'library' => $picked['library'],
            'key' => (string) \Illuminate\Support\Str::uuid(),
        ])->assertCreated();
        $need = collect((array) $this->getJson("/api/builds/{$build->id}")->json('document.needs'))->firstWhere(
            'ref',
            'motor-x',
        );
        $was = $need['choice'];
        $part = end($need['candidates']);
        $driver = collect((array) $this->getJson("/api/builds/{$build->id}")->json('document.needs'))->firstWhere(
            'ref',
            'drv-x',
        )['choice'];
        $document = $this->getJson("/api/builds/{$build->id}")->json('document.parts');
        $set = collect((array) $document)->firstWhere('ref', $driver)['specs']['set_current'];
        $result = $this->edit($build, [
            ['section' => 'needs', 'ref' => 'motor-x', 'set' => [['path' => ['choice'], 'was' => $was, 'to' => $part]]],
            [
                'section' => 'parts',
                'ref' => $driver,
                'set' => [
                    [
                        'path' => ['specs', 'set_current'],
                        'was' => $set,
                        'to' => ['value' => "{$picked['set']} A", 'evidence' => 'manual'],
                    ],
                ],
            ],
        ])->assertOk();
        $phase = collect(
            (array) collect((array) $this->getJson("/api/builds/{$build->id}/motion")->json())->firstWhere('ref', 'x')[
                'phases'
            ],
        )->firstWhere('phase', $picked['phase']);

        self::assertEqualsWithDelta(
            $picked['factor'],
            $phase['has'] / $phase['torque'],
            0.03 * $picked['factor'],
            'Picked and chosen agree.',
        );
        self::assertNotNull(collect((array) $result->json('overview.findings'))->firstWhere('key', 'M03/x'));
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        $this->getJson("/api/builds/{$build->id}/axes/w/motors")->assertNotFound();
    }

    public function test_calculators_answer_and_refuse_what_cannot_be(): void
    {
        $this->as($this->isla());
        // 2·300 + 20 × 2 = 640 mm: 320 teeth on two pulleys of 20.
        self::assertSame(
            ['length' => 640, 'teeth' => 320, 'centre' => 300, 'mesh' => 10],
            $this->getJson('/api/belt-loop?pitch=2&one=20&other=20&centre=300')->assertOk()->json(),
        );
        $this->getJson('/api/belt-loop?pitch=2&one=60&other=60&centre=20')
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/centre');
        $this->getJson('/api/belt-loop?pitch=2&one=20&other=20&centre=wide')->assertStatus(422);
        // Handbook M08: 1200 mm/min; 1200/60 × 6 × 0.5 × 3 = 180 mm³/s.
        $cut = $this->getJson(
            '/api/cutting-data?diameter=6&flutes=2&speed=12000&chip=0.05&step_over=50&depth=3&material=hardwood',
        )
            ->assertOk()
            ->json();
        self::assertEqualsWithDelta(1200, $cut['feed'], 0.1);
        self::assertEqualsWithDelta(180, $cut['removal'], 0.1);
        $this->getJson(
            '/api/cutting-data?diameter=6&flutes=2&speed=12000&chip=0.05&step_over=50&depth=3&material=stone',
        )->assertStatus(422);
        // ½·m·(r_o² + r_i²): aluminium, 35 outside, 12 inside, 40 long: 0.0917 kg, 0.157 kg cm².
        $turning = $this->postJson('/api/turning-parts', [
            'segments' => [['outer' => 35, 'bore' => 12, 'length' => 40, 'material' => 'aluminium']],
        ])
            ->assertOk()
            ->json();
        $mass = 2700 * M_PI * (0.0175 ** 2 - 0.006 ** 2) * 0.04;
        self::assertEqualsWithDelta($mass, $turning['mass'], 0.0001);
        self::assertEqualsWithDelta(0.5 * $mass * (0.0175 ** 2 + 0.006 ** 2) * 1e4, $turning['inertia'], 0.0001);
        $this->postJson('/api/turning-parts', [
            'segments' => [['outer' => 10, 'bore' => 12, 'length' => 40, 'material' => 'steel']],
        ])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/segments/0/bore');
        $couplings = $this->getJson("/api/builds/{$this->linnet()->id}/couplings?one=6.35&other=10&torque=1.2")
            ->assertOk()
            ->json();
        self::assertNotSame([], $couplings);
    }

    public function test_a_stalling_axis_and_a_whirling_screw_are_cured(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        foreach (['M03/x', 'M05/y', 'M13/clamp'] as $key) {
            $remedies = (array) $this->getJson("/api/builds/{$build->id}/remedies/{$key}")
                ->assertOk()
                ->json('remedies');
            self::assertNotSame([], $remedies, $key);
            $result = $this->edit($build, $remedies[0]['changes'])->assertOk();
            $now = collect((array) $result->json('overview.findings'))->firstWhere('key', $key);
            self::assertSame(
                $remedies[0]['to'],
                $remedies[0]['to_be_fitted'] ? $now['otherwise'] : $now['verdict'],
                $remedies[0]['says'],
            );
            $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        }
    }
}
