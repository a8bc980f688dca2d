<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Errand;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Storage;
use Illuminate\Testing\TestResponse;

/** What is done in the background for whoever asks: waited for, stopped, tried again, nobody else's, and gone after a day. */
final class ErrandTest extends FeatureTestCase
{
    private string $at = '';

    protected function setUp(): void
    {
        parent::setUp();
        config(['queue.default' => 'database']);
        $this->as($this->isla());
        $this->at = "/api/builds/{$this->dunlin()->id}/errands";
    }

    private function ask(): string
    {
        return (string) $this->postJson($this->at, ['kind' => 'book'])
            ->assertCreated()
            ->assertJsonPath('state', 'waiting')
            ->json('key');
    }

    private function work(): void
    {
        Artisan::call('queue:work', ['--once' => true, '--quiet' => true]);
    }

    /** @return TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function look(string $key): TestResponse
    {
        return $this->getJson("{$this->at}/{$key}");
    }

    public function test_a_book_is_made_in_the_background_and_found_again(): void
    {
        $key = $this->ask();
        $this->get("{$this->at}/{$key}/file")->assertNotFound();
        $this->work();
        self::assertShape('Errand', $this->look($key)->assertJsonPath('state', 'done')->assertJsonPath('file', true));
        $this->getJson($this->at)->assertJsonPath('0.key', $key);
        $file = $this->get("{$this->at}/{$key}/file")->assertOk();
        self::assertStringStartsWith('%PDF-', $file->streamedContent());

        // Another person of the same workshop asked for nothing.
        $this->as($this->tam());
        $this->getJson($this->at)->assertExactJson([]);
        $this->look($key)->assertNotFound();
        $this->get("{$this->at}/{$key}/file")->assertNotFound();

        $this->travel(25)->hours();
        $this->as($this->isla());
        $result = Errand::query()->where('key', $key)->firstOrFail()->result();
        self::assertTrue(Storage::exists($result));
        $this->ask();
        $this->look($key)->assertNotFound();
        self::assertFalse(Storage::exists($result));
    }

    public function test_a_build_that_is_deleted_leaves_no_file_of_an_errand_behind(): void
    {
        $build = $this->postJson('/api/builds', [
            'workshop' => $this->dunlin()->workshop_id,
            'name' => 'Gone soon',
            'kind' => 'plotter',
            'currency' => 'GBP',
        ])->json('id');
        $this->at = "/api/builds/{$build}/errands";
        $key = $this->ask();
        $this->work();
        $result = Errand::query()->where('key', $key)->firstOrFail()->result();
        self::assertTrue(Storage::exists($result));
        $this->deleteJson("/api/builds/{$build}")->assertNoContent();
        self::assertFalse(Storage::exists($result));
    }

    public function test_it_is_stopped_and_tried_again(): void
    {
        $key = $this->ask();
        $this->deleteJson("{$this->at}/{$key}")->assertJsonPath('state', 'stopped');
        $this->work();
        $this->look($key)->assertJsonPath('state', 'stopped');
        $this->postJson("{$this->at}/{$key}/again")
            ->assertOk()
            ->assertJsonPath('state', 'waiting');
        $this->postJson("{$this->at}/{$key}/again")->assertStatus(409);
        $this->work();
        $this->look($key)->assertJsonPath('state', 'done');
        $this->deleteJson("{$this->at}/{$key}")->assertJsonPath('state', 'done');
    }

    public function test_one_whose_worker_died_says_so_and_can_be_tried_again(): void
    {
        $key = $this->ask();
        $errand = Errand::query()->where('key', $key)->firstOrFail();
        $errand->update(['state' => 'running']);
        $this->look($key)->assertJsonPath('state', 'running');
        $this->travel(5)->minutes();
        $this->look($key)->assertJsonPath('state', 'failed');
        self::assertStringContainsString('try again', (string) $this->look($key)->json('trouble'));
        $this->postJson("{$this->at}/{$key}/again")->assertJsonPath('state', 'waiting');
    }

    public function test_a_large_file_is_not_waited_for_and_what_is_wrong_with_it_is_told_there(): void
    {
        $file = UploadedFile::fake()->createWithContent(
            'large.stl',
            "solid x\n".str_repeat("facet of nothing\n", 80_000),
        );
        $key = $this->post($this->at, ['kind' => 'mesh', 'mesh' => $file], ['Accept' => 'application/json'])
            ->assertCreated()
            ->assertJsonPath('state', 'waiting')
            ->assertJsonPath('name', 'large.stl')
            ->json('key');
        $this->work();
        $told = $this->look((string) $key)->assertJsonPath('state', 'failed');
        self::assertStringStartsWith('This file cannot be read:', (string) $told->json('trouble'));
    }

    public function test_one_person_has_at_most_three_under_way(): void
    {
        foreach (range(1, 3) as $_) {
            $last = $this->ask();
        }
        $this->postJson($this->at, ['kind' => 'book'])->assertStatus(429);
        $this->deleteJson("{$this->at}/{$last}")->assertOk();
        $this->ask();
        $this->postJson($this->at, ['kind' => 'dance'])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/kind');
    }
}
