<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Build;
use App\Models\ShareLink;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Query\Builder as QueryBuilder;
use Illuminate\Support\Facades\DB;
use Laravel\Sanctum\PersonalAccessToken;

/**
 * Who asks, and what of all there is they may see and do: a person by the role in the workshop or in the one build, a visitor by
 * the link of one build.
 */
final class Access
{
    public const VISITOR = 'magpie.visitor';

    public static function user(): ?User
    {
        $user = auth()->user();

        return $user instanceof User ? $user : null;
    }

    /** The token of a script that asks in somebody's name. */
    public static function token(): ?PersonalAccessToken
    {
        $token = self::user()?->currentAccessToken();

        return $token instanceof PersonalAccessToken ? $token : null;
    }

    /** The link somebody without an account came by. */
    public static function visitor(): ?ShareLink
    {
        $link = request()->attributes->get(self::VISITOR);

        return $link instanceof ShareLink ? $link : null;
    }

    /**
     * Something done later for whoever asked for it: seen as they see it.
     *
     * @template T
     *
     * @param  ShareLink|null  $link  none for somebody of the build
     * @param  callable(): T  $work
     * @return T
     */
    public static function asVisitor(?ShareLink $link, callable $work): mixed
    {
        $attributes = request()->attributes;
        $before = $attributes->get(self::VISITOR);
        $attributes->set(self::VISITOR, $link);
        try {
            return $work();
        } finally {
            $attributes->set(self::VISITOR, $before);
        }
    }

    /**
     * The builds whoever asks may see.
     *
     * @return Builder<Build>
     */
    public static function builds(): Builder
    {
        $user = self::user();
        $builds = Build::query();
        if ($user === null) {
            return $builds->whereKey(self::visitor()->build_id ?? 0);
        }

        return $builds
            ->where(
                static fn (Builder $seen): Builder => $seen
                    ->whereIn(
                        'workshop_id',
                        DB::table('memberships')->where('user_id', $user->id)->select('workshop_id'),
                    )
                    ->orWhereIn('id', DB::table('build_people')->where('user_id', $user->id)->select('build_id')),
            )
            ->unless(
                (new SecondFactor($user))->isOn(),
                static fn (Builder $seen): Builder => $seen->whereNotIn('workshop_id', self::guarded()),
            );
    }

    /**
     * The workshops whoever asks is of.
     *
     * @return Builder<Workshop>
     */
    public static function workshops(): Builder
    {
        $user = self::user();

        return Workshop::query()
            ->whereIn(
                'id',
                DB::table('memberships')
                    ->where('user_id', $user->id ?? 0)
                    ->select('workshop_id'),
            )
            ->unless(
                $user !== null && (new SecondFactor($user))->isOn(),
                static fn (Builder $seen): Builder => $seen->where('requires_second', false),
            );
    }

    /** Workshops that nobody comes into without a second factor. */
    private static function guarded(): QueryBuilder
    {
        return DB::table('workshops')->where('requires_second', true)->select('id');
    }

    public static function inBuild(Build $build): ?Role
    {
        $user = self::user();
        if ($user === null) {
            return self::visitor()?->build_id === $build->id ? Role::Visitor : null;
        }

        return self::ofBuild($user, $build);
    }

    /** The build's own word on somebody comes before the workshop's; an owner of the workshop is one of every build. */
    public static function ofBuild(User $user, Build $build): ?Role
    {
        $own = DB::table('build_people')
            ->where(['build_id' => $build->id, 'user_id' => $user->id])
            ->value('role');
        $general = self::ofWorkshop($user, $build->workshop_id);

        return $general === Role::Owner || ! is_string($own) ? $general : Role::from($own);
    }

    public static function inWorkshop(int $workshop): ?Role
    {
        $user = self::user();

        return $user === null ? null : self::ofWorkshop($user, $workshop);
    }

    public static function ofWorkshop(User $user, int $workshop): ?Role
    {
        $role = DB::table('memberships')
            ->where(['workshop_id' => $workshop, 'user_id' => $user->id])
            ->value('role');

        return is_string($role) ? Role::from($role) : null;
    }

    /** A workshop whoever asks may begin builds in. */
    public static function buildingIn(int $workshop): Workshop
    {
        $found = self::workshops()->findOrFail($workshop);
        abort_unless(
            self::inWorkshop($workshop)?->mayWhat(Role::Builder) === true,
            403,
            'You may read in this workshop, not begin builds. An owner of it can make you a builder.',
        );

        return $found;
    }

    /**
     * @return array<int, string> what whoever asks is, by workshop
     */
    public static function workshopRoles(): array
    {
        /** @var array<int, string> $roles */
        $roles = DB::table('memberships')
            ->where('user_id', self::user()->id ?? 0)
            ->whereIn('workshop_id', self::workshops()->select('id'))
            ->pluck('role', 'workshop_id')
            ->all();

        return $roles;
    }
}
