<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Accounts\EventKind;
use App\Accounts\EventLog;
use App\Accounts\Revoked;
use App\Accounts\Role;
use App\Accounts\Secret;
use App\Models\Build;
use App\Models\ShareLink;
use App\Models\User;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\Rule;

/** Who may what with one build, and the links that show it to whoever has them. */
final class SharingController
{
    private const MOST_DAYS = 365;

    public function show(Build $build): JsonResponse
    {
        $own = DB::table('build_people')->where('build_id', $build->id)->pluck('role', 'user_id');
        $general = DB::table('memberships')->where('workshop_id', $build->workshop_id)->pluck('role', 'user_id');
        $isOwner = Access::inBuild($build) === Role::Owner;
        $people = User::query()
            ->whereIn('id', $general->keys()->merge($own->keys())->all())
            ->orderBy('name')
            ->get()
            ->all();

        return new JsonResponse([
            'role' => Access::inBuild($build),
            'workshop' => Access::inWorkshop($build->workshop_id) === null ? null : $build->workshop_id,
            'people' => array_map(
                static fn (User $u): array => [
                    'id' => $u->id,
                    'name' => $u->name,
                    'role' => Access::ofBuild($u, $build),
                    'workshop' => $general[$u->id] ?? null,
                    'own' => $own[$u->id] ?? null,
                    'me' => $u->id === Access::user()?->id,
                ],
                $people,
            ),
            'links' => $isOwner
                ? ShareLink::query()
                    ->with('maker')
                    ->where('build_id', $build->id)
                    ->orderBy('expires_at')
                    ->get()
                    ->map(
                        static fn (ShareLink $one): array => [
                            'id' => $one->id,
                            'label' => $one->label,
                            'money' => $one->money,
                            'by' => $one->maker->name ?? 'someone who left',
                            'until' => $one->expires_at->toIso8601String(),
                            'opened' => $one->opened_at?->toIso8601String(),
                            'open' => $one->isOpen(),
                        ],
                    )
                    ->all()
                : [],
        ]);
    }

    /** What somebody may with this build in place of what the workshop gives; null takes that word back. */
    public function update(Request $request, Build $build, int $person): JsonResponse
    {
        $given = $request->validate(['role' => ['present', 'nullable', Rule::in(Role::words())]]);
        $user = User::query()->findOrFail($person);
        $general = Access::ofWorkshop($user, $build->workshop_id);
        $row = ['build_id' => $build->id, 'user_id' => $person];
        abort_if(
            $general === null && DB::table('build_people')->where($row)->doesntExist(),
            404,
            'Nobody of this build is called so. An invitation brings somebody new.',
        );
        abort_if($general === Role::Owner, 409, 'An owner of the workshop is one of every build in it.');
        $revoked = DB::transaction(static function () use ($given, $row, $user, $build): Revoked {
            $given['role'] === null
                ? DB::table('build_people')->where($row)->delete()
                : DB::table('build_people')->updateOrInsert($row, ['role' => $given['role'], 'updated_at' => now()]);
            EventLog::ofWorkshop(EventKind::RoleChanged, $build->workshop_id, $given['role'], $user, $build);

            return Revoked::of($user, $build->workshop()->firstOrFail());
        });

        return new JsonResponse($revoked->toArray());
    }

    /** The address is told once. */
    public function share(Request $request, Build $build): JsonResponse
    {
        $given = $request->validate([
            'label' => ['required', 'string', 'max:120'],
            'days' => ['required', 'integer', 'min:1', 'max:'.self::MOST_DAYS],
            'money' => ['sometimes', 'boolean'],
        ]);
        $secret = Secret::fresh();
        ShareLink::query()->create([
            'build_id' => $build->id,
            'token' => Secret::hash($secret),
            'label' => $given['label'],
            'money' => (bool) ($given['money'] ?? false),
            'made_by' => Access::user()?->id,
            'expires_at' => now()->addDays((int) $given['days']),
        ]);

        EventLog::ofWorkshop(EventKind::LinkMade, $build->workshop_id, $given['label'], build: $build);

        return new JsonResponse(['path' => "/shared/{$secret}"], 201);
    }

    public function unshare(Build $build, int $link): Response
    {
        $found = ShareLink::query()->where('build_id', $build->id)->findOrFail($link);
        $found->delete();
        EventLog::ofWorkshop(EventKind::LinkRevoked, $build->workshop_id, $found->label, build: $build);

        return new Response(status: 204);
    }

    /** By the address: from now on this browser sees that build, and nothing else. */
    public function open(Request $request, string $token): JsonResponse
    {
        abort_unless($request->hasSession(), 400, 'A link is opened in a browser.');
        $link = ShareLink::query()->where('token', Secret::hash($token))->first();
        abort_if($link === null, 404, 'This link opens nothing: it was revoked, or a piece of it is missing.');
        abort_unless(
            $link->isBacked(),
            410,
            'Whoever made this link may no longer share this build. Ask an owner of it for another one.',
        );
        abort_unless(
            $link->isOpen(),
            410,
            "This link was good until {$link->expires_at->format('j F Y')}. Whoever sent it can make another.",
        );
        $link->update(['opened_at' => now()]);
        $build = Build::query()->findOrFail($link->build_id);
        EventLog::ofWorkshop(EventKind::LinkOpened, $build->workshop_id, $link->label, build: $build);
        $request->session()->regenerate();
        $request->session()->put('visitor', $link->id);

        return new JsonResponse(['build' => $link->build_id]);
    }
}
