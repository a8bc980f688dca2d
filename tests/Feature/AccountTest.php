<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Accounts\EventKind;
use App\Accounts\EventLog;
use App\Accounts\SecondFactor;
use App\Accounts\Secret;
use App\Accounts\Totp;
use App\Models\Build;
use App\Models\User;
use Illuminate\Mail\Events\MessageSent;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use ParagonIE\ConstantTime\Base32;
use PHPUnit\Framework\Attributes\DataProvider;

/** The own account: second factor, browsers signed in at, tokens, a forgotten password. */
final class AccountTest extends FeatureTestCase
{
    private User $user;

    protected function setUp(): void
    {
        parent::setUp();
        $this->user = $this->stranger();
        $this->as($this->user);
    }

    private function out(): void
    {
        $this->flushSession();
        $this->app->make('auth')->forgetGuards();
    }

    /**
     * RFC 6238, appendix B: the secret "12345678901234567890", SHA-1, eight digits.
     *
     * @return iterable<string, array{int, string}>
     */
    public static function standard(): iterable
    {
        foreach (
            [
                59 => '94287082',
                1111111109 => '07081804',
                1111111111 => '14050471',
                1234567890 => '89005924',
                2000000000 => '69279037',
                20000000000 => '65353130',
            ] as $time => $code
        ) {
            yield (string) $time => [$time, $code];
        }
    }

    #[DataProvider('standard')]
    public function test_codes_are_those_of_the_standard(int $time, string $code): void
    {
        $secret = Base32::encodeUpperUnpadded('12345678901234567890');
        self::assertSame($code, Totp::code($secret, intdiv($time, Totp::PERIOD), 8));
        $six = substr($code, 2);
        $here = intdiv($time, Totp::PERIOD);
        self::assertSame($here, Totp::period($secret, $six, $time, 0));
        self::assertSame($here, Totp::period($secret, $six, $time + 30, 0), 'A clock may be half a minute off.');
        self::assertNull(Totp::period($secret, $six, $time + 60, 0));
        self::assertNull(Totp::period($secret, $six, $time, $here), 'None is good twice.');
    }

    public function test_a_second_factor_is_asked_for_and_paper_does_once(): void
    {
        $this->postJson('/api/account/second', ['password' => 'wrong'])->assertStatus(422);
        $begun = $this->postJson('/api/account/second', ['password' => 'a-long-password'])
            ->assertCreated()
            ->json();
        self::assertStringStartsWith('otpauth://totp/', $begun['address']);
        $now = static fn (int $ahead = 0): string => Totp::code(
            $begun['secret'],
            intdiv(now()->getTimestamp(), 30) + $ahead,
        );
        $this->putJson('/api/account/second', ['code' => '000000'])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/code');
        $this->getJson('/api/account')->assertJsonPath('second.on', false);
        $codes = $this->putJson('/api/account/second', ['code' => $now()])
            ->assertCreated()
            ->json('codes');
        self::assertCount(10, $codes);
        self::assertShape('Account', $this->getJson('/api/account')->assertJsonPath('second.codes_left', 10));
        self::assertStringNotContainsString(
            $begun['secret'],
            (string) $this->user->refresh()->getRawOriginal('second_secret'),
        );

        $enter = fn () => $this->postJson('/api/session', [
            'email' => $this->user->email,
            'password' => 'a-long-password',
        ])->assertOk();
        $this->out();
        $enter()->assertJsonPath('user', null)->assertJsonPath('second', true);
        $this->getJson('/api/builds')->assertUnauthorized();
        $this->postJson('/api/session/second', ['code' => $now()])->assertStatus(422);
        $this->postJson('/api/session/second', ['code' => $now(1)])
            ->assertOk()
            ->assertJsonPath('user.name', 'Wren Holm');
        $this->getJson('/api/builds')->assertOk();
        foreach ([200, 422] as $status) {
            $this->out();
            $enter();
            $this->postJson('/api/session/second', ['code' => strtoupper($codes[3])])->assertStatus($status);
        }
        $this->out();
        $enter();
        $this->travel(6)->minutes();
        $this->postJson('/api/session/second', ['code' => $codes[4]])->assertStatus(409);

        $this->as($this->user);
        $this->postJson('/api/account/recovery-codes', ['password' => 'a-long-password'])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/code');
        $fresh = $this->postJson('/api/account/recovery-codes', [
            'password' => 'a-long-password',
            'code' => $codes[6],
        ])
            ->assertCreated()
            ->json('codes');
        $this->out();
        $enter();
        $this->postJson('/api/session/second', ['code' => $codes[5]])->assertStatus(422);
        $this->postJson('/api/session/second', ['code' => $fresh[0]])->assertOk();
        foreach ([null, '', 'no code'] as $wrong) {
            $this->deleteJson('/api/account/second', ['password' => 'a-long-password', 'code' => $wrong])
                ->assertStatus(422)
                ->assertJsonPath('errors.0.pointer', '/code');
        }
        $this->deleteJson('/api/account/second', [
            'password' => 'a-long-password',
            'code' => $fresh[1],
        ])->assertNoContent();
        $this->out();
        $enter()->assertJsonPath('user.name', 'Wren Holm');
    }

    public function test_guessing_codes_is_slowed_down_too(): void
    {
        $secret = $this->postJson('/api/account/second', ['password' => 'a-long-password'])->json('secret');
        $this->putJson('/api/account/second', [
            'code' => Totp::code($secret, intdiv(now()->getTimestamp(), 30)),
        ])->assertCreated();
        $this->out();
        $this->postJson('/api/session', [
            'email' => $this->user->email,
            'password' => 'a-long-password',
        ])->assertJsonPath('second', true);
        for ($i = 0; $i < 6; $i++) {
            $this->postJson('/api/session/second', ['code' => "00000{$i}"])->assertStatus(422);
        }
        $held = $this->postJson('/api/session/second', ['code' => '000009'])->assertStatus(429);
        self::assertStringContainsString('Too many tries', (string) $held->json('detail'));
    }

    public function test_a_browser_is_signed_out_from_another_and_staying_signed_in_ends_with_it(): void
    {
        $this->out();
        $entered = $this->postJson('/api/session', [
            'email' => $this->user->email,
            'password' => 'a-long-password',
            'remember' => true,
        ])->assertOk();
        $cookies = [];
        foreach ($entered->headers->getCookies() as $cookie) {
            $cookies[$cookie->getName()] = (string) $cookie->getValue();
        }
        self::assertArrayHasKey('magpie_device', $cookies);
        $stays = array_filter(
            $cookies,
            static fn (string $name): bool => preg_match('/^(remember_|magpie_device)/', $name) === 1,
            ARRAY_FILTER_USE_KEY,
        );
        $this->withCredentials();
        // The browser was closed: what is left is what it keeps.
        $back = function () use ($stays): int {
            $this->out();

            return $this->withUnencryptedCookies($stays)->getJson('/api/builds')->getStatusCode();
        };
        self::assertSame(200, $back());
        $this->out();
        $device = array_diff_key($stays, ['magpie_device' => 0]);
        self::assertSame(
            401,
            (function () use ($device): int {
                $this->unencryptedCookies = [];

                return $this->withUnencryptedCookies($device)->getJson('/api/builds')->getStatusCode();
            })(),
            'The one cookie without the other is none.',
        );

        $this->unencryptedCookies = [];
        $this->as($this->user);
        $rows = $this->getJson('/api/account')->json('sign_ins');
        self::assertSame(
            [true],
            array_values(
                array_unique(array_column(array_filter($rows, static fn (array $r): bool => $r['stays']), 'stays')),
            ),
        );
        $id = array_values(array_filter($rows, static fn (array $r): bool => $r['stays']))[0]['id'];
        $this->deleteJson("/api/account/sign-ins/{$id}")->assertNoContent();
        self::assertSame(401, $back());
        $this->unencryptedCookies = [];

        $this->as($this->user);
        $this->deleteJson('/api/account/sign-ins')->assertNoContent();
        self::assertSame(1, $this->user->signIns()->count());
        $this->getJson('/api/builds')->assertOk();
    }

    public function test_a_token_reads_or_changes_until_it_runs_out_or_is_revoked(): void
    {
        $make = fn (string $may): string => $this->postJson('/api/account/tokens', [
            'name' => 'Night script',
            'password' => 'a-long-password',
            'may' => $may,
            'days' => 10,
        ])
            ->assertCreated()
            ->json('token');
        [$reads, $edits] = [$make('read'), $make('edit')];
        $this->postJson('/api/account/tokens', ['name' => 'x', 'may' => 'everything', 'days' => 1])->assertStatus(422);
        $this->postJson('/api/account/tokens', ['name' => 'x', 'may' => 'read', 'days' => 1])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/password');
        $workshop = $this->user->workshops()->firstOrFail()->id;
        $new = ['workshop' => $workshop, 'name' => 'By script', 'kind' => 'x', 'currency' => 'GBP'];
        $this->out();
        $this->withToken($reads)->getJson('/api/builds')->assertOk();
        $this->postJson('/api/builds', $new)
            ->assertForbidden()
            ->assertJsonPath('detail', 'This token may read, not change anything.');
        $this->app->make('auth')->forgetGuards();
        $id = $this->withToken($edits)->postJson('/api/builds', $new)->assertCreated()->json('id');
        $this->deleteJson("/api/builds/{$id}")->assertForbidden();
        $this->getJson('/api/account')->assertForbidden();
        $this->travel(11)->days();
        $this->app->make('auth')->forgetGuards();
        $this->getJson('/api/builds')->assertUnauthorized();
        $this->travelBack();
        $this->withoutToken();
        $this->as($this->user);
        $listed = $this->getJson('/api/account')->json('tokens');
        self::assertSame(['edit', 'read'], array_column($listed, 'may'));
        $this->deleteJson("/api/account/tokens/{$listed[0]['id']}")->assertNoContent();
        $this->out();
        $this->withToken($edits)->getJson('/api/builds')->assertUnauthorized();
    }

    public function test_a_forgotten_password_is_set_by_a_letter_once_and_the_answer_tells_nobody_who_is_here(): void
    {
        config(['mail.default' => 'array']);
        $letters = [];
        Event::listen(MessageSent::class, static function (MessageSent $sent) use (&$letters): void {
            $letters[] = (string) $sent->message->getTextBody();
        });
        $this->out();
        $this->postJson('/api/password/forgotten', ['email' => 'nobody@other.example'])->assertNoContent();
        $this->postJson('/api/password/forgotten', ['email' => 'isla@thistle-quay.example'])->assertNoContent();
        self::assertSame([], $letters);
        $token = $this->user->createToken('x')->plainTextToken;
        $this->postJson('/api/password/forgotten', ['email' => $this->user->email])->assertNoContent();
        self::assertSame(1, preg_match('#/reset\?(\S+)#', implode(' | ', $letters), $m));
        parse_str($m[1] ?? '', $asked);
        $set = fn (string $password, array $with = []) => $this->postJson(
            '/api/password/reset',
            $with + ['password' => $password] + $asked,
        );
        $set('short')->assertStatus(422)->assertJsonPath('errors.0.pointer', '/password');
        $set('four small brown eggs', ['token' => 'x'])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/token');
        $set('four small brown eggs')->assertNoContent();
        $set('five small brown eggs')->assertStatus(422);
        $this->withToken($token)->getJson('/api/builds')->assertUnauthorized();
        $this->withoutToken();
        $this->postJson('/api/session', [
            'email' => $this->user->email,
            'password' => 'four small brown eggs',
        ])->assertOk();
    }

    public function test_without_a_mail_server_nothing_breaks_and_the_log_says_so(): void
    {
        config([
            'mail.default' => 'smtp',
            'mail.mailers.smtp' => ['transport' => 'smtp', 'host' => '127.0.0.1', 'port' => 9, 'timeout' => 2],
        ]);
        $said = [];
        \Illuminate\Support\Facades\Log::listen(static function ($logged) use (&$said): void {
            $said[] = $logged->message;
        });
        $this->out();
        $this->postJson('/api/password/forgotten', ['email' => $this->user->email])->assertNoContent();
        self::assertStringContainsString('A letter could not be sent', implode("\n", $said));
    }

    public function test_the_shared_people_of_the_demo_stay_as_they_are(): void
    {
        $this->as($this->isla());
        $this->postJson('/api/account/second', ['password' => 'magpie-demo'])->assertForbidden();
        $this->postJson('/api/account/tokens', ['name' => 'x', 'may' => 'read', 'days' => 1])->assertForbidden();
        $this->postJson('/api/workshops', ['name' => 'x'])->assertForbidden();
        $this->getJson('/api/account')->assertOk()->assertJsonPath('demo', true);
    }

    public function test_health_says_what_fails_and_nothing_else(): void
    {
        $this->out();
        $well = $this->getJson('/api/health');
        self::assertShape('Health', $well);
        self::assertSame('works', $well->json('checks.database'));
        self::assertSame('works', $well->json('checks.tables'));
        config(['magpie.inspector' => '/nowhere/inspector.sock']);
        $this->getJson('/api/health')->assertStatus(503)->assertJsonPath('checks.inspector', 'fails');
    }

    /** With a full disc neither files nor cache nor a session can be written: that is what has to be told, and by 503. */
    public function test_health_is_told_where_nothing_can_be_written(): void
    {
        config([
            'cache.stores.file.path' => '/proc/version/cache',
            'filesystems.disks.local.root' => '/proc/version/files',
            'session.files' => '/proc/version/sessions',
        ]);
        app('cache')->purge();
        app('filesystem')->purge();
        $this->getJson('/api/health')
            ->assertStatus(503)
            ->assertJsonPath('well', false)
            ->assertJsonPath('checks.files', 'fails')
            ->assertJsonPath('checks.cache', 'fails')
            ->assertJsonPath('checks.database', 'works');
    }

    public function test_secrets_are_long_and_only_their_hashes_are_kept(): void
    {
        self::assertMatchesRegularExpression('/^[A-Za-z0-9_-]{40}$/', Secret::fresh());
        self::assertNotSame(Secret::fresh(), Secret::fresh());
        $this->postJson('/api/account/tokens', [
            'name' => 'x',
            'may' => 'read',
            'days' => 1,
            'password' => 'a-long-password',
        ])->assertCreated();
        self::assertSame(64, strlen((string) $this->user->tokens()->firstOrFail()->getAttribute('token')));
    }

    public function test_an_account_is_deleted_with_what_nobody_else_is_of_and_stays_where_it_is_the_only_owner(): void
    {
        $workshop = $this->user->workshops()->firstOrFail();
        $build = $this->postJson('/api/builds', [
            'workshop' => $workshop->id,
            'name' => 'Mine',
            'kind' => 'plotter',
            'currency' => 'GBP',
        ])->json('id');
        $this->getJson('/api/account')->assertJsonPath('leaving', [
            'builds' => 1,
            'workshops' => [$workshop->name],
            'kept' => [],
        ]);
        $this->postJson("/api/builds/{$build}/edits", [
            'key' => (string) Str::uuid(),
            'label' => 'Fan',
            'changes' => [['section' => 'needs', 'create' => ['ref' => 'fan', 'role' => 'Fan', 'family' => 'fan']]],
        ])->assertOk();
        $go = fn (string $password, int $builds) => $this->deleteJson('/api/account', [
            'password' => $password,
            'builds' => $builds,
        ]);
        $go('wrong', 1)->assertStatus(422)->assertJsonPath('errors.0.pointer', '/password');
        $go('a-long-password', 0)->assertStatus(409);

        // With a member it is the only owner of, it stays; with a second owner it goes, and the workshop stays.
        $other = User::query()->create([
            'name' => 'Sorrel Vane',
            'email' => 'sorrel@ferry-lane.example',
            'password' => 'a-long-password',
        ]);
        $workshop->members()->attach($other, ['role' => 'builder']);
        $this->getJson('/api/account')->assertJsonPath('leaving', [
            'builds' => 0,
            'workshops' => [],
            'kept' => [$workshop->name],
        ]);
        self::assertStringContainsString(
            'only owner',
            (string) $go('a-long-password', 0)->assertStatus(409)->json('detail'),
        );
        $workshop->members()->updateExistingPivot($other->id, ['role' => 'owner']);
        $token = $this->user->createToken('script', ['read'])->plainTextToken;
        $go('a-long-password', 0)->assertNoContent();
        self::assertNull(User::query()->find($this->user->id));
        $this->out();
        $this->withToken($token)->getJson('/api/builds')->assertUnauthorized();
        $this->withoutToken();
        $this->as($other);
        $this->getJson("/api/builds/{$build}")->assertOk();
        $done = $this->getJson("/api/builds/{$build}/edits")
            ->assertOk()
            ->json();
        self::assertSame(['Fan', 'someone who left'], [$done[0]['label'], $done[0]['by']]);

        // The last one takes it all along.
        $go('a-long-password', 1)->assertNoContent();
        self::assertSame(
            [0, 0],
            [$workshop->newQuery()->whereKey($workshop->id)->count(), Build::query()->whereKey($build)->count()],
        );
        // Nobody deletes an account of the demo.
        $this->as($this->isla());
        $go('magpie-demo', 0)->assertForbidden();
    }

    private function second(): string
    {
        $secret = $this->postJson('/api/account/second', ['password' => 'a-long-password'])->json('secret');
        $this->putJson('/api/account/second', [
            'code' => Totp::code($secret, intdiv(now()->getTimestamp(), 30)),
        ])->assertCreated();

        return $secret;
    }

    /** 80 bits each, and what is kept of them takes its time to try. */
    public function test_codes_on_paper_are_long_and_kept_slowly(): void
    {
        $codes = (new SecondFactor($this->user))->freshCodes();
        self::assertCount(10, array_unique($codes));
        foreach ($codes as $i => $code) {
            self::assertMatchesRegularExpression("/^{$i}(-[a-z2-7]{4}){4}$/", $code, 'sixteen letters of five bits');
        }
        foreach ($this->user->refresh()->recovery_codes ?? [] as $i => $hash) {
            self::assertSame('bcrypt', password_get_info($hash)['algoName']);
            self::assertTrue(Hash::check($codes[$i], $hash));
        }
        // Those made before are kept as a slow hash of the quick one, and still open once.
        $this->user->forceFill(['recovery_codes' => [Hash::make(Secret::hash('0123a-bcdef'))]])->save();
        $second = new SecondFactor($this->user);
        self::assertFalse($second->takes('0123a-bcdee'));
        self::assertTrue($second->takes('0123A-BCDEF'));
        self::assertFalse($second->takes('0123a-bcdef'));
    }

    /** Whoever tries codes knows the password: after thirty in a day no code of a device opens, and the account is told. */
    public function test_wrong_codes_of_a_day_are_counted_over_all_addresses_and_paper_still_opens(): void
    {
        $this->travelTo(now()->startOfDay()->addHours(9));
        $secret = $this->second();
        $paper = (new SecondFactor($this->user->refresh()))->freshCodes();
        $right = static fn (): string => Totp::code($secret, intdiv(now()->getTimestamp(), 30));
        for ($i = 0; $i < SecondFactor::WRONG_A_DAY; $i++) {
            self::assertFalse((new SecondFactor($this->user))->takes('000000'));
        }
        $this->travel(5)->minutes();
        self::assertFalse((new SecondFactor($this->user))->takes($right()));
        self::assertTrue((new SecondFactor($this->user))->takes($paper[7]));
        $told = array_column(EventLog::unread($this->user), 'says');
        self::assertCount(1, preg_grep('/Many wrong codes/', $told) ?: []);
        $this->travel(1)->days();
        self::assertTrue((new SecondFactor($this->user))->takes($right()));
    }

    public function test_what_protects_the_account_asks_for_password_and_code(): void
    {
        $this->second();
        foreach (
            [
                ['POST', '/api/account/recovery-codes', []],
                ['POST', '/api/account/tokens', ['name' => 'x', 'may' => 'read', 'days' => 1]],
                ['DELETE', '/api/account/second', []],
                ['DELETE', '/api/account', ['builds' => 0]],
                ['PUT', '/api/account/address', ['email' => 'new@other.example']],
                ['PUT', '/api/session/password', ['current' => 'a-long-password', 'password' => 'four small brown eggs']],
            ] as [$method, $path, $body]
        ) {
            foreach ([[], ['code' => '123']] as $code) {
                $this->json($method, $path, ['password' => 'a-long-password', ...$body, ...$code])
                    ->assertStatus(422)
                    ->assertJsonPath('errors.0.pointer', '/code');
            }
        }
        self::assertTrue((new SecondFactor($this->user->refresh()))->isOn());
        self::assertSame(0, $this->user->tokens()->count());
    }

    public function test_another_address_is_proven_told_to_the_old_one_and_signs_in(): void
    {
        $letters = [];
        Event::listen(MessageSent::class, static function (MessageSent $sent) use (&$letters): void {
            $letters[$sent->message->getTo()[0]->getAddress()] = (string) $sent->message->getTextBody();
        });
        $old = $this->user->email;
        $move = fn (string $email, string $password = 'a-long-password') => $this->putJson('/api/account/address', [
            'email' => $email,
            'password' => $password,
        ]);
        $move('no address')->assertStatus(422)->assertJsonPath('errors.0.pointer', '/email');
        $move('isla@thistle-quay.example')->assertStatus(422)->assertJsonPath('errors.0.pointer', '/email');
        $move('wren@new.example', 'wrong')->assertStatus(422)->assertJsonPath('errors.0.pointer', '/password');
        $move('wren@new.example')->assertNoContent();
        self::assertStringContainsString('wren@new.example', $letters[$old] ?? '');
        $this->out();
        $this->postJson('/api/session', ['email' => $old, 'password' => 'a-long-password'])->assertStatus(422);
        $this->postJson('/api/session', ['email' => 'wren@new.example', 'password' => 'a-long-password'])->assertOk();
    }

    /** The first browser is nobody's news; a second one is, once, until it was read. */
    public function test_a_new_browser_and_a_new_token_are_told_at_the_next_sign_in(): void
    {
        $enter = function (?string $mark): TestResponse {
            $this->out();

            return $this->withCredentials()
                ->withCookies($mark === null ? [] : ['magpie_browser' => $mark])
                ->postJson('/api/session', ['email' => $this->user->email, 'password' => 'a-long-password'])
                ->assertOk();
        };
        $mark = (string) $enter(null)->assertJsonPath('notices', [])->getCookie('magpie_browser')?->getValue();
        $this->defaultCookies = [];
        $enter($mark)->assertJsonPath('notices', []);
        $this->defaultCookies = [];
        $enter(null)->assertJsonPath('notices.0.says', EventKind::NewBrowser->notice());
        $this->postJson('/api/account/tokens', [
            'name' => 'Night script',
            'may' => 'edit',
            'days' => 1,
            'password' => 'a-long-password',
        ])->assertCreated();
        $session = $this->getJson('/api/session')->assertJsonPath('notices.0.says', EventKind::TokenMade->notice());
        self::assertShape('Session', $session);
        $this->deleteJson('/api/account/notices')->assertNoContent();
        $this->getJson('/api/session')->assertJsonPath('notices', []);
    }
}
