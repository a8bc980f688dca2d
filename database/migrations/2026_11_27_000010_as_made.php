<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What was made, beside what is planned and what was read; axes that hands turn, and that run on bearings. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('settings', static fn (Blueprint $table) => $table->string('made', 200)->nullable());
        Schema::table('lead_ends', static function (Blueprint $table): void {
            $table->boolean('made')->nullable();
            $table->string('pulled', 40)->nullable();
        });
        Schema::table('axes', static function (Blueprint $table): void {
            $table->foreignId('guides_id')->nullable()->constrained('needs')->restrictOnDelete();
            $table->string('drive_hand_wheel', 40)->nullable();
        });
        Schema::table('needs', static fn (Blueprint $table) => $table->string('opening', 40)->nullable());
        Schema::table('builds', static fn (Blueprint $table) => $table->string('brief_cut_direction', 20)->nullable());
    }
};
