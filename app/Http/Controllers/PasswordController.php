<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Accounts\Devices;
use App\Accounts\EventKind;
use App\Accounts\EventLog;
use App\Accounts\Password;
use App\Accounts\Proof;
use App\Accounts\SignInLimit;
use App\Models\User;
use Illuminate\Auth\Passwords\PasswordBroker;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Log;
use Illuminate\Support\Facades\Password as Broker;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use Throwable;

/** A new password: by whoever knows the old one, or by a letter to the address of the account. */
final class PasswordController
{
    /** Ends every other session of the account, and its tokens. */
    public function change(Request $request): Response
    {
        /** @var User $user */
        $user = Access::user();
        $given = $request->validate([
            'password' => ['required', 'string', 'max:1000'],
        ]);
        abort_if($user->isShared(), 403, 'The people of the demo keep their password.');
        Proof::of($request, $user, 'current');
        self::set($user, $given['password']);
        Devices::leaveOthers($request, $user);
        if ($request->hasSession()) {
            $request->session()->regenerate();
        }

        return new Response(status: 204);
    }

    /** Always the same answer, so that nobody learns who has an account; the letter goes after it. */
    public function forgotten(Request $request): Response
    {
        $given = $request->validate(['email' => ['required', 'string', 'email', 'max:'.Password::LONGEST_ADDRESS]]);
        $user = User::query()->where('email', $given['email'])->first();
        if ($user !== null && ! $user->invented) {
            defer(static function () use ($user): void {
                try {
                    Broker::broker()->sendResetLink(['email' => $user->email]);
                } catch (Throwable $e) {
                    Log::error('A letter could not be sent: is MAIL_MAILER set up? '.$e->getMessage());
                }
            });
        }

        return new Response(status: 204);
    }

    public function reset(Request $request): Response
    {
        $given = $request->validate([
            'email' => ['required', 'string', 'email', 'max:'.Password::LONGEST_ADDRESS],
            'token' => ['required', 'string', 'max:200'],
            'password' => ['required', 'string', 'max:1000'],
        ]);
        $limit = SignInLimit::orWait($given['email'], (string) $request->ip());
        $status = Broker::broker()->reset($given, static function (User $user, string $password): void {
            self::set($user, $password);
            $user->signIns()->delete();
        });
        if ($status !== PasswordBroker::PASSWORD_RESET) {
            $limit->failed();
            throw ValidationException::withMessages([
                'token' => 'This link is used up, or older than an hour. Ask for another one.',
            ]);
        }

        return new Response(status: 204);
    }

    /**
     * @throws ValidationException
     */
    private static function set(User $user, string $password): void
    {
        $why = Password::refusal($password, $user->name, $user->email);
        if ($why !== null) {
            throw ValidationException::withMessages(['password' => $why]);
        }
        // Signed-in browsers carry a mark of the old password, and the token of "stay signed in" changes with it.
        $user->forceFill(['password' => $password, 'remember_token' => Str::random(60)])->save();
        $user->tokens()->delete();
        EventLog::ofAccount(EventKind::PasswordChanged, $user);
    }
}
