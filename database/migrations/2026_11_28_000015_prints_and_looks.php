<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Printers and what came off them; what was looked at on arrival, claims, and what went elsewhere; prices of before. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('printers', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->string('ref', 64);
            $table->string('name', 200);
            foreach (['length', 'width', 'height', 'flow', 'daily'] as $size) {
                $table->string($size, 40)->nullable();
            }
            $table->boolean('finished')->nullable();
            $table->string('notes', 4000)->nullable();
            $table->unique(['build_id', 'ref']);
        });
        Schema::create('printer_plastics', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('printers')->cascadeOnDelete();
            $table->string('name', 40);
        });
        Schema::create('prints', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->string('ref', 64);
            $table->foreignId('part_id')->constrained('parts')->restrictOnDelete();
            $table->foreignId('printer_id')->nullable()->constrained('printers')->restrictOnDelete();
            $table->date('date');
            $table->unsignedInteger('good')->nullable();
            $table->unsignedInteger('failed')->nullable();
            $table->string('mass', 40)->nullable();
            $table->string('time', 40)->nullable();
            $table->boolean('fit')->nullable();
            $table->string('notes', 4000)->nullable();
            $table->unique(['build_id', 'ref']);
        });
        Schema::table('purchases', static function (Blueprint $table): void {
            $table->string('lot', 200)->nullable();
            $table->date('claim_by')->nullable();
            $table->string('claim', 12)->nullable();
            $table->decimal('rate', 22, 10)->nullable();
            $table->unsignedInteger('moved')->nullable();
            $table->unsignedInteger('sold')->nullable();
            $table->decimal('fetched', 18, 6)->nullable();
        });
        Schema::create('purchase_looks', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('purchases')->cascadeOnDelete();
            $table->string('what', 200);
            $table->string('result', 8);
            $table->date('date');
            $table->unsignedInteger('pieces')->nullable();
            $table->string('notes', 4000)->nullable();
        });
        Schema::create('purchase_look_photos', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('purchase_looks')->cascadeOnDelete();
            $table->string('name', 200);
        });
        Schema::create('offer_past', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('offers')->cascadeOnDelete();
            $table->date('date');
            $table->decimal('price', 18, 6);
        });
        Schema::table('needs', static fn (Blueprint $table) => $table->decimal('worth', 18, 6)->nullable());
    }
};
