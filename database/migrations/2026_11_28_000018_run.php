<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Steps merged into others. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('step_also', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('steps')->cascadeOnDelete();
            $table->string('key', 160);
        });
    }
};
