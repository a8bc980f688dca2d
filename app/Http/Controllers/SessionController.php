<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Devices;
use App\Accounts\EventLog;
use App\Accounts\Newcomer;
use App\Accounts\Password;
use App\Accounts\Proof;
use App\Accounts\SecondFactor;
use App\Accounts\SignInLimit;
use App\Models\ShareLink;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Validation\ValidationException;

final class SessionController
{
    private const PENDING = 'second';

    /** Between password and code. */
    private const PENDING_SECONDS = 300;

    public function show(Request $request): JsonResponse
    {
        $user = $request->user();
        $isIn = $user instanceof User && $user->mayEnter() && Devices::here($request, $user) !== null;

        return new JsonResponse($isIn ? self::known($user) : self::nobody(false, self::visits($request)));
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
        $limit = SignInLimit::orWait($given['email'], (string) $request->ip());
        $user = User::query()->where('email', $given['email'])->first();
        // Both are always done, and take as long, so that nobody learns which addresses have an account.
        $right = Hash::check(
            $given['password'],
            $user === null ? Password::ofNobody() : (string) $user->getAuthPassword(),
        );
        if ($user === null || ! $right || ! $user->mayEnter()) {
            $limit->failed();
            throw ValidationException::withMessages(['email' => 'No account has this e-mail address and password.']);
        }
        $limit->succeeded();
        $stays = (bool) ($given['remember'] ?? false);
        if ((new SecondFactor($user))->isOn()) {
            $request->session()->regenerate();
            $request->session()->put(self::PENDING, [
                'user' => $user->id,
                'stays' => $stays,
                'until' => now()->getTimestamp() + self::PENDING_SECONDS,
            ]);

            return new JsonResponse(self::nobody(true));
        }

        return $this->enter($request, $user, $stays);
    }

    /** The code after the password, of those who want it so. */
    public function second(Request $request): JsonResponse
    {
        abort_unless($request->hasSession(), 400, 'Signing in is for browsers.');
        $given = $request->validate(['code' => ['required', 'string', 'max:40']]);
        $pending = $request->session()->get(self::PENDING);
        $user =
            is_array($pending) && $pending['until'] >= now()->getTimestamp()
                ? User::query()->whereKey($pending['user'])->first()
                : null;
        abort_if($user === null, 409, 'That took too long. Begin again with your password.');
        Proof::code($user, $given['code'], (string) $request->ip());
        $request->session()->forget(self::PENDING);

        return $this->enter($request, $user, (bool) $pending['stays']);
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

    public function destroy(Request $request): Response
    {
        $user = $request->user();
        Devices::leave($request, $user instanceof User ? $user : null);

        return new Response(status: 204);
    }

    private function enter(Request $request, User $user, bool $stays): JsonResponse
    {
        Devices::enter($request, $user, $stays);

        return new JsonResponse(self::known($user));
    }

    /**
     * @return array<string, mixed>
     */
    private static function known(User $user): array
    {
        return [
            'user' => self::who($user),
            'demo' => self::demo() !== null,
            'first' => false,
            'second' => false,
            'visits' => null,
            'notices' => EventLog::unread($user),
        ];
    }

    /**
     * @param  bool  $second  whether the password was right and a code is asked for
     * @param  int|null  $visits  the one build a link shows
     * @return array<string, mixed>
     */
    private static function nobody(bool $second, ?int $visits = null): array
    {
        return [
            'user' => null,
            'demo' => self::demo() !== null,
            'first' => Newcomer::isFirst(),
            'second' => $second,
            'visits' => $visits,
            'notices' => [],
        ];
    }

    private static function visits(Request $request): ?int
    {
        $link = $request->hasSession() ? ShareLink::query()->find($request->session()->get('visitor')) : null;

        return $link instanceof ShareLink && $link->isOpen() ? $link->build_id : null;
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
        $roles = DB::table('memberships')->where('user_id', $user->id)->pluck('role', 'workshop_id');

        return [
            'name' => $user->name,
            'email' => $user->email,
            'second' => $user->second_since !== null,
            'workshops' => $user
                ->workshops()
                ->orderBy('name')
                ->get()
                ->map(
                    static fn (Workshop $w): array => [
                        'id' => $w->id,
                        'name' => $w->name,
                        'demo' => $w->demo,
                        'role' => $roles[$w->id],
                        // It asks for a second factor, and this account has none: it stays shut until then.
                        'shut' => $w->requires_second && $user->second_since === null,
                    ],
                )
                ->all(),
        ];
    }
}
