<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * A build and its collections, one table a collection or list within it. Quantities are kept as the builder wrote them
 * ("18 AWG") so that nothing is lost. A spec has a value or, for a yes-or-no, a flag.
 */
return new class extends Migration
{
    private const EVIDENCE = "'measured', 'datasheet', 'standard', 'manual', 'listing', 'assumed'";

    public function up(): void
    {
        Schema::create('builds', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('workshop_id')->constrained()->cascadeOnDelete();
            $table->string('slug', 64);
            $table->unsignedBigInteger('revision')->default(0);
            $table->string('name', 120);
            $table->string('kind', 60);
            $table->char('currency', 3);
            $table->string('units', 8)->default('metric');
            $table->string('purpose', 2000)->nullable();
            $table->decimal('budget', 18, 6)->nullable();
            foreach (['contingency', 'weekly', 'pace', 'mains_voltage', 'mains_frequency', 'outlet', 'ambient'] as $quantity) {
                $table->string($quantity, 40)->nullable();
            }
            $table->boolean('residual_current_device')->nullable();
            $table->decimal('tariff', 18, 6)->nullable();
            $table->text('site_notes')->nullable();
            $table->timestamps();
            $table->unique(['workshop_id', 'slug']);
        });
        $this->parts();
        $this->wiring();
        $this->mechanics();
        $this->money();
        $this->work();
        $this->record();
        $this->constrain();
    }

    /** @param  callable(Blueprint): void  $columns */
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

    /** @param  callable(Blueprint): void  $columns */
    private function inner(string $name, string $owner, callable $columns): void
    {
        Schema::create($name, function (Blueprint $table) use ($owner, $columns): void {
            $table->id();
            $table->foreignId('owner_id')->constrained($owner)->cascadeOnDelete();
            $columns($table);
        });
    }

    private function specs(Blueprint $table): void
    {
        $table->string('key', 40);
        $table->string('value', 200)->nullable();
        $table->boolean('flag')->nullable();
        $table->string('evidence', 12);
        $table->string('source', 200)->nullable();
        $table->string('tolerance', 40)->nullable();
        $table->boolean('confirmed')->nullable();
        $table->unique(['owner_id', 'key']);
    }

    private function parts(): void
    {
        $this->collection('parts', function (Blueprint $table): void {
            $table->string('family', 40)->index();
            $table->string('name', 200);
            $table->text('notes')->nullable();
        });
        $this->inner('part_specs', 'parts', $this->specs(...));
        $this->inner('part_ports', 'parts', function (Blueprint $table): void {
            $table->string('name', 64);
            $table->string('kind', 12);
            $table->boolean('mains')->nullable();
            $table->string('draw', 12)->nullable();
            $table->string('fed_from', 64)->nullable();
            $table->unique(['owner_id', 'name']);
        });
        $this->inner('port_specs', 'part_ports', $this->specs(...));
        $this->collection('needs', function (Blueprint $table): void {
            $table->string('role', 200);
            $table->string('family', 40);
            $table->unsignedInteger('quantity');
            $table->foreignId('choice_id')->nullable()->constrained('parts')->restrictOnDelete();
            $table->string('reason', 2000)->nullable();
            $table->string('spares', 40)->nullable();
            $table->unsignedInteger('owned')->nullable();
        });
        $this->inner('need_candidates', 'needs', function (Blueprint $table): void {
            $table->foreignId('part_id')->constrained('parts')->restrictOnDelete();
            $table->unique(['owner_id', 'part_id']);
        });
    }

    private function wiring(): void
    {
        $this->collection('leads', function (Blueprint $table): void {
            foreach (['from', 'to'] as $side) {
                $table->foreignId("{$side}_need_id")->constrained('needs')->restrictOnDelete();
                $table->string("{$side}_port", 64);
            }
            $table->string('size', 40)->nullable();
            $table->string('evidence', 12)->nullable();
            $table->string('stranding', 12)->nullable();
            $table->string('insulation', 200)->nullable();
            $table->unsignedTinyInteger('parallel')->nullable();
            $table->string('length', 40)->nullable();
            $table->string('route', 8)->nullable();
            $table->unsignedSmallInteger('bundled_with')->nullable();
            $table->foreignId('protection_id')->nullable()->constrained('needs')->restrictOnDelete();
            $table->text('notes')->nullable();
        });
        $this->inner('lead_ends', 'leads', function (Blueprint $table): void {
            $table->string('termination', 12)->nullable();
            $table->foreignId('contact_id')->nullable()->constrained('parts')->restrictOnDelete();
            $table->unsignedTinyInteger('contacts_per_pole')->nullable();
            $table->boolean('strain_relief')->nullable();
            $table->unsignedTinyInteger('conductors')->nullable();
        });
        $this->collection('scenarios', function (Blueprint $table): void {
            $table->string('name', 200);
            $table->string('duration', 40)->nullable();
            $table->unsignedInteger('runs_per_year')->nullable();
        });
        $this->inner('scenario_loads', 'scenarios', function (Blueprint $table): void {
            $table->foreignId('need_id')->constrained('needs')->restrictOnDelete();
            $table->string('share', 40);
            $table->unique(['owner_id', 'need_id']);
        });
    }

    private function mechanics(): void
    {
        $this->collection('mates', function (Blueprint $table): void {
            $table->string('kind', 200);
            $table->text('notes')->nullable();
        });
        $this->inner('mate_sides', 'mates', function (Blueprint $table): void {
            $table->foreignId('need_id')->constrained('needs')->restrictOnDelete();
        });
        $this->inner('mate_screws', 'mates', function (Blueprint $table): void {
            $table->foreignId('screw_id')->nullable()->constrained('needs')->restrictOnDelete();
            $table->unsignedSmallInteger('count');
            $table->string('into', 12)->nullable();
            $table->string('material', 12)->nullable();
            $table->string('depth', 40)->nullable();
            $table->string('room', 40)->nullable();
            $table->string('evidence', 12)->nullable();
        });
        foreach (['mate_screw_clamped', 'mate_screw_washers'] as $layers) {
            $this->inner($layers, 'mate_screws', function (Blueprint $table): void {
                $table->string('thickness', 40);
            });
        }
    }

    private function money(): void
    {
        $this->collection('suppliers', function (Blueprint $table): void {
            $table->string('name', 200);
            $table->char('currency', 3);
            $table->string('tax', 40)->nullable();
            $table->unsignedSmallInteger('lead_days')->nullable();
            $table->text('notes')->nullable();
        });
        $this->inner('shipping_steps', 'suppliers', function (Blueprint $table): void {
            $table->decimal('from_value', 18, 6);
            $table->decimal('cost', 18, 6);
        });
        $this->collection('offers', function (Blueprint $table): void {
            $table->foreignId('part_id')->constrained('parts')->restrictOnDelete();
            $table->foreignId('supplier_id')->constrained('suppliers')->restrictOnDelete();
            $table->decimal('price', 18, 6);
            $table->unsignedInteger('pack');
            $table->date('date');
            $table->string('article', 200)->nullable();
        });
        $this->collection('rates', function (Blueprint $table): void {
            $table->char('from', 3);
            $table->char('to', 3);
            $table->decimal('worth', 22, 10);
            $table->date('date');
        });
        $this->collection('purchases', function (Blueprint $table): void {
            $table->foreignId('part_id')->constrained('parts')->restrictOnDelete();
            $table->foreignId('supplier_id')->constrained('suppliers')->restrictOnDelete();
            $table->unsignedInteger('pieces');
            $table->decimal('paid', 18, 6);
            $table->date('date');
            $table->unsignedInteger('received')->nullable();
            $table->text('notes')->nullable();
        });
    }

    private function work(): void
    {
        $this->collection('steps', function (Blueprint $table): void {
            $table->unsignedInteger('position');
            $table->string('section', 200);
            $table->string('title', 200);
            $table->text('notes')->nullable();
            $table->string('guide', 40)->nullable();
            $table->string('check_what', 200)->nullable();
            foreach (['check_nominal', 'check_tolerance', 'check_measured'] as $quantity) {
                $table->string($quantity, 40)->nullable();
            }
            $table->string('state', 8);
        });
        $this->inner('step_prerequisites', 'steps', function (Blueprint $table): void {
            $table->foreignId('before_id')->constrained('steps')->cascadeOnDelete();
            $table->unique(['owner_id', 'before_id']);
        });
        foreach (['step_tools' => 200, 'step_cautions' => 40] as $list => $longest) {
            $this->inner($list, 'steps', function (Blueprint $table) use ($longest): void {
                $table->string('name', $longest);
            });
        }
        $this->inner('step_uses', 'steps', function (Blueprint $table): void {
            $table->foreignId('need_id')->constrained('needs')->restrictOnDelete();
            $table->unsignedInteger('pieces');
            $table->unique(['owner_id', 'need_id']);
        });
        $this->inner('step_timings', 'steps', function (Blueprint $table): void {
            $table->unsignedBigInteger('start');
            $table->unsignedBigInteger('stop')->nullable();
        });
        $this->collection('faults', function (Blueprint $table): void {
            $table->string('what', 500);
            $table->string('severity', 12);
            $table->string('state', 12);
            $table->date('found');
            $table->string('kind', 20)->nullable();
            $table->foreignId('need_id')->nullable()->constrained('needs')->restrictOnDelete();
            $table->foreignId('step_id')->nullable()->constrained('steps')->restrictOnDelete();
            $table->text('cause')->nullable();
            $table->text('fix')->nullable();
            $table->decimal('cost', 18, 6)->nullable();
            $table->string('lost', 40)->nullable();
        });
        $this->inner('fault_photos', 'faults', function (Blueprint $table): void {
            $table->string('name', 200);
        });
        $this->collection('limits', function (Blueprint $table): void {
            $table->string('check', 64);
            $table->string('key', 64);
            $table->string('value', 40);
            $table->string('reason', 2000);
        });
    }

    /** Who changed what, when, from what to what: history and undo read it. */
    private function record(): void
    {
        Schema::create('edits', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->unsignedBigInteger('revision');
            $table->uuid('key');
            $table->string('label', 200);
            $table->string('state', 8)->default('done');
            $table->timestamp('made_at', 3);
            $table->unique(['build_id', 'key']);
            $table->index(['build_id', 'state', 'id']);
        });
        Schema::create('changes', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('edit_id')->constrained()->cascadeOnDelete();
            $table->string('section', 20);
            $table->string('ref', 64);
            $table->unsignedBigInteger('row')->nullable();
            $table->json('before')->nullable();
            $table->json('after')->nullable();
        });
        // Derived from the tables above and thrown away freely: the last whole document and what was judged of it.
        Schema::create('snapshots', function (Blueprint $table): void {
            $table->foreignId('build_id')->primary()->constrained()->cascadeOnDelete();
            $table->unsignedBigInteger('revision');
            $table->date('day');
            $table->longText('document');
            $table->longText('inspection');
        });
        Schema::create('photos', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->string('name', 64)->unique();
            $table->unsignedInteger('bytes');
            $table->timestamps();
        });
        Schema::create('imports', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->uuid('key')->unique();
            $table->string('file_name', 200);
            $table->unsignedInteger('rows');
            $table->string('state', 12);
            $table->json('mapping')->nullable();
            $table->unsignedInteger('stored')->default(0);
            $table->unsignedInteger('skipped')->default(0);
            $table->timestamps();
        });
    }

    private function constrain(): void
    {
        $checks = [
            'builds' => ["units IN ('metric', 'imperial')", 'budget IS NULL OR budget >= 0', 'tariff IS NULL OR tariff >= 0'],
            'part_specs' => ['evidence IN ('.self::EVIDENCE.')', '(value IS NULL) <> (flag IS NULL)'],
            'port_specs' => ['evidence IN ('.self::EVIDENCE.')', '(value IS NULL) <> (flag IS NULL)'],
            'needs' => ['quantity >= 1'],
            'leads' => ["route IS NULL OR route IN ('fixed', 'flexing')", 'parallel IS NULL OR parallel >= 1'],
            'offers' => ['price >= 0', 'pack >= 1'],
            'rates' => ['worth > 0', '`from` <> `to`'],
            'purchases' => ['paid >= 0', 'pieces >= 1'],
            'shipping_steps' => ['from_value >= 0', 'cost >= 0'],
            'steps' => ["state IN ('open', 'done', 'skipped')"],
            'step_timings' => ['stop IS NULL OR stop >= start'],
            'faults' => ["severity IN ('danger', 'stops_work', 'defect', 'blemish')", "state IN ('open', 'understood', 'fixed', 'closed')"],
            'edits' => ["state IN ('done', 'undone', 'dropped')"],
            'imports' => ["state IN ('previewed', 'running', 'done', 'cancelled', 'interrupted')"],
        ];
        foreach ($checks as $table => $conditions) {
            foreach ($conditions as $i => $condition) {
                DB::statement("ALTER TABLE {$table} ADD CONSTRAINT {$table}_check_{$i} CHECK ({$condition})");
            }
        }
    }
};
