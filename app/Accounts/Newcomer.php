<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Builds\Workspace;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Support\Facades\DB;

/** Somebody who gets an account, and a workshop with it. */
final class Newcomer
{
    /** Whether nobody has an account here yet: the people of the demo are not counted. */
    public static function isFirst(): bool
    {
        return User::query()->where('invented', false)->doesntExist();
    }

    /**
     * @param  string|null  $workshop  none for somebody who joins one
     * @return array{string, string}|null which of the values is refused, and why
     */
    public static function refusal(string $name, string $email, string $password, ?string $workshop = null): ?array
    {
        $long = 'A name has up to '.Password::LONGEST_NAME.' characters.';

        return match (true) {
            trim($name) === '' || mb_strlen($name) > Password::LONGEST_NAME => ['name', $long],
            ($why = self::refusalOfAddress($email)) !== null => ['email', $why],
            $workshop !== null && (trim($workshop) === '' || mb_strlen($workshop) > Password::LONGEST_NAME) => [
                'workshop',
                $long,
            ],
            default => ($why = Password::refusal($password, $name, $email)) === null ? null : ['password', $why],
        };
    }

    public static function refusalOfAddress(string $email): ?string
    {
        return match (true) {
            filter_var($email, FILTER_VALIDATE_EMAIL) === false ||
                strlen($email) > Password::LONGEST_ADDRESS => 'That is no e-mail address.',
            User::query()->where('email', $email)->exists() => 'There is an account of this address already.',
            default => null,
        };
    }

    public static function make(string $name, string $email, string $password, string $workshop): User
    {
        return DB::transaction(static function () use ($name, $email, $password, $workshop): User {
            $found = Workshop::query()->firstOrCreate(
                ['slug' => str($workshop)->slug()->value()],
                ['name' => $workshop],
            );
            $user = User::query()->create(['name' => $name, 'email' => $email, 'password' => $password]);
            $found->members()->attach($user, ['role' => $found->members()->exists() ? Role::Builder : Role::Owner]);

            return $user;
        });
    }

    /** Another workshop of somebody who has an account. */
    public static function found(User $user, string $name): Workshop
    {
        return DB::transaction(static function () use ($user, $name): Workshop {
            $slug = Workspace::freeSlug(Workshop::query(), $name, 'workshop');
            $workshop = Workshop::query()->create(['name' => $name, 'slug' => $slug]);
            $workshop->members()->attach($user, ['role' => Role::Owner]);

            return $workshop;
        });
    }
}
