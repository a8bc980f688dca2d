<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Newcomer;
use App\Accounts\Password;
use App\Accounts\SignInLimit;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Auth\SessionGuard;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

final class SessionController
{
    public function show(Request $request): JsonResponse
    {
        $user = $request->user();

        return new JsonResponse([
            'user' => $user instanceof User && $user->mayEnter() ? self::who($user) : null,
            'demo' => self::demo() !== null,
            'first' => Newcomer::isFirst(),
        ]);
    }

    /**
     * @throws ValidationException
     */
    public function store(Request $request): JsonResponse
    {
        abort_unless(
            $request->hasSession(),
            400,
            'Signing in is for browsers; a script names the address of this server in its Referer.',
        );
        $given = $request->validate([
            'email' => ['required', 'string', 'email', 'max:'.Password::LONGEST_ADDRESS],
            'password' => ['required', 'string', 'max:1000'],
            'remember' => ['sometimes', 'boolean'],
        ]);
        $limit = new SignInLimit($given['email'], (string) $request->ip());
        $wait = $limit->wait();
        abort_if($wait > 0, 429, "Too many tries. Wait {$wait} seconds before the next one.", [
            'Retry-After' => (string) $wait,
        ]);
        $user = User::query()->where('email', $given['email'])->first();
        // Both are always done, and take as long, so that nobody learns which addresses have an account.
        $right = Hash::check(
            $given['password'],
            $user === null ? Password::OF_NOBODY : (string) $user->getAuthPassword(),
        );
        if ($user === null || ! $right || ! $user->mayEnter()) {
            $limit->failed();
            throw ValidationException::withMessages(['email' => 'No account has this e-mail address and password.']);
        }
        $limit->succeeded();

        return $this->enter($request, $user, (bool) ($given['remember'] ?? false));
    }

    /** The first account of all, with a workshop of its own; later ones are made by whoever keeps the machine. */
    public function first(Request $request): JsonResponse
    {
        abort_unless($request->hasSession(), 400, 'The first account is made in a browser.');
        /** @var array{name: string, email: string, password: string, workshop: string} $given */
        $given = $request->validate([
            'name' => ['required', 'string', 'max:500'],
            'email' => ['required', 'string', 'max:500'],
            'password' => ['required', 'string', 'max:1000'],
            'workshop' => ['required', 'string', 'max:500'],
        ]);
        /** @var User $user */
        $user = Cache::lock('first-account', 10)->block(5, static function () use ($given): User {
            abort_unless(Newcomer::isFirst(), 403, 'Somebody has an account here already; ask them for one.');
            $why = Newcomer::refusal($given['name'], $given['email'], $given['password'], $given['workshop']);
            if ($why !== null) {
                throw ValidationException::withMessages([$why[0] => $why[1]]);
            }

            return Newcomer::make($given['name'], $given['email'], $given['password'], $given['workshop']);
        });

        return $this->enter($request, $user, false);
    }

    /** The one button of the demo: enters its workshop without a password. */
    public function demoStore(Request $request): JsonResponse
    {
        abort_unless(
            $request->hasSession(),
            400,
            'Entering is for browsers; a script names the address of this server in its Referer.',
        );

        return $this->enter($request, self::demo() ?? abort(404, 'This is not a demo.'), false);
    }

    /** A new password for whoever is signed in; every other session of the account ends. */
    public function password(Request $request): Response
    {
        /** @var User $user */
        $user = $request->user();
        $given = $request->validate([
            'current' => ['required', 'string', 'max:1000'],
            'password' => ['required', 'string', 'max:1000'],
        ]);
        $limit = new SignInLimit($user->email, (string) $request->ip());
        abort_if($limit->wait() > 0, 429, "Too many tries. Wait {$limit->wait()} seconds before the next one.");
        abort_if(config('app.demo') === true && $user->isOfDemo(), 403, 'The people of the demo keep their password.');
        if (! Hash::check($given['current'], (string) $user->getAuthPassword())) {
            $limit->failed();
            throw ValidationException::withMessages(['current' => 'This is not your password of now.']);
        }
        $why = Password::refusal($given['password'], $user->name, $user->email);
        if ($why !== null) {
            throw ValidationException::withMessages(['password' => $why]);
        }
        // Signed-in browsers carry a mark of the old password, and the token of "stay signed in" changes with it.
        $user->forceFill(['password' => $given['password'], 'remember_token' => Str::random(60)])->save();
        $user->tokens()->delete();
        if ($request->hasSession()) {
            $request->session()->regenerate();
        }

        return new Response(status: 204);
    }

    public function destroy(Request $request): Response
    {
        Auth::guard('web')->logout();
        if ($request->hasSession()) {
            $request->session()->invalidate();
            $request->session()->regenerateToken();
        }

        return new Response(status: 204);
    }

    private function enter(Request $request, User $user, bool $remember): JsonResponse
    {
        /** @var SessionGuard $guard */
        $guard = Auth::guard('web');
        $guard->login($user, $remember);
        $request->session()->regenerate();

        return new JsonResponse(['user' => self::who($user), 'demo' => self::demo() !== null, 'first' => false]);
    }

    private static function demo(): ?User
    {
        return config('app.demo') === true
            ? Workshop::query()->where('demo', true)->first()?->members()->orderBy('users.id')->first()
            : null;
    }

    /**
     * @return array<string, mixed>
     */
    private static function who(User $user): array
    {
        return [
            'name' => $user->name,
            'email' => $user->email,
            'workshops' => $user
                ->workshops()
                ->orderBy('name')
                ->get()
                ->map(static fn (Workshop $w): array => ['id' => $w->id, 'name' => $w->name, 'demo' => $w->demo])
                ->all(),
        ];
    }
}
