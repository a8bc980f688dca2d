<?php

declare(strict_types=1);

namespace App\Resident;

use Closure;
use Magpie\Core\Format\CannotReadBuildFile;
use RuntimeException;
use Throwable;

/**
 * The resident inspector: a process that keeps the builds being worked on in memory, read and judged, and answers what
 * an edit has changed. It has no part in what is stored: it is handed the whole document and compares it with what it
 * holds, so that whatever it holds can be wrong for no longer than one answer. Without it everything works, slower.
 */
final class Server
{
    /** Bytes past which builds that were not asked for longest are let go. */
    private const MOST = 700 << 20;

    /** @var array<int, HeldBuild> the one asked for last at the end */
    private array $held = [];

    private int $answers = 0;

    /**
     * @param  string  $path  of its socket
     * @param  int  $check  one in so many answers is held against a full inspection; 0 for none
     * @param  Closure(string): void  $log
     */
    public function __construct(
        private readonly string $path,
        private readonly int $check,
        private readonly Closure $log,
    ) {
    }

    /**
     * @param  Closure(): bool  $goesOn
     */
    public function run(Closure $goesOn): void
    {
        @unlink($this->path);
        $mask = umask(0177);
        $socket = @stream_socket_server("unix://{$this->path}", $code, $why);
        umask($mask);
        if ($socket === false) {
            throw new RuntimeException("The resident inspector cannot listen at {$this->path}: {$why}.");
        }
        gc_disable();
        while ($goesOn()) {
            $client = @stream_socket_accept($socket, 1.0);
            if ($client === false) {
                gc_collect_cycles();

                continue;
            }
            stream_set_timeout($client, 10);
            $asked = Wire::read($client);
            if ($asked !== null && isset($asked[0]['prime'])) {
                fclose($client);
                $held = $this->held[(int) $asked[0]['build']] ?? null;
                if ($held?->isAt((int) $asked[0]['revision']) !== true) {
                    $this->answer(...$asked);
                }
                $asked = null;
            } else {
                if ($asked !== null) {
                    Wire::write($client, ...$this->answer(...$asked));
                }
                fclose($client);
            }
            $this->afterwards($asked[0] ?? []);
        }
        fclose($socket);
        @unlink($this->path);
    }

    /**
     * @param  array<string, mixed>  $head  build, revision, and the revision whose findings the asker knows
     * @return array{array<string, mixed>, string} head and JSON text of the answer
     */
    public function answer(array $head, string $document): array
    {
        [$id, $revision, $seen] = [(int) $head['build'], (int) $head['revision'], $head['seen'] ?? null];
        try {
            /** @var array<string, mixed> $data */
            $data = json_decode($document, true, 64, JSON_THROW_ON_ERROR);
            $held = $this->held[$id] ?? null;
            $difference = null;
            if ($held === null) {
                $held = HeldBuild::of($revision, $data);
            } else {
                $difference = $held->become($revision, $data);
            }
            unset($this->held[$id]);
            $this->held[$id] = $held;
            foreach ($held->troubles() as [$key, $why]) {
                ($this->log)("Check {$key} of build {$id} could not be judged: {$why}");
            }
            $known = $difference !== null && $seen === $difference['since'];

            return [['findings' => $known ? $difference : null], self::json($held->overview(! $known))];
        } catch (CannotReadBuildFile $e) {
            return [['trouble' => ['pointer' => $e->pointer, 'reason' => $e->reason]], ''];
        } catch (Throwable $e) {
            // In doubt it starts from nothing the next time.
            unset($this->held[$id]);
            ($this->log)(
                "The resident inspector gave up on build {$id}: {$e->getMessage()} at {$e->getFile()}:{$e->getLine()}",
            );

            return [['failed' => true], ''];
        }
    }

    /**
     * @param  array<string, mixed>  $head
     */
    private function afterwards(array $head): void
    {
        $build = (int) ($head['build'] ?? 0);
        $held = $this->held[$build] ?? null;
        if ($held !== null && $this->check > 0 && ++$this->answers % $this->check === 0) {
            $wrong = $held->heal();
            if ($wrong !== []) {
                ($this->log)("The resident inspector was wrong of build {$build} in: ".implode(', ', $wrong));
            }
        }
        while (count($this->held) > 1 && memory_get_usage() > self::MOST) {
            unset($this->held[(int) array_key_first($this->held)]);
            gc_collect_cycles();
        }
        if (memory_get_usage() > self::MOST / 2) {
            gc_collect_cycles();
        }
    }

    private static function json(mixed $data): string
    {
        return json_encode($data, JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR);
    }
}
