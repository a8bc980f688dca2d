<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Prices for more, least orders and stock; and orders from being considered to being accepted or sent back. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('suppliers', static function (Blueprint $table): void {
            $table->decimal('least_order', 18, 6)->nullable();
            $table->boolean('avoid')->nullable();
        });
        Schema::table('offers', static function (Blueprint $table): void {
            $table->unsignedInteger('least')->nullable();
            $table->unsignedInteger('stock')->nullable();
            $table->unsignedSmallInteger('lead_days')->nullable();
            $table->boolean('pinned')->nullable();
        });
        Schema::create('offer_breaks', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('owner_id')->constrained('offers')->cascadeOnDelete();
            $table->unsignedInteger('from');
            $table->decimal('price', 18, 6);
        });
        Schema::table('purchases', static function (Blueprint $table): void {
            $table->string('state', 12)->nullable();
            $table->decimal('agreed', 18, 6)->nullable();
            $table->string('order', 200)->nullable();
            $table->date('due')->nullable();
            $table->string('article', 200)->nullable();
            $table->unsignedInteger('accepted')->nullable();
            $table->unsignedInteger('returned')->nullable();
        });
    }
};
