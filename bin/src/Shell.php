<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** Runs programs. */
final class Shell
{
    /**
     * @param  array<string, string>  $environment  added to this process's own
     * @return array{int, string} exit status, all it printed
     */
    public static function run(string $command, ?string $folder = null, array $environment = []): array
    {
        $process = proc_open(
            "( {$command} ) 2>&1",
            [['file', '/dev/null', 'r'], ['pipe', 'w']],
            $pipes,
            $folder,
            $environment + self::inherited(),
        );
        if ($process === false) {
            return [127, "{$command} could not be started"];
        }
        $output = (string) stream_get_contents($pipes[1]);
        fclose($pipes[1]);

        return [proc_close($process), $output];
    }

    /**
     * This process's environment without the settings of any instance: each reads its own.
     *
     * @return array<string, string>
     */
    public static function inherited(): array
    {
        return array_filter(
            getenv(),
            static fn (string $name): bool => preg_match('/^(APP|DB|MAGPIE|SANCTUM|LOG|CACHE)_/', $name) !== 1,
            ARRAY_FILTER_USE_KEY,
        );
    }

    public static function status(string $command): int
    {
        return self::run($command)[0];
    }

    public static function find(string $program): ?string
    {
        foreach ([...explode(':', (string) getenv('PATH')), '/usr/sbin', '/usr/local/sbin'] as $folder) {
            if (is_executable("{$folder}/{$program}")) {
                return "{$folder}/{$program}";
            }
        }

        return null;
    }

    public static function packageVersion(string $package): string
    {
        [$status, $output] = self::run('dpkg-query -W -f=\'${Version}\' '.escapeshellarg($package));

        return $status === 0 ? trim($output) : 'not from Debian';
    }

    public static function lastLine(string $output): string
    {
        $lines = array_values(
            array_filter(array_map(trim(...), explode("\n", $output)), static fn (string $l): bool => $l !== ''),
        );

        foreach ($lines as $line) {
            if (preg_match('/^(FATAL|E:|ERROR|npm error|.*Exception)/', $line) === 1) {
                return $line;
            }
        }

        return $lines === [] ? 'it printed nothing' : end($lines);
    }

    public static function freePort(): int
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        if ($socket === false) {
            throw new Failure('no free port on the loopback address.');
        }
        $name = (string) stream_socket_get_name($socket, false);
        fclose($socket);

        return (int) substr((string) strrchr($name, ':'), 1);
    }

    public static function portIsFree(int $port): bool
    {
        $socket = @stream_socket_server("tcp://127.0.0.1:{$port}");
        if ($socket === false) {
            return false;
        }
        fclose($socket);

        return true;
    }

    /** Waits until something answers on a loopback port. */
    public static function answers(int $port, float $seconds, callable $alive): bool
    {
        $until = microtime(true) + $seconds;
        while (microtime(true) < $until) {
            $socket = @fsockopen('127.0.0.1', $port, $code, $message, 0.5);
            if ($socket !== false) {
                fclose($socket);

                return true;
            }
            if (! $alive()) {
                return false;
            }
            usleep(50_000);
        }

        return false;
    }
}
