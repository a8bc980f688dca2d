<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Steps merged into others; and what is read, ticked, tried, aligned, run, looked after and made on a machine that runs. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('step_also', static function (Blueprint $table): void {
            self::inner($table, 'steps');
            $table->string('key', 160);
        });
        Schema::create('readings', static function (Blueprint $table): void {
            self::entry($table);
            $table->string('what', 24);
            $table->string('value', 60);
            $table->foreignId('need_id')->nullable()->constrained('needs')->restrictOnDelete();
            $table->foreignId('axis_id')->nullable()->constrained('axes')->restrictOnDelete();
            $table->string('port', 64)->nullable();
            $table->string('scenario', 64)->nullable();
            $table->string('part', 64)->nullable();
            $table->string('accuracy', 60)->nullable();
            $table->string('instrument', 200)->nullable();
            $table->string('by', 60)->nullable();
            $table->unsignedBigInteger('at')->nullable();
            $table->string('photo', 200)->nullable();
            $table->text('note')->nullable();
            $table->boolean('simulated')->nullable();
            $table->text('struck')->nullable();
        });
        Schema::create('rungs', static function (Blueprint $table): void {
            self::entry($table);
            $table->text('override')->nullable();
            $table->string('by', 60)->nullable();
            $table->unsignedBigInteger('at')->nullable();
            $table->text('note')->nullable();
        });
        Schema::create('rung_ticks', static function (Blueprint $table): void {
            self::inner($table, 'rungs');
            $table->string('key', 200);
        });
        Schema::create('rung_over', static function (Blueprint $table): void {
            self::inner($table, 'rungs');
            $table->string('says', 500);
        });
        Schema::create('power_attempts', static function (Blueprint $table): void {
            self::entry($table);
            $table->unsignedBigInteger('at');
            $table->string('breaker', 20);
            $table->string('stops', 20);
            $table->boolean('started');
            $table->string('rung', 64)->nullable();
            $table->string('lamps', 500)->nullable();
            $table->string('by', 60)->nullable();
            $table->text('note')->nullable();
        });
        Schema::create('alignments', static function (Blueprint $table): void {
            self::entry($table);
            $table->string('kind', 40);
            $table->foreignId('axis_id')->nullable()->constrained('axes')->restrictOnDelete();
            $table->string('instrument', 200)->nullable();
            $table->string('holder', 200)->nullable();
            $table->string('by', 60)->nullable();
            $table->unsignedBigInteger('at')->nullable();
            $table->text('note')->nullable();
        });
        Schema::create('alignment_given', static function (Blueprint $table): void {
            self::inner($table, 'alignments');
            $table->string('key', 64);
            $table->text('value');
        });
        Schema::create('machine_jobs', static function (Blueprint $table): void {
            self::entry($table);
            $table->string('name', 200);
            $table->unsignedBigInteger('at');
            foreach (['time', 'spindle', 'heat'] as $time) {
                $table->string($time, 40)->nullable();
            }
            $table->string('material', 200)->nullable();
            $table->text('note')->nullable();
        });
        Schema::create('machine_job_axes', static function (Blueprint $table): void {
            self::inner($table, 'machine_jobs');
            $table->foreignId('axis_id')->constrained('axes')->restrictOnDelete();
        });
        Schema::create('upkeep_rounds', static function (Blueprint $table): void {
            self::entry($table);
            $table->string('task', 120);
            $table->unsignedBigInteger('at');
            $table->text('found')->nullable();
            $table->boolean('trouble')->nullable();
            $table->string('by', 60)->nullable();
        });
        Schema::create('test_pieces', static function (Blueprint $table): void {
            self::entry($table);
            $table->string('piece', 200);
            $table->unsignedBigInteger('at');
            $table->string('recipe', 200)->nullable();
            $table->string('material', 200)->nullable();
            $table->string('changed', 500)->nullable();
            $table->string('by', 60)->nullable();
        });
        Schema::create('test_features', static function (Blueprint $table): void {
            self::inner($table, 'test_pieces');
            $table->string('name', 200);
            $table->string('nominal', 60);
            $table->string('tolerance', 60);
            $table->string('measured', 60)->nullable();
        });
    }

    private static function entry(Blueprint $table): void
    {
        $table->id();
        $table->foreignId('build_id')->constrained()->cascadeOnDelete();
        $table->string('ref', 64);
        $table->unique(['build_id', 'ref']);
    }

    private static function inner(Blueprint $table, string $owner): void
    {
        $table->id();
        $table->foreignId('owner_id')->constrained($owner)->cascadeOnDelete();
    }
};
