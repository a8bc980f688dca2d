<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        DB::statement('ALTER TABLE memberships DROP CONSTRAINT memberships_role');
        DB::table('memberships')->where('role', 'member')->update(['role' => 'builder']);
        DB::statement("ALTER TABLE memberships ALTER COLUMN role SET DEFAULT 'builder'");
        DB::statement(
            "ALTER TABLE memberships ADD CONSTRAINT memberships_role CHECK (role IN ('owner', 'builder', 'reader'))",
        );
        // What somebody may do with one build, in place of what the workshop gives; or without being of the workshop.
        Schema::create('build_people', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->string('role', 16);
            $table->timestamps();
            $table->unique(['build_id', 'user_id']);
        });
        Schema::create('invitations', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('workshop_id')->constrained()->cascadeOnDelete();
            $table->foreignId('build_id')->nullable()->constrained()->cascadeOnDelete();
            $table->string('role', 16);
            $table->string('token', 64)->unique();
            $table->string('for', 120)->nullable();
            $table->foreignId('made_by')->nullable()->constrained('users')->nullOnDelete();
            $table->dateTime('expires_at');
            $table->dateTime('accepted_at')->nullable();
            $table->foreignId('accepted_by')->nullable()->constrained('users')->nullOnDelete();
            $table->timestamps();
        });
        Schema::create('share_links', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->string('token', 64)->unique();
            $table->string('label', 120);
            $table->foreignId('made_by')->nullable()->constrained('users')->nullOnDelete();
            $table->dateTime('expires_at');
            $table->dateTime('opened_at')->nullable();
            $table->timestamps();
        });
        foreach (['build_people' => 'build_people_role', 'invitations' => 'invitations_role'] as $table => $name) {
            DB::statement("ALTER TABLE {$table} ADD CONSTRAINT {$name} CHECK (role IN ('owner', 'builder', 'reader'))");
        }
        // Browsers an account is signed in at; to delete one signs it out.
        Schema::create('sign_ins', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->string('device', 64)->unique();
            $table->string('agent', 250);
            $table->string('address', 45);
            $table->boolean('stays')->default(false);
            $table->dateTime('seen_at');
            $table->timestamps();
        });
        Schema::create('password_reset_tokens', function (Blueprint $table): void {
            $table->string('email', 190)->primary();
            $table->string('token');
            $table->timestamp('created_at')->nullable();
        });
        Schema::table('users', function (Blueprint $table): void {
            // Of the demo: everybody knows the password.
            $table->boolean('invented')->default(false);
            $table->text('second_secret')->nullable();
            $table->dateTime('second_since')->nullable();
            // The last period whose code was taken: none is good twice.
            $table->unsignedBigInteger('second_period')->default(0);
            $table->text('recovery_codes')->nullable();
        });
        DB::statement(
            'UPDATE users SET invented = 1 WHERE EXISTS (SELECT 1 FROM memberships m JOIN workshops w ON w.id = m.workshop_id WHERE m.user_id = users.id AND w.demo = 1) '.
                'AND NOT EXISTS (SELECT 1 FROM memberships m JOIN workshops w ON w.id = m.workshop_id WHERE m.user_id = users.id AND w.demo = 0)',
        );
        // Who is at a build now, and at which view.
        Schema::create('presences', function (Blueprint $table): void {
            $table->foreignId('build_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->string('view', 64);
            $table->dateTime('seen_at', 3);
            $table->primary(['build_id', 'user_id']);
        });
    }
};
