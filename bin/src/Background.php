<?php

declare(strict_types=1);

namespace Magpie\Bin;

/**
 * Programs that run beside this one, in sessions of their own so that Ctrl-C reaches only this one, which then stops
 * them in order.
 */
final class Background
{
    /** @var array<int, resource> */
    private static array $processes = [];

    /**
     * @param  list<string>  $command
     * @param  array<string, string>  $environment
     */
    public static function start(array $command, string $log, array $environment = [], ?string $folder = null): int
    {
        $process = proc_open(
            ['setsid', ...$command],
            [['file', '/dev/null', 'r'], ['file', $log, 'a'], ['file', $log, 'a']],
            $pipes,
            $folder,
            $environment + Shell::inherited(),
        );
        if ($process === false) {
            throw new Failure("{$command[0]} could not be started.");
        }
        $pid = proc_get_status($process)['pid'];
        self::$processes[$pid] = $process;

        return $pid;
    }

    public static function runs(int $pid): bool
    {
        if (isset(self::$processes[$pid])) {
            return proc_get_status(self::$processes[$pid])['running'];
        }

        return $pid > 0 && posix_kill($pid, 0);
    }

    /** One that was killed ended with no status of its own, and did not end well. */
    public static function status(int $exit): int
    {
        return $exit < 0 ? 255 : $exit;
    }

    /** Waits for one that was started here: its exit status, or null where it goes on past that time. */
    public static function ended(int $pid, int $until): ?int
    {
        do {
            $state = proc_get_status(self::$processes[$pid]);
            if (! $state['running']) {
                unset(self::$processes[$pid]);

                return self::status($state['exitcode']);
            }
            usleep(200_000);
        } while (time() < $until);

        return null;
    }

    /**
     * @return list<int>|null children of a process that live; a dead one that nobody has taken note of is none. Null
     *                        where the system does not tell
     */
    public static function children(int $pid): ?array
    {
        $listed = @file_get_contents("/proc/{$pid}/task/{$pid}/children");
        if ($listed === false) {
            return null;
        }
        $alive = static fn (int $child): bool => preg_match(
            '/^\d+ \(.*\) [^ZX] /s',
            (string) @file_get_contents("/proc/{$child}/stat"),
        ) === 1;

        return array_values(array_filter(array_map(intval(...), explode(' ', trim($listed))), $alive));
    }

    /**
     * @return list<int> other processes that have a file open
     */
    public static function holding(string $file): array
    {
        $found = [];
        foreach (glob('/proc/[0-9]*', GLOB_ONLYDIR) ?: [] as $process) {
            foreach (@scandir("{$process}/fd") ?: [] as $fd) {
                if (@readlink("{$process}/fd/{$fd}") === $file) {
                    $found[] = (int) basename($process);
                    break;
                }
            }
        }

        return array_values(array_diff($found, [getmypid()]));
    }

    /** Asks it, and all of its session, to end; after so many seconds makes it. */
    public static function stop(int $pid, int $seconds, int $signal = SIGTERM): void
    {
        if (! posix_kill(-$pid, $signal)) {
            posix_kill($pid, $signal);
        }
        // Its children may outlive it by a moment and hold what it held, a port for one.
        for (
            $until = microtime(true) + $seconds;
            (self::runs($pid) || posix_kill(-$pid, 0)) && microtime(true) < $until;

        ) {
            usleep(20_000);
        }
        if (self::runs($pid) || posix_kill(-$pid, 0)) {
            if (! posix_kill(-$pid, SIGKILL)) {
                posix_kill($pid, SIGKILL);
            }
        }
        unset(self::$processes[$pid]);
    }
}
