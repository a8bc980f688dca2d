<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Build;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\Schemas;

/** Wiring on a bad day, ports, stops, settings and fixes together, as the interface asks for them. */
final class ProveTest extends FeatureTestCase
{
    private function linnet(): Build
    {
        return Build::query()->where('slug', 'linnet')->firstOrFail();
    }

    /**
     * @return iterable<string, array{string, string, bool}>
     */
    public static function answers(): iterable
    {
        yield 'wiring when a load doubles' => ['wiring?doubled=spindle', 'Wiring', false];
        yield 'stops' => ['stops', 'Stops', false];
        yield 'ports' => ['ports', 'Ports', false];
        yield 'settings' => ['settings', 'SettingLine', true];
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
                self::assertSame([], Schemas::breaks((string) json_encode($one), "api/openapi.json#/components/schemas/{$shape}"), (string) json_encode($one));
            }
        }
    }

    public function test_a_bad_day_says_what_gets_worse_and_changes_nothing(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $calm = $this->getJson("/api/builds/{$build->id}/wiring")->json();
        $doubled = $this->getJson("/api/builds/{$build->id}/wiring?doubled=light")->json();
        $amps = static fn (array $map, string $lead): float => (float) collect($map['leads'])->firstWhere('ref', $lead)['amps']['worst'];

        self::assertSame([], $calm['worse']);
        self::assertEqualsWithDelta(2 * $amps($calm, 'W15'), $amps($doubled, 'W15'), 0.001);
        $sag = $this->getJson("/api/builds/{$build->id}/wiring?sag=1")->json();
        self::assertEqualsWithDelta(48 * 0.98, $sag['volts']['worst']['psu48.out'], 0.001);
        $pressed = $this->getJson("/api/builds/{$build->id}/wiring?pressed=stop")->json();
        self::assertArrayNotHasKey('worst', collect($pressed['leads'])->firstWhere('ref', 'W10')['amps'], 'Nothing flows behind a pressed stop.');
        self::assertSame($calm, $this->getJson("/api/builds/{$build->id}/wiring")->json());
    }

    public function test_a_setting_read_back_settles_its_line_and_a_link_stays_open_until_undone(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $line = fn (string $key): array => collect((array) $this->getJson("/api/builds/{$build->id}/settings")->json())->firstWhere('key', $key);

        self::assertSame('not read', $line('driver.drv-z.current')['state']);
        $this->edit($build, [['section' => 'settings', 'create' => ['ref' => 'S-9', 'kind' => 'setting', 'about' => 'driver.drv-z.current', 'value' => '1.1 A']]])->assertOk();
        self::assertSame('agrees', $line('driver.drv-z.current')['state']);
        $this->edit($build, [['section' => 'settings', 'create' => ['ref' => 'S-10', 'kind' => 'temporary', 'about' => 'Low current for first motion']]])->assertStatus(422)->assertJsonPath('errors.0.reason', 'is missing; say by when it must be undone, such as "before main power".');
        $this->edit($build, self::setting('settings', 'S-7', ['done'], true))->assertOk();
        self::assertTrue($line('USB power link on the board, for flashing')['done']);
    }

    public function test_axes_zones_and_clearances_are_stored_whole_and_come_back_as_they_were(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $create = ['ref' => 'c1', 'name' => 'Motor and side', 'between' => [['what' => 'Motor', 'x' => '0 mm to 40 mm', 'moves' => ['x']], ['what' => 'Side', 'x' => '400 mm to 420 mm']], 'least' => '2 mm'];
        $this->edit($build, [['section' => 'clearances', 'create' => $create]])->assertOk();
        $this->edit($build, self::setting('axes', 'x', ['drive', 'motors'], ['motor-x', 'motor-z'], ['motor-x']))->assertOk();
        $document = $this->getJson("/api/builds/{$build->id}")->json('document');

        self::assertSame($create, $document['clearances'][0]);
        self::assertSame(['motor-x', 'motor-z'], $document['axes'][0]['drive']['motors']);
        $this->edit($build, self::setting('axes', 'x', ['drive', 'ratio'], '0'))->assertStatus(422)->assertJsonPath('errors.0.pointer', '/axes/x/drive/ratio');
        $this->edit($build, self::setting('zones', 'dust', ['holds'], ['psu48'], $document['zones'][1]['holds']))->assertStatus(422);
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        self::assertSame(file_get_contents(base_path('demo/linnet.json')), $this->get("/api/builds/{$build->id}/file")->getContent());
    }

    public function test_several_findings_are_cured_together(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $keys = ['E13/W10', 'E13/W11', 'E02/W4'];
        $offers = [];
        foreach ($keys as $key) {
            foreach ($this->getJson("/api/builds/{$build->id}/remedies/{$key}")->json('remedies') as $remedy) {
                $offers[] = ['says' => $remedy['says'], 'changes' => $remedy['changes'], 'cured' => array_keys($remedy['cured']), 'cost' => (float) $remedy['cost'], 'buys' => $remedy['buys']];
            }
        }
        $answer = $this->postJson("/api/builds/{$build->id}/remedies", ['keys' => $keys, 'offers' => $offers])->assertOk();
        self::assertSame([], Schemas::breaks((string) $answer->getContent(), 'api/openapi.json#/components/schemas/RemedySet'));
        self::assertTrue($answer->json('proven'));
        self::assertSame([], $answer->json('left'));
        $result = $this->edit($build, $answer->json('changes'))->assertOk();
        foreach ($keys as $key) {
            self::assertContains(collect($result->json('overview.findings'))->firstWhere('key', $key)['verdict'], ['holds', 'tight', 'unproven'], $key);
        }
        $this->postJson("/api/builds/{$build->id}/undo")->assertOk();
        $this->postJson("/api/builds/{$build->id}/remedies", ['keys' => []])->assertStatus(422);
    }

    public function test_the_transfer_table_is_for_candidates_only(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $this->getJson("/api/builds/{$build->id}/ports/board/P-psu")->assertNotFound();
        $moves = $this->getJson("/api/builds/{$build->id}/ports/board/P-board")->assertOk()->json();
        self::assertNotSame([], $moves);
        self::assertSame([], array_filter($moves, static fn (array $m): bool => $m['after'] === null));
    }
}
