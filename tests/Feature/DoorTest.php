<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Builds\Workspace;
use App\Models\LibraryPart;
use App\Models\Workshop;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\Route as Router;
use Magpie\Core\Format\BuildFile;

/** Who gets in, and what they find there: signing in, and workshops kept apart. */
final class DoorTest extends FeatureTestCase
{
    public function test_a_wrong_password_is_named_at_the_field_and_a_right_one_enters(): void
    {
        $this->postJson('/api/session', ['email' => 'isla@thistle-quay.example', 'password' => 'guess'])
            ->assertStatus(422)->assertJsonPath('errors.0.pointer', '/email')->assertJsonPath('errors.0.reason', 'No account has this e-mail address and password.');
        $this->postJson('/api/session', ['email' => 'no address', 'password' => ''])->assertStatus(422)->assertJsonCount(2, 'errors');

        $entered = $this->postJson('/api/session', ['email' => 'isla@thistle-quay.example', 'password' => 'magpie-demo'])->assertOk()->assertJsonPath('user.workshops.0.name', 'Thistle Quay Workshop');
        self::assertShape('Session', $entered);
        $this->getJson('/api/builds')->assertOk();
        $this->deleteJson('/api/session')->assertNoContent();
    }

    public function test_the_demo_button_opens_only_the_demo(): void
    {
        $this->postJson('/api/session/demo')->assertOk()->assertJsonPath('user.name', 'Isla Brae');
        config(['app.demo' => false]);
        $this->postJson('/api/session/demo')->assertNotFound();
        $this->getJson('/api/session')->assertJsonPath('demo', false);
    }

    public function test_without_a_session_nothing_opens(): void
    {
        $tried = 0;
        foreach ($this->guarded() as [$method, $path]) {
            $this->json($method, strtr($path, ['{build}' => '1', '{edit}' => '1', '{workshop}' => '1', '{item}' => '1', '{other}' => '1']))->assertUnauthorized();
            $tried++;
        }
        self::assertGreaterThan(20, $tried);
    }

    public function test_another_workshops_records_are_not_found_on_any_route(): void
    {
        $stranger = $this->stranger();
        $theirs = Workspace::add(Workshop::query()->where('demo', false)->firstOrFail(), BuildFile::build(['magpie' => 1, 'build' => ['name' => 'Theirs', 'kind' => 'plotter', 'currency' => 'GBP']]));
        $import = $theirs->imports()->create(['key' => (string) \Illuminate\Support\Str::uuid(), 'file_name' => 'x.csv', 'rows' => 1, 'state' => 'previewed']);
        $item = LibraryPart::query()->create(['workshop_id' => $theirs->workshop_id, 'ref' => 'secret', 'family' => 'fan', 'name' => 'Theirs', 'words' => 'theirs', 'example' => false, 'entry' => ['part' => ['ref' => 'secret', 'family' => 'fan', 'name' => 'Theirs']]]);
        $this->as($this->isla());
        $tried = 0;
        foreach ($this->guarded() as [$method, $path]) {
            if (preg_match('/\{(build|import|workshop|item)}/', $path) === 1) {
                $this->json($method, strtr($path, ['{workshop}' => (string) $theirs->workshop_id, '{item}' => (string) $item->id, '{other}' => (string) $this->dunlin()->id, '{need}' => 'x', '{build}' => (string) $theirs->id, '{import}' => $import->key, '{key}' => 'E01/x', '{step}' => 'a', '{edit}' => '1', '{name}' => 'a.jpg']), ['key' => (string) \Illuminate\Support\Str::uuid(), 'label' => 'x', 'changes' => [['section' => 'needs', 'ref' => 'x', 'delete' => true]]])
                    ->assertNotFound();
                $tried++;
            }
        }
        self::assertGreaterThan(34, $tried);
        $this->postJson('/api/builds', ['workshop' => $theirs->workshop_id, 'name' => 'Mine', 'kind' => 'x', 'currency' => 'GBP'])->assertNotFound();
        self::assertStringNotContainsString('Theirs', (string) $this->getJson('/api/builds')->getContent());
        // Nor as the other of two variants, nor as a candidate.
        $mine = $this->dunlin();
        $this->getJson("/api/builds/{$mine->id}/variants/{$theirs->id}")->assertNotFound();
        $this->postJson("/api/builds/{$mine->id}/needs/psu/candidates", ['library' => $item->id, 'key' => (string) \Illuminate\Support\Str::uuid()])->assertNotFound();
        $this->as($stranger);
        $this->getJson("/api/builds/{$theirs->id}")->assertOk();
    }

    /**
     * @return iterable<array{string, string}>
     */
    private function guarded(): iterable
    {
        /** @var Route $route */
        foreach (Router::getRoutes() as $route) {
            if (in_array('auth:sanctum', $route->gatherMiddleware(), true)) {
                yield [$route->methods()[0], '/'.$route->uri()];
            }
        }
    }
}
