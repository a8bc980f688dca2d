<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        // Who came in, who let whom in, and what protects an account: for owners, and for whoever it is about.
        Schema::create('events', function (Blueprint $table): void {
            $table->id();
            $table->string('kind', 32);
            // By whom, and of whom where that is somebody else.
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->foreignId('about_id')->nullable()->constrained('users')->nullOnDelete();
            $table->foreignId('workshop_id')->nullable()->constrained()->cascadeOnDelete();
            $table->string('build', 120)->nullable();
            $table->string('detail', 250)->nullable();
            $table->string('address', 45)->nullable();
            // Told to whoever it is about when they come in next.
            $table->boolean('notice')->default(false);
            $table->dateTime('read_at')->nullable();
            $table->dateTime('at', 3);
            $table->index(['workshop_id', 'id']);
            $table->index(['user_id', 'id']);
        });
        // Browsers an account was used from before, by a mark of their own.
        Schema::create('browsers', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->string('mark', 64);
            $table->dateTime('seen_at');
            $table->unique(['user_id', 'mark']);
        });
        Schema::table('share_links', function (Blueprint $table): void {
            $table->boolean('money')->default(false);
        });
        // What an errand took, for the quota of visitors.
        Schema::table('errands', function (Blueprint $table): void {
            $table->unsignedBigInteger('bytes')->default(0);
            $table->unsignedInteger('seconds')->default(0);
        });
        // A hash of what was asked, so that a key is good for one edit only.
        Schema::table('edits', function (Blueprint $table): void {
            $table->char('content', 64)->nullable();
        });
        Schema::table('workshops', function (Blueprint $table): void {
            $table->boolean('requires_second')->default(false);
        });
        Schema::table('users', function (Blueprint $table): void {
            $table->unsignedInteger('second_wrong')->default(0);
            $table->date('second_wrong_on')->nullable();
        });
        // A quick hash of a short code can be tried through: what is kept is hashed once more, slowly.
        foreach (DB::table('users')->whereNotNull('recovery_codes')->get(['id', 'recovery_codes']) as $user) {
            $quick = json_decode((string) $user->recovery_codes, true) ?: [];
            DB::table('users')
                ->where('id', $user->id)
                ->update(['recovery_codes' => json_encode(array_map(Hash::make(...), array_values($quick)))]);
        }
    }
};
