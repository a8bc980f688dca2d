<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Accounts\EventKind;
use App\Accounts\EventLog;
use App\Accounts\Newcomer;
use App\Accounts\Password;
use App\Accounts\Revoked;
use App\Accounts\Role;
use App\Accounts\SecondFactor;
use App\Models\Build;
use App\Models\Event;
use App\Models\Invitation;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\Rule;

/** Who is of a workshop and what each may do there; and who is at a build just now. */
final class PeopleController
{
    /** Somebody not heard of for so long has left the page, in seconds. */
    private const GONE = 15;

    public function index(Workshop $workshop): JsonResponse
    {
        $isOwner = Access::inWorkshop($workshop->id) === Role::Owner;
        $me = Access::user();
        $roles = DB::table('memberships')->where('workshop_id', $workshop->id)->pluck('role', 'user_id');

        return new JsonResponse([
            'workshop' => $workshop->name,
            'role' => Access::inWorkshop($workshop->id),
            'requires_second' => $workshop->requires_second,
            'people' => $workshop
                ->members()
                ->orderBy('users.name')
                ->get()
                ->map(
                    static fn (User $u): array => [
                        'id' => $u->id,
                        'name' => $u->name,
                        // Addresses are for those who have to know whom they let in.
                        'email' => $isOwner || $u->id === $me?->id ? $u->email : null,
                        'role' => $roles[$u->id],
                        'second' => $isOwner ? $u->second_since !== null : null,
                        'me' => $u->id === $me?->id,
                    ],
                )
                ->all(),
            'guests' => $isOwner ? self::guests($workshop) : [],
            'invitations' => $isOwner
                ? Invitation::query()
                    ->with(['maker', 'build'])
                    ->where('workshop_id', $workshop->id)
                    ->whereNull('accepted_at')
                    ->where('expires_at', '>', now())
                    ->orderBy('expires_at')
                    ->get()
                    ->map(
                        static fn (Invitation $one): array => [
                            'id' => $one->id,
                            'for' => $one->for,
                            'role' => $one->role->value,
                            'build' => $one->build?->name,
                            'by' => $one->maker->name ?? 'someone who left',
                            'until' => $one->expires_at->toIso8601String(),
                        ],
                    )
                    ->all()
                : [],
        ]);
    }

    /** A workshop of one's own, beside those one is of. */
    public function found(Request $request): JsonResponse
    {
        $given = $request->validate(['name' => ['required', 'string', 'max:'.Password::LONGEST_NAME]]);
        $user = Access::user() ?? abort(401);
        abort_if($user->isShared(), 403, 'The people of the demo stay as they are.');
        abort_if(trim($given['name']) === '', 422, 'A workshop has a name.');

        return new JsonResponse(['id' => Newcomer::found($user, trim($given['name']))->id], 201);
    }

    public function update(Request $request, Workshop $workshop, int $person): JsonResponse
    {
        $given = $request->validate(['role' => ['required', Rule::in(Role::words())]]);
        $revoked = self::changing($workshop, $person, static function () use ($workshop, $person, $given): void {
            $workshop->members()->updateExistingPivot($person, ['role' => $given['role']]);
            EventLog::ofWorkshop(EventKind::RoleChanged, $workshop->id, $given['role'], User::query()->find($person));
        });

        return new JsonResponse($revoked->toArray());
    }

    public function remove(Workshop $workshop, int $person): JsonResponse
    {
        return new JsonResponse(self::leaving($workshop, $person, EventKind::Removed)->toArray());
    }

    public function leave(Workshop $workshop): JsonResponse
    {
        $user = Access::user() ?? abort(401);
        abort_if(
            Access::token() !== null,
            403,
            'No token may do this; sign in in a browser.',
        );

        return new JsonResponse(self::leaving($workshop, $user->id, EventKind::Left)->toArray());
    }

    /** Who came in, who let whom in, what was shared and taken along. For owners. */
    public function events(Workshop $workshop): JsonResponse
    {
        EventLog::forgetOld();

        return new JsonResponse(
            EventLog::seenIn($workshop->id)
                ->map(
                    static fn (Event $e): array => [
                        'id' => $e->id,
                        'kind' => $e->kind,
                        'by' => $e->user?->name,
                        'about' => $e->about?->name,
                        'build' => $e->build,
                        'detail' => $e->detail,
                        'at' => $e->at->toIso8601String(),
                    ],
                )
                ->all(),
        );
    }

    /** Whether everybody of the workshop needs a second factor to come in. Whoever asks for it has one. */
    public function require(Request $request, Workshop $workshop): Response
    {
        $given = $request->validate(['second' => ['required', 'boolean']]);
        $user = Access::user() ?? abort(401);
        abort_if($user->isShared(), 403, 'The people of the demo stay as they are.');
        abort_if(
            (bool) $given['second'] && ! (new SecondFactor($user))->isOn(),
            409,
            'Turn on your own second factor first, under Account. Otherwise this would lock you out.',
        );
        $workshop->update(['requires_second' => (bool) $given['second']]);
        EventLog::ofWorkshop(
            (bool) $given['second'] ? EventKind::SecondRequired : EventKind::SecondNotRequired,
            $workshop->id,
        );

        return new Response(status: 204);
    }

    /** I am here, at this view: who else is, and what was changed since the state I have. */
    public function pulse(Request $request, Build $build): JsonResponse
    {
        $given = $request->validate([
            'view' => ['required', 'string', 'max:64'],
            'seen' => ['required', 'integer', 'min:0'],
        ]);
        $me = Access::user();
        if ($me !== null) {
            DB::table('presences')->upsert(
                ['build_id' => $build->id, 'user_id' => $me->id, 'view' => $given['view'], 'seen_at' => now()],
                ['build_id', 'user_id'],
                ['view', 'seen_at'],
            );
        }
        $people = DB::table('presences')
            ->join('users', 'users.id', '=', 'presences.user_id')
            ->where('build_id', $build->id)
            ->where('seen_at', '>', now()->subSeconds(self::GONE))
            ->where('user_id', '<>', $me->id ?? 0)
            ->orderBy('users.name')
            ->limit(50)
            ->get(['users.name', 'presences.view']);
        $edits =
            (int) $given['seen'] < $build->revision
                ? $build
                    ->edits()
                    ->with('user')
                    ->where('revision', '>', (int) $given['seen'])
                    ->orderByDesc('id')
                    ->limit(3)
                    ->get()
                : [];
        $changes = [];
        foreach ($edits as $edit) {
            $changes[] = [
                'by' => $edit->user->name ?? 'someone who left',
                'label' => $edit->label,
                'mine' => $me !== null && $edit->user_id === $me->id,
            ];
        }

        return new JsonResponse([
            'revision' => $build->revision,
            'role' => Access::inBuild($build),
            // A visitor learns nobody's name.
            'people' => $me === null ? [] : $people->map(static fn (object $row): array => (array) $row)->all(),
            'changes' => $me === null ? [] : $changes,
        ]);
    }

    /** Out of the workshop, and of every build of it. */
    private static function leaving(Workshop $workshop, int $person, EventKind $how): Revoked
    {
        return self::changing($workshop, $person, static function () use ($workshop, $person, $how): void {
            $workshop->members()->detach($person);
            DB::table('build_people')
                ->where('user_id', $person)
                ->whereIn('build_id', $workshop->builds()->select('id'))
                ->delete();
            EventLog::ofWorkshop($how, $workshop->id, null, User::query()->find($person));
        });
    }

    /**
     * A workshop always has an owner: two who leave at the same moment wait for one another.
     *
     * @param  callable(): void  $change
     * @return Revoked what went with the role
     */
    private static function changing(Workshop $workshop, int $person, callable $change): Revoked
    {
        return DB::transaction(static function () use ($workshop, $person, $change): Revoked {
            Workshop::query()->lockForUpdate()->findOrFail($workshop->id);
            abort_unless(
                DB::table('memberships')
                    ->where(['workshop_id' => $workshop->id, 'user_id' => $person])
                    ->exists() ||
                    DB::table('build_people')
                        ->where('user_id', $person)
                        ->whereIn('build_id', $workshop->builds()->select('id'))
                        ->exists(),
                404,
            );
            $change();
            abort_unless(
                DB::table('memberships')
                    ->where(['workshop_id' => $workshop->id, 'role' => 'owner'])
                    ->exists(),
                409,
                'A workshop has at least one owner. Make somebody else an owner first.',
            );

            return Revoked::of(User::query()->findOrFail($person), $workshop);
        });
    }

    /**
     * Those who are of single builds only.
     *
     * @return list<array<array-key, mixed>>  id, name, email, build and role of each
     */
    private static function guests(Workshop $workshop): array
    {
        return array_values(
            DB::table('build_people')
                ->join('users', 'users.id', '=', 'build_people.user_id')
                ->join('builds', 'builds.id', '=', 'build_people.build_id')
                ->where('builds.workshop_id', $workshop->id)
                ->whereNotIn(
                    'build_people.user_id',
                    DB::table('memberships')->where('workshop_id', $workshop->id)->select('user_id'),
                )
                ->orderBy('users.name')
                ->orderBy('builds.name')
                ->get(['users.id', 'users.name', 'users.email', 'builds.name as build', 'build_people.role'])
                ->map(static fn (object $row): array => (array) $row)
                ->all(),
        );
    }
}
