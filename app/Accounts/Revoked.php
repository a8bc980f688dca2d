<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Build;
use App\Models\Invitation;
use App\Models\ShareLink;
use App\Models\User;
use App\Models\Workshop;

/** What somebody gave out and, by losing a role, can no longer stand for: it is taken back with the role. */
final readonly class Revoked
{
    /**
     * @param  list<string>  $invitations  for whom each was
     * @param  list<string>  $links  labels
     */
    private function __construct(public array $invitations, public array $links)
    {
    }

    /** After a role of somebody in a workshop, or in a build of it, was changed; in the same transaction. */
    public static function of(User $user, Workshop $workshop): self
    {
        $invitations = Invitation::query()
            ->with('maker')
            ->where(['workshop_id' => $workshop->id, 'made_by' => $user->id])
            ->whereNull('accepted_at')
            ->get()
            ->reject(static fn (Invitation $one): bool => $one->isBacked());
        $links = ShareLink::query()
            ->with(['maker', 'build'])
            ->where('made_by', $user->id)
            ->whereIn('build_id', $workshop->builds()->select('id'))
            ->get()
            ->reject(static fn (ShareLink $one): bool => $one->isBacked());
        $revoked = new self(
            array_values($invitations->map(static fn (Invitation $i): string => $i->for ?? $i->role->value)->all()),
            array_values($links->map(static fn (ShareLink $l): string => $l->label)->all()),
        );
        foreach ($links as $link) {
            EventLog::ofWorkshop(EventKind::LinkRevoked, $workshop->id, $link->label, $user, $link->build);
        }
        foreach ($invitations as $invitation) {
            EventLog::ofWorkshop(EventKind::InvitationRevoked, $workshop->id, $invitation->for, $user);
        }
        Invitation::query()->whereKey($invitations->modelKeys())->delete();
        ShareLink::query()->whereKey($links->modelKeys())->delete();

        return $revoked;
    }

    /**
     * @return array{invitations: list<string>, links: list<string>}
     */
    public function toArray(): array
    {
        return ['invitations' => $this->invitations, 'links' => $this->links];
    }

    /** Whether somebody's right to have given something out still stands. */
    public static function stillMay(?User $maker, Build|int $in): bool
    {
        return $maker !== null &&
            ($in instanceof Build ? Access::ofBuild($maker, $in) : Access::ofWorkshop($maker, $in)) === Role::Owner;
    }
}
