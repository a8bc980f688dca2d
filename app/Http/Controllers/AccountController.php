<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Accounts\Devices;
use App\Accounts\EventKind;
use App\Accounts\EventLog;
use App\Accounts\Goodbye;
use App\Accounts\Newcomer;
use App\Accounts\Password;
use App\Accounts\Proof;
use App\Accounts\SecondFactor;
use App\Accounts\Totp;
use App\Models\SignIn;
use App\Models\User;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use Laravel\Sanctum\PersonalAccessToken;

/** What somebody sees and changes of the own account: name, second factor, browsers signed in at, tokens. */
final class AccountController
{
    private const MOST_TOKENS = 50;

    private const MOST_DAYS = 365;

    public function show(Request $request): JsonResponse
    {
        $user = self::user();
        $here = Devices::here($request, $user);

        return new JsonResponse([
            'name' => $user->name,
            'email' => $user->email,
            'demo' => $user->isShared(),
            'second' => [
                'on' => (new SecondFactor($user))->isOn(),
                'since' => $user->second_since?->toIso8601String(),
                'codes_left' => count($user->recovery_codes ?? []),
            ],
            'sign_ins' => $user
                ->signIns()
                ->orderByDesc('seen_at')
                ->limit(100)
                ->get()
                ->map(
                    static fn (SignIn $one): array => [
                        'id' => $one->id,
                        'agent' => $one->agent,
                        'address' => $one->address,
                        'stays' => $one->stays,
                        'since' => $one->created_at->toIso8601String(),
                        'seen' => $one->seen_at->toIso8601String(),
                        'here' => $one->id === $here?->id,
                    ],
                )
                ->all(),
            'tokens' => $user
                ->tokens()
                ->orderByDesc('id')
                ->get()
                ->map(
                    static fn (PersonalAccessToken $one): array => [
                        'id' => (int) $one->id,
                        'name' => (string) $one->name,
                        'may' => $one->can('edit') ? 'edit' : 'read',
                        'used' => $one->last_used_at?->toIso8601String(),
                        'until' => $one->expires_at?->toIso8601String(),
                    ],
                )
                ->all(),
            'leaving' => (new Goodbye($user))->means(),
        ]);
    }

    /** For good: the account, and what nobody else is of. */
    public function destroy(Request $request): Response
    {
        $given = $request->validate(['builds' => ['required', 'integer', 'min:0']]);
        (new Goodbye(self::proven($request)))->say((int) $given['builds']);
        Devices::forget($request);

        return new Response(status: 204);
    }

    public function rename(Request $request): Response
    {
        $given = $request->validate(['name' => ['required', 'string', 'max:'.Password::LONGEST_NAME]]);
        self::own()->update(['name' => trim($given['name'])]);

        return new Response(status: 204);
    }

    /** A secret for an authenticator, told once; it counts when a code made with it comes back. */
    public function beginSecond(Request $request): JsonResponse
    {
        $user = self::proven($request);
        $second = new SecondFactor($user);
        abort_if($second->isOn(), 409, 'The second factor is on already.');
        $secret = $second->begin();

        return new JsonResponse(['secret' => $secret, 'address' => Totp::address($secret, $user->email)], 201);
    }

    public function confirmSecond(Request $request): JsonResponse
    {
        $given = $request->validate(['code' => ['required', 'string', 'max:20']]);
        $user = self::own();
        $limit = Proof::limit($user, $request);
        $codes = (new SecondFactor($user))->confirm($given['code']);
        if ($codes === null) {
            $limit->failed();
            throw ValidationException::withMessages([
                'code' => 'This is not the code of now. Codes follow the clock: is the one of the device right?',
            ]);
        }
        Devices::leaveOthers($request, $user);

        return new JsonResponse(['codes' => $codes], 201);
    }

    public function endSecond(Request $request): Response
    {
        (new SecondFactor(self::proven($request)))->end();

        return new Response(status: 204);
    }

    /** Fresh codes on paper; those of before open nothing any more. */
    public function codes(Request $request): JsonResponse
    {
        $second = new SecondFactor(self::proven($request));
        abort_unless($second->isOn(), 409, 'The second factor is not on.');

        $codes = $second->freshCodes();
        EventLog::ofAccount(EventKind::CodesMade, self::user());

        return new JsonResponse(['codes' => $codes], 201);
    }

    /** Another address to sign in with; the one of before is told. */
    public function move(Request $request): Response
    {
        $given = $request->validate(['email' => ['required', 'string', 'max:500']]);
        $user = self::proven($request);
        $email = trim($given['email']);
        $why = $email === $user->email ? null : Newcomer::refusalOfAddress($email);
        if ($why !== null) {
            throw ValidationException::withMessages(['email' => $why]);
        }
        DB::transaction(static function () use ($user, $email): void {
            DB::table('password_reset_tokens')->where('email', $user->email)->delete();
            EventLog::ofAccount(EventKind::AddressChanged, $user, "It is {$email} now.");
            $user->update(['email' => $email]);
        });

        return new Response(status: 204);
    }

    /** What was told is read. */
    public function noticed(): Response
    {
        EventLog::read(self::user());

        return new Response(status: 204);
    }

    public function signOutOthers(Request $request): Response
    {
        Devices::leaveOthers($request, self::user());

        return new Response(status: 204);
    }

    public function signOut(Request $request, int $signIn): Response
    {
        $user = self::user();
        $row = $user->signIns()->findOrFail($signIn);
        if ($row->id === Devices::here($request, $user)?->id) {
            Devices::leave($request, $user);
        } else {
            $row->delete();
        }

        return new Response(status: 204);
    }

    /** A token for a script: it may read, or read and change builds; it never says who may what. */
    public function makeToken(Request $request): JsonResponse
    {
        $given = $request->validate([
            'name' => ['required', 'string', 'max:120'],
            'may' => ['required', 'in:read,edit'],
            'days' => ['required', 'integer', 'min:1', 'max:'.self::MOST_DAYS],
        ]);
        $user = self::proven($request);
        abort_if(
            $user->tokens()->count() >= self::MOST_TOKENS,
            409,
            'There are '.self::MOST_TOKENS.' tokens already; revoke one first.',
        );
        $token = $user->createToken(
            $given['name'],
            $given['may'] === 'edit' ? ['read', 'edit'] : ['read'],
            now()->addDays((int) $given['days']),
        );

        EventLog::ofAccount(EventKind::TokenMade, $user, "{$given['name']}, to {$given['may']}");

        return new JsonResponse(['token' => $token->plainTextToken], 201);
    }

    public function revokeToken(int $token): Response
    {
        $found = self::user()->tokens()->findOrFail($token);
        $found->delete();
        EventLog::ofAccount(EventKind::TokenRevoked, self::user(), (string) $found->name);

        return new Response(status: 204);
    }

    private static function user(): User
    {
        return Access::user() ?? abort(401);
    }

    /** Of whom nobody else knows the password. */
    private static function own(): User
    {
        $user = self::user();
        abort_if($user->isShared(), 403, 'The people of the demo stay as they are.');

        return $user;
    }

    /**
     * Who is signed in proves it again before what protects the account changes.
     *
     * @throws ValidationException
     */
    private static function proven(Request $request): User
    {
        $user = self::own();
        Proof::of($request, $user);

        return $user;
    }
}
