<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What moves with an axis and what turns with it, and what was measured of its screw as it is built in. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('axes', static function (Blueprint $table): void {
            foreach (['end_play', 'turning_torque', 'shock'] as $name) {
                $table->string("drive_{$name}", 40)->nullable();
            }
        });
        $this->inner(
            'axis_carries',
            static fn (Blueprint $table) => $table->foreignId('need_id')->constrained('needs')->restrictOnDelete(),
        );
        $this->inner('axis_turning', static function (Blueprint $table): void {
            $table->string('name', 200);
            $table->string('outer', 40);
            $table->string('bore', 40)->nullable();
            $table->string('length', 40);
            $table->string('material', 12);
            $table->string('ratio', 40)->nullable();
        });
    }

    /** @param  callable(Blueprint): mixed  $columns */
    private function inner(string $name, callable $columns): void
    {
        Schema::create($name, static function (Blueprint $table) use ($columns): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('axes')->cascadeOnDelete();
            $columns($table);
        });
    }
};
