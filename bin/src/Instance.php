<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** One running Frugal Magpie: its folder under .data/, its database, its web server. */
final class Instance
{
    private readonly string $folder;

    private ?Database $database = null;

    private int $server = 0;

    private int $port = 0;

    private bool $stopped = false;

    /** @var resource|null */
    private $lock;

    public function __construct(private readonly Project $project, private readonly Terminal $terminal, private readonly string $name)
    {
        $this->folder = "{$project->root}/.data/{$name}";
    }

    /** Makes sure that only one start uses this folder, and that the wanted port is free. */
    public function claim(?int $port): void
    {
        @mkdir($this->folder, 0700, true);
        $this->lock = fopen("{$this->folder}/lock", 'c+') ?: throw new Failure("{$this->folder} cannot be written.");
        if (! flock($this->lock, LOCK_EX | LOCK_NB)) {
            throw new Failure('it is running already at '.trim((string) stream_get_contents($this->lock)).'; stop that one first.');
        }
        if ($port !== null && ! Shell::portIsFree($port)) {
            throw new Failure("port {$port} is taken; choose another with --port=N or leave it out.");
        }
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
            $this->startDatabase($demo, $port);
            $this->terminal->begin('Bringing the tables up to date');
            $this->project->artisan($this->name, ['migrate', '--force', '--no-interaction']);
            $this->project->artisan($this->name, ['magpie:settle']);
            $this->terminal->end();
            if ($demo) {
                $this->terminal->begin('Demo workshop');
                $this->terminal->end(Shell::lastLine($this->project->artisan($this->name, ['magpie:demo'])));
            }
            $this->startServer($workers, $environment);
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

    public function url(): string
    {
        return "http://127.0.0.1:{$this->port}";
    }

    public function databasePid(): int
    {
        return $this->database?->pid() ?? 0;
    }

    /** Serves until a signal comes, or until the database or the server dies. */
    public function wait(): int
    {
        while (! $this->stopped) {
            pcntl_signal_dispatch();
            if (! Background::runs($this->server) || $this->database?->runs() !== true) {
                $what = Background::runs($this->server) ? 'database' : 'web server';
                $this->stop();
                throw new Failure("the {$what} has stopped; the log is in {$this->folder}. Nothing that was confirmed is lost: start again.");
            }
            usleep(200_000);
        }

        return 0;
    }

    public function stop(): void
    {
        if ($this->stopped) {
            return;
        }
        $this->stopped = true;
        if ($this->server !== 0) {
            Background::stop($this->server, 5);
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
        $options = ['opcache.enable_cli=1', 'opcache.memory_consumption=192', 'opcache.max_accelerated_files=20000', 'opcache.validate_timestamps=0', 'memory_limit=1280M', 'max_execution_time=180', 'upload_max_filesize=60M', 'post_max_size=64M', 'display_errors=0', 'log_errors=1', 'variables_order=EGPCS', "opcache.preload={$root}/bin/preload.php", 'opcache.preload_user='.(posix_getpwuid(posix_geteuid())['name'] ?? '')];
        $command = [PHP_BINARY];
        foreach ($options as $option) {
            array_push($command, '-d', $option);
        }
        array_push($command, '-S', "127.0.0.1:{$this->port}", '-t', "{$root}/public", "{$root}/public/router.php");
        $this->server = Background::start($command, "{$this->folder}/server.log", $environment + ['PHP_CLI_SERVER_WORKERS' => (string) $workers, 'MAGPIE_INSTANCE' => $this->name], $root);
        if (! Shell::answers($this->port, 20, fn (): bool => Background::runs($this->server))) {
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
            'LOG_CHANNEL' => 'single',
        ];
        $lines = array_map(static fn (string $k, string $v): string => "{$k}=\"{$v}\"", array_keys($settings), $settings);
        file_put_contents("{$this->folder}/.env", implode("\n", $lines)."\n");
        chmod("{$this->folder}/.env", 0600);
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
