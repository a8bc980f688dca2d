<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Accounts\Devices;
use App\Accounts\EventKind;
use App\Accounts\EventLog;
use App\Accounts\Newcomer;
use App\Accounts\Role;
use App\Accounts\Secret;
use App\Models\Build;
use App\Models\Invitation;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\Rule;
use Illuminate\Validation\ValidationException;

/** The way in for somebody new: a link for one person, into a workshop or to one build of it. */
final class InvitationController
{
    private const MOST_DAYS = 30;

    /** The address is told once. */
    public function store(Request $request, Workshop $workshop): JsonResponse
    {
        $given = $request->validate([
            'role' => ['required', Rule::in(Role::words())],
            'for' => ['nullable', 'string', 'max:120'],
            'build' => ['nullable', 'integer'],
            'days' => ['required', 'integer', 'min:1', 'max:'.self::MOST_DAYS],
        ]);
        $build = isset($given['build']) ? $workshop->builds()->findOrFail((int) $given['build']) : null;
        $secret = Secret::fresh();
        $made = Invitation::query()->create([
            'workshop_id' => $workshop->id,
            'build_id' => $build?->id,
            'role' => $given['role'],
            'token' => Secret::hash($secret),
            'for' => $given['for'] ?? null,
            'made_by' => Access::user()?->id,
            'expires_at' => now()->addDays((int) $given['days']),
        ]);

        EventLog::ofWorkshop(EventKind::Invited, $workshop->id, $made->says(), build: $build);

        return new JsonResponse(['path' => "/invited/{$secret}"], 201);
    }

    public function destroy(Invitation $invitation): Response
    {
        $invitation->delete();
        EventLog::ofWorkshop(EventKind::InvitationRevoked, $invitation->workshop_id, $invitation->says());

        return new Response(status: 204);
    }

    /** What one is invited to, before one says yes. */
    public function show(Request $request, string $token): JsonResponse
    {
        $invitation = self::open($token);
        $user = Auth::guard('web')->user();

        return new JsonResponse([
            'workshop' => $invitation->workshop?->name,
            'build' => $invitation->build?->name,
            'role' => $invitation->role->value,
            'by' => $invitation->maker->name ?? 'someone who left',
            'until' => $invitation->expires_at->toIso8601String(),
            'me' => $user instanceof User && Devices::here($request, $user) !== null && ! $user->isShared()
                    ? $user->name
                    : null,
        ]);
    }

    /** By whoever is signed in, or with an account made for it. Good once. */
    public function accept(Request $request, string $token): JsonResponse
    {
        abort_unless($request->hasSession(), 400, 'An invitation is taken in a browser.');
        $signedIn = Auth::guard('web')->user();
        $user = $signedIn instanceof User && Devices::here($request, $signedIn) !== null ? $signedIn : null;
        abort_if(
            $user !== null && $user->isShared(),
            403,
            'The people of the demo stay as they are. Sign out first.',
        );
        // Nobody fills in a form for a link that opens nothing.
        self::open($token);
        $given =
            $user === null
                ? $request->validate([
                    'name' => ['required', 'string', 'max:500'],
                    'email' => ['required', 'string', 'max:500'],
                    'password' => ['required', 'string', 'max:1000'],
                ])
                : [];
        [$person, $build] = DB::transaction(static function () use ($token, $user, $given): array {
            // Two with one link at the same moment: the second finds it used.
            $invitation = self::open($token, true);
            if ($user === null) {
                $why = Newcomer::refusal($given['name'], $given['email'], $given['password']);
                if ($why !== null) {
                    throw ValidationException::withMessages([$why[0] => $why[1]]);
                }
                $user = User::query()->create($given);
            }
            self::join($user, $invitation);
            $invitation->update(['accepted_at' => now(), 'accepted_by' => $user->id]);
            EventLog::ofWorkshop(
                EventKind::Joined,
                $invitation->workshop_id,
                $invitation->says(),
                $invitation->maker,
                $invitation->build,
                $user,
            );

            return [$user, $invitation->build_id];
        });
        if ($given !== []) {
            Devices::enter($request, $person, false);
        }

        return new JsonResponse(['build' => $build], 201);
    }

    /** Nobody loses by an invitation what they had. */
    private static function join(User $user, Invitation $invitation): void
    {
        $build = $invitation->build_id;
        $held =
            $build === null
                ? Access::ofWorkshop($user, $invitation->workshop_id)
                : Access::ofBuild($user, Build::query()->findOrFail($build));
        if ($held?->mayWhat($invitation->role) === true) {
            return;
        }
        $build === null
            ? $user->workshops()->syncWithoutDetaching([
                $invitation->workshop_id => ['role' => $invitation->role->value],
            ])
            : DB::table('build_people')->updateOrInsert(
                ['build_id' => $build, 'user_id' => $user->id],
                ['role' => $invitation->role->value, 'updated_at' => now()],
            );
    }

    private static function open(string $token, bool $lock = false): Invitation
    {
        $invitation = Invitation::query()
            ->with(['workshop', 'build', 'maker'])
            ->where('token', Secret::hash($token))
            ->when($lock, static fn ($q) => $q->lockForUpdate())
            ->first();
        abort_if(
            $invitation === null,
            404,
            'This invitation is not there: it was taken back, or a piece of the link is missing.',
        );
        abort_unless(
            $invitation->isBacked(),
            410,
            'Whoever made this invitation is no longer an owner there. Ask an owner for another one.',
        );
        abort_if($invitation->accepted_at !== null, 410, 'This invitation was used. Ask for another one.');
        abort_unless(
            $invitation->expires_at->isFuture(),
            410,
            "This invitation was good until {$invitation->expires_at->format('j F Y')}. Ask for another one.",
        );

        return $invitation;
    }
}
