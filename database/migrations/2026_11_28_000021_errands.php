<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        // Laravel's own queue.
        Schema::create('jobs', function (Blueprint $table): void {
            $table->id();
            $table->string('queue')->index();
            $table->longText('payload');
            $table->unsignedTinyInteger('attempts');
            $table->unsignedInteger('reserved_at')->nullable();
            $table->unsignedInteger('available_at');
            $table->unsignedInteger('created_at');
        });
        // What somebody asked for that takes longer than one waits: how far it is, and what came of it.
        Schema::create('errands', function (Blueprint $table): void {
            $table->id();
            $table->uuid('key')->unique();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->string('asker', 40);
            $table->string('kind', 16);
            $table->string('name', 150)->nullable();
            $table->unsignedBigInteger('revision');
            $table->string('state', 16)->default('waiting');
            $table->text('given')->nullable();
            $table->unsignedBigInteger('done')->default(0);
            $table->unsignedBigInteger('of')->default(0);
            $table->mediumText('answer')->nullable();
            $table->string('trouble', 500)->nullable();
            $table->dateTime('beat_at', 3);
            $table->timestamps();
            $table->index(['asker', 'state']);
        });
        DB::statement(
            "ALTER TABLE errands ADD CONSTRAINT errands_state CHECK (state IN ('waiting', 'running', 'done', 'failed', 'stopped'))",
        );
        Schema::table('imports', function (Blueprint $table): void {
            // Why what was confirmed could not be stored.
            $table->string('trouble', 500)->nullable();
        });
    }
};
