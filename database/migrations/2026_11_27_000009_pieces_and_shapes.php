<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Pieces that have a name and a batch, and what is round of two that must not meet. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('need_pieces', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('needs')->cascadeOnDelete();
            $table->string('name', 200);
            $table->string('batch', 200)->nullable();
        });
        Schema::table('clearance_sides', static fn (Blueprint $table) => $table->string('round', 1)->nullable());
    }
};
