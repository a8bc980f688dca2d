<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/**
 * The row of a build is nearly as long as one may be, and a backup that lays it out at once did not restore: what may be
 * longer than 255 bytes is kept beside the row.
 */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('builds', static function (Blueprint $table): void {
            $table->string('kind', 70)->change();
            $table->string('brief_cut_direction', 70)->nullable()->change();
        });
    }
};
