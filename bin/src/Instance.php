<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** One running Frugal Magpie: its folder under .data/, its database, its web server. */
final class Instance
{
    private readonly string $folder;

    private ?Database $database = null;

    /** @var array<string, Service> by name, in the order they are started */
    private array $services = [];

    private int $port = 0;

    private bool $stopped = false;

    /** @var resource|null */
    private $lock;

    public function __construct(
        private readonly Project $project,
        private readonly Terminal $terminal,
        private readonly string $name,
    ) {
        $this->folder = "{$project->root}/.data/{$name}";
    }

    /** Makes sure that only one start uses this folder, and that the wanted port is free. */
    public function claim(?int $port): void
    {
        @mkdir($this->folder, 0700, true);
        // "e": not handed down, or a child that outlives this process would hold the lock for ever.
        $this->lock = fopen("{$this->folder}/lock", 'c+e') ?: throw new Failure("{$this->folder} cannot be written.");
        if (! flock($this->lock, LOCK_EX | LOCK_NB)) {
            $holder = trim((string) stream_get_contents($this->lock));
            if (! $this->takeFromOrphans()) {
                throw new Failure(
                    'it is running already'.($holder === '' ? '' : " at {$holder}").'; stop that one first.',
                );
            }
        }
        if ($port !== null && ! Shell::portIsFree($port)) {
            throw new Failure("port {$port} is taken; choose another with --port=N or leave it out.");
        }
    }

    /**
     * A start that was killed may have left programs that hold its lock: when nobody but a database, a web server or a
     * background of this folder has it open, they are ended, and the lock is free.
     */
    private function takeFromOrphans(): bool
    {
        $orphans = [];
        foreach (Background::holding("{$this->folder}/lock") as $pid) {
            $line = strtr((string) @file_get_contents("/proc/{$pid}/cmdline"), "\0", ' ');
            if (preg_match('#/mariadb/my\.cnf|public/router\.php|artisan magpie:judge#', $line) !== 1) {
                return false;
            }
            $orphans[] = $pid;
        }
        foreach ($orphans as $pid) {
            if (Background::runs($pid)) {
                Background::stop($pid, 30);
            }
        }
        for ($tries = 0; $orphans !== [] && is_resource($this->lock) && $tries < 50; $tries++) {
            if (flock($this->lock, LOCK_EX | LOCK_NB)) {
                return true;
            }
            usleep(100_000);
        }

        return false;
    }

    /** The database sees to its own when it starts. */
    private function endLeftovers(): void
    {
        Service::endLeftover("{$this->folder}/server.pid", 'router.php');
        Service::endLeftover("{$this->folder}/judge.pid", 'magpie:judge');
        Service::endLeftover("{$this->folder}/inspector.pid", 'magpie:inspector');
        Service::endLeftover("{$this->folder}/errands.pid", 'magpie:errands');
    }

    public function wipe(): void
    {
        foreach (['mariadb', 'files', 'sessions', 'cache'] as $part) {
            Shell::run('rm -rf '.escapeshellarg("{$this->folder}/{$part}"));
        }
    }

    /**
     * @param  array<string, string>  $environment
     */
    public function start(bool $demo, int $workers, ?int $port = null, array $environment = []): void
    {
        $this->stopOnSignals();
        try {
            $this->endLeftovers();
            $this->startDatabase($demo, $port);
            $this->upgrade();
            $this->project->artisan($this->name, ['magpie:settle']);
            if ($demo) {
                $this->terminal->begin('Demo workshop');
                $this->terminal->end(Shell::lastLine($this->project->artisan($this->name, ['magpie:demo'])));
            }
            $this->startServer($workers, $environment);
            $this->startBeside('background', 'magpie:judge', 'judge');
            $this->startBeside('inspector', 'magpie:inspector', 'inspector');
            $this->startBeside('errands', 'magpie:errands', 'errands');
        } catch (Failure $failure) {
            $this->stop();
            throw $failure;
        }
    }

    public function startDatabase(bool $demo, ?int $port = null): void
    {
        $this->terminal->begin('MariaDB');
        $password = bin2hex(random_bytes(16));
        $database = $this->database = new Database("{$this->folder}/mariadb", $password);
        $database->start();
        $this->port = $port ?? (Shell::portIsFree(8791) ? 8791 : Shell::freePort());
        $this->writeEnvironment($password, $demo);
        $this->terminal->end("127.0.0.1:{$database->port}");
    }

    /** @throws Failure when the data cannot be brought over; then nothing was changed */
    public function upgrade(): void
    {
        $database = $this->database ?? throw new Failure('the database is not running.');
        (new Upgrade($this->project, $this->terminal, $this->name, $this->folder))->bring($database->client());
    }

    public function databaseClient(): DatabaseClient
    {
        return $this->database?->client() ?? throw new Failure('the database is not running.');
    }

    public function folder(): string
    {
        return $this->folder;
    }

    public function serverPid(): int
    {
        return $this->services['web server']->pid();
    }

    public function url(): string
    {
        return "http://127.0.0.1:{$this->port}";
    }

    public function databasePid(): int
    {
        return $this->database?->pid() ?? 0;
    }

    /** Serves until a signal comes, and sees to it that everything goes on running. */
    public function wait(): int
    {
        for ($round = 0; ! $this->stopped; $round++) {
            pcntl_signal_dispatch();
            $this->lookAfter();
            if ($round % 300 === 0) {
                Logs::rotate([
                    ...glob("{$this->folder}/*.log") ?: [],
                    "{$this->folder}/mariadb/error.log",
                    "{$this->project->root}/storage/logs/laravel.log",
                ]);
            }
            usleep(200_000);
        }

        return 0;
    }

    /**
     * Starts again what has died: the database, the web server with all its workers, the background.
     *
     * @throws Failure when something dies again and again
     */
    public function lookAfter(): void
    {
        try {
            if ($this->database?->runs() === false) {
                $this->terminal->say('  The database had stopped; starting it again.');
                $this->database->restart();
            }
            foreach ($this->services as $service) {
                if (! $service->isWhole()) {
                    $this->terminal->say(
                        "  The {$service->name} had ".
                            ($service->runs() ? 'lost a worker' : 'stopped').
                            '; starting it again.',
                    );
                    $service->restart();
                    // Its workers are there a moment after it answers.
                    if ($service->name === 'web server' && Shell::answers($this->port, 10, $service->runs(...))) {
                        usleep(200_000);
                    }
                }
            }
        } catch (Failure $failure) {
            $this->stop();
            throw $failure;
        }
    }

    public function stop(): void
    {
        if ($this->stopped) {
            return;
        }
        $this->stopped = true;
        foreach ($this->services as $service) {
            $service->stop();
        }
        $this->database?->stop();
        if (is_resource($this->lock)) {
            flock($this->lock, LOCK_UN);
            fclose($this->lock);
        }
    }

    /**
     * @param  array<string, string>  $environment
     */
    private function startServer(int $workers, array $environment): void
    {
        $this->terminal->begin('Web server');
        $root = $this->project->root;
        $options = [
            'opcache.enable_cli=1',
            'opcache.memory_consumption=192',
            'opcache.max_accelerated_files=20000',
            'opcache.validate_timestamps=0',
            'zend.enable_gc=0',
            'memory_limit=1280M',
            'max_execution_time=180',
            'upload_max_filesize=60M',
            'post_max_size=64M',
            'display_errors=0',
            'log_errors=1',
            'expose_php=0',
            'variables_order=EGPCS',
            "opcache.preload={$root}/bin/preload.php",
            'opcache.preload_user='.(posix_getpwuid(posix_geteuid())['name'] ?? ''),
        ];
        $command = [PHP_BINARY];
        foreach ($options as $option) {
            array_push($command, '-d', $option);
        }
        array_push($command, '-S', "127.0.0.1:{$this->port}", '-t', "{$root}/public", "{$root}/public/router.php");
        $server = new Service(
            'web server',
            $command,
            "{$this->folder}/server.log",
            "{$this->folder}/server.pid",
            $environment + $this->project->settle($this->name) + ['PHP_CLI_SERVER_WORKERS' => (string) $workers, 'MAGPIE_INSTANCE' => $this->name],
            $root,
            $workers > 1 ? $workers : 0,
        );
        $this->services[$server->name] = $server;
        $server->start();
        if (! Shell::answers($this->port, 20, $server->runs(...))) {
            throw new Failure("the web server did not come up on port {$this->port}; see {$this->folder}/server.log.");
        }
        if (is_resource($this->lock)) {
            ftruncate($this->lock, 0);
            rewind($this->lock);
            fwrite($this->lock, $this->url());
            fflush($this->lock);
        }
        $this->terminal->end("{$workers} workers");
    }

    /** A process of the application that goes on beside the web server. */
    private function startBeside(string $name, string $command, string $files): void
    {
        $service = new Service(
            $name,
            [PHP_BINARY, '-d', 'opcache.enable_cli=1', "{$this->project->root}/artisan", $command],
            "{$this->folder}/{$files}.log",
            "{$this->folder}/{$files}.pid",
            ['MAGPIE_INSTANCE' => $this->name],
            $this->project->root,
        );
        $this->services[$service->name] = $service;
        $service->start();
    }

    private function writeEnvironment(string $password, bool $demo): void
    {
        $key = "{$this->folder}/key";
        if (! is_file($key)) {
            file_put_contents($key, 'base64:'.base64_encode(random_bytes(32)));
            chmod($key, 0600);
        }
        foreach (['files', 'sessions', 'cache'] as $part) {
            @mkdir("{$this->folder}/{$part}", 0700, true);
        }
        $settings = [
            'APP_KEY' => (string) file_get_contents($key),
            'APP_URL' => $this->url(),
            'SANCTUM_STATEFUL_DOMAINS' => "127.0.0.1:{$this->port},localhost:{$this->port}",
            'DB_PORT' => (string) $this->database?->port,
            'DB_PASSWORD' => $password,
            'MAGPIE_DEMO' => $demo ? 'true' : 'false',
            'MAGPIE_FILES' => "{$this->folder}/files",
            'MAGPIE_SESSIONS' => "{$this->folder}/sessions",
            'MAGPIE_CACHE' => "{$this->folder}/cache",
            'MAGPIE_INSPECTOR' => $this->socket(),
            'LOG_CHANNEL' => 'single',
        ];
        $lines = array_map(
            static fn (string $k, string $v): string => "{$k}=\"{$v}\"",
            array_keys($settings),
            $settings,
        );
        file_put_contents("{$this->folder}/.env", implode("\n", $lines)."\n");
        chmod("{$this->folder}/.env", 0600);
    }

    /** The socket of the resident inspector; in the system's own folder where the path of ours is too long for one. */
    private function socket(): string
    {
        $socket = "{$this->folder}/inspector.sock";

        return strlen($socket) < 100
            ? $socket
            : sys_get_temp_dir().'/magpie-'.substr(sha1($socket), 0, 16).'.sock';
    }

    private function stopOnSignals(): void
    {
        pcntl_async_signals(true);
        foreach ([SIGINT, SIGTERM, SIGHUP] as $signal) {
            pcntl_signal($signal, function (): void {
                $this->terminal->say("\n  Stopping …");
                $this->stop();
                exit(0);
            });
        }
        register_shutdown_function($this->stop(...));
    }
}
