<?php

declare(strict_types=1);

namespace Tests\Support;

use Magpie\Bin\Background;
use Magpie\Bin\Database;
use Magpie\Bin\DatabaseClient;
use Magpie\Bin\Failure;
use Magpie\Bin\Production\Server;
use Magpie\Bin\Production\Settings;
use Magpie\Bin\Project;
use Magpie\Bin\Shell;
use Magpie\Bin\Terminal;
use Magpie\Bin\Upgrade;

/**
 * The production set-up as its templates write it, on this machine: nginx before several php-fpm application servers with no
 * sticky sessions, MariaDB, and where asked for Redis for sessions and cache. In place of systemd, whoever made it ends it.
 */
final class Hosted
{
    public readonly Server $server;

    private readonly Database $database;

    private readonly string $home;

    /** @var array<string, int> what runs, by name */
    private array $running = [];

    public function __construct(public readonly string $root, int $servers, int $workers, bool $redis)
    {
        $this->home = "{$root}/.data/hosted";
        Shell::run('rm -rf '.escapeshellarg($this->home));
        foreach (['files', 'sessions', 'cache', 'backups', 'etc', 'logs', 'run'] as $folder) {
            mkdir("{$this->home}/{$folder}", 0750, true);
        }
        $this->server = new Server(
            $root,
            'hosted',
            'hosted',
            '127.0.0.1',
            "{$this->home}/etc",
            $this->home,
            "{$this->home}/logs",
            posix_getpwuid(posix_geteuid())['name'] ?? 'root',
            null,
            // The path of a socket may be no longer than 107 bytes.
            array_map(
                static fn (int $i): string => sys_get_temp_dir().'/magpie-fpm-'.getmypid()."-{$i}.sock",
                range(1, $servers),
            ),
            $workers,
            '127.0.0.1:'.Shell::freePort(),
        );
        $this->database = new Database("{$this->home}/mariadb", 'hosted');
        $this->database->start();
        $key = 'base64:'.base64_encode(random_bytes(32));
        file_put_contents("{$this->home}/key", $key);
        $more = ['MAGPIE_DEMO' => 'true'];
        if ($redis) {
            $port = Shell::freePort();
            $this->run('redis', [
                'redis-server',
                '--port',
                (string) $port,
                '--bind',
                '127.0.0.1',
                '--save',
                '',
                '--dir',
                "{$this->home}/run",
            ]);
            $more += [
                'CACHE_STORE' => 'redis',
                'SESSION_DRIVER' => 'redis',
                'SESSION_CONNECTION' => 'default',
                'REDIS_PORT' => (string) $port,
            ];
        }
        file_put_contents(
            "{$this->home}/.env",
            Settings::text(
                $more + $this->server->decided($key, "{$this->home}/mariadb/mariadb.sock", 'magpie', 'root', 'hosted'),
            ),
        );
        $quiet = new Terminal(quiet: true);
        $project = new Project($root, $quiet);
        (new Upgrade($project, $quiet, 'hosted', $this->home))->bring($this->client());
        $project->artisan('hosted', ['magpie:demo']);
        $project->settle('hosted');
        foreach ($this->server->files() as $name => $text) {
            file_put_contents("{$this->home}/etc/{$name}", $text);
        }
        $this->settings();
        foreach (array_keys($this->server->sockets) as $pool) {
            $this->startPool($pool);
        }
        foreach (['magpie:inspector', 'magpie:judge', 'magpie:errands'] as $command) {
            $this->run($command, [PHP_BINARY, '-d', 'opcache.enable_cli=1', "{$root}/artisan", $command]);
        }
        $this->run('nginx', [
            'nginx',
            '-c',
            "{$this->home}/run/nginx.conf",
            '-g',
            'daemon off;',
            '-e',
            "{$this->home}/logs/start.log",
        ]);
        for ($i = 0; $i < 600 && ! $this->isUp(); $i++) {
            usleep(100_000);
        }
    }

    public function client(): DatabaseClient
    {
        return DatabaseClient::ofServed($this->home) ?? throw new Failure('the database does not answer.');
    }

    public function home(): string
    {
        return $this->home;
    }

    /** What nginx, php-fpm, systemd and logrotate say of the files; empty where there is nothing to say. */
    public function complaints(): string
    {
        $said = '';
        $etc = "{$this->home}/etc";
        $commands = [
            "nginx -t -c {$this->home}/run/nginx.conf -e {$this->home}/logs/start.log",
            self::fpm()." -t -R -y {$this->home}/run/fpm-0.conf",
        ];
        if (Shell::find('logrotate') !== null) {
            $commands[] = "logrotate -d {$etc}/logrotate";
        }
        if (Shell::find('systemd-analyze') !== null) {
            $commands[] = "systemd-analyze verify --man=no {$etc}/backup.timer {$etc}/judge.service {$etc}/errands.service {$etc}/inspector.service";
            foreach (['judge', 'errands', 'inspector', 'backup'] as $unit) {
                // 4.0 at the most of 10, on its own scale of what a service could do to the machine.
                $commands[] = "systemd-analyze security --offline=true --no-pager --threshold=40 {$etc}/{$unit}.service";
            }
        }
        foreach ($commands as $command) {
            [$status, $output] = Shell::run($command);
            if ($status !== 0) {
                $said .= "{$command}: {$output}\n";
            }
        }

        return $said;
    }

    /** With all its workers at one stroke: one that php-fpm started between two of them would be left over for ever. */
    public function kill(string $name): void
    {
        $pid = $this->running[$name];
        posix_kill(-$pid, SIGKILL);
        for ($i = 0; $i < 100 && Background::runs($pid); $i++) {
            usleep(20_000);
        }
    }

    /** One worker, in the middle of whatever it does. */
    public function killWorker(int $pool): void
    {
        $children = Background::children($this->running["pool {$pool}"]) ?? [];
        if ($children !== []) {
            posix_kill($children[array_rand($children)], SIGKILL);
        }
    }

    public function killDatabase(): void
    {
        posix_kill($this->database->pid(), SIGKILL);
        usleep(100_000);
        $this->database->start();
    }

    /** As a supervisor does: until it answers. */
    public function startPool(int $pool): void
    {
        $socket = $this->server->sockets[$pool];
        for ($tries = 0; $tries < 5; $tries++) {
            @unlink($socket);
            $this->run("pool {$pool}", [
                self::fpm(),
                '-R',
                '-F',
                '-y',
                "{$this->home}/run/fpm-{$pool}.conf",
                '-c',
                "{$this->home}/etc/php.ini",
            ]);
            for ($i = 0; $i < 200 && Background::runs($this->running["pool {$pool}"]); $i++) {
                if (@fsockopen("unix://{$socket}") !== false) {
                    return;
                }
                usleep(50_000);
            }
        }
        throw new Failure("php-fpm did not come up; see {$this->home}/logs.");
    }

    /** Memory of all application servers together, in MB. */
    public function memory(): int
    {
        $kilobytes = 0;
        foreach ($this->running as $pid) {
            foreach ([$pid, ...Background::children($pid) ?? []] as $one) {
                $kilobytes +=
                    preg_match('/^Pss:\s+(\d+)/m', (string) @file_get_contents("/proc/{$one}/smaps_rollup"), $m) === 1
                        ? (int) $m[1]
                        : 0;
            }
        }

        return intdiv($kilobytes, 1024);
    }

    public function stop(): void
    {
        foreach (array_reverse($this->running) as $pid) {
            Background::stop($pid, 5);
        }
        $this->database->stop();
        array_map(static fn (string $s) => @unlink($s), $this->server->sockets);
        Shell::run('rm -rf '.escapeshellarg($this->home));
    }

    /** Whether it answers, and the inspector is there too, which on a busy machine comes up after the rest. */
    private function isUp(): bool
    {
        if (! file_exists("{$this->home}/inspector.sock")) {
            return false;
        }
        $handle = curl_init("{$this->server->url()}/api/session");
        curl_setopt_array($handle, [CURLOPT_RETURNTRANSFER => true, CURLOPT_TIMEOUT => 5]);
        curl_exec($handle);

        return curl_getinfo($handle, CURLINFO_RESPONSE_CODE) === 200;
    }

    private static function fpm(): string
    {
        return (string) Shell::find('php-fpm'.PHP_MAJOR_VERSION.'.'.PHP_MINOR_VERSION);
    }

    /** The main configuration of an nginx that serves one site only, with its own files in a folder. */
    public static function main(string $run, string $site): string
    {
        $root = posix_geteuid() === 0 ? "user root;\n" : '';
        $temp = implode(
            '',
            array_map(static fn (string $w): string => "{$w}_temp_path {$run}/{$w};\n", [
                'client_body',
                'proxy',
                'fastcgi',
                'uwsgi',
                'scgi',
            ]),
        );

        return "{$root}worker_processes 2;\npid {$run}/nginx.pid;\nevents { worker_connections 1024; }\nhttp {\ninclude /etc/nginx/mime.types;\n{$temp}include {$site};\n}\n";
    }

    /** What on a server the system's own files say: how nginx and php-fpm themselves run. */
    private function settings(): void
    {
        $run = "{$this->home}/run";
        file_put_contents("{$run}/nginx.conf", self::main($run, "{$this->home}/etc/nginx.conf"));
        foreach (array_keys($this->server->sockets) as $pool) {
            file_put_contents(
                "{$run}/fpm-{$pool}.conf",
                "[global]\npid = {$run}/fpm-{$pool}.pid\nerror_log = {$this->home}/logs/fpm-{$pool}.log\ninclude = {$this->home}/etc/php-fpm".
                    ($pool === 0 ? '' : "-{$pool}").
                    ".conf\n",
            );
        }
    }

    /**
     * @param  list<string>  $command
     */
    private function run(string $name, array $command): void
    {
        $command[0] = Shell::find($command[0]) ?? $command[0];
        $this->running[$name] = Background::start(
            $command,
            "{$this->home}/logs/".strtr($name, ' :', '--').'.out',
            ['MAGPIE_INSTANCE' => 'hosted', 'MAGPIE_PARENT' => (string) getmypid()],
            $this->root,
        );
    }
}
