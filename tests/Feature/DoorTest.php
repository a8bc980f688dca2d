<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Builds\Workspace;
use App\Models\LibraryPart;
use App\Models\Workshop;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\Route as Router;
use Illuminate\Testing\TestResponse;
use Magpie\Core\Format\BuildFile;
use Symfony\Component\HttpFoundation\Cookie;

/** Who gets in, and what they find there: signing in, and workshops kept apart. */
final class DoorTest extends FeatureTestCase
{
    public function test_a_wrong_password_is_named_at_the_field_and_a_right_one_enters(): void
    {
        $this->postJson('/api/session', ['email' => 'isla@thistle-quay.example', 'password' => 'guess'])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/email')
            ->assertJsonPath('errors.0.reason', 'No account has this e-mail address and password.');
        $this->postJson('/api/session', ['email' => 'no address', 'password' => ''])
            ->assertStatus(422)
            ->assertJsonCount(2, 'errors');

        $entered = $this->postJson('/api/session', [
            'email' => 'isla@thistle-quay.example',
            'password' => 'magpie-demo',
        ])
            ->assertOk()
            ->assertJsonPath('user.workshops.0.name', 'Thistle Quay Workshop');
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

    public function test_staying_signed_in_is_asked_for_and_lasts_thirty_days(): void
    {
        $plain = $this->postJson('/api/session', [
            'email' => 'isla@thistle-quay.example',
            'password' => 'magpie-demo',
        ])->assertOk();
        $names = static fn (TestResponse $r): array => array_map(
            static fn (Cookie $c): string => $c->getName(),
            $r->headers->getCookies(),
        );
        self::assertSame([], preg_grep('/^remember_/', $names($plain)));
        $session = array_values(
            array_filter(
                $plain->headers->getCookies(),
                static fn (Cookie $c): bool => $c->getName() === 'magpie_session',
            ),
        )[0];
        self::assertSame(
            ['strict', true, 0],
            [$session->getSameSite(), $session->isHttpOnly(), $session->getExpiresTime()],
            'It ends with the browser.',
        );

        $stays = $this->postJson('/api/session', [
            'email' => 'isla@thistle-quay.example',
            'password' => 'magpie-demo',
            'remember' => true,
        ])->assertOk();
        $kept = array_values(
            array_filter(
                $stays->headers->getCookies(),
                static fn (Cookie $c): bool => str_starts_with($c->getName(), 'remember_'),
            ),
        )[0];
        self::assertEqualsWithDelta(30 * 86_400, $kept->getExpiresTime() - time(), 60);
        self::assertTrue($kept->isHttpOnly());
    }

    public function test_guessing_is_slowed_down_and_never_locks_the_right_person_out(): void
    {
        $try = fn (string $password, string $from): TestResponse => $this->withServerVariables([
            'REMOTE_ADDR' => $from,
        ])->postJson('/api/session', ['email' => 'isla@thistle-quay.example', 'password' => $password]);
        $try('magpie-demo', '10.1.1.1')->assertOk();
        for ($i = 0; $i < 6; $i++) {
            $try("guess {$i}", '10.9.9.9')->assertStatus(422);
        }
        $held = $try('magpie-demo', '10.9.9.9')->assertStatus(429);
        self::assertGreaterThan(0, (int) $held->headers->get('Retry-After'));
        for ($i = 0; $i < 70; $i++) {
            $try('guess', "10.8.{$i}.1");
        }
        $try('guess', '10.7.7.7')->assertStatus(429);
        $try('magpie-demo', '10.1.1.1')->assertOk();
        $this->travel(2)->minutes();
        $try('magpie-demo', '10.9.9.9')->assertOk();
    }

    public function test_an_address_that_nobody_has_takes_as_long_as_a_wrong_password(): void
    {
        $time = function (string $email, int $i): float {
            $start = microtime(true);
            $this->withServerVariables(['REMOTE_ADDR' => "10.3.{$i}.1"])->postJson('/api/session', [
                'email' => $email,
                'password' => 'a wrong one',
            ]);

            return microtime(true) - $start;
        };
        $known = $unknown = [];
        for ($i = 0; $i < 6; $i++) {
            $known[] = $time('isla@thistle-quay.example', $i);
            $unknown[] = $time('nobody@thistle-quay.example', $i);
        }
        self::assertGreaterThan(0.5, min($unknown) / min($known));
        self::assertLessThan(2, min($unknown) / min($known));
    }

    public function test_a_password_is_changed_by_whoever_knows_it_and_ends_other_sessions(): void
    {
        $stranger = $this->stranger();
        $this->as($stranger);
        foreach (
            [
                ['nope', 'a fresh long password', '/current'],
                ['a-long-password', 'short', '/password'],
                ['a-long-password', 'qwertyuiop', '/password'],
                ['a-long-password', 'aaaaaaaaaaaa', '/password'],
                ['a-long-password', 'Wren Holm 1', '/password'],
                ['a-long-password', str_repeat('ab1!', 20), '/password'],
            ] as [$current, $new, $pointer]
        ) {
            $this->putJson('/api/session/password', ['current' => $current, 'password' => $new])
                ->assertStatus(422)
                ->assertJsonPath('errors.0.pointer', $pointer);
        }
        $token = $stranger->createToken('script')->plainTextToken;
        $remembered = $stranger->refresh()->getRememberToken();
        $this->putJson('/api/session/password', [
            'current' => 'a-long-password',
            'password' => 'four small brown eggs',
        ])->assertNoContent();
        self::assertNotSame($remembered, $stranger->refresh()->getRememberToken());
        self::assertSame(0, $stranger->tokens()->count());
        $this->flushSession();
        $this->app->make('auth')->forgetGuards();
        $this->withToken($token)->getJson('/api/builds')->assertUnauthorized();
        $this->postJson('/api/session', [
            'email' => $stranger->email,
            'password' => 'four small brown eggs',
        ])->assertOk();
        $this->as($this->isla());
        $this->putJson('/api/session/password', [
            'current' => 'magpie-demo',
            'password' => 'four small brown eggs',
        ])->assertForbidden();
    }

    public function test_the_people_of_the_demo_come_in_nowhere_else(): void
    {
        config(['app.demo' => false]);
        $this->postJson('/api/session', [
            'email' => 'isla@thistle-quay.example',
            'password' => 'magpie-demo',
        ])->assertStatus(422);
        $this->as($this->isla());
        $this->getJson('/api/builds')->assertUnauthorized();
        $this->getJson('/api/session')->assertJsonPath('user', null);
        $this->as($this->stranger());
        $this->getJson('/api/builds')->assertOk();
    }

    public function test_every_answer_tells_a_browser_what_not_to_do(): void
    {
        $this->as($this->isla());
        foreach (['/', '/api/builds', '/api/nowhere', "/api/builds/{$this->dunlin()->id}/file"] as $path) {
            $answer = $this->get($path);
            self::assertStringContainsString(
                "script-src 'self';",
                (string) $answer->headers->get('Content-Security-Policy'),
                $path,
            );
            self::assertStringContainsString(
                "frame-ancestors 'none'",
                (string) $answer->headers->get('Content-Security-Policy'),
            );
            self::assertSame(
                ['nosniff', 'DENY', 'same-origin'],
                [
                    $answer->headers->get('X-Content-Type-Options'),
                    $answer->headers->get('X-Frame-Options'),
                    $answer->headers->get('Referrer-Policy'),
                ],
            );
            self::assertNull($answer->headers->get('Access-Control-Allow-Origin'));
        }
        $this->withHeader('Origin', 'https://elsewhere.example')
            ->getJson('/api/builds')
            ->assertHeaderMissing('Access-Control-Allow-Origin');
        self::assertStringNotContainsString('<script>', (string) $this->get('/')->getContent());
    }

    /**
     * Every route for every kind of visitor: what is guarded opens for nobody without a session, and nothing of one
     * workshop for anybody of another. A route that is new is in the table by itself.
     */
    public function test_every_route_by_every_visitor(): void
    {
        $stranger = $this->stranger();
        $theirs = Workspace::add(
            Workshop::query()->where('demo', false)->firstOrFail(),
            BuildFile::build([
                'magpie' => 1,
                'build' => ['name' => 'Theirs', 'kind' => 'plotter', 'currency' => 'GBP'],
            ]),
        );
        $import = $theirs->imports()->create([
            'key' => (string) \Illuminate\Support\Str::uuid(),
            'file_name' => 'x.csv',
            'rows' => 1,
            'state' => 'previewed',
        ]);
        $item = LibraryPart::query()->create([
            'workshop_id' => $theirs->workshop_id,
            'ref' => 'secret',
            'family' => 'fan',
            'name' => 'Theirs',
            'words' => 'theirs',
            'example' => false,
            'entry' => ['part' => ['ref' => 'secret', 'family' => 'fan', 'name' => 'Theirs']],
        ]);
        $names = [
            '{workshop}' => (string) $theirs->workshop_id,
            '{item}' => (string) $item->id,
            '{other}' => (string) $this->dunlin()->id,
            '{need}' => 'x',
            '{part}' => 'x',
            '{axis}' => 'x',
            '{scenario}' => 'x',
            '{build}' => (string) $theirs->id,
            '{import}' => $import->key,
            '{key}' => 'E01/x',
            '{step}' => 'a',
            '{fault}' => 'x',
            '{edit}' => '1',
            '{name}' => 'a.jpg',
            '{what}' => 'note',
            '{kind}' => 'tram',
        ];
        $body = [
            'key' => (string) \Illuminate\Support\Str::uuid(),
            'label' => 'x',
            'changes' => [['section' => 'needs', 'ref' => 'x', 'delete' => true]],
        ];
        $open = ['GET /api/session', 'POST /api/session', 'POST /api/session/demo', 'POST /api/session/first'];
        $tried = ['open' => 0, 'guarded' => 0, 'foreign' => 0];
        /** @var Route $route */
        foreach (Router::getRoutes()->getRoutes() as $route) {
            if (! str_starts_with($route->uri(), 'api/')) {
                continue;
            }
            $method = $route->methods()[0];
            $path = '/'.strtr($route->uri(), $names);
            $line = "{$method} /{$route->uri()}";
            self::assertStringNotContainsString('{', $path, "{$line}: name its parameters above.");
            if (in_array($line, $open, true)) {
                $tried['open']++;

                continue;
            }
            $this->flushSession();
            $this->app->make('auth')->forgetGuards();
            $this->json($method, $path, $body)->assertUnauthorized();
            $tried['guarded']++;
            if (preg_match('/\{(build|import|workshop|item)}/', $route->uri()) === 1) {
                $this->as($this->isla());
                self::assertSame(404, $this->json($method, $path, $body)->getStatusCode(), $line);
                $tried['foreign']++;
            }
        }
        self::assertSame(count($open), $tried['open'], 'Nothing else is open to everybody.');
        self::assertGreaterThan(45, $tried['foreign']);
        $this->as($this->isla());
        $this->postJson('/api/builds', [
            'workshop' => $theirs->workshop_id,
            'name' => 'Mine',
            'kind' => 'x',
            'currency' => 'GBP',
        ])->assertNotFound();
        self::assertStringNotContainsString('Theirs', (string) $this->getJson('/api/builds')->getContent());
        // Nor as the other of two variants, nor as a candidate.
        $mine = $this->dunlin();
        $this->getJson("/api/builds/{$mine->id}/variants/{$theirs->id}")->assertNotFound();
        $this->postJson("/api/builds/{$mine->id}/needs/psu/candidates", [
            'library' => $item->id,
            'key' => (string) \Illuminate\Support\Str::uuid(),
        ])->assertNotFound();
        $this->as($stranger);
        $this->getJson("/api/builds/{$theirs->id}")->assertOk();
    }

    public function test_the_first_account_is_made_from_the_door_and_only_the_first(): void
    {
        $this->getJson('/api/session')->assertOk()->assertJsonPath('first', true);
        $new = [
            'name' => 'Robin Teal',
            'email' => 'robin@bench.example',
            'password' => 'three-legged-magpie',
            'workshop' => 'Bench in the barn',
        ];
        $make = fn (array $given) => $this->withHeader('Referer', config('app.url'))->postJson(
            '/api/session/first',
            $given,
        );
        $make(['password' => 'short'] + $new)
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/password');
        $make(['email' => 'robin'] + $new)
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/email');
        $make(['email' => 'isla@thistle-quay.example'] + $new)->assertStatus(422);

        $make($new)->assertOk()->assertJsonPath('user.workshops.0.name', 'Bench in the barn');
        $this->getJson('/api/builds')->assertOk()->assertJsonPath('0.builds', []);
        $this->getJson('/api/session')->assertJsonPath('first', false);
        $make(['email' => 'second@bench.example'] + $new)->assertForbidden();
    }
}
