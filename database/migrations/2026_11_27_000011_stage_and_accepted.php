<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** How far a build and its places are, and findings that are accepted with a reason. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('builds', static fn (Blueprint $table) => $table->string('stage', 70)->nullable());
        Schema::table('needs', static fn (Blueprint $table) => $table->string('stage', 12)->nullable());
        Schema::create('accepted', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->string('ref', 64)->collation('utf8mb4_bin');
            $table->string('finding', 200);
            $table->string('why', 2000);
            $table->string('who', 120);
            $table->string('of', 40);
            $table->string('until', 10)->nullable();
            $table->unique(['build_id', 'ref']);
        });
    }
};
