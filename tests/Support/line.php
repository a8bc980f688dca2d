<?php

declare(strict_types=1);

// A line between a browser and the server that can be cut: php tests/Support/line.php PORT TARGET-PORT STATE-FILE
// The file says "open"; "cut": nobody answers, or "deaf": what is asked arrives, and the answer is lost.
[, $port, $target, $state] = $argv;
$server = stream_socket_server("tcp://127.0.0.1:{$port}") ?: exit(1);
/** @var array<int, array{resource, resource, bool}> $pairs by either end: itself, the other, whether it is the browser's */
$pairs = [];
$says = static fn (): string => trim((string) @file_get_contents($state)) ?: 'open';
$close = static function (int $id) use (&$pairs): void {
    [$one, $other] = $pairs[$id];
    unset($pairs[(int) $one], $pairs[(int) $other]);
    fclose($one);
    fclose($other);
};
for (; ;) {
    $read = [$server, ...array_column($pairs, 0)];
    $write = $except = null;
    if (@stream_select($read, $write, $except, 0, 50_000) === false) {
        continue;
    }
    $now = $says();
    foreach ($now === 'cut' ? array_keys($pairs) : [] as $id) {
        isset($pairs[$id]) && $close($id);
    }
    foreach ($read as $from) {
        if ($from === $server) {
            $browser = stream_socket_accept($server, 0);
            $app = $browser === false || $now === 'cut' ? false : @stream_socket_client("tcp://127.0.0.1:{$target}", $code, $why, 2);
            if ($browser === false || $app === false) {
                $browser !== false && fclose($browser);

                continue;
            }
            stream_set_blocking($browser, false);
            stream_set_blocking($app, false);
            $pairs[(int) $browser] = [$browser, $app, true];
            $pairs[(int) $app] = [$app, $browser, false];

            continue;
        }
        $id = (int) $from;
        if (! isset($pairs[$id])) {
            continue;
        }
        [, $to, $isBrowser] = $pairs[$id];
        $bytes = fread($from, 65_536);
        if ($bytes === false || ($bytes === '' && feof($from)) || ($bytes !== '' && ! $isBrowser && $now === 'deaf')) {
            $close($id);

            continue;
        }
        // Where a request comes from is checked against the address the server was started with.
        $bytes = $isBrowser
            ? (string) preg_replace("#^(Referer|Origin): http://127\\.0\\.0\\.1:{$port}#mi", "$1: http://127.0.0.1:{$target}", (string) $bytes)
            : (string) $bytes;
        for ($sent = 0; $sent < strlen($bytes); $sent += max(0, (int) $n)) {
            $n = @fwrite($to, substr($bytes, $sent));
            if ($n === false) {
                $close($id);
                break;
            }
            $n === 0 && usleep(1000);
        }
    }
}
