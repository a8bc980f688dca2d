<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What version 2 of the build file can say: seats, bonds that were read, settings that are planned, gaps preferred. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('needs', static fn (Blueprint $t) => $t->string('sits_in', 140)->nullable());
        Schema::table('leads', static fn (Blueprint $t) => $t->string('bond', 60)->nullable());
        Schema::table('settings', static fn (Blueprint $t) => $t->string('planned', 200)->nullable());
        Schema::table('clearances', static fn (Blueprint $t) => $t->boolean('preference')->nullable());
    }
};
