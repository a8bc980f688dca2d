<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\SignIn;
use App\Models\User;
use Illuminate\Auth\SessionGuard;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Cookie;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/**
 * The browsers an account is signed in at. A session, and the cookie of whoever asked to stay signed in, count only as long as
 * their row is there, so that one browser can be signed out from another.
 */
final class Devices
{
    private const HELD = 'sign_in';

    private const COOKIE = 'magpie_device';

    /** Says only that this browser was here before; it opens nothing. */
    private const MARK = 'magpie_browser';

    private const SEEN_EVERY = 60;

    /** Whoever has proven who they are comes in here; the session gets a new name. */
    public static function enter(Request $request, User $user, bool $stays): void
    {
        self::guard()->login($user, $stays);
        $request->session()->regenerate();
        $secret = Secret::fresh();
        $row = $user->signIns()->create([
            'device' => Secret::hash($secret),
            'agent' => Str::limit((string) $request->userAgent(), 247),
            'address' => (string) $request->ip(),
            'stays' => $stays,
            'seen_at' => now(),
        ]);
        EventLog::ofAccount(EventKind::SignedIn, $user, $row->agent);
        self::recognise($request, $user, $row->agent);
        $request->session()->put(self::HELD, $row->id);
        $request->session()->forget('visitor');
        if ($stays) {
            Cookie::queue(Cookie::make(self::COOKIE, $secret, 60 * 24 * 30, sameSite: 'strict'));
        }
    }

    /** The row of this browser; null where it was signed out from elsewhere. */
    public static function here(Request $request, User $user): ?SignIn
    {
        if (! $request->hasSession()) {
            return null;
        }
        $id = $request->session()->get(self::HELD);
        $row = is_int($id) ? $user->signIns()->find($id) : self::ofCookie($request, $user);
        if ($row === null) {
            return null;
        }
        $request->session()->put(self::HELD, $row->id);
        if ($row->seen_at->diffInSeconds(now(), true) > self::SEEN_EVERY) {
            $row->update(['seen_at' => now(), 'address' => (string) $request->ip()]);
        }

        return $row;
    }

    /** Out of this browser; the others stay as they are. */
    public static function leave(Request $request, ?User $user): void
    {
        if ($user !== null && $request->hasSession()) {
            self::here($request, $user)?->delete();
        }
        self::forget($request);
    }

    /** A session that no longer counts. */
    public static function forget(Request $request): void
    {
        self::guard()->logoutCurrentDevice();
        if ($request->hasSession()) {
            Cookie::queue(Cookie::forget(self::COOKIE));
            $request->session()->invalidate();
            $request->session()->regenerateToken();
        }
    }

    /** Everywhere else. */
    public static function leaveOthers(Request $request, User $user): void
    {
        $here = self::here($request, $user);
        $user
            ->signIns()
            ->whereKeyNot($here->id ?? 0)
            ->delete();
    }

    /** A browser the account was not used from before is told of; the first of all, and those before there was a mark, are not. */
    private static function recognise(Request $request, User $user, string $agent): void
    {
        $mark = $request->cookie(self::MARK);
        $mark = is_string($mark) && $mark !== '' ? $mark : Secret::fresh();
        $browsers = DB::table('browsers')->where('user_id', $user->id);
        if ($browsers->exists() && ! $browsers->clone()->where('mark', Secret::hash($mark))->exists()) {
            EventLog::ofAccount(EventKind::NewBrowser, $user, $agent);
        }
        DB::table('browsers')->upsert(
            [['user_id' => $user->id, 'mark' => Secret::hash($mark), 'seen_at' => now()]],
            ['user_id', 'mark'],
            ['seen_at'],
        );
        Cookie::queue(Cookie::make(self::MARK, $mark, 60 * 24 * 365, sameSite: 'strict'));
    }

    private static function ofCookie(Request $request, User $user): ?SignIn
    {
        $secret = $request->cookie(self::COOKIE);

        return is_string($secret)
            ? $user->signIns()->where('stays', true)->where('device', Secret::hash($secret))->first()
            : null;
    }

    private static function guard(): SessionGuard
    {
        $guard = Auth::guard('web');
        assert($guard instanceof SessionGuard);

        return $guard;
    }
}
