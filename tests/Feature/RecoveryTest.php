<?php

declare(strict_types=1);

namespace Tests\Feature;

use Magpie\Bin\Instance;
use Magpie\Bin\Project;
use Magpie\Bin\Shell;
use Magpie\Bin\Terminal;
use PHPUnit\Framework\TestCase;
use Tests\Support\HttpClient;

/**
 * The database is killed in the middle of an import; on the next start either all of it is there or nothing, and it is
 * said.
 */
final class RecoveryTest extends TestCase
{
    public function test_an_import_cut_off_by_a_killed_database_left_nothing_and_says_so(): void
    {
        $root = dirname(__DIR__, 2);
        $quiet = new Terminal(quiet: true);
        $start = static function (bool $fresh) use ($root, $quiet): Instance {
            $instance = new Instance(new Project($root, $quiet), $quiet, 'recovery');
            $instance->claim(null);
            if ($fresh) {
                $instance->wipe();
            }
            $instance->start(true, 3, Shell::freePort());

            return $instance;
        };
        $instance = $start(true);
        $client = new HttpClient($instance->url());
        $client->post('/api/session/demo');
        $build = $client->get('/api/builds')[0]['builds'][0]['id'];
        $parts = count($client->get("/api/builds/{$build}")['document']['parts']);
        $file = (string) tempnam(sys_get_temp_dir(), 'magpie');
        file_put_contents(
            $file,
            "Item,Qty,Voltage\n".
                implode("\n", array_map(static fn (int $i): string => "Fan {$i},1,24 V", range(1, 20_000))),
        );
        $key = $client->upload("/api/builds/{$build}/imports", 'file', $file)['key'];
        self::assertSame('running', $client->post("/api/imports/{$key}/confirm")['state']);
        for ($i = 0; $i < 400 && ($seen = $client->get("/api/imports/{$key}")['seen']) === 0; $i++) {
            usleep(50_000);
        }
        self::assertGreaterThan(0, $seen ?? 0, 'The import was under way.');
        posix_kill($instance->databasePid(), SIGKILL);
        self::assertSame(
            503,
            $client->get("/api/imports/{$key}")['status'] ?? 0,
            'While the database is away it says so.',
        );
        $instance->stop();

        $again = $start(false);
        $client = new HttpClient($again->url());
        $client->post('/api/session/demo');
        self::assertSame('interrupted', $client->get("/api/imports/{$key}")['state']);
        self::assertCount($parts, $client->get("/api/builds/{$build}")['document']['parts'], 'Nothing of the list.');
        $done = $client->post("/api/imports/{$key}/confirm");
        for ($i = 0; $i < 1200 && $done['state'] === 'running'; $i++) {
            usleep(100_000);
            $done = $client->get("/api/imports/{$key}");
        }
        self::assertSame(
            ['done', 20_000],
            [$done['state'], $done['stored']],
            'And the same list can be stored after all.',
        );
        $again->stop();
        unlink($file);
    }
}
