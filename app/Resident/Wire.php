<?php

declare(strict_types=1);

namespace App\Resident;

/** How a question and its answer go over the socket: a line of JSON with the length of what follows, and that. */
final class Wire
{
    /** Longest first line. */
    private const LINE = 1 << 24;

    /**
     * @param  resource  $stream
     * @param  array<string, mixed>  $head
     */
    public static function write($stream, array $head, string $body): bool
    {
        $text = json_encode($head + ['bytes' => strlen($body)], JSON_THROW_ON_ERROR)."\n".$body;
        for ($sent = 0; $sent < strlen($text); $sent += $wrote) {
            $wrote = @fwrite($stream, substr($text, $sent, 1 << 20));
            if ($wrote === false || $wrote === 0) {
                return false;
            }
        }

        return true;
    }

    /**
     * @param  resource  $stream
     * @return array{array<string, mixed>, string}|null null when it broke off
     */
    public static function read($stream): ?array
    {
        $line = @stream_get_line($stream, self::LINE, "\n");
        $head = $line === false ? null : json_decode($line, true);
        if (! is_array($head) || ! is_int($head['bytes'] ?? null)) {
            return null;
        }
        $body = $head['bytes'] === 0 ? '' : @stream_get_contents($stream, $head['bytes']);

        return is_string($body) && strlen($body) === $head['bytes'] ? [$head, $body] : null;
    }
}
