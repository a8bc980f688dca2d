<?php

declare(strict_types=1);

namespace Tests\Feature;

use Magpie\Bin\Failure;
use Magpie\Bin\Instance;
use Magpie\Bin\Project;
use Magpie\Bin\Safekeeping;
use Magpie\Bin\Shell;
use Magpie\Bin\Terminal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\HttpClient;

/**
 * Data of every state that ever landed is taken over whole; what cannot be is left as it was; and all of it can be kept
 * safe.
 */
final class UpgradeTest extends TestCase
{
    private const NAME = 'upgrade-test';

    private ?Instance $instance = null;

    private static function root(): string
    {
        return dirname(__DIR__, 2);
    }

    private static function folder(): string
    {
        return self::root().'/.data/'.self::NAME;
    }

    private function fresh(bool $claim = true): Instance
    {
        $quiet = new Terminal(quiet: true);
        $this->instance = new Instance(new Project(self::root(), $quiet), $quiet, self::NAME);
        $claim && $this->instance->claim(null);

        return $this->instance;
    }

    protected function tearDown(): void
    {
        $this->instance?->stop();
        Shell::run('rm -rf '.escapeshellarg(self::folder()).'*');
    }

    /**
     * @return \Generator<string, array{string}>
     */
    public static function landed(): \Generator
    {
        foreach (glob(dirname(__DIR__).'/Fixtures/upgrade/*.sql.gz') ?: [] as $file) {
            yield basename($file, '.sql.gz') => [$file];
        }
    }

    /**
     * Lays yesterday's data where the instance will find it.
     *
     * @return int migrations it has not had yet
     */
    private function lay(string $fixture): int
    {
        $instance = $this->fresh();
        $instance->startDatabase(true, Shell::freePort());
        $sql = (string) tempnam(sys_get_temp_dir(), 'magpie');
        file_put_contents($sql, (string) gzdecode((string) file_get_contents($fixture)));
        $instance->databaseClient()->load('magpie', $sql);
        unlink($sql);
        $had = (int) $instance->databaseClient()->statement('SELECT COUNT(*) FROM magpie.migrations');
        $instance->stop();

        return count(glob(self::root().'/database/migrations/*.php') ?: []) - $had;
    }

    #[DataProvider('landed')]
    public function test_data_of_every_landed_state_opens_and_can_be_edited_and_undone(string $fixture): void
    {
        $waiting = $this->lay($fixture);
        $instance = $this->fresh();
        $instance->start(true, 2, Shell::freePort());

        self::assertCount(
            $waiting > 0 ? 1 : 0,
            glob(self::folder().'/backups/before-*.zip') ?: [],
            'A backup was kept before anything was changed.',
        );
        $client = new HttpClient($instance->url());
        $client->post('/api/session/demo');
        $builds = array_column($client->get('/api/builds')[0]['builds'], 'id', 'name');
        // The last of the demo came later.
        self::assertSame(['Dunlin', 'Linnet', 'Numbers'], array_values(array_diff(array_keys($builds), ['Plover'])));
        foreach ($builds as $name => $id) {
            $build = $client->get("/api/builds/{$id}");
            self::assertSame([null, null], [$build['trouble'], $build['judging']], $name);
            self::assertGreaterThan(
                0,
                array_sum($build['overview']['tally'] ?? []) + ($name === 'Numbers' ? 1 : 0),
                $name,
            );
        }
        $dunlin = $client->get("/api/builds/{$builds['Dunlin']}");
        self::assertSame('weather gauges, edited before the upgrade', $dunlin['document']['build']['purpose']);
        self::assertNotContains('quay', array_column($dunlin['document']['suppliers'], 'ref'));
        self::assertSame(
            'Add a supplier',
            $client->post("/api/builds/{$builds['Dunlin']}/redo")['label'],
            'What was undone before the upgrade can still be done again.',
        );
        self::assertContains(
            'quay',
            array_column($client->get("/api/builds/{$builds['Dunlin']}")['document']['suppliers'], 'ref'),
        );

        $numbers = $client->get("/api/builds/{$builds['Numbers']}")['document'];
        self::assertSame(
            ['n608', 'n24', 'Rail'],
            array_column($numbers['needs'], 'ref'),
            'Names that PHP takes for numbers made this build unreadable.',
        );
        $undone = $client->post("/api/builds/{$builds['Numbers']}/undo");
        self::assertSame('Import numbers.csv', $undone['label'] ?? $undone);
        self::assertSame([], $undone['left']);
        self::assertArrayNotHasKey('parts', $client->get("/api/builds/{$builds['Numbers']}")['document']);
    }

    public function test_what_cannot_be_brought_over_stops_before_anything_is_changed(): void
    {
        $this->lay(self::landed()->current()[0] ?? self::fail('There is no dump.'));
        $instance = $this->fresh();
        $instance->startDatabase(true, Shell::freePort());
        $database = $instance->databaseClient();
        // A table of that name stands in the way of the new one: the upgrade would break off half way.
        $database->statement('CREATE TABLE magpie.judgings (id INT)');
        $tables = $database->statement(
            "SELECT GROUP_CONCAT(table_name, '.', column_name, column_type ORDER BY 1) FROM information_schema.columns WHERE table_schema = 'magpie'",
        );
        try {
            $instance->upgrade();
            self::fail('An upgrade that cannot work was carried out.');
        } catch (Failure $failure) {
            self::assertStringContainsString('tried on a copy and failed', $failure->getMessage());
            self::assertStringContainsString('Nothing was changed', $failure->getMessage());
        }
        self::assertSame(
            $tables,
            $database->statement(
                "SELECT GROUP_CONCAT(table_name, '.', column_name, column_type ORDER BY 1) FROM information_schema.columns WHERE table_schema = 'magpie'",
            ),
        );
        self::assertSame('', $database->statement("SHOW DATABASES LIKE 'magpie_rehearsal'"));
    }

    public function test_data_of_a_newer_version_is_left_alone(): void
    {
        $this->lay(self::landed()->current()[0] ?? self::fail('There is no dump.'));
        $instance = $this->fresh();
        $instance->startDatabase(true, Shell::freePort());
        $instance
            ->databaseClient()
            ->statement("INSERT INTO magpie.migrations (migration, batch) VALUES ('2099_01_01_000001_flying', 9)");
        $this->expectExceptionObject(
            new Failure(
                'this data was last used by a newer version (it knows 2099_01_01_000001_flying). Start that version, or restore a backup made by this one. Nothing was changed.',
            ),
        );
        $instance->upgrade();
    }

    public function test_a_backup_made_while_people_work_restores_to_the_same(): void
    {
        $instance = $this->fresh();
        $instance->start(true, 2, Shell::freePort());
        $client = new HttpClient($instance->url());
        $client->post('/api/session/demo');
        $build = $client->get('/api/builds')[0]['builds'][0]['id'];
        $photo = (string) tempnam(sys_get_temp_dir(), 'magpie').'.png';
        $image = imagecreatetruecolor(40, 30);
        imagepng($image ?: throw new \RuntimeException('no picture'), $photo);
        $name = $client->upload("/api/builds/{$build}/photos", 'photo', $photo)['name'];
        $before = $client->get("/api/builds/{$build}");
        $quiet = new Terminal(quiet: true);
        $keeping = new Safekeeping(new Project(self::root(), $quiet), $quiet, self::NAME);
        $archive = sys_get_temp_dir().'/magpie-test-'.getmypid().'.zip';

        self::assertSame(0, $keeping->backup([$archive]));
        $client->post("/api/builds/{$build}/edits", [
            'key' => '11111111-1111-4111-8111-111111111111',
            'label' => 'After',
            'changes' => [
                ['section' => 'build', 'set' => [['path' => ['purpose'], 'to' => 'changed after the backup']]],
            ],
        ]);
        $instance->stop();
        foreach (
            [[[$archive], 'there is data in'], [['/nowhere.zip', '--replace'], 'not a backup']] as [$arguments, $says]
        ) {
            try {
                $keeping->restore($arguments);
                self::fail($says);
            } catch (Failure $failure) {
                self::assertStringContainsString($says, $failure->getMessage());
            }
        }
        Shell::run('rm -rf '.escapeshellarg(self::folder()));
        self::assertSame(0, $keeping->restore([$archive]));

        $again = $this->fresh();
        $again->start(true, 2, Shell::freePort());
        $client = new HttpClient($again->url());
        $client->post('/api/session/demo');
        $after = $client->get("/api/builds/{$build}");
        self::assertSame(
            [$before['revision'], $before['document'], $before['overview']],
            [$after['revision'], $after['document'], $after['overview']],
            'Equal, to the byte, to what it was when the backup began.',
        );
        self::assertGreaterThan(100, strlen($client->raw("/api/builds/{$build}/photos/{$name}")));
        unlink($archive);
        unlink($photo);
    }

    public function test_a_damaged_archive_is_refused_and_changes_nothing(): void
    {
        $archive = sys_get_temp_dir().'/magpie-damaged-'.getmypid().'.zip';
        $zip = new \ZipArchive;
        $zip->open($archive, \ZipArchive::CREATE);
        $zip->addFromString('database.sql', 'DROP EVERYTHING');
        $zip->addFromString(
            'manifest.json',
            (string) json_encode([
                'magpie_backup' => 1,
                'files' => ['database.sql' => ['bytes' => 3, 'sha256' => str_repeat('0', 64)]],
            ]),
        );
        $zip->close();
        $quiet = new Terminal(quiet: true);
        try {
            (new Safekeeping(new Project(self::root(), $quiet), $quiet, self::NAME))->restore([$archive]);
            self::fail('A damaged archive was restored.');
        } catch (Failure $failure) {
            self::assertStringContainsString('is damaged', $failure->getMessage());
        }
        self::assertDirectoryDoesNotExist(self::folder().'.restoring');
        unlink($archive);
    }
}
