<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Where things sit in the machine. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('places', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->string('ref', 64);
            $table->unique(['build_id', 'ref']);
            $table->foreignId('need_id')->nullable()->constrained('needs')->restrictOnDelete();
            $table->foreignId('zone_id')->nullable()->constrained('zones')->restrictOnDelete();
            $table->foreignId('workpiece_id')->nullable()->constrained('workpieces')->restrictOnDelete();
            $table->string('name', 200)->nullable();
            $table->unsignedInteger('piece')->nullable();
            $table->string('on', 64)->nullable();
            foreach (['x', 'y', 'z'] as $along) {
                $table->string("{$along}_at", 10)->nullable();
                $table->string("{$along}_of", 64)->nullable();
                $table->string("{$along}_by", 60)->nullable();
            }
            $table->string('turned', 3)->nullable();
            foreach (['length', 'width', 'height'] as $side) {
                $table->string("size_{$side}", 60)->nullable();
            }
            $table->string('row', 1)->nullable();
            $table->string('pitch', 60)->nullable();
            $table->string('free', 60)->nullable();
            $table->string('duct', 10)->nullable();
            $table->boolean('preference')->nullable();
            $table->string('evidence', 20)->nullable();
        });
        foreach (['place_moves' => 'axes', 'place_spans' => 'axes'] as $name => $of) {
            Schema::create($name, static function (Blueprint $table) use ($of): void {
                self::inner($table);
                $table->foreignId('axis_id')->constrained($of)->restrictOnDelete();
            });
        }
        Schema::create('place_meets', static function (Blueprint $table): void {
            self::inner($table);
            $table->foreignId('other_id')->constrained('places')->restrictOnDelete();
        });
        Schema::create('place_reach', static function (Blueprint $table): void {
            self::inner($table);
            $table->string('side', 10);
            $table->string('depth', 60);
            $table->string('for', 200);
        });
    }

    private static function inner(Blueprint $table): void
    {
        $table->id();
        $table->foreignId('owner_id')->constrained('places')->cascadeOnDelete();
    }
};
