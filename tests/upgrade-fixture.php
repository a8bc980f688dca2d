<?php

declare(strict_types=1);

// Stores the demo of this checkout, edited a little, as a dump that every later version must be able to take over:
//     php tests/upgrade-fixture.php NAME
// One is made for each state that lands; tests/Feature/UpgradeTest.php upgrades all of them.

use App\Builds\Editor;
use App\Imports\Importer;
use App\Models\Build;
use App\Models\Import;
use App\Models\User;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Support\Str;
use Magpie\Bin\Instance;
use Magpie\Bin\Project;
use Magpie\Bin\Terminal;
use Magpie\Core\PartsList\Mapping;

require __DIR__.'/../vendor/autoload.php';

$root = dirname(__DIR__);
$name = $argv[1] ?? 'unnamed';
$terminal = new Terminal;
$project = new Project($root, $terminal);
$instance = new Instance($project, $terminal, 'fixture');
$instance->claim(null);
$instance->wipe();
$instance->startDatabase(true);
$project->artisan('fixture', ['migrate', '--force', '--no-interaction']);
$project->artisan('fixture', ['magpie:demo']);

putenv('MAGPIE_INSTANCE=fixture');
$app = require "{$root}/bootstrap/app.php";
$app->make(Kernel::class)->bootstrap();

// What a builder leaves behind: an edit, one taken back, and a parts list whose names are numbers.
$user = User::query()->orderBy('id')->firstOrFail();
$build = Build::query()->where('slug', 'dunlin')->firstOrFail();
(new Editor($build, $user))->apply((string) Str::uuid(), 'Rename the build', [
    ['section' => 'build', 'set' => [['path' => ['purpose'], 'to' => 'weather gauges, edited before the upgrade']]],
]);
(new Editor($build->refresh(), $user))->apply((string) Str::uuid(), 'Add a supplier', [
    ['section' => 'suppliers', 'create' => ['ref' => 'quay', 'name' => 'Quay Spares', 'currency' => 'GBP']],
]);
(new Editor($build->refresh(), $user))->revert(false);
$list = Build::query()->create([
    'workshop_id' => $build->workshop_id,
    'slug' => 'numbers',
    'name' => 'Numbers',
    'kind' => 'router',
    'currency' => 'GBP',
    'revision' => 1,
]);
$file = tempnam(sys_get_temp_dir(), 'magpie');
file_put_contents(
    (string) $file,
    "name,family,quantity,price\n608,bearing,4,1.20\n24,power supply,1,30\nRail,linear rail,2,55\n",
);
$import = Import::query()->create([
    'build_id' => $list->id,
    'user_id' => $user->id,
    'key' => (string) Str::uuid(),
    'file_name' => 'numbers.csv',
    'rows' => 3,
    'state' => 'running',
    'mapping' => Mapping::guess(['name', 'family', 'quantity', 'price'], 'GBP')->toArray(),
]);
(new Importer($import, (string) $file, '2026-11-01'))->run();
Illuminate\Support\Facades\DB::table('snapshots')->delete();
if (Illuminate\Support\Facades\Schema::hasTable('library_parts')) {
    $last = Illuminate\Support\Facades\DB::table('library_parts')->orderBy('id')->skip(20)->value('id');
    Illuminate\Support\Facades\DB::table('library_parts')->where('id', '>=', $last)->delete();
}

$settings = "{$root}/.data/fixture/mariadb/my.cnf";
preg_match('/^socket = (.+)$/m', (string) file_get_contents($settings), $socket);
preg_match('/^DB_PASSWORD="?([^"\n]+)/m', (string) file_get_contents("{$root}/.data/fixture/.env"), $password);
@mkdir("{$root}/tests/Fixtures/upgrade", 0755, true);
$target = "{$root}/tests/Fixtures/upgrade/{$name}.sql.gz";
passthru(
    sprintf(
        'MYSQL_PWD=%s mariadb-dump --no-defaults --socket=%s --user=root --skip-dump-date --skip-comments --single-transaction magpie | gzip -9n > %s',
        escapeshellarg($password[1] ?? ''),
        escapeshellarg($socket[1] ?? ''),
        escapeshellarg($target),
    ),
    $status,
);
$instance->stop();
echo $status === 0 ? "{$target}\n" : "failed\n";
exit($status);
