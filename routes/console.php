<?php

declare(strict_types=1);

use App\Builds\Workspace;
use App\Library\Shelf;
use App\Models\Import;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Magpie\Core\Format\BuildFile;

Artisan::command('magpie:demo', function (): int {
    if (Workshop::query()->where('demo', true)->exists()) {
        $this->line('The demo workshop is there already.');

        return 0;
    }
    DB::transaction(static function (): void {
        $workshop = Workshop::query()->create(['name' => 'Thistle Quay Workshop', 'slug' => 'thistle-quay', 'demo' => true]);
        foreach ([['Isla Brae', 'isla@thistle-quay.example', 'owner'], ['Tam Corrie', 'tam@thistle-quay.example', 'member']] as [$name, $email, $role]) {
            $workshop->members()->attach(User::query()->create(['name' => $name, 'email' => $email, 'password' => 'magpie-demo']), ['role' => $role]);
        }
        foreach (glob(base_path('demo/*.json')) ?: [] as $file) {
            Workspace::add($workshop, BuildFile::read((string) file_get_contents($file)));
        }
        (new Shelf($workshop, null))->addExamples();
    });
    $this->line('The demo workshop is loaded.');

    return 0;
})->purpose('Load the demo workshop');

Artisan::command('magpie:account {name} {email} {workshop}', function (string $name, string $email, string $workshop): int {
    $password = (string) $this->secret('Password (at least 10 characters)');
    if (strlen($password) < 10 || ! filter_var($email, FILTER_VALIDATE_EMAIL)) {
        $this->error('A proper e-mail address and a password of at least 10 characters are wanted.');

        return 1;
    }
    DB::transaction(static function () use ($name, $email, $workshop, $password): void {
        $found = Workshop::query()->firstOrCreate(['slug' => str($workshop)->slug()->value()], ['name' => $workshop]);
        $found->members()->attach(User::query()->create(['name' => $name, 'email' => $email, 'password' => $password]), ['role' => $found->members()->exists() ? 'member' : 'owner']);
    });
    $this->line("{$name} can sign in to {$workshop}.");

    return 0;
})->purpose('Make an account and its workshop');

// Called at start: an import that was cut off stored nothing, and says so from now on.
Artisan::command('magpie:settle', function (): int {
    // What was judged before may have been judged by older rules.
    DB::table('snapshots')->delete();
    Cache::flush();
    $cut = Import::query()->where('state', 'running')->update(['state' => 'interrupted']);
    $this->line($cut === 0 ? 'Nothing was left half done.' : "{$cut} import was cut off; nothing of it was stored.");

    return 0;
})->purpose('Settle what an unclean stop left behind');
