<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Build;
use App\Models\Event;
use App\Models\User;
use Illuminate\Mail\Message;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use Illuminate\Support\Facades\Mail;
use Throwable;

/** The list of events: written where something happens, read by owners of a workshop and by whoever it is about. */
final class EventLog
{
    /** Days an event is kept. */
    private const KEPT = 400;

    private const MOST = 200;

    /** Something somebody did to the own account. */
    public static function ofAccount(EventKind $kind, User $user, ?string $detail = null): void
    {
        // The invented people of the demo are nobody's account.
        if (! $user->isShared()) {
            self::write($kind, ['user_id' => $user->id, 'detail' => $detail], $user);
        }
    }

    /** Something that happened in a workshop; by whoever asks. */
    public static function ofWorkshop(
        EventKind $kind,
        int $workshop,
        ?string $detail = null,
        ?User $about = null,
        ?Build $build = null,
        ?User $by = null,
    ): void {
        self::write($kind, [
            'workshop_id' => $workshop,
            'user_id' => ($by ?? Access::user())?->id,
            'about_id' => $about?->id,
            'build' => $build === null ? null : mb_substr($build->name, 0, 120),
            'detail' => $detail === null ? null : mb_substr($detail, 0, 250),
        ]);
    }

    /** Something whoever keeps the machine did with all of it. */
    public static function ofServer(EventKind $kind, ?string $detail = null): void
    {
        self::write($kind, ['detail' => $detail]);
    }

    /**
     * What an owner of a workshop sees: what happened in it, to the accounts of its people, and to the server.
     *
     * @return Collection<int, Event> newest first
     */
    public static function seenIn(int $workshop): Collection
    {
        $people = DB::table('memberships')->where('workshop_id', $workshop)->select('user_id');

        return Event::query()
            ->with(['user', 'about'])
            ->where('workshop_id', $workshop)
            ->orWhere(
                static fn ($own) => $own
                    ->whereNull('workshop_id')
                    ->where(static fn ($of) => $of->whereIn('user_id', $people)->orWhereNull('user_id')),
            )
            ->orderByDesc('id')
            ->limit(self::MOST)
            ->get();
    }

    /**
     * What somebody has not said to have read yet.
     *
     * @return list<array{id: int, says: string, detail: string|null, address: string|null, at: string}>
     */
    public static function unread(User $user): array
    {
        return array_values(
            Event::query()
                ->where(['user_id' => $user->id, 'notice' => true])
                ->whereNull('read_at')
                ->orderByDesc('id')
                ->limit(20)
                ->get()
                ->map(
                    static fn (Event $e): array => [
                        'id' => $e->id,
                        'says' => (string) $e->kind->notice(),
                        'detail' => $e->detail,
                        'address' => $e->address,
                        'at' => $e->at->toIso8601String(),
                    ],
                )
                ->all(),
        );
    }

    public static function read(User $user): void
    {
        Event::query()
            ->where('user_id', $user->id)
            ->whereNull('read_at')
            ->update(['read_at' => now()]);
    }

    public static function forgetOld(): void
    {
        Event::query()->where('at', '<', now()->subDays(self::KEPT))->delete();
    }

    /**
     * @param  array<string, mixed>  $what
     */
    private static function write(EventKind $kind, array $what, ?User $told = null): void
    {
        $says = $told === null ? null : $kind->notice();
        $event = Event::query()->create($what + [
            'kind' => $kind,
            'address' => app()->runningInConsole() && ! app()->runningUnitTests() ? null : request()->ip(),
            'notice' => $says !== null,
            'at' => now(),
        ]);
        if ($told !== null && $says !== null) {
            self::letter($told->email, $says, $event);
        }
    }

    /** By mail where letters are set up; where they are not, it is told at the next sign-in all the same. */
    public static function letter(string $address, string $says, Event $event): void
    {
        if (in_array(config('mail.default'), [null, 'log', 'array'], true) && ! app()->runningUnitTests()) {
            return;
        }
        $text = "{$says}.".
            ($event->detail === null ? '' : "\n\n{$event->detail}").
            "\n\nWhen: {$event->at->format('j F Y, H:i')}".
            ($event->address === null ? '' : "\nFrom: {$event->address}").
            "\n\nIf it was not you, set a new password, and look under Account who is signed in.\n";
        $send = static function () use ($address, $text): void {
            try {
                Mail::raw(
                    $text,
                    static fn (Message $letter) => $letter->to($address)->subject('Your account at Frugal Magpie'),
                );
            } catch (Throwable $e) {
                Log::error('A letter could not be sent: is MAIL_MAILER set up? '.$e->getMessage());
            }
        };
        // Nobody waits for the letter, and none goes out about what was not stored.
        DB::afterCommit(static fn () => defer($send));
    }
}
