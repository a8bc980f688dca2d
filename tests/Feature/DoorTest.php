<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Accounts\Secret;
use App\Builds\Workspace;
use App\Models\Build;
use App\Models\Invitation;
use App\Models\LibraryPart;
use App\Models\ShareLink;
use App\Models\User;
use App\Models\Workshop;
use Closure;
use Illuminate\Hashing\HashManager;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\Route as Router;
use Illuminate\Support\Str;
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
        // All within one minute, however slow the machine is: the tries of one before are not forgotten on the way.
        $this->freezeTime();
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

    /** Told by what is worked out, not by a clock: one hash of the same cost each. */
    public function test_an_address_that_nobody_has_takes_as_long_as_a_wrong_password(): void
    {
        $spy = new class(app()) extends HashManager
        {
            /** @var list<array{int, array<string, mixed>}> */
            public array $costs = [];

            /**
             * @param  array<string, mixed>  $options
             */
            public function check($value, $hashedValue, array $options = []): bool
            {
                $this->costs[] = [strlen($hashedValue), password_get_info($hashedValue)];

                return parent::check($value, $hashedValue, $options);
            }
        };
        Hash::swap($spy);
        /** @return list<array{int, array<string, mixed>}> */
        $costs = function (string $email) use ($spy): array {
            $spy->costs = [];
            $this->postJson('/api/session', ['email' => $email, 'password' => 'a wrong one'])->assertStatus(422);

            return $spy->costs;
        };
        $known = $costs('isla@thistle-quay.example');
        self::assertSame(['bcrypt'], array_column(array_column($known, 1), 'algoName'));
        self::assertSame($known, $costs('nobody@thistle-quay.example'));
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
     * Every route by everybody: nobody, a visitor by a link, a reader, a builder, an owner, somebody of another workshop, a guest of
     * another build, and two tokens. What each may is in one table; a route that is not in it fails.
     */
    public function test_every_route_by_everybody(): void
    {
        /** @var array<string, list<string>> $table */
        $table = require dirname(__DIR__).'/Fixtures/access.php';
        [$build, $names] = $this->scene();
        $people = $this->cast($build);
        $body = [
            'key' => (string) Str::uuid(),
            'label' => 'x',
            'role' => 'reader',
            'changes' => [['section' => 'needs', 'ref' => 'x', 'delete' => true]],
        ];
        $ranks = ['visitor' => 1, 'reader' => 2, 'person' => 2, 'builder' => 3, 'owner' => 4];
        $met = $wrong = [];
        /** @var Route $route */
        foreach (Router::getRoutes()->getRoutes() as $route) {
            if (! str_starts_with($route->uri(), 'api/')) {
                continue;
            }
            $line = $route->methods()[0].' '.substr($route->uri(), 4);
            $least = array_key_first(
                array_filter($table, static fn (array $lines): bool => in_array($line, $lines, true)),
            );
            self::assertNotNull($least, "{$line} is not in tests/Fixtures/access.php.");
            $met[] = $line;
            if ($least === 'open') {
                continue;
            }
            $path = '/'.strtr($route->uri(), $names);
            self::assertStringNotContainsString('{', $path, "{$line}: name its parameters in scene().");
            $isOfOne = preg_match('/\{(build|import|workshop|item|invitation)}/', $route->uri(), $about) === 1;
            $ofBuild = in_array($about[1] ?? '', ['build', 'import'], true);
            foreach ($people as $who => [$enter, $rank, $isOfWorkshop]) {
                $enter();
                // What is done is taken back: the next one finds all as it was.
                DB::beginTransaction();
                $answer = $this->json($route->methods()[0], $path, $body);
                DB::rollBack();
                $status = $answer->getStatusCode();
                $isDenied =
                    $status === 403 &&
                    preg_match(
                        '/^(You may read this|Only an owner|The link you came|No token|This token)/',
                        (string) $answer->json('detail'),
                    ) === 1;
                $isToken = str_starts_with($who, 'token');
                $expected = match (true) {
                    $who === 'nobody' => 401,
                    $isOfOne && ($rank === null || (! $ofBuild && ! $isOfWorkshop)) => 404,
                    $least === 'self' => $isToken || $rank === 'visitor' ? 403 : 200,
                    $isOfOne => $ranks[(string) $rank] < $ranks[$least] ||
                    ($isToken && in_array($least, ['owner', 'person'], true))
                        ? 403
                        : 200,
                    // What names nothing is everybody's who has an account.
                    default => ($rank === 'visitor' && $least !== 'visitor') ||
                    ($who === 'token to read' && $least === 'builder')
                        ? 403
                        : 200,
                };
                $got = $status === 401 ? 401 : ($isDenied ? 403 : 200);
                $isRight = $expected === 404 ? in_array($status, [404, 403], true) : $expected === $got;
                if (! $isRight) {
                    $wrong[] = "{$line} by {$who}: {$expected} expected, {$status} ".(string) $answer->json('detail');
                }
            }
        }
        self::assertSame([], $wrong);
        self::assertSame(
            [],
            array_diff(array_merge(...array_values($table)), $met),
            'Routes in the table that are not there.',
        );
        self::assertGreaterThan(100, count($met));
    }

    /**
     * A build with an import, an invitation and a link, in a workshop with a library, and the names routes give them.
     *
     * @return array{Build, array<string, string>}
     */
    private function scene(): array
    {
        $workshop = Workshop::query()->create(['name' => 'Scene', 'slug' => 'scene']);
        $build = Workspace::add(
            $workshop,
            BuildFile::build([
                'magpie' => 1,
                'build' => ['name' => 'Theirs', 'kind' => 'plotter', 'currency' => 'GBP'],
            ]),
        );
        $import = $build->imports()->create([
            'key' => (string) Str::uuid(),
            'file_name' => 'x.csv',
            'rows' => 1,
            'state' => 'previewed',
        ]);
        $item = LibraryPart::query()->create([
            'workshop_id' => $workshop->id,
            'ref' => 'secret',
            'family' => 'fan',
            'name' => 'Theirs',
            'words' => 'theirs',
            'example' => false,
            'entry' => ['part' => ['ref' => 'secret', 'family' => 'fan', 'name' => 'Theirs']],
        ]);
        $owner = User::query()->create([
            'name' => 'Who made it',
            'email' => 'maker@scene.example',
            'password' => 'a-long-password',
        ]);
        $workshop->members()->attach($owner, ['role' => 'owner']);
        $invitation = Invitation::query()->create([
            'made_by' => $owner->id,
            'workshop_id' => $workshop->id,
            'role' => 'reader',
            'token' => Secret::hash('invited'),
            'expires_at' => now()->addDay(),
        ]);
        $link = ShareLink::query()->create([
            'build_id' => $build->id,
            'made_by' => $owner->id,
            'money' => true,
            'token' => Secret::hash('shared'),
            'label' => 'x',
            'expires_at' => now()->addDay(),
        ]);

        return [
            $build,
            [
                '{build}' => (string) $build->id,
                '{workshop}' => (string) $workshop->id,
                '{item}' => (string) $item->id,
                '{import}' => $import->key,
                '{errand}' => (string) Str::uuid(),
                '{invitation}' => (string) $invitation->id,
                '{link}' => (string) $link->id,
                '{other}' => (string) $build->id,
                '{person}' => '999999',
                '{signIn}' => '999999',
                '{token}' => '999999',
                '{need}' => 'x',
                '{part}' => 'x',
                '{axis}' => 'x',
                '{scenario}' => 'x',
                '{key}' => 'E01/x',
                '{step}' => 'a',
                '{fault}' => 'x',
                '{edit}' => '1',
                '{name}' => 'a.jpg',
                '{what}' => 'note',
                '{kind}' => 'tram',
                '{view}' => 'plan',
                '{place}' => 'x',
                '{format}' => 'svg',
            ],
        ];
    }

    /**
     * Everybody who may come by: how they enter, what they are in that build (null: nothing), and whether of its workshop.
     *
     * @return array<string, array{Closure(): void, string|null, bool}>
     */
    private function cast(Build $build): array
    {
        $workshop = Workshop::query()->findOrFail($build->workshop_id);
        $member = function (string $role) use ($workshop): User {
            $user = User::query()->create([
                'name' => "A {$role}",
                'email' => "{$role}@scene.example",
                'password' => 'a-long-password',
            ]);
            $workshop->members()->attach($user, ['role' => $role]);

            return $user;
        };
        $owner = $member('owner');
        $guest = User::query()->create([
            'name' => 'Guest',
            'email' => 'guest@scene.example',
            'password' => 'a-long-password',
        ]);
        DB::table('build_people')->insert(['build_id' => $build->id, 'user_id' => $guest->id, 'role' => 'builder']);
        $next = Workspace::add(
            $workshop,
            BuildFile::build(['magpie' => 1, 'build' => ['name' => 'Next', 'kind' => 'x', 'currency' => 'GBP']]),
        );
        $ofNext = User::query()->create([
            'name' => 'Of next',
            'email' => 'next@scene.example',
            'password' => 'a-long-password',
        ]);
        DB::table('build_people')->insert(['build_id' => $next->id, 'user_id' => $ofNext->id, 'role' => 'owner']);
        $as = fn (User $user): Closure => function () use ($user): void {
            $this->withoutToken();
            $this->as($user);
        };
        $out = function (): void {
            $this->withoutToken();
            $this->flushSession();
            $this->app->make('auth')->forgetGuards();
        };
        $link = ShareLink::query()->where('build_id', $build->id)->firstOrFail();
        $token = function (string $may) use ($owner, $out): Closure {
            $text = $owner->createToken('t', $may === 'edit' ? ['read', 'edit'] : ['read'])->plainTextToken;

            return function () use ($text, $out): void {
                $out();
                $this->withToken($text);
            };
        };

        return [
            'nobody' => [$out, null, false],
            'a visitor' => [
                function () use ($out, $link): void {
                    $out();
                    $this->withSession(['visitor' => $link->id]);
                },
                'visitor',
                false,
            ],
            'a reader' => [$as($member('reader')), 'reader', true],
            'a builder' => [$as($member('builder')), 'builder', true],
            'an owner' => [$as($owner), 'owner', true],
            'a guest who builds' => [$as($guest), 'builder', false],
            'a guest of another build' => [$as($ofNext), null, false],
            'somebody of another workshop' => [$as($this->stranger()), null, false],
            'token to read' => [$token('read'), 'reader', true],
            'token to edit' => [$token('edit'), 'builder', true],
        ];
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
