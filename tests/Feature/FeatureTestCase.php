<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Accounts\Secret;
use App\Models\Build;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Testing\DatabaseTransactions;
use Illuminate\Foundation\Testing\TestCase;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use Tests\Support\Schemas;

/**
 * Drives the application through HTTP against the real MariaDB that bin/magpie test has started and filled with the
 * demo.
 */
abstract class FeatureTestCase extends TestCase
{
    use DatabaseTransactions;

    public function createApplication(): Application
    {
        $_SERVER['APP_ENV'] = $_ENV['APP_ENV'] = 'testing';
        /** @var Application $app */
        $app = require dirname(__DIR__, 2).'/bootstrap/app.php';
        $app->make(Kernel::class)->bootstrap();

        return $app;
    }

    protected function setUp(): void
    {
        parent::setUp();
        // One test plays two people; this middleware would sign the first one's session out.
        config(['sanctum.middleware.authenticate_session' => null, 'queue.default' => 'sync']);
        // Tries are counted by address, and one test's are not another's.
        $this->withServerVariables(['REMOTE_ADDR' => '10.'.implode('.', array_map(static fn (): int => random_int(1, 250), range(1, 3)))]);
        $this->withHeaders(['Referer' => (string) config('app.url'), 'Accept' => 'application/json']);
    }

    /** Another person at another screen. */
    protected function as(User $user): void
    {
        $this->flushSession();
        $this->app->make('auth')->forgetGuards();
        $this->actingAs($user);
        $this->withSession([
            'sign_in' => $user->signIns()->create([
                'device' => Secret::hash(Secret::fresh()),
                'agent' => 'test',
                'address' => '127.0.0.1',
                'seen_at' => now(),
            ])->id,
        ]);
    }

    protected function isla(): User
    {
        return User::query()->where('email', 'isla@thistle-quay.example')->firstOrFail();
    }

    protected function tam(): User
    {
        return User::query()->where('email', 'tam@thistle-quay.example')->firstOrFail();
    }

    /** Someone of another workshop. */
    protected function stranger(): User
    {
        $user = User::query()->create([
            'name' => 'Wren Holm',
            'email' => Str::random(8).'@other.example',
            'password' => 'a-long-password',
        ]);
        $workshop = Workshop::query()->create(['name' => 'Other', 'slug' => Str::lower(Str::random(10))]);
        $workshop->members()->attach($user, ['role' => 'owner']);

        return $user;
    }

    protected function linnet(): Build
    {
        return Build::query()->where('slug', 'linnet')->firstOrFail();
    }

    protected function dunlin(): Build
    {
        return Build::query()->where('slug', 'dunlin')->firstOrFail();
    }

    /**
     * @return array<string, list<array<string, mixed>>> the build as its file
     */
    protected function held(Build $build): array
    {
        return json_decode(
            (string) $this->get("/api/builds/{$build->id}/file")
                ->assertOk()
                ->getContent(),
            true,
        );
    }

    /**
     * @param  list<array<string, mixed>>  $changes
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    protected function edit(Build $build, array $changes, ?string $key = null, ?int $seen = null): TestResponse
    {
        return $this->postJson(
            "/api/builds/{$build->id}/edits",
            [
                'key' => $key ?? (string) Str::uuid(),
                'label' => 'Test edit',
                'changes' => $changes,
            ] + ($seen === null ? [] : ['seen' => $seen]),
        );
    }

    /**
     * @param  list<string|int>  $path
     * @return list<array<string, mixed>>
     */
    protected static function setting(
        string $section,
        string $ref,
        array $path,
        mixed $to,
        mixed $was = null,
        bool $checked = false,
    ): array {
        return [
            [
                'section' => $section,
                'ref' => $ref,
                'set' => [['path' => $path, 'to' => $to] + ($checked ? ['was' => $was] : [])],
            ],
        ];
    }

    /**
     * @param  TestResponse<\Symfony\Component\HttpFoundation\Response>  $response
     */
    protected static function assertShape(string $shape, TestResponse $response): void
    {
        self::assertSame(
            [],
            Schemas::breaks((string) $response->getContent(), "api/openapi.json#/components/schemas/{$shape}"),
            $shape,
        );
    }
}
