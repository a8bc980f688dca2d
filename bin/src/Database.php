<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** The project's own MariaDB: its data folder, its settings file, loopback only. */
final class Database
{
    public readonly int $port;

    private int $pid = 0;

    private readonly Restarts $restarts;

    public function __construct(private readonly string $folder, private readonly string $password)
    {
        $this->port = Shell::freePort();
        $this->restarts = new Restarts;
    }

    public function start(): void
    {
        $server =
            Shell::find('mariadbd') ??
            throw new Failure('mariadbd is not on this machine; bin/magpie doctor says what is missing.');
        $this->endLeftover();
        $data = "{$this->folder}/data";
        // A server that comes up clears what others left where it keeps its temporary tables: each has a folder of its own.
        @mkdir("{$this->folder}/tmp", 0700, true);
        $this->writeSettings($data);
        if (! is_dir("{$data}/mysql")) {
            $this->make($data);
        }
        $log = "{$this->folder}/error.log";
        @rename($log, "{$log}.1");
        $this->pid = Background::start([$server, "--defaults-file={$this->folder}/my.cnf"], $log);
        if (! Shell::answers($this->port, 60, fn (): bool => Background::runs($this->pid)) || ! $this->opens(30)) {
            $this->stop();
            throw new Failure('the database did not come up: '.$this->reason($log));
        }
    }

    /** Its port answers a moment before its socket does, and longer on a busy machine. */
    private function opens(float $seconds): bool
    {
        $client = $this->client();
        for (
            $until = microtime(true) + $seconds;
            microtime(true) < $until && Background::runs($this->pid);
            usleep(100_000)
        ) {
            if ($client->answers()) {
                return true;
            }
        }

        return false;
    }

    public function client(): DatabaseClient
    {
        return new DatabaseClient("{$this->folder}/mariadb.sock", $this->password);
    }

    /** Comes up again where it was, with what was confirmed: its own log brings it back. */
    public function restart(): void
    {
        $this->restarts->note('database', "{$this->folder}/error.log");
        $this->pid = 0;
        $this->start();
    }

    public function runs(): bool
    {
        return Background::runs($this->pid);
    }

    public function pid(): int
    {
        return $this->pid;
    }

    public function stop(): void
    {
        if ($this->pid !== 0) {
            Background::stop($this->pid, 30);
            $this->pid = 0;
        }
    }

    /**
     * Lays out an empty database folder. Two at once on one machine get into each other's way, so that they wait for
     * each other; and one that was broken off is begun anew.
     */
    private function make(string $data): void
    {
        $lock = fopen(sys_get_temp_dir().'/magpie-database.lock', 'c');
        if ($lock !== false) {
            flock($lock, LOCK_EX);
        }
        [$status, $output] = [1, ''];
        for ($try = 1; $try <= 2 && $status !== 0; $try++) {
            [$status, $output] = Shell::run(
                'rm -rf '.
                    escapeshellarg($data).
                    ' && mariadb-install-db --defaults-file='.
                    escapeshellarg("{$this->folder}/my.cnf").
                    ' --auth-root-authentication-method=normal --skip-test-db',
            );
        }
        if ($lock !== false) {
            fclose($lock);
        }
        if ($status !== 0) {
            throw new Failure('the database folder could not be made: '.Shell::lastLine($output));
        }
    }

    /** A server that outlived a killed start still holds the data folder. */
    private function endLeftover(): void
    {
        $pid = (int) @file_get_contents("{$this->folder}/mariadb.pid");
        if ($pid > 0 && str_contains((string) @file_get_contents("/proc/{$pid}/cmdline"), "{$this->folder}/my.cnf")) {
            Background::stop($pid, 30);
        }
    }

    private function writeSettings(string $data): void
    {
        $user = posix_getpwuid(posix_geteuid())['name'] ?? 'nobody';
        file_put_contents(
            "{$this->folder}/my.cnf",
            <<<INI
            [mariadbd]
            user = {$user}
            datadir = {$data}
            tmpdir = {$this->folder}/tmp
            socket = {$this->folder}/mariadb.sock
            pid-file = {$this->folder}/mariadb.pid
            port = {$this->port}
            bind-address = 127.0.0.1
            skip-name-resolve
            init-file = {$this->folder}/init.sql
            character-set-server = utf8mb4
            collation-server = utf8mb4_unicode_ci
            sql_mode = STRICT_ALL_TABLES,NO_ZERO_IN_DATE,NO_ZERO_DATE,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION
            default-storage-engine = InnoDB
            innodb_buffer_pool_size = 192M
            innodb_flush_log_at_trx_commit = 1
            innodb_autoinc_lock_mode = 1
            max_allowed_packet = 64M
            INI
            ,
        );
        file_put_contents(
            "{$this->folder}/init.sql",
            <<<SQL
            CREATE DATABASE IF NOT EXISTS magpie CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;
            CREATE USER IF NOT EXISTS 'magpie'@'127.0.0.1' IDENTIFIED BY '{$this->password}';
            ALTER USER 'magpie'@'127.0.0.1' IDENTIFIED BY '{$this->password}';
            GRANT ALL ON magpie.* TO 'magpie'@'127.0.0.1';
            GRANT ALL ON magpie_rehearsal.* TO 'magpie'@'127.0.0.1';
            ALTER USER 'root'@'localhost' IDENTIFIED BY '{$this->password}';
            SQL
            ,
        );
        chmod("{$this->folder}/init.sql", 0600);
    }

    private function reason(string $log): string
    {
        foreach (array_reverse(explode("\n", (string) @file_get_contents($log))) as $line) {
            if (str_contains($line, '[ERROR]')) {
                return trim((string) strstr($line, '[ERROR]'));
            }
        }

        return "see {$log}";
    }
}
