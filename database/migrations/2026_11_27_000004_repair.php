<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Brings both shapes the migration before this one has had to the same one, makes short names exact and free of what
 * PHP takes for a number, and lets a build be judged in the background.
 */
return new class extends Migration
{
    private const EVIDENCE = "'measured', 'datasheet', 'standard', 'manual', 'listing', 'assumed'";

    /** Tables whose rows have a short name within their build. */
    private const COLLECTIONS = [
        'parts', 'needs', 'leads', 'mates', 'scenarios', 'suppliers', 'offers', 'rates', 'purchases', 'steps', 'faults', 'limits',
        'workpieces', 'axes', 'routes', 'decisions', 'revisions', 'zones', 'clearances', 'settings',
    ];

    public function up(): void
    {
        $this->leads();
        $this->axes();
        $this->places();
        $this->exactNames();
        $this->namesOfDigits();
        $this->judging();
    }

    private function leads(): void
    {
        $this->missing('leads', 'made', static fn (Blueprint $table) => $table->boolean('made')->nullable());
        $this->missing('leads', 'screen', static fn (Blueprint $table) => $table->string('screen', 12)->nullable());
        $this->missing('leads', 'chain_id', static fn (Blueprint $table) => $table->foreignId('chain_id')->nullable()->constrained('needs')->restrictOnDelete());
        $this->missing('leads', 'diameter', static fn (Blueprint $table) => $table->string('diameter', 40)->nullable());
        $this->missing('scenarios', 'measured', static fn (Blueprint $table) => $table->string('measured', 40)->nullable());
    }

    private function axes(): void
    {
        foreach (['drive_by_id', 'drive_board_id', 'drive_beam_id'] as $need) {
            $this->missing('axes', $need, static fn (Blueprint $table) => $table->foreignId($need)->nullable()->constrained('needs')->restrictOnDelete());
        }
        foreach (['ratio', 'top_speed', 'acceleration', 'mass', 'force', 'friction', 'efficiency', 'incline', 'inertia', 'support', 'unsupported', 'lever', 'spread', 'evidence', 'measured_load'] as $member) {
            $this->missing('axes', "drive_{$member}", static fn (Blueprint $table) => $table->string("drive_{$member}", 40)->nullable());
        }
        $this->missing('axes', 'drive_closed_loop', static fn (Blueprint $table) => $table->boolean('drive_closed_loop')->nullable());
        $this->missing('axes', 'homing_by', static fn (Blueprint $table) => $table->string('homing_by', 12)->nullable());
        $this->missing('axes', 'homing_both_ends', static fn (Blueprint $table) => $table->boolean('homing_both_ends')->nullable());
        $this->missing('axes', 'homing_configured', static fn (Blueprint $table) => $table->string('homing_configured', 40)->nullable());
        foreach (['axis_motors', 'axis_sensors'] as $list) {
            $this->inner($list, 'axes', static fn (Blueprint $table) => $table->foreignId('need_id')->constrained('needs')->restrictOnDelete());
        }
    }

    private function places(): void
    {
        $this->collection('zones', function (Blueprint $table): void {
            $table->string('name', 200);
            $table->string('kind', 12);
            $table->foreignId('box_id')->nullable()->constrained('needs')->restrictOnDelete();
            $table->string('temperature', 40)->nullable();
            $table->string('evidence', 12)->nullable();
        });
        $this->inner('zone_contents', 'zones', static fn (Blueprint $table) => $table->foreignId('need_id')->constrained('needs')->restrictOnDelete());
        $this->collection('clearances', function (Blueprint $table): void {
            $table->string('name', 200);
            $table->string('least', 40)->nullable();
            $table->string('evidence', 12)->nullable();
        });
        $this->inner('clearance_sides', 'clearances', function (Blueprint $table): void {
            $table->string('what', 200);
            foreach (['x', 'y', 'z'] as $along) {
                $table->string($along, 80)->nullable();
            }
        });
        $this->inner('clearance_moves', 'clearance_sides', static fn (Blueprint $table) => $table->foreignId('axis_id')->constrained('axes')->restrictOnDelete());
        $this->collection('settings', function (Blueprint $table): void {
            $table->string('kind', 12);
            $table->string('about', 200);
            foreach (['value', 'until'] as $text) {
                $table->string($text, 200)->nullable();
            }
            $table->boolean('done')->nullable();
            $table->text('notes')->nullable();
        });
        foreach (['zones', 'clearances'] as $table) {
            DB::statement("ALTER TABLE {$table} DROP CONSTRAINT IF EXISTS {$table}_evidence");
            DB::statement("ALTER TABLE {$table} ADD CONSTRAINT {$table}_evidence CHECK (evidence IS NULL OR evidence IN (".self::EVIDENCE.'))');
        }
    }

    /** "W1" and "w1" are two names, as they are in the file and in memory. */
    private function exactNames(): void
    {
        foreach (self::COLLECTIONS as $table) {
            DB::statement("ALTER TABLE {$table} MODIFY ref VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL");
        }
        foreach (['changes' => 'ref', 'library_parts' => 'ref', 'library_changes' => 'ref', 'part_ports' => 'name'] as $table => $column) {
            DB::statement("ALTER TABLE {$table} MODIFY {$column} VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL");
        }
        DB::statement('ALTER TABLE decision_facts MODIFY name VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL');
        DB::statement('ALTER TABLE parts MODIFY library VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL');
    }

    /** "608" becomes "n608", wherever it stands; what was stored under such a name could not be opened any more. */
    private function namesOfDigits(): void
    {
        $digits = "REGEXP '^(0|[1-9][0-9]*)$'";
        $columns = ['parts' => ['library'], 'part_ports' => ['name', 'fed_from'], 'leads' => ['from_port', 'to_port'], 'library_parts' => ['ref'], 'library_changes' => ['ref'], 'changes' => ['ref']];
        $texts = DB::table('changes')->join('edits', 'edits.id', '=', 'changes.edit_id')->whereRaw("edits.build_id IN (
            SELECT build_id FROM parts WHERE ref {$digits} UNION SELECT build_id FROM needs WHERE ref {$digits} UNION SELECT build_id FROM suppliers WHERE ref {$digits}
            UNION SELECT build_id FROM steps WHERE ref {$digits} UNION SELECT build_id FROM axes WHERE ref {$digits} UNION SELECT build_id FROM routes WHERE ref {$digits})
            OR changes.ref {$digits}")->orderBy('changes.id')->pluck('changes.id');
        foreach (self::COLLECTIONS as $table) {
            $this->rename($table, 'ref', $digits);
        }
        foreach ($columns as $table => $names) {
            foreach ($names as $name) {
                $this->rename($table, $name, $digits);
            }
        }
        DB::statement("UPDATE decisions SET choice = CONCAT('n', choice) WHERE about IN ('part', 'route') AND choice {$digits}");
        DB::statement("UPDATE decision_facts SET name = CONCAT('n', name) WHERE name {$digits}");
        foreach ($texts->chunk(500) as $chunk) {
            foreach (DB::table('changes')->whereIn('id', $chunk)->get(['id', 'before', 'after']) as $change) {
                DB::table('changes')->where('id', $change->id)->update(['before' => self::renamedIn($change->before), 'after' => self::renamedIn($change->after)]);
            }
        }
        foreach (['library_parts' => ['entry'], 'library_changes' => ['before', 'after']] as $table => $names) {
            foreach (DB::table($table)->where('ref', 'REGEXP', '^n[0-9]+$')->get(['id', ...$names]) as $row) {
                DB::table($table)->where('id', $row->id)->update(array_map(self::renamedIn(...), array_intersect_key((array) $row, array_flip($names))));
            }
        }
    }

    private function rename(string $table, string $column, string $digits): void
    {
        // Where the new name is taken already, another "n" goes before it.
        for ($tries = 0; $tries < 5 && DB::table($table)->whereRaw("`{$column}` {$digits}")->exists(); $tries++) {
            DB::statement("UPDATE IGNORE {$table} SET `{$column}` = CONCAT('".str_repeat('n', $tries + 1)."', `{$column}`) WHERE `{$column}` {$digits}");
        }
    }

    private static function renamedIn(?string $json): ?string
    {
        return $json === null ? null : json_encode(self::renamed(json_decode($json, true, 64, JSON_THROW_ON_ERROR)), JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR);
    }

    /**
     * @param  array<int|string, mixed>  $entry
     * @return array<int|string, mixed>
     */
    private static function renamed(array $entry, bool $port = false): array
    {
        $plain = static fn (string $name): string => preg_match('/^(0|[1-9][0-9]*)$/', $name) === 1 ? "n{$name}" : $name;
        $result = [];
        foreach ($entry as $key => $value) {
            $result[$key] = match (true) {
                $key === 'ports' && is_array($value) => array_map(static fn (array $p): array => self::renamed($p, true), $value),
                in_array($key, ['loads', 'uses', 'facts'], true) && is_array($value) => array_combine(array_map(static fn (int|string $k): string => $plain((string) $k), array_keys($value)), $value),
                in_array($key, ['candidates', 'after', 'between', 'holds', 'needs', 'motors', 'sensors', 'moves'], true) && is_array($value) => array_map(static fn (mixed $v): mixed => is_string($v) ? $plain($v) : (is_array($v) ? self::renamed($v) : $v), $value),
                in_array($key, ['from', 'to'], true) && is_string($value) && str_contains($value, '.') => implode('.', array_map($plain, explode('.', $value, 2))),
                in_array($key, ['ref', 'choice', 'part', 'supplier', 'need', 'step', 'protection', 'chain', 'contact', 'screw', 'rail', 'box', 'by', 'board', 'beam', 'library', 'fed_from'], true) && is_string($value), $port && $key === 'name' => $plain((string) $value),
                is_array($value) => self::renamed($value),
                default => $value,
            };
        }

        return $result;
    }

    private function judging(): void
    {
        // What a list shows of a build, as it was judged last; the whole of it is only read when the build is opened.
        Schema::table('snapshots', static function (Blueprint $table): void {
            $table->text('summary')->nullable();
            $table->unsignedBigInteger('judged')->default(0);
        });
        Schema::create('judgings', function (Blueprint $table): void {
            $table->foreignId('build_id')->primary()->constrained()->cascadeOnDelete();
            $table->unsignedBigInteger('revision');
            $table->string('state', 8);
            $table->unsignedInteger('done')->default(0);
            $table->unsignedInteger('of')->default(0);
            $table->string('trouble', 400)->nullable();
            $table->timestamp('at', 3);
        });
        DB::statement("ALTER TABLE judgings ADD CONSTRAINT judgings_state CHECK (state IN ('queued', 'running', 'failed'))");
        // A variant shows the same pictures as the build it was made from.
        Schema::table('photos', static function (Blueprint $table): void {
            $table->dropUnique(['name']);
            $table->unique(['build_id', 'name']);
        });
    }

    /** @param  callable(Blueprint): mixed  $column */
    private function missing(string $table, string $name, callable $column): void
    {
        Schema::hasColumn($table, $name) || Schema::table($table, static fn (Blueprint $t) => $column($t));
    }

    /** @param  callable(Blueprint): mixed  $columns */
    private function collection(string $name, callable $columns): void
    {
        Schema::hasTable($name) || Schema::create($name, function (Blueprint $table) use ($columns): void {
            $table->id();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->string('ref', 64);
            $columns($table);
            $table->unique(['build_id', 'ref']);
        });
    }

    /** @param  callable(Blueprint): mixed  $columns */
    private function inner(string $name, string $owner, callable $columns): void
    {
        Schema::hasTable($name) || Schema::create($name, function (Blueprint $table) use ($owner, $columns): void {
            $table->id();
            $table->foreignId('owner_id')->constrained($owner)->cascadeOnDelete();
            $columns($table);
        });
    }
};
