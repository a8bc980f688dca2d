<?php

declare(strict_types=1);

namespace App\Resident;

/** Asks the resident inspector, where one runs. */
final class Client
{
    /** Seconds it may take; whoever waits longer judges by itself. */
    private const PATIENCE = 20;

    /** Hands over a build that somebody has opened, so that their first edit finds it judged. Waits for nothing. */
    public static function prime(int $build, int $revision, string $document): void
    {
        $stream = self::reach();
        if ($stream !== null) {
            Wire::write($stream, ['build' => $build, 'revision' => $revision, 'prime' => true], $document);
            fclose($stream);
        }
    }

    /**
     * @param  int|null  $seen  the revision whose findings the asker knows
     * @return Answer|null null when nobody answers
     */
    public static function ask(int $build, int $revision, string $document, ?int $seen): ?Answer
    {
        $stream = self::reach();
        if ($stream === null) {
            return null;
        }
        $sent = Wire::write($stream, ['build' => $build, 'revision' => $revision, 'seen' => $seen], $document);
        $answer = $sent ? Wire::read($stream) : null;
        fclose($stream);
        if ($answer === null || isset($answer[0]['failed'])) {
            return null;
        }

        /**
         * @var array{findings?: array{since: int, changed: list<array<string, mixed>>, gone: list<string>}|null,
         *     trouble?: array{pointer: string, reason: string}} $head
         */
        $head = $answer[0];

        return new Answer($answer[1], $head['findings'] ?? null, $head['trouble'] ?? null);
    }

    /** Whether it is there, where one is meant to be. */
    public static function answers(): bool
    {
        if (! is_string(config('magpie.inspector'))) {
            return true;
        }
        $stream = self::reach();
        if ($stream !== null) {
            fclose($stream);
        }

        return $stream !== null;
    }

    /**
     * @return resource|null
     */
    private static function reach()
    {
        $path = config('magpie.inspector');
        if (! is_string($path) || ! file_exists($path)) {
            return null;
        }
        $stream = @stream_socket_client("unix://{$path}", $code, $why, 0.2);
        if ($stream === false) {
            return null;
        }
        stream_set_timeout($stream, self::PATIENCE);

        return $stream;
    }
}
