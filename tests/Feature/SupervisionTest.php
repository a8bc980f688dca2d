<?php

declare(strict_types=1);

namespace Tests\Feature;

use Magpie\Bin\Background;
use Magpie\Bin\Instance;
use Magpie\Bin\Logs;
use Magpie\Bin\Project;
use Magpie\Bin\Shell;
use Magpie\Bin\Terminal;
use PHPUnit\Framework\TestCase;
use Tests\Support\HttpClient;

/**
 * What dies is started again, what was confirmed is still there, and nothing a killed start leaves keeps the next one
 * out.
 */
final class SupervisionTest extends TestCase
{
    private const NAME = 'supervision';

    private ?Instance $instance = null;

    protected function tearDown(): void
    {
        $this->instance?->stop();
        Shell::run('rm -rf '.escapeshellarg(self::root().'/.data/'.self::NAME));
    }

    private static function root(): string
    {
        return dirname(__DIR__, 2);
    }

    private function start(): Instance
    {
        $quiet = new Terminal(quiet: true);
        $this->instance = new Instance(new Project(self::root(), $quiet), $quiet, self::NAME);
        $this->instance->claim(null);
        $this->instance->start(true, 3, Shell::freePort());

        return $this->instance;
    }

    /**
     * @return list<int>
     */
    private static function workers(Instance $instance): array
    {
        return Background::children($instance->serverPid()) ?? [];
    }

    public function test_whatever_is_killed_comes_back_and_every_confirmed_edit_is_there(): void
    {
        $instance = $this->start();
        $client = new HttpClient($instance->url());
        $client->post('/api/session/demo');
        $build = $client->get('/api/builds')[0]['builds'][0]['id'];
        $confirmed = [];
        foreach (['worker', 'database', 'server', 'judge', 'database', 'worker'] as $round => $victim) {
            for ($i = 0; $i < 6; $i++) {
                $ref = "s{$round}-{$i}";
                [$status] = $client->send('POST', "/api/builds/{$build}/edits", [
                    'key' => sprintf('%08d-0000-4000-8000-%012d', $round, $i),
                    'label' => $ref,
                    'changes' => [
                        ['section' => 'suppliers', 'create' => ['ref' => $ref, 'name' => $ref, 'currency' => 'GBP']],
                    ],
                ]);
                self::assertSame(200, $status, "before the {$victim} was killed");
                $confirmed[] = $ref;
            }
            self::assertCount(3, self::workers($instance));
            $pid = match ($victim) {
                'worker' => self::workers($instance)[0],
                'database' => $instance->databasePid(),
                'server' => $instance->serverPid(),
                default => (int) file_get_contents(self::root().'/.data/'.self::NAME.'/judge.pid'),
            };
            posix_kill($pid, SIGKILL);
            usleep(300_000);
            if ($victim === 'worker') {
                self::assertCount(2, self::workers($instance), 'It is missed.');
            }
            $instance->lookAfter();
        }
        $refs = array_column($client->get("/api/builds/{$build}")['document']['suppliers'], 'ref');
        self::assertSame([], array_diff($confirmed, $refs), 'Confirmed and gone.');
        self::assertSame(count($refs), count(array_unique($refs)));
    }

    public function test_what_a_killed_start_left_running_does_not_keep_the_next_one_out(): void
    {
        // A start in a process of its own, killed without a chance to stop what it started.
        $script = sys_get_temp_dir().'/magpie-start-'.getmypid().'.php';
        file_put_contents(
            $script,
            '<?php require '.
                var_export(self::root().'/vendor/autoload.php', true).
                '; $q = new Magpie\Bin\Terminal(quiet: true);
            $i = new Magpie\Bin\Instance(new Magpie\Bin\Project('.
                var_export(self::root(), true).
                ', $q), $q, "'.
                self::NAME.
                '"); $i->claim(null); $i->start(true, 2, Magpie\Bin\Shell::freePort()); echo "up\n"; $i->wait();',
        );
        $process = proc_open([PHP_BINARY, $script], [1 => ['pipe', 'w']], $pipes);
        self::assertIsResource($process);
        self::assertSame("up\n", fgets($pipes[1]));
        $pid = proc_get_status($process)['pid'];
        posix_kill($pid, SIGKILL);
        proc_close($process);
        $orphans = static fn (): array => array_filter(
            explode("\n", Shell::run('ps -eo args')[1]),
            static fn (string $l): bool => str_contains($l, '.data/'.self::NAME),
        );
        self::assertNotSame([], $orphans(), 'Its database still runs.');

        $instance = $this->start();
        $client = new HttpClient($instance->url());
        self::assertSame('Isla Brae', $client->post('/api/session/demo')['user']['name']);
        self::assertCount(1, $orphans(), 'Only the database of the start that runs.');
        unlink($script);
    }

    public function test_a_lock_that_only_orphans_hold_is_taken_from_them(): void
    {
        $folder = self::root().'/.data/'.self::NAME;
        @mkdir("{$folder}/mariadb", 0700, true);
        // As an older version left it: a child that inherited the lock and goes by the name of this folder's web
        // server.
        $holder = proc_open(
            ['bash', '-c', 'exec 9<>"$1/lock"; flock 9; exec -a "php $1 public/router.php" sleep 60', 'bash', $folder],
            [],
            $pipes,
        );
        self::assertIsResource($holder);
        for ($i = 0; $i < 50 && Background::holding("{$folder}/lock") === []; $i++) {
            usleep(50_000);
        }
        usleep(200_000);
        $quiet = new Terminal(quiet: true);
        $this->instance = new Instance(new Project(self::root(), $quiet), $quiet, self::NAME);
        $this->instance->claim(null);
        self::assertFalse(proc_get_status($holder)['running'], 'The orphan was ended.');
    }

    public function test_one_that_was_killed_did_not_end_well_and_one_that_hangs_is_not_waited_for_for_ever(): void
    {
        $log = sys_get_temp_dir().'/magpie-ended-'.getmypid();
        $end = static fn (string ...$command): ?int => Background::ended(
            Background::start(array_values($command), $log),
            time() + 2,
        );

        self::assertSame(0, $end('true'));
        self::assertSame(3, $end('sh', '-c', 'exit 3'));
        self::assertSame(255, $end('sh', '-c', 'kill -9 $$'));
        $hangs = Background::start(['sleep', '60'], $log);
        self::assertNull(Background::ended($hangs, time() + 1));
        Background::stop($hangs, 2);
        self::assertFalse(Background::runs($hangs));
        unlink($log);
    }

    public function test_logs_do_not_fill_the_disk(): void
    {
        $log = sys_get_temp_dir().'/magpie-log-'.getmypid();
        $handle = fopen($log, 'a') ?: throw new \RuntimeException('no log');
        for ($round = 0; $round < 6; $round++) {
            fwrite($handle, str_repeat("round {$round}\n", 1_400_000));
            Logs::rotate([$log]);
            fwrite($handle, "after {$round}\n");
        }
        self::assertSame(
            ['', '.1', '.2', '.3'],
            array_map(static fn (string $f): string => substr($f, strlen($log)), glob("{$log}*") ?: []),
        );
        self::assertSame("after 5\n", file_get_contents($log), 'The program that holds it open goes on writing to it.');
        array_map(unlink(...), glob("{$log}*") ?: []);
    }
}
