<?php

declare(strict_types=1);

use App\Accounts\EventKind;
use App\Accounts\EventLog;
use App\Accounts\Newcomer;
use App\Accounts\Password;
use App\Builds\Document;
use App\Builds\Judging;
use App\Builds\Store;
use App\Builds\Workspace;
use App\Library\Shelf;
use App\Models\Build;
use App\Models\Errand;
use App\Models\Import;
use App\Models\User;
use App\Models\Workshop;
use App\Resident\Server;
use Illuminate\Auth\Passwords\PasswordBroker;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use Illuminate\Support\Facades\Password as Broker;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\Schema;
use Illuminate\Support\Facades\Storage;
use Magpie\Core\Format\BuildFile;

Artisan::command('magpie:demo', function (): int {
    if (Workshop::query()->where('demo', true)->exists()) {
        $this->line('The demo workshop is there already.');

        return 0;
    }
    DB::transaction(static function (): void {
        $workshop = Workshop::query()->create([
            'name' => 'Thistle Quay Workshop',
            'slug' => 'thistle-quay',
            'demo' => true,
        ]);
        foreach (
            [['Isla Brae', 'isla@thistle-quay.example', 'owner'], ['Tam Corrie', 'tam@thistle-quay.example', 'builder']] as [$name, $email, $role]
        ) {
            $workshop
                ->members()
                ->attach(User::query()->create(['name' => $name, 'email' => $email, 'password' => 'magpie-demo', 'invented' => true]), [
                    'role' => $role,
                ]);
        }
        foreach (glob(base_path('demo/*.json')) ?: [] as $file) {
            Workspace::add($workshop, BuildFile::read((string) file_get_contents($file)));
        }
        (new Shelf($workshop, null))->addExamples();
    });
    $this->line('The demo workshop is loaded.');

    return 0;
})->purpose('Load the demo workshop');

Artisan::command('magpie:account {name} {email} {workshop}', function (
    string $name,
    string $email,
    string $workshop,
): int {
    $given = getenv('MAGPIE_PASSWORD');
    $password = is_string($given) ? $given : (string) $this->secret('Password (at least '.Password::SHORTEST.' characters)');
    $why = Newcomer::refusal($name, $email, $password, $workshop)[1] ?? null;
    if ($why !== null) {
        $this->error($why);

        return 1;
    }
    Newcomer::make($name, $email, $password, $workshop);
    $this->line("{$name} can sign in to {$workshop}.");

    return 0;
})->purpose('Make an account and its workshop');

Artisan::command('magpie:password {email}', function (string $email): int {
    $user = User::query()->where(['email' => $email, 'invented' => false])->first();
    if ($user === null) {
        $this->error("Nobody has an account with {$email}.");

        return 1;
    }
    $broker = Broker::broker();
    assert($broker instanceof PasswordBroker);
    $this->line(
        "For {$user->name}, good for an hour and once: ".
            config()->string('app.url').
            '/reset?'.
            http_build_query(['token' => $broker->createToken($user), 'email' => $user->email]),
    );

    return 0;
})->purpose('Make a link to set a new password');

// Called at start: an import that was cut off stored nothing, and says so from now on.
Artisan::command('magpie:settle', function (): int {
    // What was kept before may have been read and judged by older rules: it is shown in lists until it is judged again.
    DB::table('snapshots')->update(['revision' => 0, 'judged' => 0]);
    DB::table('judgings')->delete();
    DB::table('judgings')->insertUsing(
        ['build_id', 'revision', 'state', 'at'],
        DB::table('builds')->selectRaw("id, revision, 'queued', now(3)"),
    );
    Cache::flush();
    // What the queue had handed out is in nobody's hands; what it has not waits on.
    DB::table('jobs')->whereNotNull('reserved_at')->delete();
    Errand::query()->where('state', 'running')->get()->each->cutOff();
    $cut = Import::query()
        ->where('state', 'running')
        ->update(['state' => 'interrupted']);
    $forgotten = Import::query()
        ->whereIn('state', ['previewed', 'interrupted'])
        ->where('updated_at', '<', now()->subDays(14));
    $forgotten->update(['state' => 'cancelled']);
    // The files of lists that were dealt with are of no use to anybody.
    $wanted = Import::query()
        ->whereIn('state', ['previewed', 'interrupted'])
        ->pluck('key')
        ->flip();
    foreach (Storage::files('imports') as $file) {
        if (! $wanted->has(basename($file, '.csv'))) {
            Storage::delete($file);
        }
    }
    $this->line($cut === 0 ? 'Nothing was left half done.' : "{$cut} import was cut off; nothing of it was stored.");

    return 0;
})->purpose('Settle what an unclean stop left behind');

// The background process: judges what is too large to be judged while somebody waits.
Artisan::command('magpie:judge', function (): int {
    ini_set('memory_limit', '3G');
    set_time_limit(0);
    // It ends with the process that started it, and makes way for a fresh one now and then.
    for (
        $parent = (int) getenv('MAGPIE_PARENT'), $until = time() + 3600;
        posix_getppid() === $parent && time() < $until && memory_get_usage() < 1 << 30;

    ) {
        gc_disable();
        $worked = Judging::next();
        gc_enable();
        $worked ? gc_collect_cycles() : usleep(400_000);
    }

    return 0;
})->purpose('Judge builds in the background');

// What people ask for that takes longer than they wait: their errands and lists, by Laravel's own queue.
Artisan::command('magpie:errands', function (): int {
    ini_set('memory_limit', '3G');
    $parent = (int) getenv('MAGPIE_PARENT');
    // It ends with the process that started it, once what it does is done.
    Queue::looping(static fn (): bool => posix_getppid() === $parent || posix_kill(posix_getpid(), SIGTERM));

    return $this->call('queue:work', [
        '--sleep' => '0.5',
        '--tries' => '1',
        '--timeout' => '900',
        '--memory' => '1024',
        '--max-time' => '3600',
        '--quiet' => true,
    ]);
})->purpose('Do errands in the background');

// The resident inspector: keeps the builds being worked on read and judged, so that an edit costs what it touches.
Artisan::command('magpie:inspector', function (): int {
    ini_set('memory_limit', '3G');
    set_time_limit(0);
    $path = config('magpie.inspector');
    if (! is_string($path)) {
        $this->error('MAGPIE_INSPECTOR names no socket to listen at.');

        return 1;
    }
    $parent = (int) getenv('MAGPIE_PARENT');
    // It ends with the process that started it.
    (new Server($path, (int) config('magpie.check'), static fn (string $line) => Log::error($line)))->run(
        static fn (): bool => posix_getppid() === $parent,
    );

    return 0;
})->purpose('Keep builds judged while they are edited');

// In the list of events of whoever owns a workshop here.
Artisan::command('magpie:restored', function (): int {
    EventLog::ofServer(EventKind::Restored);

    return 0;
})->purpose('Write down that everything was restored from a backup');

// For the upgrade: which migrations this version knows and the database has had.
Artisan::command('magpie:migrations', function (): int {
    $known = array_map(
        static fn (string $f): string => basename($f, '.php'),
        glob(database_path('migrations/*.php')) ?: [],
    );
    /** @var list<string> $ran */
    $ran = Schema::hasTable('migrations') ? DB::table('migrations')->orderBy('id')->pluck('migration')->all() : [];
    $this->line(
        (string) json_encode([
            'ran' => $ran,
            'pending' => array_values(array_diff($known, $ran)),
            'unknown' => array_values(array_diff($ran, $known)),
        ]),
    );

    return 0;
})->purpose('Say which migrations ran and which wait');

// For the upgrade: every build is read once; those that cannot be are named and do not stop it, since they open for
// repair.
Artisan::command('magpie:readable', function (): int {
    $troubles = [];
    foreach (Build::query()->orderBy('id')->lazyById(20) as $build) {
        $trouble = Document::from((new Store($build))->document())->trouble();
        if ($trouble !== null) {
            $troubles[] = "{$build->name} ({$trouble['pointer']})";
        }
    }
    $all = Build::query()->count();
    $this->line(
        "{$all} builds read".
            ($troubles === [] ? '' : '; to be repaired: '.implode(', ', array_slice($troubles, 0, 5))),
    );

    return 0;
})->purpose('Read every build once');
