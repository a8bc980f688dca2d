<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Documents, bags and questions; acts that cannot be taken back, guesses, who worked; and what more a fault says. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('steps', static function (Blueprint $table): void {
            $table->string('act', 12)->nullable();
            $table->string('sets', 40)->nullable();
            $table->boolean('optional')->nullable();
            $table->boolean('energises')->nullable();
            $table->text('base')->nullable();
        });
        Schema::table('step_timings', static fn (Blueprint $table) => $table->string('by', 60)->nullable());
        Schema::create('step_guesses', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('steps')->cascadeOnDelete();
            $table->string('what', 500);
            $table->foreignId('settled_by_id')->nullable()->constrained('steps')->nullOnDelete();
            $table->string('settled', 500)->nullable();
        });
        Schema::table('faults', static function (Blueprint $table): void {
            $table->foreignId('lead_id')->nullable()->constrained('leads')->restrictOnDelete();
            $table->string('by', 12)->nullable();
            $table->text('tried')->nullable();
            $table->string('hand', 8)->nullable();
            $table->unsignedInteger('days')->nullable();
            $table->string('lot', 200)->nullable();
            $table->string('practice', 200)->nullable();
            $table->text('caught')->nullable();
        });
        Schema::create('fault_marks', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('faults')->cascadeOnDelete();
            $table->string('photo', 200);
            $table->unsignedInteger('x')->nullable();
            $table->unsignedInteger('y')->nullable();
        });
        Schema::create('fault_rework', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('faults')->cascadeOnDelete();
            $table->foreignId('step_id')->constrained('steps')->restrictOnDelete();
        });
        Schema::create('documents', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->string('ref', 64);
            $table->string('title', 200);
            $table->string('kind', 12);
            $table->string('version', 60)->nullable();
            $table->date('date')->nullable();
            $table->date('read')->nullable();
            $table->text('notes')->nullable();
            $table->unique(['build_id', 'ref']);
        });
        Schema::create('document_over', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('documents')->cascadeOnDelete();
            $table->foreignId('other_id')->constrained('documents')->cascadeOnDelete();
        });
        Schema::create('document_passages', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('documents')->cascadeOnDelete();
            $table->foreignId('step_id')->constrained('steps')->restrictOnDelete();
            $table->string('pages', 200)->nullable();
            $table->boolean('superseded')->nullable();
        });
        Schema::create('document_statements', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('documents')->cascadeOnDelete();
            $table->string('what', 200);
            $table->string('says', 60);
            $table->foreignId('need_id')->nullable()->constrained('needs')->restrictOnDelete();
            $table->foreignId('step_id')->nullable()->constrained('steps')->restrictOnDelete();
        });
        Schema::create('document_corrections', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('documents')->cascadeOnDelete();
            $table->string('says', 1000);
            $table->string('right', 1000);
            $table->string('why', 1000)->nullable();
            $table->foreignId('step_id')->nullable()->constrained('steps')->restrictOnDelete();
            $table->date('sent')->nullable();
        });
        Schema::create('bags', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->string('ref', 64);
            $table->string('label', 200);
            $table->text('notes')->nullable();
            $table->unique(['build_id', 'ref']);
        });
        Schema::create('bag_lines', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('bags')->cascadeOnDelete();
            $table->foreignId('need_id')->constrained('needs')->restrictOnDelete();
            foreach (['expected', 'found', 'left'] as $count) {
                $table->unsignedInteger($count)->nullable();
            }
            $table->foreignId('instead_of_id')->nullable()->constrained('needs')->restrictOnDelete();
        });
        Schema::create('bag_steps', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('bags')->cascadeOnDelete();
            $table->foreignId('step_id')->constrained('steps')->restrictOnDelete();
        });
        Schema::create('questions', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->string('ref', 64);
            $table->string('asks', 1000);
            $table->string('of', 200);
            $table->date('asked');
            $table->text('answer')->nullable();
            $table->date('answered')->nullable();
            $table->foreignId('need_id')->nullable()->constrained('needs')->restrictOnDelete();
            $table->foreignId('step_id')->nullable()->constrained('steps')->restrictOnDelete();
            $table->foreignId('fault_id')->nullable()->constrained('faults')->restrictOnDelete();
            $table->unique(['build_id', 'ref']);
        });
    }
};
