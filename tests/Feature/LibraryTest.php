<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Build;
use App\Models\LibraryPart;
use App\Models\Workshop;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** The workshop's library: found, changed, taken into a build, and kept from being lost. */
final class LibraryTest extends FeatureTestCase
{
    private function shelf(): string
    {
        return '/api/workshops/'.$this->dunlin()->workshop_id.'/library';
    }

    public function test_every_word_must_be_carried_and_short_ones_count(): void
    {
        $this->as($this->isla());
        $all = $this->getJson($this->shelf())->assertOk();
        self::assertShape('LibraryPage', $all);
        self::assertGreaterThanOrEqual(300, $all->json('total'));
        self::assertGreaterThanOrEqual(40, count($all->json('families')));
        self::assertCount(80, $all->json('lines'));
        self::assertSame(
            array_slice($this->getJson($this->shelf().'?from=40')->json('lines'), 40),
            array_slice($this->getJson($this->shelf().'?from=80')->json('lines'), 0, 40),
            'One page goes on where the other ends.',
        );
        self::assertCount(
            $all->json('total') % 80,
            $this->getJson($this->shelf().'?from='. 80 * intdiv($all->json('total'), 80))->json('lines'),
        );

        $found = $this->getJson($this->shelf().'?words='.urlencode('SPINDLE 48 v'))->json('lines');
        self::assertNotSame([], $found);
        foreach ($found as $line) {
            self::assertStringContainsStringIgnoringCase(
                'spindle',
                LibraryPart::query()->findOrFail($line['id'])->words,
            );
        }
        self::assertSame(
            0,
            $this->getJson($this->shelf().'?words='.urlencode('%%'))->json('total'),
            'A per cent sign is itself, no wildcard.',
        );
        $fans = $this->getJson($this->shelf().'?family=fan&words=24');
        self::assertSame(['fan'], array_values(array_unique(array_column($fans->json('lines'), 'family'))));
        self::assertGreaterThan(
            $fans->json('total'),
            array_sum($fans->json('families')),
            'The other kinds are still counted.',
        );
    }

    public function test_what_is_called_as_it_was_typed_comes_first_and_pages_leave_nothing_out(): void
    {
        $this->as($this->isla());
        $at = fn (int $from): array => $this->getJson($this->shelf()."?words=screw&from={$from}")->json('lines');
        $total = $this->getJson($this->shelf().'?words=screw')->json('total');
        $lines = [];
        for ($from = 0; $from < $total; $from += 80) {
            $lines = [...$lines, ...$at($from)];
        }
        $order = array_map(static fn (array $l): array => [! str_contains(strtolower($l['name']), 'screw'), $l['family']], $lines);
        $sorted = $order;
        sort($sorted);
        self::assertSame($sorted, $order);
        self::assertCount($total, array_unique(array_column($lines, 'id')));
        $called = count(array_filter($order, static fn (array $o): bool => ! $o[0]));
        self::assertGreaterThan(1, $called);
        self::assertGreaterThan($called + 1, $total, 'Some only carry the word.');
        foreach ([1, $called - 1, $called, $called + 1] as $from) {
            self::assertSame(array_slice($lines, $from, 80), $at($from), "from {$from}");
        }
    }

    public function test_figures_are_compared_with_the_sheets_and_lines_sorted_by_them(): void
    {
        $this->as($this->isla());
        $find = fn (string $words, string $more = '') => $this->getJson(
            $this->shelf().'?words='.rawurlencode($words).$more,
        )->assertOk();
        $torque = static fn (array $line): float => LibraryPart::query()
            ->findOrFail($line['id'])
            ->read()
            ->part->specs['holding_torque']->nominal()
            ?->in('N m') ?? 0.0;
        $all = $find('', '&family=stepper_motor');
        $strong = $find('motor, holding torque > 1.5 N m', '&family=stepper_motor&by=-holding_torque');

        self::assertSame(
            'holding torque at least 1.5 N m',
            str_replace("\u{a0}", ' ', (string) $strong->json('figures.0')),
        );
        self::assertGreaterThan(1, $strong->json('total'));
        self::assertLessThan($all->json('total'), $strong->json('total'));
        $found = array_map($torque, $strong->json('lines'));
        $falling = $found;
        rsort($falling);
        self::assertSame($falling, $found, 'The strongest stands first.');
        self::assertGreaterThanOrEqual(1.5, min($found));
        self::assertCount(
            $strong->json('total'),
            array_filter(array_map($torque, $all->json('lines')), static fn (float $t): bool => $t >= 1.5),
            'None that has it is left out.',
        );

        // A number may stand anywhere; what is called just so stands first.
        self::assertSame(
            '24 V controller board, 5 drivers',
            $find('24 V controller board, 5 drivers')->json('lines.0.name'),
        );

        // What is changed is found as it is now, and what is taken back as it was.
        $one = $strong->json('lines.0');
        $held = $this->getJson("/api/library/{$one['id']}")->json();
        $held['entry']['part']['specs']['holding_torque']['value'] = '77 N m';
        $this->putJson("/api/library/{$one['id']}", [
            'entry' => $held['entry'],
            'version' => $held['version'],
        ])->assertOk();
        $find('77 Nm')->assertJsonPath('lines.0.id', $one['id'])->assertJsonPath('total', 1);
        $this->postJson($this->shelf().'/undo')->assertOk();
        $find('77 Nm')->assertJsonPath('total', 0);
    }

    public function test_a_part_goes_in_is_changed_with_its_version_and_taken_back(): void
    {
        $this->as($this->isla());
        $entry = [
            'part' => [
                'ref' => 'own-fan',
                'family' => 'fan',
                'name' => 'Quiet fan',
                'specs' => ['rated_current' => ['value' => '0.1 A', 'evidence' => 'datasheet']],
            ],
            'faults' => [['what' => 'Ticks', 'severity' => 'blemish']],
        ];
        $made = $this->postJson($this->shelf(), ['entry' => $entry])->assertCreated();
        self::assertShape('LibraryItem', $made);
        $this->postJson($this->shelf(), ['entry' => $entry])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/entry/part/ref');
        $id = $made->json('id');

        $entry['spares'] = '50 %';
        $this->putJson("/api/library/{$id}", ['entry' => $entry, 'version' => 1])
            ->assertOk()
            ->assertJsonPath('version', 2)
            ->assertJsonPath('entry.spares', '50 %');
        $this->as($this->tam());
        $this->putJson("/api/library/{$id}", ['entry' => $entry, 'version' => 1])
            ->assertStatus(409)
            ->assertJsonPath('clashes.0.ref', 'own-fan');
        $this->as($this->isla());
        $this->postJson($this->shelf().'/undo')
            ->assertOk()
            ->assertJsonPath('ref', 'own-fan');
        self::assertNull($this->getJson("/api/library/{$id}")->json('entry.spares'));
        $this->postJson($this->shelf().'/undo')->assertOk();
        $this->getJson("/api/library/{$id}")->assertNotFound();
        $this->postJson($this->shelf().'/undo')->assertStatus(409);
    }

    public function test_a_spec_of_the_wrong_dimension_is_refused_with_what_is_wanted(): void
    {
        $this->as($this->isla());
        $answer = $this->postJson($this->shelf(), [
            'entry' => [
                'part' => ['ref' => 'x', 'family' => 'fan', 'name' => 'X', 'specs' => ['rated_current' => '12 V']],
            ],
        ])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/part/specs/rated_current');

        self::assertStringContainsString('a current is wanted', $answer->json('errors.0.reason'));
        self::assertFalse(LibraryPart::query()->where('ref', 'x')->exists());
    }

    public function test_a_part_taken_into_a_build_brings_its_prices_and_is_judged_there(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $item = LibraryPart::query()
            ->where([
                'workshop_id' => $build->workshop_id,
                'family' => 'power_supply',
                'name' => '48 V supply, 1000 W, caged',
            ])
            ->firstOrFail();
        $adopt = fn (string $need) => $this->postJson("/api/builds/{$build->id}/needs/{$need}/candidates", [
            'library' => $item->id,
            'key' => (string) Str::uuid(),
        ]);
        $result = $adopt('psu48')->assertCreated();
        self::assertShape('EditResult', $result);

        $comparison = $this->getJson("/api/builds/{$build->id}/needs/psu48/comparison")->json();
        $candidate = collect($comparison['candidates'])->firstWhere('name', $item->name);
        self::assertTrue($candidate['example']);
        self::assertNotNull($candidate['landed'], 'Its price came along, at a supplier the build knows by name.');
        self::assertSame('PSU48-350', $comparison['chosen'], 'A candidate is not chosen by being one.');
        $adopt('psu48')->assertStatus(422)->assertJsonPath('errors.0.pointer', '/needs/psu48/candidates');
        $adopt('spindle')->assertStatus(422);
        $adopt('psu24')->assertCreated();
        self::assertCount(
            1,
            array_filter(
                $this->getJson("/api/builds/{$build->id}")->json('document.parts'),
                static fn (array $p): bool => ($p['library'] ?? '') === $item->ref,
            ),
            'One part, a candidate for two needs.',
        );

        // Chosen, it cannot leave the library; nor its part the build.
        $part = $candidate['part'];
        $this->edit($build, self::setting('needs', 'psu48', ['choice'], $part))->assertOk();
        $refused = $this->deleteJson("/api/library/{$item->id}")->assertStatus(422);
        self::assertStringContainsString('Linnet, 48 V motor and spindle supply', $refused->json('errors.0.reason'));
        $refused = $this->edit($build, [['section' => 'parts', 'ref' => $part, 'delete' => true]])->assertStatus(422);
        self::assertStringContainsString('48 V motor and spindle supply', $refused->json('errors.0.reason'));
        self::assertContains(
            'Linnet, 48 V motor and spindle supply',
            $this->getJson("/api/library/{$item->id}")->json('used_in'),
        );
    }

    public function test_another_supplier_of_the_same_name_and_other_money_is_left_alone(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $entry = [
            'part' => ['ref' => 'own-fan', 'family' => 'fan', 'name' => 'Quiet fan'],
            'offers' => [
                ['supplier' => 'Ferry Lane Motion', 'price' => '5', 'currency' => 'USD', 'date' => '2026-11-01'],
                [
                    'supplier' => 'New Row Fans',
                    'price' => '6',
                    'currency' => 'EUR',
                    'date' => '2026-11-01',
                    'lead_days' => 8,
                ],
            ],
        ];
        $id = $this->postJson($this->shelf(), ['entry' => $entry])->json('id');
        $this->postJson("/api/builds/{$build->id}/needs/fan-cab/candidates", [
            'library' => $id,
            'key' => (string) Str::uuid(),
        ])->assertCreated();
        $document = $this->getJson("/api/builds/{$build->id}")->json('document');

        self::assertSame(
            ['new-row-fans', 'EUR', 8],
            array_values(
                array_intersect_key(collect($document['suppliers'])->firstWhere('name', 'New Row Fans'), [
                    'ref' => 0,
                    'currency' => 0,
                    'lead_days' => 0,
                ]),
            ),
        );
        self::assertSame(
            ['new-row-fans'],
            array_column(
                array_filter($document['offers'], static fn (array $o): bool => $o['part'] === 'own-fan'),
                'supplier',
            ),
        );
    }

    public function test_a_new_workshop_may_put_out_the_examples_once(): void
    {
        $stranger = $this->stranger();
        $workshop = Workshop::query()
            ->whereIn('id', $stranger->workshops()->pluck('workshops.id'))
            ->firstOrFail();
        $this->as($stranger);
        self::assertSame(0, $this->getJson("/api/workshops/{$workshop->id}/library")->json('total'));
        $added = $this->postJson("/api/workshops/{$workshop->id}/library/examples")
            ->assertCreated()
            ->json('added');

        self::assertGreaterThanOrEqual(300, $added);
        self::assertSame(0, $this->postJson("/api/workshops/{$workshop->id}/library/examples")->json('added'));
        self::assertTrue(
            collect($this->getJson("/api/workshops/{$workshop->id}/library")->json('lines'))->every(
                static fn (array $l): bool => $l['example'],
            ),
        );
    }

    public function test_examples_are_priced_in_the_currency_of_the_workshop(): void
    {
        $stranger = $this->stranger();
        $workshop = $stranger->workshops()->firstOrFail();
        $this->as($stranger);
        $this->postJson('/api/builds', ['workshop' => $workshop->id, 'name' => 'x', 'kind' => 'x', 'currency' => 'USD'])->assertCreated();
        $this->postJson("/api/workshops/{$workshop->id}/library/examples", ['currency' => 'dollars'])->assertStatus(422);
        $this->postJson("/api/workshops/{$workshop->id}/library/examples")->assertCreated();
        $currencies = $workshop->library()
            ->get()
            ->flatMap(static fn ($part): array => array_column($part->entry['offers'] ?? [], 'currency'));
        self::assertSame(['USD'], $currencies->unique()->values()->all());
        self::assertGreaterThan(400, $currencies->count());
    }

    public function test_a_part_goes_straight_into_a_build_and_is_one_edit(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $item = DB::table('library_parts')
            ->where('workshop_id', $build->workshop_id)
            ->where('family', 'fan')
            ->value('id');
        $before = $this->getJson("/api/builds/{$build->id}")->json('document');
        $add = fn (int $pieces): \Illuminate\Testing\TestResponse => $this->postJson("/api/builds/{$build->id}/needs", [
            'library' => $item,
            'pieces' => $pieces,
            'key' => (string) Str::uuid(),
        ]);
        $add(2)->assertCreated();
        $add(1)->assertCreated();
        $after = $this->getJson("/api/builds/{$build->id}")->json('document');

        self::assertCount(count($before['needs']) + 2, $after['needs']);
        self::assertCount(count($before['parts']) + 1, $after['parts'], 'The sheet is there once.');
        $new = array_slice($after['needs'], -2);
        self::assertSame([2, 1], array_column($new, 'quantity'));
        self::assertSame($new[0]['choice'], $new[1]['choice']);
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertSame($before, $this->getJson("/api/builds/{$build->id}")->json('document'));
        $add(0)->assertStatus(422);
    }
}
