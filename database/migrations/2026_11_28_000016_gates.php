<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Why a step was done though something kept it, and what of the model it follows from. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('steps', static function (Blueprint $table): void {
            $table->string('waived', 2000)->nullable();
            $table->string('derived', 160)->nullable();
        });
    }
};
