<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Builds\Workspace;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Somebody deletes the own account: what goes with it, and what keeps it here. What was done in builds of others stays, without a name. */
final readonly class Goodbye
{
    public function __construct(private User $user)
    {
    }

    /**
     * @return array{builds: int, workshops: list<string>, kept: list<string>} builds and workshops that nobody else is of and that go too;
     *     workshops that would be left without an owner
     */
    public function means(): array
    {
        $alone = $this->alone();

        return [
            'builds' => (int) $alone->sum(static fn (Workshop $w): int => $w->builds()->count()),
            'workshops' => array_values($alone->map(static fn (Workshop $w): string => $w->name)->all()),
            'kept' => array_values($this->ownerless()->map(static fn (Workshop $w): string => $w->name)->all()),
        ];
    }

    /** @param  int  $builds  that whoever leaves was told will go: no more than those do */
    public function say(int $builds): void
    {
        DB::transaction(function () use ($builds): void {
            // Others who leave, come or begin builds at the same moment wait.
            Workshop::query()
                ->whereIn('id', $this->user->workshops()->pluck('workshops.id'))
                ->orderBy('id')
                ->lockForUpdate()
                ->get();
            $means = $this->means();
            abort_if(
                $means['kept'] !== [],
                409,
                'You are the only owner of '.
                    implode(' and ', $means['kept']).
                    ', and others are in it. Make somebody else an owner first.',
            );
            abort_if(
                $means['builds'] !== $builds,
                409,
                "{$means['builds']} builds would go with your account, not {$builds}. Look again.",
            );
            foreach ($this->alone() as $workshop) {
                $workshop->builds()->get()->each(Workspace::remove(...));
                $workshop->delete();
            }
            DB::table('password_reset_tokens')->where('email', $this->user->email)->delete();
            $this->user->tokens()->delete();
            foreach ($this->user->workshops()->get() as $workshop) {
                EventLog::ofWorkshop(EventKind::AccountDeleted, $workshop->id, $this->user->name);
            }
            $this->user->delete();
        });
    }

    /**
     * @return Collection<int, Workshop>
     */
    private function alone(): Collection
    {
        return $this->user->workshops()->has('members', '=', 1)->get();
    }

    /**
     * @return Collection<int, Workshop>
     */
    private function ownerless(): Collection
    {
        return $this->user
            ->workshops()
            ->has('members', '>', 1)
            ->wherePivot('role', Role::Owner->value)
            ->get()
            ->filter(
                static fn (Workshop $w): bool => $w->members()->wherePivot('role', Role::Owner->value)->count() === 1,
            );
    }
}
