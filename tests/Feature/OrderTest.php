<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Build;
use Illuminate\Support\Str;
use Tests\Support\Schemas;

/** What to order over the wire, and orders kept in the database as they are in the file. */
final class OrderTest extends FeatureTestCase
{
    public function test_the_demo_is_split_with_its_proof_and_what_is_sooner_costs_more(): void
    {
        $this->as($this->isla());
        $order = $this->getJson("/api/builds/{$this->linnet()->id}/order")->assertOk();
        $order->assertJsonPath('split.solved', true)->assertJsonPath('split.proven', true);
        $landed = (float) $order->json('split.landed');
        $points = $this->getJson("/api/builds/{$this->linnet()->id}/order/frontier")
            ->assertOk()
            ->json('points');
        self::assertGreaterThan(1, count($points));
        foreach ($points as $i => $point) {
            self::assertTrue($i === 0 || $point['days'] < $points[$i - 1]['days']);
            self::assertTrue($i === 0 || (float) $point['landed'] >= (float) $points[$i - 1]['landed']);
        }
        $soon = $this->getJson("/api/builds/{$this->linnet()->id}/order?days={$points[1]['days']}")->assertOk();
        self::assertSame($points[1]['landed'], $soon->json('split.landed'));
        self::assertGreaterThanOrEqual($landed, (float) $soon->json('split.landed'));
        $this->getJson("/api/builds/{$this->linnet()->id}/order?days=-3")->assertStatus(422);
        $this->getJson("/api/builds/{$this->linnet()->id}/order?days=0")
            ->assertOk()
            ->assertJsonPath('conflict', ['all here within 0 days']);
    }

    public function test_orders_and_terms_are_kept_and_what_cannot_be_is_refused_at_its_field(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $offer = $this->held($build)['offers'][0]['ref'];
        $this->edit($build, [
            [
                'section' => 'offers',
                'ref' => $offer,
                'set' => [
                    [
                        'path' => ['breaks'],
                        'to' => [['from' => 5, 'price' => '6.50'], ['from' => 20, 'price' => '5.10']],
                    ],
                    ['path' => ['least'], 'to' => 2],
                    ['path' => ['stock'], 'to' => 40],
                    ['path' => ['pinned'], 'to' => true],
                ],
            ],
            ['section' => 'suppliers', 'ref' => 'ferry', 'set' => [['path' => ['least_order'], 'to' => '30.00']]],
            [
                'section' => 'purchases',
                'create' => [
                    'ref' => 'N1',
                    'part' => 'P-inlet',
                    'supplier' => 'stoves',
                    'pieces' => 3,
                    'paid' => '0.00',
                    'agreed' => '21.30',
                    'date' => '2026-11-05',
                    'state' => 'shipped',
                    'order' => 'Two Stoves 9',
                    'due' => '2026-11-20',
                ],
            ],
        ])->assertOk();
        $held = $this->held($build);
        $kept = array_column($held['offers'], null, 'ref')[$offer];
        self::assertSame([['from' => 5, 'price' => '6.50'], ['from' => 20, 'price' => '5.10']], $kept['breaks']);
        self::assertSame([2, 40, true], [$kept['least'], $kept['stock'], $kept['pinned']]);
        self::assertSame('30.00', array_column($held['suppliers'], null, 'ref')['ferry']['least_order']);
        $purchase = array_column($held['purchases'], null, 'ref')['N1'];
        self::assertSame(
            ['21.30', 'shipped', '2026-11-20'],
            [$purchase['agreed'], $purchase['state'], $purchase['due']],
        );

        foreach (
            [
                'received' => [['path' => ['received'], 'to' => 4]],
                'returned' => [
                    ['path' => ['received'], 'to' => 2],
                    ['path' => ['accepted'], 'to' => 2],
                    ['path' => ['returned'], 'to' => 1],
                ],
                'state' => [['path' => ['state'], 'to' => 'lost']],
                'pieces' => [['path' => ['pieces'], 'to' => 0]],
                'due' => [['path' => ['due'], 'to' => 'soon']],
            ] as $field => $set
        ) {
            $refused = $this->edit($build, [['section' => 'purchases', 'ref' => 'N1', 'set' => $set]])->assertStatus(
                422,
            );
            self::assertStringEndsWith("/{$field}", $refused->json('errors.0.pointer'), $field);
        }
        self::assertSame($purchase, array_column($this->held($build)['purchases'], null, 'ref')['N1']);
    }

    public function test_pieces_go_from_one_build_to_another_or_nothing_does(): void
    {
        $this->as($this->isla());
        [$linnet, $dunlin] = [$this->linnet(), $this->dunlin()];
        $part = ['ref' => 'N-cap', 'family' => 'consumable', 'name' => 'Cable tie, bag'];
        $need = [
            'ref' => 'N-cap',
            'role' => 'Ties',
            'family' => 'consumable',
            'candidates' => ['N-cap'],
            'choice' => 'N-cap',
        ];
        foreach ([[$linnet, ['quantity' => 3]], [$dunlin, ['quantity' => 1, 'owned' => 3]]] as [$build, $more]) {
            $this->edit($build, [
                ['section' => 'parts', 'create' => $part],
                ['section' => 'needs', 'create' => $more + $need],
            ])->assertOk();
        }
        $spare = $this->getJson("/api/builds/{$linnet->id}/stock")->assertOk();
        self::assertSame(
            [],
            Schemas::breaks((string) json_encode($spare->json()[0]), 'api/openapi.json#/components/schemas/Spare'),
        );
        $row = array_column($spare->json(), null, 'part')['N-cap'];
        self::assertSame([2, 'Dunlin'], [$row['take'], $row['build']]);

        $owned = fn (Build $build): int => array_column($this->held($build)['needs'], null, 'ref')['N-cap']['owned'] ??
            0;
        $take = fn (int $pieces, string $key) => $this->postJson("/api/builds/{$linnet->id}/stock", [
            'key' => $key,
            'part' => 'N-cap',
            'from' => $dunlin->id,
            'there' => 'N-cap',
            'pieces' => $pieces,
        ]);
        $take(3, (string) Str::uuid())->assertStatus(422)->assertJsonPath('errors.0.pointer', '/pieces');
        self::assertSame([0, 3], [$owned($linnet), $owned($dunlin)], 'Neither build was changed.');
        $key = (string) Str::uuid();
        $take(2, $key)->assertCreated();
        $take(2, $key)->assertCreated();
        self::assertSame([2, 1], [$owned($linnet), $owned($dunlin)], 'Sent twice, done once.');
        $this->postJson("/api/builds/{$linnet->id}/stock", [
            'key' => (string) Str::uuid(),
            'part' => 'N-cap',
            'from' => $dunlin->id,
            'there' => 'P-psu',
            'pieces' => 1,
        ])->assertStatus(422);
        $this->postJson("/api/builds/{$linnet->id}/undo")->assertOk();
        self::assertSame([0, 1], [$owned($linnet), $owned($dunlin)], 'Each build takes back its own side.');
        $this->as($this->stranger());
        $take(1, (string) Str::uuid())->assertNotFound();
    }

    public function test_a_rate_of_the_future_is_refused_and_claims_are_told(): void
    {
        $this->as($this->isla());
        $rate = static fn (string $date): array => [
            [
                'section' => 'rates',
                'create' => ['ref' => 'SEK-GBP', 'from' => 'SEK', 'to' => 'GBP', 'worth' => '0.074', 'date' => $date],
            ],
        ];
        $this->edit($this->linnet(), $rate(now()->addDays(9)->format('Y-m-d')))
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/rates/SEK-GBP/date');
        $this->edit($this->linnet(), $rate(now()->format('Y-m-d')))->assertOk();

        $claims = $this->getJson("/api/builds/{$this->dunlin()->id}/claims")
            ->assertOk()
            ->json();
        self::assertSame(['Ferry Lane 4471'], array_column($claims, 'order'));
        self::assertStringContainsString('4 missing', $claims[0]['text']);
        $looks = [
            [
                'what' => 'signs of use',
                'result' => 'fail',
                'date' => '2026-11-20',
                'pieces' => 1,
                'notes' => 'Solder on it.',
            ],
        ];
        $this->edit($this->dunlin(), [
            [
                'section' => 'purchases',
                'ref' => 'B5',
                'set' => [['path' => ['looks'], 'to' => $looks], ['path' => ['rate'], 'to' => '1.50']],
            ],
        ])->assertOk();
        $kept = array_column($this->held($this->dunlin())['purchases'], null, 'ref')['B5'];
        self::assertSame([$looks, '1.5'], [$kept['looks'], $kept['rate']]);
        self::assertCount(2, $this->getJson("/api/builds/{$this->dunlin()->id}/claims")->json());
    }
}
