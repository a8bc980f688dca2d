<?php

declare(strict_types=1);

namespace App\Builds;

use App\Accounts\Access;
use App\Models\Build;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Query\JoinClause;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;

/** The builds of workshops as a list shows them: what was judged of them last. Nothing is read or judged for a list. */
final class Listing
{
    private const COLUMNS = [
        'builds.id',
        'builds.workshop_id',
        'builds.name',
        'builds.kind',
        'builds.purpose',
        'builds.updated_at',
        'builds.revision',
        'snapshots.judged',
        'snapshots.summary',
        'judgings.state',
        'judgings.trouble',
        'build_people.role',
    ];

    /**
     * @param  Builder<Build>  $seen  those to be listed
     * @param  int|null  $user  whose own word on a build is told
     * @return array<int, list<array<string, mixed>>> by workshop, by name
     */
    public static function of(Builder $seen, ?int $user): array
    {
        $rows = DB::table('builds')
            ->leftJoin('snapshots', 'snapshots.build_id', '=', 'builds.id')
            ->leftJoin('judgings', 'judgings.build_id', '=', 'builds.id')
            ->leftJoin(
                'build_people',
                static fn (JoinClause $on) => $on
                    ->on('build_people.build_id', '=', 'builds.id')
                    ->where('build_people.user_id', '=', $user ?? 0),
            )
            ->whereIn('builds.id', $seen->select('builds.id'))
            ->orderBy('builds.name')
            ->orderBy('builds.id')
            ->get(self::COLUMNS);
        $listed = [];
        foreach ($rows as $row) {
            $row = (array) $row;
            $listed[(int) $row['workshop_id']][] = [
                'id' => (int) $row['id'],
                'name' => $row['name'],
                'kind' => $row['kind'],
                'purpose' => $row['purpose'],
                'role' => $row['role'],
                'changed' => $row['updated_at'] === null ? null : Carbon::parse($row['updated_at'])->toIso8601String(),
                'judged' => $row['summary'] !== null && (int) $row['judged'] === (int) $row['revision'],
                'summary' => self::summary($row['summary']),
                'trouble' => $row['state'] === 'failed' ? $row['trouble'] : null,
            ];
        }

        return $listed;
    }

    /**
     * @return array<string, mixed>|null
     */
    private static function summary(?string $kept): ?array
    {
        if ($kept === null) {
            return null;
        }
        /** @var array<string, mixed> $summary */
        $summary = json_decode($kept, true, 64, JSON_THROW_ON_ERROR);

        return Access::visitor()?->money === false ? ['money' => null] + $summary : $summary;
    }
}
