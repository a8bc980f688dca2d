<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\User;
use Illuminate\Http\Request;
use Illuminate\Validation\ValidationException;

/** Who is signed in proves again who they are, before what protects the account changes: the password, and the code where one is asked for. */
final class Proof
{
    private const WRONG = 'This code is not right, or was used. One of the codes on paper does too.';

    /**
     * @param  string  $field  the one the password is in
     *
     * @throws ValidationException
     */
    public static function of(Request $request, User $user, string $field = 'password'): void
    {
        $given = $request->validate([
            $field => ['required', 'string', 'max:1000'],
            'code' => ['sometimes', 'nullable', 'string', 'max:40'],
        ]);
        self::limit($user, $request)->prove($user, $given[$field], $field);
        if ((new SecondFactor($user))->isOn()) {
            $code = trim((string) ($given['code'] ?? ''));
            if ($code === '') {
                throw ValidationException::withMessages(['code' => 'Your second factor is on: the code of now is needed too.']);
            }
            self::code($user, $code, (string) $request->ip());
        }
    }

    /**
     * A code after the password; tries are counted by account and address, and by account and day.
     *
     * @throws ValidationException
     */
    public static function code(User $user, string $code, string $address): void
    {
        $limit = SignInLimit::orWait("second/{$user->email}", $address);
        if (! (new SecondFactor($user))->takes($code)) {
            $limit->failed();
            throw ValidationException::withMessages(['code' => self::WRONG]);
        }
    }

    public static function limit(User $user, Request $request): SignInLimit
    {
        return SignInLimit::orWait($user->email, (string) $request->ip());
    }
}
