<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Build;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\Schemas;

/** Brief, routes, variants and what to measure, through HTTP and MariaDB. */
final class ScopeTest extends FeatureTestCase
{
    /**
     * @return iterable<string, array{string, string, bool}>
     */
    public static function answers(): iterable
    {
        yield 'what follows from the brief' => ['/scope', 'Scope', false];
        yield 'the routes' => ['/routes', 'Routes', false];
        yield 'the true cost' => ['/true-cost', 'TrueCost', false];
        yield 'candidates' => ['/needs/psu48/comparison', 'Comparison', false];
        yield 'candidates of a need with one' => ['/needs/spindle/comparison', 'Comparison', false];
        yield 'what to measure' => ['/measure-first', 'MeasureRow', true];
        yield 'variants' => ['/variants', 'Variant', true];
        yield 'the wiring' => ['/wiring', 'Wiring', false];
        yield 'the harness' => ['/harness', 'Harness', false];
    }

    #[DataProvider('answers')]
    public function test_answers_keep_to_the_published_contract(string $path, string $shape, bool $list): void
    {
        $this->as($this->isla());
        foreach ([$this->linnet(), $this->dunlin()] as $build) {
            if (str_contains($path, 'needs') && $build->slug === 'dunlin') {
                continue;
            }
            $answer = $this->getJson("/api/builds/{$build->id}{$path}")->assertOk();
            foreach ($list ? $answer->json() : [json_decode((string) $answer->getContent())] as $item) {
                self::assertSame(
                    [],
                    Schemas::breaks((string) json_encode($item), "api/openapi.json#/components/schemas/{$shape}"),
                    "{$build->name}{$path}",
                );
            }
        }
    }

    public function test_changing_the_brief_judges_the_build_again(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $verdict = static fn (array $overview, string $key): ?string => collect($overview['findings'])->firstWhere(
            'key',
            $key,
        )['verdict'] ?? null;
        $result = $this->edit(
            $build,
            self::setting('workpieces', 'soundboard', ['length'], '700 mm', '612 mm', true),
        )->assertOk();
        self::assertSame('fails', $verdict($result->json('overview'), 'M01/y'));

        $result = $this->edit($build, self::setting('brief', '', ['helper'], 'Effie Lorne, electrician'))->assertOk();
        self::assertSame('holds', $verdict($result->json('overview'), 'E14-hands/inlet'));
        $result = $this->edit($build, self::setting('site', '', ['door', 'width'], '600 mm'))->assertOk();
        self::assertSame('fails', $verdict($result->json('overview'), 'M02/door'));
        $result = $this->edit($build, self::setting('site', '', ['outlet'], '5 A'))->assertOk();
        self::assertSame('fails', $verdict($result->json('overview'), 'E15/worst'));
        foreach (range(1, 4) as $_) {
            $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        }
        self::assertSame(
            file_get_contents(base_path('demo/linnet.json')),
            $this->get("/api/builds/{$build->id}/file")->getContent(),
            'And taken back to the byte.',
        );
    }

    /**
     * @return iterable<string, array{string, string, list<string>, mixed, string}>
     */
    public static function impossible(): iterable
    {
        yield 'a workpiece larger than the room' => [
            'workpieces',
            'soundboard',
            ['length'],
            '9 m',
            'the room ends at 4.2 m',
        ];
        yield 'a workpiece in amps' => ['workpieces', 'soundboard', ['length'], '9 A', 'a length is wanted'];
        yield 'a budget below nothing' => ['build', '', ['budget'], '-1', 'not negative'];
        yield 'no such day' => ['brief', '', ['wanted_by'], '2027-02-30', 'YYYY-MM-DD'];
        yield 'more duty than there is' => ['brief', '', ['duty'], '130 %', 'from 0 % to 100 %'];
        yield 'an experience nobody has' => ['brief', '', ['experience', 'mains'], 'expert', 'not one of none'];
        yield 'a route through a need that is gone' => ['routes', 'kit', ['needs'], ['gone'], 'no need "gone"'];
    }

    /**
     * @param  list<string>  $path
     */
    #[DataProvider('impossible')]
    public function test_an_impossible_brief_is_named_at_the_field_and_nothing_is_stored(
        string $section,
        string $ref,
        array $path,
        mixed $to,
        string $reason,
    ): void {
        $this->as($this->isla());
        $build = $this->linnet();
        $answer = $this->edit($build, self::setting($section, $ref, $path, $to))->assertStatus(422);

        self::assertStringContainsString($reason, $answer->json('errors.0.reason'));
        self::assertStringEndsWith(
            '/'.end($path),
            preg_replace('#/\d+$#', '', $answer->json('errors.0.pointer')) ?? '',
        );
        self::assertSame($build->revision, $this->linnet()->revision);
    }

    public function test_a_variant_is_a_build_of_its_own_and_compared_line_by_line(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $fork = $this->postJson("/api/builds/{$build->id}/variants", ['name' => 'Linnet, stronger supply'])
            ->assertCreated()
            ->json('id');
        $this->edit(
            Build::query()->findOrFail($fork),
            self::setting('needs', 'psu48', ['choice'], 'PSU48-600'),
        )->assertOk();

        self::assertSame(
            [['Linnet, stronger supply', 'fork']],
            array_map(
                static fn (array $v): array => [$v['name'], $v['relation']],
                $this->getJson("/api/builds/{$build->id}/variants")->json(),
            ),
        );
        self::assertSame('origin', $this->getJson("/api/builds/{$fork}/variants")->json('0.relation'));
        $diff = $this->getJson("/api/builds/{$build->id}/variants/{$fork}")->assertOk();
        self::assertShape('VariantDiff', $diff);
        self::assertSame(
            [['psu48', '1 × 48 V supply, 350 W, caged', '1 × 48 V supply, 600 W, caged']],
            array_values(
                array_map(
                    static fn (array $r): array => [$r['need'], $r['one'], $r['other']],
                    array_filter($diff->json('parts'), static fn (array $r): bool => ! $r['same']),
                ),
            ),
        );
        self::assertEqualsWithDelta(0.5, $diff->json('sides.1.kilograms') - $diff->json('sides.0.kilograms'), 1e-6);
        self::assertNotSame([], $diff->json('findings'));
        self::assertSame(
            file_get_contents(base_path('demo/linnet.json')),
            $this->get("/api/builds/{$build->id}/file")->getContent(),
            'What it was forked from stays as it was.',
        );
        $this->postJson("/api/builds/{$build->id}/variants", ['name' => ''])->assertStatus(422);
    }

    public function test_measuring_takes_a_value_off_the_list(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $before = $this->getJson("/api/builds/{$build->id}")->json('overview.tally.unproven');
        $rows = $this->getJson("/api/builds/{$build->id}/measure-first")->json();
        $row = collect($rows)->firstWhere('where', 'parts/P-light/specs/rated_current');
        self::assertSame(['listing', 'A'], [$row['evidence'] ?? null, $row['unit'] ?? null]);
        $result = $this->edit($build, [
            [
                'section' => 'parts',
                'ref' => 'P-light',
                'set' => [
                    [
                        'path' => ['specs', 'rated_current'],
                        'to' => ['value' => '0.29 A', 'evidence' => 'measured', 'source' => $row['instrument']],
                    ],
                ],
            ],
        ])->assertOk();

        self::assertLessThan(
            $before,
            $result->json('overview.tally.unproven'),
            'Verdicts that hung on the listing are given now.',
        );
        self::assertNotContains(
            'parts/P-light/specs/rated_current',
            array_column($this->getJson("/api/builds/{$build->id}/measure-first")->json(), 'where'),
        );
    }

    public function test_a_fix_that_is_offered_cures_when_it_is_applied_and_is_taken_back(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $found = $this->getJson("/api/builds/{$build->id}/remedies/E14/inlet")->assertOk();
        self::assertSame(
            [],
            Schemas::breaks((string) $found->getContent(), 'api/openapi.json#/components/schemas/Remedies'),
        );
        $remedy = $found->json('remedies.0');
        $result = $this->edit($build, $remedy['changes'])->assertOk();

        $now = collect($result->json('overview.findings'))->firstWhere('key', 'E14/inlet');
        self::assertTrue($remedy['to_be_fitted'], 'The earth lead is not there yet.');
        self::assertSame(['unproven', 'unproven', 'holds'], [$remedy['to'], $now['verdict'], $now['otherwise']]);
        self::assertStringContainsString(
            'bond of',
            implode($this->getJson("/api/builds/{$build->id}/findings/E14/inlet")->json('missing')),
        );
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertSame(
            file_get_contents(base_path('demo/dunlin.json')),
            $this->get("/api/builds/{$build->id}/file")->getContent(),
        );
        $this->getJson("/api/builds/{$build->id}/remedies/E99/x")->assertNotFound();
    }

    public function test_every_fix_offered_for_a_danger_can_be_applied(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        foreach (['E06/drv-x.power', 'E13/F48.out', 'E03/W8', 'E02/W8', 'M10/rz/0'] as $key) {
            foreach (
                $this->getJson("/api/builds/{$build->id}/remedies/{$key}")
                    ->assertOk()
                    ->json('remedies') as $remedy
            ) {
                $result = $this->edit($build, $remedy['changes'])->assertOk();
                self::assertSame(
                    $remedy['to'],
                    collect($result->json('overview.findings'))->firstWhere('key', $key)['verdict'],
                    "{$key}: {$remedy['says']}",
                );
                $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
            }
        }
    }

    public function test_the_harness_is_ticked_off_and_goes_out_and_the_netlist_too(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $this->edit($build, self::setting('leads', 'W4', ['made'], true))->assertOk();
        self::assertSame(1, $this->getJson("/api/builds/{$build->id}/harness")->json('made'));
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        $csv = (string) $this->get("/api/builds/{$build->id}/harness.csv")
            ->assertOk()
            ->getContent();
        self::assertStringContainsString('W4', $csv);
        self::assertSame(28, substr_count($csv, "\r\n"));
        self::assertStringContainsString(
            '.end',
            (string) $this->get("/api/builds/{$build->id}/wiring/worst.cir")
                ->assertOk()
                ->getContent(),
        );
        $this->getJson("/api/builds/{$build->id}/wiring/nothing.cir")->assertNotFound();
    }
}
