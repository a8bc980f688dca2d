<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** Whole databases out of and into a server that runs. */
final readonly class DatabaseClient
{
    public function __construct(
        private string $socket,
        private string $password,
        private string $user = 'root',
        private ?string $host = null,
        private string $port = '3306',
    ) {
    }

    /** Seconds to wait for whoever has a table open; the server's own bound is a day. */
    private const PATIENCE = 60;

    /** The client of an instance that is being served by another process; null when none is. */
    public static function ofServed(string $folder): ?self
    {
        $settings = (string) @file_get_contents("{$folder}/.env");
        $of = static fn (string $name): ?string => preg_match("/^{$name}=\"([^\"]+)\"/m", $settings, $m) === 1 ? $m[1] : null;
        if ($of('DB_HOST') !== null) {
            $away = new self('', $of('DB_PASSWORD') ?? '', $of('DB_USERNAME') ?? 'magpie', $of('DB_HOST'), $of('DB_PORT') ?? '3306');

            return $away->answers() ? $away : null;
        }
        // A server of the machine's own is named there; an instance's own lies in its folder.
        $socket = $of('DB_SOCKET') ?? "{$folder}/mariadb/mariadb.sock";
        $client = new self($socket, $of('DB_PASSWORD') ?? '', $of('DB_SOCKET') === null ? 'root' : $of('DB_USERNAME') ?? 'root');

        return file_exists($socket) && $client->answers() ? $client : null;
    }

    public function answers(): bool
    {
        return $this->run('mariadb', "--execute='SELECT 1'")[0] === 0;
    }

    /** @throws Failure */
    public function statement(string $sql): string
    {
        return $this->must(
            $this->run(
                'mariadb',
                '--batch --skip-column-names --execute='.
                    escapeshellarg('SET SESSION lock_wait_timeout = '.self::PATIENCE."; {$sql}"),
            ),
            'the database refused',
        );
    }

    /**
     * As it stands at one moment, while others go on writing.
     *
     * @throws Failure
     */
    public function dump(string $database, string $file): void
    {
        $this->must(
            $this->run(
                'mariadb-dump',
                '--single-transaction --quick --hex-blob --skip-dump-date --skip-comments --result-file='.
                    escapeshellarg($file).
                    ' '.
                    escapeshellarg($database),
            ),
            'the database could not be copied out',
        );
    }

    /** @throws Failure */
    public function load(string $database, string $file): void
    {
        $this->statement(
            "DROP DATABASE IF EXISTS `{$database}`; CREATE DATABASE `{$database}` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci",
        );
        $this->must(
            $this->run('mariadb', escapeshellarg($database).' < '.escapeshellarg($file)),
            'the database could not be filled',
        );
    }

    public function drop(string $database): void
    {
        $this->statement("DROP DATABASE IF EXISTS `{$database}`");
    }

    /**
     * @return array{int, string}
     */
    private function run(string $program, string $arguments): array
    {
        return Shell::run(
            "{$program} --no-defaults ".
                ($this->host === null
                    ? '--socket='.escapeshellarg($this->socket)
                    : '--protocol=tcp --host='.escapeshellarg($this->host).' --port='.escapeshellarg($this->port)).
                ' --user='.escapeshellarg($this->user)." {$arguments}",
            null,
            ['MYSQL_PWD' => $this->password],
        );
    }

    /**
     * @param  array{int, string}  $result
     *
     * @throws Failure
     */
    private function must(array $result, string $else): string
    {
        return $result[0] === 0 ? trim($result[1]) : throw new Failure("{$else}: ".Shell::lastLine($result[1]));
    }
}
