<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** The brief, routes, decisions and revisions of a build, and the workshop's library of parts. */
return new class extends Migration
{
    private const EVIDENCE = "'measured', 'datasheet', 'standard', 'manual', 'listing', 'assumed'";

    public function up(): void
    {
        Schema::table('builds', function (Blueprint $table): void {
            $table->foreignId('forked_from')->nullable()->constrained('builds')->nullOnDelete();
            $table->unsignedBigInteger('forked_at')->nullable();
            foreach ($this->quantities() as $quantity) {
                $table->string($quantity, 40)->nullable();
            }
            $table->string('country', 60)->nullable();
            $table->string('brief_helper', 200)->nullable();
            $table->text('brief_notes')->nullable();
            $table->date('brief_wanted_by')->nullable();
            $table->decimal('brief_hour', 18, 6)->nullable();
        });
        Schema::table('parts', static fn (Blueprint $table) => $table->string('library', 64)->nullable()->index());
        Schema::table('needs', function (Blueprint $table): void {
            $table->string('purpose', 12)->nullable();
            $table->string('scale_along', 1)->nullable();
            $table->string('scale_as', 8)->nullable();
            $table->string('scale_every', 40)->nullable();
            $table->unsignedInteger('scale_plus')->nullable();
            $table->string('scale_longer', 40)->nullable();
        });
        Schema::table('leads', function (Blueprint $table): void {
            $table->boolean('made')->nullable();
            $table->string('screen', 12)->nullable();
            $table->foreignId('chain_id')->nullable()->constrained('needs')->restrictOnDelete();
            $table->string('diameter', 40)->nullable();
        });
        Schema::table('scenarios', static fn (Blueprint $table) => $table->string('measured', 40)->nullable());
        Schema::table('suppliers', function (Blueprint $table): void {
            $table->string('duty', 40)->nullable();
            $table->decimal('duty_free', 18, 6)->nullable();
            $table->decimal('tax_free', 18, 6)->nullable();
            $table->string('fee', 40)->nullable();
        });
        $this->inner('need_weights', 'needs', function (Blueprint $table): void {
            $table->string('key', 64);
            $table->unsignedTinyInteger('weight');
            $table->unique(['owner_id', 'key']);
        });
        $this->scope();
        $this->choices();
        $this->places();
        $this->library();
        foreach (['axis_takers', 'route_lines', 'zones', 'clearances'] as $table) {
            DB::statement("ALTER TABLE {$table} ADD CONSTRAINT {$table}_evidence CHECK (evidence IS NULL OR evidence IN (".self::EVIDENCE.'))');
        }
        DB::statement('ALTER TABLE need_weights ADD CONSTRAINT need_weights_weight CHECK (weight <= 5)');
        DB::statement("ALTER TABLE decisions ADD CONSTRAINT decisions_made CHECK (state = 'open' OR (choice IS NOT NULL AND reason IS NOT NULL))");
    }

    /**
     * @return list<string>
     */
    private function quantities(): array
    {
        $under = static fn (string $of, string ...$names): array => array_map(static fn (string $n): string => "{$of}_{$n}", array_values($names));

        return [
            'other_load', 'service', 'humidity', 'noise', 'ventilation',
            ...$under('door', 'width', 'height'), ...$under('bench', 'length', 'width', 'load'), ...$under('room', 'length', 'width', 'height'),
            ...$under('brief', 'process', 'wish', 'accuracy', 'margin', 'flow', 'duty', 'weekly', 'spindle_power'),
            ...$under('size', 'x', 'y', 'z'), ...$under('kit_size', 'x', 'y', 'z'), ...$under('outline', 'length', 'width', 'height', 'mass', 'evidence'),
            ...$under('experience', 'fitting', 'crimping', 'soldering', 'mains', 'printing', 'software'),
        ];
    }

    private function scope(): void
    {
        $this->collection('workpieces', function (Blueprint $table): void {
            $table->string('name', 200);
            foreach (['length', 'width', 'height', 'volume'] as $quantity) {
                $table->string($quantity, 40)->nullable();
            }
            $table->string('material', 200)->nullable();
            $table->unsignedInteger('per_week')->nullable();
        });
        $this->collection('axes', function (Blueprint $table): void {
            $table->string('name', 200);
            $table->char('along', 1);
            $table->foreignId('rail_id')->nullable()->constrained('needs')->restrictOnDelete();
            foreach (['span', 'block_pitch', 'advertised'] as $quantity) {
                $table->string($quantity, 40)->nullable();
            }
            $table->string('span_evidence', 12)->nullable();
            $table->unsignedTinyInteger('blocks');
            foreach (['drive_by_id', 'drive_board_id', 'drive_beam_id'] as $need) {
                $table->foreignId($need)->nullable()->constrained('needs')->restrictOnDelete();
            }
            foreach (['ratio', 'top_speed', 'acceleration', 'mass', 'force', 'friction', 'efficiency', 'incline', 'inertia', 'support', 'unsupported', 'lever', 'spread', 'evidence', 'measured_load'] as $member) {
                $table->string("drive_{$member}", 40)->nullable();
            }
            $table->boolean('drive_closed_loop')->nullable();
            $table->string('homing_by', 12)->nullable();
            $table->boolean('homing_both_ends')->nullable();
            $table->string('homing_configured', 40)->nullable();
        });
        foreach (['axis_motors', 'axis_sensors'] as $list) {
            $this->inner($list, 'axes', static fn (Blueprint $table) => $table->foreignId('need_id')->constrained('needs')->restrictOnDelete());
        }
        $this->inner('axis_takers', 'axes', function (Blueprint $table): void {
            $table->string('what', 200);
            $table->string('length', 40);
            $table->string('evidence', 12)->nullable();
        });
        $this->collection('routes', function (Blueprint $table): void {
            $table->string('name', 200);
            $table->string('kind', 20);
            $table->boolean('whole_build')->nullable();
            foreach (['hours_printing', 'hours_mechanics', 'hours_wiring', 'hours_software', 'hours_tuning', 'filament'] as $quantity) {
                $table->string($quantity, 40)->nullable();
            }
            $table->unsignedSmallInteger('wait_days')->nullable();
            foreach (['documentation', 'support', 'freedom'] as $grade) {
                $table->string($grade, 8)->nullable();
            }
            $table->decimal('resale', 18, 6)->nullable();
            $table->text('notes')->nullable();
        });
        $this->inner('route_needs', 'routes', function (Blueprint $table): void {
            $table->foreignId('need_id')->constrained('needs')->restrictOnDelete();
        });
        $this->inner('route_contents', 'routes', static fn (Blueprint $table) => $table->string('what', 200));
        $this->inner('route_lines', 'routes', function (Blueprint $table): void {
            $table->string('what', 200);
            $table->string('kind', 12);
            $table->unsignedInteger('pieces');
            $table->decimal('price', 18, 6)->nullable();
            $table->foreignId('supplier_id')->nullable()->constrained('suppliers')->restrictOnDelete();
            $table->unsignedInteger('pack');
            $table->unsignedInteger('owned')->nullable();
            $table->string('evidence', 12);
        });
    }

    private function choices(): void
    {
        $this->collection('decisions', function (Blueprint $table): void {
            $table->string('question', 400);
            $table->string('about', 8);
            $table->string('state', 8);
            $table->foreignId('need_id')->nullable()->constrained('needs')->restrictOnDelete();
            $table->string('school', 64)->nullable();
            $table->string('choice', 200)->nullable();
            $table->string('reason', 2000)->nullable();
            $table->string('who', 120)->nullable();
            $table->date('date')->nullable();
        });
        $this->inner('decision_rejections', 'decisions', function (Blueprint $table): void {
            $table->string('what', 200);
            $table->string('why', 2000)->nullable();
        });
        $this->inner('decision_opinions', 'decisions', function (Blueprint $table): void {
            $table->string('about', 200);
            $table->string('says', 2000);
            $table->string('interest', 20);
            $table->string('who', 120)->nullable();
            $table->date('date')->nullable();
            $table->unsignedInteger('reports');
        });
        $this->inner('decision_facts', 'decisions', function (Blueprint $table): void {
            $table->string('name', 200);
            $table->string('fact', 400);
            $table->unique(['owner_id', 'name']);
        });
        $this->collection('revisions', function (Blueprint $table): void {
            $table->string('of', 12);
            $table->string('name', 200);
            $table->string('revision', 60);
            $table->date('date');
            $table->foreignId('part_id')->nullable()->constrained('parts')->restrictOnDelete();
            $table->string('state', 12);
            $table->string('effect', 2000)->nullable();
            $table->boolean('governs')->nullable();
        });
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
    }

    /** A library entry is kept whole, as the core writes it; what it is found by stands beside it. */
    private function library(): void
    {
        Schema::create('library_parts', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('workshop_id')->constrained()->cascadeOnDelete();
            $table->string('ref', 64);
            $table->string('family', 40);
            $table->string('name', 200);
            // In small letters already: compared byte by byte, a search is several times quicker.
            $table->text('words')->collation('utf8mb4_bin');
            $table->boolean('example');
            $table->unsignedInteger('version')->default(1);
            $table->json('entry');
            $table->unique(['workshop_id', 'ref']);
            $table->index(['workshop_id', 'family', 'name']);
        });
        Schema::create('library_changes', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('workshop_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->string('ref', 64);
            $table->json('before')->nullable();
            $table->json('after')->nullable();
            $table->boolean('undone')->default(false);
            $table->timestamp('made_at', 3);
        });
    }

    /** @param  callable(Blueprint): mixed  $columns */
    private function collection(string $name, callable $columns): void
    {
        Schema::create($name, function (Blueprint $table) use ($columns): void {
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
        Schema::create($name, function (Blueprint $table) use ($owner, $columns): void {
            $table->id();
            $table->foreignId('owner_id')->constrained($owner)->cascadeOnDelete();
            $columns($table);
        });
    }
};
