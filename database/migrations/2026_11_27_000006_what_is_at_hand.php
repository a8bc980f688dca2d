<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Precautions of the place: whether each is at hand. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('builds', static function (Blueprint $table): void {
            foreach (
                [
                    'smoke_alarm',
                    'extinguisher',
                    'eyes_and_ears',
                    'dust_extraction',
                    'shade',
                    'screen',
                    'bare_floor',
                    'fire_watch',
                ] as $name
            ) {
                $table->boolean("ready_{$name}")->nullable();
            }
        });
    }
};
