<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What others say of a value, beside the one that counts. */
return new class extends Migration
{
    public function up(): void
    {
        foreach (['part_specs', 'port_specs'] as $owner) {
            Schema::create("{$owner}_rivals", static function (Blueprint $table) use ($owner): void {
                $table->id();
                $table->foreignId('owner_id')->constrained($owner)->cascadeOnDelete();
                $table->string('value', 200)->nullable();
                $table->boolean('flag')->nullable();
                $table->string('evidence', 12);
                $table->string('source', 200)->nullable();
                $table->string('tolerance', 40)->nullable();
                $table->boolean('confirmed')->nullable();
            });
        }
    }
};
