<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Builds\Document;
use App\Builds\Store;
use App\Models\Change;
use App\Models\Edit;
use App\Models\Snapshot;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;

final class EditTest extends FeatureTestCase
{
    public function test_a_second_contact_pair_cures_the_bed_plug_at_once(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $before = $this->getJson("/api/builds/{$build->id}/findings/E02/W4")
            ->assertOk()
            ->assertJsonPath('verdict', 'danger');
        self::assertShape('Finding', $before);

        $result = $this->edit($build, self::setting('leads', 'W4', ['ends', 1, 'contacts_per_pole'], 2, 1, true))
            ->assertOk()
            ->assertJsonPath('entries.0.entry.ends.1.contacts_per_pole', 2);

        self::assertShape('EditResult', $result);
        self::assertSame('holds', collect($result->json('overview.findings'))->firstWhere('key', 'E02/W4')['verdict']);
        self::assertSame(
            'fails',
            collect($result->json('overview.findings'))->firstWhere('key', 'E02-open/W4')['verdict'],
        );
        $change = Change::query()->latest('id')->firstOrFail();
        self::assertSame(
            [1, 2],
            [
                $change->before['ends'][1]['contacts_per_pole'] ?? null,
                $change->after['ends'][1]['contacts_per_pole'] ?? null,
            ],
        );
        self::assertSame($this->isla()->id, Edit::query()->latest('id')->firstOrFail()->user_id);
    }

    public function test_undo_and_redo_restore_the_file_to_the_byte(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $file = fn (): string => (string) $this->get("/api/builds/{$build->id}/file")->getContent();
        $states = [$file()];
        foreach (
            [
                self::setting(
                    'parts',
                    'P-bed',
                    ['specs', 'rated_power'],
                    ['value' => '300 W', 'evidence' => 'measured'],
                ),
                self::setting('site', '', ['ambient'], '41 °C'),
                self::setting('build', '', ['budget'], '1200'),
                [['section' => 'leads', 'ref' => 'W9', 'delete' => true]],
                [
                    ['section' => 'parts', 'create' => ['ref' => 'lamp', 'family' => 'lamp', 'name' => 'Lamp']],
                    [
                        'section' => 'needs',
                        'create' => [
                            'ref' => 'lamp',
                            'role' => 'Door lamp',
                            'family' => 'lamp',
                            'choice' => 'lamp',
                            'candidates' => ['lamp'],
                        ],
                    ],
                ],
                self::setting('steps', 'd6', ['check', 'measured'], '108 Hz'),
                self::setting('scenarios', 'print', ['loads', 'light'], null),
            ] as $changes
        ) {
            $this->edit($build, $changes)->assertOk();
            $states[] = $file();
        }
        self::assertCount(8, array_unique($states), 'Every edit changed something.');
        for ($i = 6; $i >= 0; $i--) {
            $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
            self::assertSame($states[$i], $file(), "undo to {$i}");
        }
        for ($i = 1; $i <= 7; $i++) {
            $this->postJson("/api/builds/{$build->id}/redo")->assertOk();
            self::assertSame($states[$i], $file(), "redo to {$i}");
        }
        $this->postJson("/api/builds/{$build->id}/redo")
            ->assertStatus(409)
            ->assertJsonPath('detail', 'There is nothing to redo.');
        $history = $this->getJson("/api/builds/{$build->id}/edits")
            ->assertOk()
            ->assertJsonCount(7);
        $this->getJson("/api/builds/{$build->id}/edits/{$history->json('0.id')}")
            ->assertOk()
            ->assertJsonPath('0.section', 'scenarios');
    }

    public function test_the_snapshot_is_what_the_tables_say(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $this->edit($build, self::setting('mates', 'ma', ['screws', 0, 'washers'], ['0.5 mm', '0.3 mm']))->assertOk();
        $this->edit($build, self::setting('suppliers', 'ferry', ['shipping', 1, 'cost'], '9.75'))->assertOk();
        $this->edit($build, [
            [
                'section' => 'limits',
                'create' => ['check' => 'E05', 'key' => 'holds', 'value' => '70 %', 'reason' => 'summer'],
            ],
        ])->assertOk();
        $this->edit(
            $build,
            self::setting('parts', 'P-board', ['ports', 0, 'specs', 'rated_current', 'value'], '5 A'),
        )->assertOk();
        $build->refresh();

        self::assertSame(Document::json((new Store($build))->document()), Document::json(Document::of($build)->data));
    }

    public function test_the_same_edit_sent_twice_is_done_once(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $key = (string) Str::uuid();
        $first = $this->edit($build, self::setting('needs', 'belt', ['quantity'], 7), $key)->assertOk();
        $second = $this->edit($build, self::setting('needs', 'belt', ['quantity'], 7), $key)->assertOk();

        self::assertSame($first->json('revision'), $second->json('revision'));
        self::assertSame($first->json('overview'), $second->json('overview'));
        self::assertSame(1, Edit::query()->where('key', $key)->count());
    }

    /** Found by attack: another edit under a key that was used was answered "stored", and dropped. */
    public function test_a_key_is_good_for_one_edit_only(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $key = (string) Str::uuid();
        $this->edit($build, self::setting('build', '', ['purpose'], 'One'), $key)->assertOk();
        $this->edit($build, self::setting('build', '', ['purpose'], 'One'), $key)->assertOk();
        $this->edit($build, self::setting('build', '', ['purpose'], 'Another'), $key)
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/key');
        self::assertSame('One', data_get($this->held($build), 'build.purpose'));
    }

    /** Two phones at one bench both tick the same step: that is no conflict. */
    public function test_two_screens_that_say_the_same_do_not_conflict(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $was = data_get($this->held($build), 'build.purpose');
        $say = fn (string $text): TestResponse => $this->edit($build, self::setting('build', '', ['purpose'], $text, $was, true));
        $say('Gauges')->assertOk();
        $this->as($this->tam());
        $say('Gauges')->assertOk();
        $say('Plates')->assertStatus(409)->assertJsonPath('clashes.0.now', 'Gauges');
        // Said in another spelling it is the same too.
        $weekly = data_get($this->held($build), 'build.weekly');
        $this->edit($build, self::setting('build', '', ['weekly'], '8 h', $weekly, true))->assertOk();
        $this->edit($build, self::setting('build', '', ['weekly'], '8h', $weekly, true))->assertOk();
    }

    public function test_a_conflicting_edit_is_refused_and_shows_what_stands_now(): void
    {
        $build = $this->dunlin();
        $this->as($this->tam());
        $this->edit($build, self::setting('needs', 'belt', ['quantity'], 6, 5, true))->assertOk();
        $this->as($this->isla());

        $clash = $this->edit($build, self::setting('needs', 'belt', ['quantity'], 9, 5, true))
            ->assertStatus(409)
            ->assertJsonPath('clashes.0', [
                'section' => 'needs',
                'ref' => 'belt',
                'path' => ['quantity'],
                'was' => 5,
                'now' => 6,
            ]);
        self::assertShape('Problem', $clash);
        // Another field of the same entry is no conflict, and going on from what stands now works.
        $this->edit($build, self::setting('needs', 'belt', ['spares'], '10 %', null, true))->assertOk();
        $this->edit($build, self::setting('needs', 'belt', ['quantity'], 9, 6, true))->assertOk();
    }

    public function test_undo_never_overruns_someone_elses_work(): void
    {
        $build = $this->dunlin();
        $this->as($this->isla());
        $this->edit($build, self::setting('needs', 'belt', ['quantity'], 6))->assertOk();
        $this->as($this->tam());
        $this->edit($build, self::setting('needs', 'belt', ['role'], 'Long belts'))->assertOk();
        $this->as($this->isla());

        // What is still hers is taken back, the colleague's word stays.
        $this->postJson("/api/builds/{$build->id}/undo")
            ->assertOk()
            ->assertJsonPath('left', []);
        $belt = fn (): array => collect($this->getJson("/api/builds/{$build->id}")->json('document.needs'))->firstWhere(
            'ref',
            'belt',
        );
        self::assertSame([5, 'Long belts'], [$belt()['quantity'], $belt()['role']]);
        $this->postJson("/api/builds/{$build->id}/redo")->assertOk();
        self::assertSame([6, 'Long belts'], [$belt()['quantity'], $belt()['role']]);
    }

    public function test_undo_says_what_is_no_longer_its_own_and_never_blocks_the_rest(): void
    {
        $build = $this->dunlin();
        $this->as($this->isla());
        $this->edit($build, self::setting('build', '', ['purpose'], 'an earlier edit'))->assertOk();
        $this->edit($build, [
            [
                'section' => 'needs',
                'ref' => 'belt',
                'set' => [['path' => ['quantity'], 'to' => 6], ['path' => ['spares'], 'to' => '20 %']],
            ],
            ['section' => 'parts', 'create' => ['ref' => 'P-new', 'family' => 'fan', 'name' => 'Fan']],
            [
                'section' => 'needs',
                'create' => [
                    'ref' => 'new-fan',
                    'role' => 'New fan',
                    'family' => 'fan',
                    'candidates' => ['P-new'],
                    'choice' => 'P-new',
                ],
            ],
            ['section' => 'suppliers', 'create' => ['ref' => 'quay', 'name' => 'Quay Spares', 'currency' => 'GBP']],
        ])->assertOk();
        $this->as($this->tam());
        $this->edit($build, self::setting('needs', 'belt', ['quantity'], 8))->assertOk();
        $this->edit($build, [
            ['section' => 'leads', 'create' => ['ref' => 'W77', 'from' => 'psu.out', 'to' => 'new-fan.power']],
        ])->assertOk();
        $this->as($this->isla());

        $undone = $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertShape('EditResult', $undone);
        $left = collect($undone->json('left'))->keyBy(static fn (array $l): string => "{$l['section']}/{$l['ref']}");
        self::assertSame(
            ['needs/belt', 'needs/new-fan', 'parts/P-new'],
            $left->keys()->sort()->values()->all(),
            'Her quantity is his now, and his lead ends on her fan.',
        );
        self::assertSame('quantity was changed since', $left['needs/belt']['why']);
        $document = $this->getJson("/api/builds/{$build->id}")
            ->assertJsonPath('trouble', null)
            ->json('document');
        $belt = collect($document['needs'])->firstWhere('ref', 'belt');
        self::assertSame([8, false], [$belt['quantity'], isset($belt['spares'])]);
        self::assertNotContains('quay', array_column($document['suppliers'], 'ref'));
        self::assertSame(
            Document::json((new Store($build->refresh()))->document()),
            Document::json(Document::of($build)->data),
        );

        $this->postJson("/api/builds/{$build->id}/undo")
            ->assertOk()
            ->assertJsonPath('label', 'Test edit')
            ->assertJsonPath('left', []);
        self::assertNotSame(
            'an earlier edit',
            $this->getJson("/api/builds/{$build->id}")->json('document.build.purpose'),
            'And the one before it comes next.',
        );
    }

    public function test_redo_brings_parts_back_with_what_their_ports_say(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $part = static fn (string $ref): array => [
            'section' => 'parts',
            'create' => [
                'ref' => $ref,
                'family' => 'controller_board',
                'name' => $ref,
                'ports' => [['name' => 'extra', 'kind' => 'signal', 'specs' => ['pin' => 'PA1', 'use' => 'switch']]],
            ],
        ];
        $this->edit($build, [$part('B-one'), $part('B-two')])->assertOk();
        $made = $this->getJson("/api/builds/{$build->id}")->json('document.parts');
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        $this->postJson("/api/builds/{$build->id}/redo")->assertOk();

        self::assertSame($made, $this->getJson("/api/builds/{$build->id}")->json('document.parts'));
        self::assertSame(
            Document::json((new Store($build->refresh()))->document()),
            Document::json(Document::of($build)->data),
        );
    }

    public function test_a_value_that_was_there_before_it_could_be_refused_does_not_hold_up_its_entry(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $filament = collect($this->getJson("/api/builds/{$build->id}")->json('document.parts'))->firstWhere(
            'family',
            'filament',
        )['ref'];
        DB::table('part_specs')
            ->where('key', 'diameter')
            ->whereIn(
                'owner_id',
                DB::table('parts')
                    ->select('id')
                    ->where(['build_id' => $build->id, 'ref' => $filament]),
            )
            ->update(['value' => '0 mm']);
        Snapshot::query()
            ->whereKey($build->id)
            ->update(['revision' => 0, 'judged' => 0]);

        $opened = $this->getJson("/api/builds/{$build->id}")
            ->assertOk()
            ->assertJsonPath('trouble', null);
        self::assertNotEmpty($opened->json('overview.findings'));
        $this->edit($build, self::setting('parts', $filament, ['name'], 'Renamed'))->assertOk();
        $this->edit($build, self::setting('parts', $filament, ['specs', 'diameter', 'value'], '0.0 mm'))
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', "/parts/{$filament}/specs/diameter/value");
    }

    public function test_bad_input_names_the_field_and_the_reason_and_loses_nothing(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $revision = $build->revision;
        foreach (
            [
                [
                    self::setting('parts', 'P-bed', ['specs', 'rated_power', 'value'], '30 A'),
                    '/parts/P-bed/specs/rated_power/value',
                    'a power is wanted',
                ],
                [self::setting('leads', 'W4', ['to'], 'bed.tail'), '/leads/3/to', 'has no port "tail"'],
                [self::setting('leads', 'W4', ['length'], '1e15 m'), '/leads/W4/length', 'of anything that is built'],
                [self::setting('build', '', ['weekly'], '1e-30 h'), '/build/weekly', 'can be taken'],
                [self::setting('leads', 'W4', ['length'], '-1 m'), '/leads/W4/length', 'cannot be negative'],
                [self::setting('needs', 'belt', ['quantity'], 'many'), '/needs/belt/quantity', 'whole number'],
                [self::setting('needs', 'belt', ['ref'], 'other'), '/needs/belt/ref', 'cannot change'],
                [self::setting('site', '', ['ambient'], '400 °C'), '/site/ambient', 'no place to build'],
                [self::setting('offers', 'O1', ['price'], '12,50 or so'), '/offers/O1/price', 'not an amount of money'],
                [self::setting('steps', 'd6', ['check', 'measured'], '3 kg'), '/steps/d6/check/measured', 'is a mass'],
                [
                    [['section' => 'parts', 'ref' => 'P-bed', 'delete' => true]],
                    '/parts/P-bed',
                    'is used by need Bed heater',
                ],
                [[['section' => 'needs', 'ref' => 'psu', 'delete' => true]], '/needs/psu', 'lead W1'],
                [
                    [['section' => 'parts', 'create' => ['ref' => 'P-bed', 'family' => 'heater', 'name' => 'Again']]],
                    '/parts/P-bed/ref',
                    'already',
                ],
                [[['section' => 'spells', 'create' => ['ref' => 'x']]], '/spells', 'no such collection'],
            ] as [$changes, $pointer, $reason]
        ) {
            $answer = $this->edit($build, $changes)->assertStatus(422)->assertJsonPath('errors.0.pointer', $pointer);
            self::assertStringContainsString($reason, $answer->json('errors.0.reason'));
        }
        self::assertSame($revision, $build->refresh()->revision);
        $this->edit($build, [])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/changes');
    }

    public function test_an_open_danger_fault_takes_the_machine_off_power_until_its_fix_is_told(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $this->edit($build, [
            [
                'section' => 'faults',
                'create' => [
                    'ref' => 'X9',
                    'what' => 'Arc at the bed plug',
                    'severity' => 'danger',
                    'found' => '2026-11-25',
                    'need' => 'bed',
                ],
            ],
        ])
            ->assertOk()
            ->assertJsonPath('overview.danger_faults', 2)
            ->assertJsonPath('overview.power_forbidden', true);
        $this->edit($build, self::setting('faults', 'X9', ['state'], 'closed'))
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/faults/X9/fix');
        $this->edit($build, [
            [
                'section' => 'faults',
                'ref' => 'X9',
                'set' => [['path' => ['fix'], 'to' => 'Second contact pair'], ['path' => ['state'], 'to' => 'fixed']],
            ],
        ])
            ->assertOk()
            ->assertJsonPath('overview.danger_faults', 1);
    }

    public function test_a_size_nobody_has_seen_is_asked_about_before_it_is_stored(): void
    {
        $this->as($this->isla());
        $ask = fn (string $value, string $key = 'rated_power'): ?string => $this->getJson(
            '/api/doubt?'.http_build_query(['family' => 'heater', 'key' => $key, 'value' => $value]),
        )
            ->assertOk()
            ->json('question');

        self::assertStringContainsString('unusually large', str_replace("\u{a0}", ' ', (string) $ask('60 kW')));
        self::assertNull($ask('60 W'));
        self::assertStringContainsString(
            'unusually',
            (string) $ask('60000'),
            'A bare number takes the unit of the field.',
        );
        // What cannot be read is refused when it is stored, and a word has no size.
        self::assertNull($ask('many'));
        self::assertNull($ask('bed', 'place'));
        self::assertNull($ask('1', 'nothing_such'));
        $this->getJson('/api/doubt?family=heater')->assertStatus(422);
    }

    public function test_a_step_that_something_keeps_is_not_done_without_a_reason_that_stays(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $done = static fn (array $more = []): array => [
            [
                'section' => 'steps',
                'ref' => 'd6',
                'set' => [['path' => ['state'], 'was' => 'open', 'to' => 'done'], ...$more],
            ],
        ];
        $this->edit($build, $done())
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/steps/d6/state');
        $held = fn (): array => array_column($this->held($build)['steps'], null, 'ref')['d6'];
        self::assertSame('open', $held()['state']);
        $this->edit($build, $done([['path' => ['waived'], 'to' => 'Four will do for the dry fit.']]))->assertOk();
        self::assertSame(['done', 'Four will do for the dry fit.'], [$held()['state'], $held()['waived']]);
        // What is done is not asked again when something else of it changes.
        $this->edit($build, self::setting('steps', 'd6', ['notes'], 'Thread lock later.'))->assertOk();
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertSame('open', $held()['state']);
        $this->postJson("/api/builds/{$build->id}/redo")->assertOk();
        self::assertSame('done', $held()['state']);
    }
}
