<?php

declare(strict_types=1);

namespace Tests\Support;

use CurlHandle;
use RuntimeException;

/** A script's way in over the wire: cookies, the cross-site token, JSON. */
final class HttpClient
{
    private readonly string $cookies;

    public function __construct(private readonly string $url)
    {
        $this->cookies = (string) tempnam(sys_get_temp_dir(), 'magpie-cookies');
        $this->get('/api/session');
    }

    public function __destruct()
    {
        @unlink($this->cookies);
    }

    /** @return array<mixed> */
    public function get(string $path): array
    {
        return $this->finishOne($this->handle('GET', $path, null));
    }

    /**
     * @param  array<string, mixed>  $body
     * @return array<mixed>
     */
    public function post(string $path, array $body = []): array
    {
        return $this->finishOne($this->handle('POST', $path, (string) json_encode((object) $body)));
    }

    /** @return array<mixed> */
    public function upload(string $path, string $name, string $file): array
    {
        return $this->finishOne($this->handle('POST', $path, [$name => new \CURLFile($file, 'text/csv', 'list.csv')]));
    }

    /**
     * @param  array<string, mixed>|null  $body
     * @return array{int, array<mixed>} status and answer
     */
    public function send(string $method, string $path, ?array $body = null): array
    {
        $handle = $this->handle($method, $path, $body === null ? null : (string) json_encode((object) $body));
        $answer = $this->finishOne($handle);

        return [curl_getinfo($handle, CURLINFO_RESPONSE_CODE), $answer];
    }

    /**
     * Several requests at the same time, over as many connections.
     *
     * @param  list<array{string, string, array<string, mixed>|null}>  $requests  method, path, body
     * @return list<array{int, array<mixed>}> status and answer, in the order of the requests; 0 where none came
     */
    public function together(array $requests, int $atOnce = 16): array
    {
        $multi = curl_multi_init();
        curl_multi_setopt($multi, CURLMOPT_MAX_TOTAL_CONNECTIONS, $atOnce);
        $handles = [];
        foreach ($requests as [$method, $path, $body]) {
            $handles[] = $handle = $this->handle(
                $method,
                $path,
                $body === null ? null : (string) json_encode((object) $body),
            );
            curl_multi_add_handle($multi, $handle);
        }
        do {
            curl_multi_exec($multi, $running);
            curl_multi_select($multi, 0.2);
        } while ($running > 0);

        return array_map(
            static fn (CurlHandle $h): array => [
                (int) curl_getinfo($h, CURLINFO_RESPONSE_CODE),
                (array) json_decode((string) curl_multi_getcontent($h), true),
            ],
            $handles,
        );
    }

    /**
     * A request to be sent by whoever asks for it.
     *
     * @param  array<string, mixed>|null  $body
     */
    public function prepare(string $method, string $path, ?array $body): CurlHandle
    {
        return $this->handle($method, $path, $body === null ? null : (string) json_encode((object) $body));
    }

    /** The body of an answer as it came. */
    public function raw(string $path): string
    {
        return (string) curl_exec($this->handle('GET', $path, null));
    }

    /** Seconds the last answer took, from sending to the last byte. */
    public function timed(string $method, string $path, ?string $body = null): float
    {
        $handle = $this->handle($method, $path, $body);
        $this->finishOne($handle);

        return curl_getinfo($handle, CURLINFO_TOTAL_TIME);
    }

    /** @return array<mixed> */
    private function finishOne(CurlHandle $handle): array
    {
        $answer = curl_exec($handle);
        if (! is_string($answer)) {
            throw new RuntimeException('no answer: '.curl_error($handle));
        }
        curl_setopt($handle, CURLOPT_COOKIELIST, 'FLUSH');

        return (array) json_decode($answer, true);
    }

    /**
     * @param  string|array<string, mixed>|null  $body
     */
    private function handle(string $method, string $path, string|array|null $body): CurlHandle
    {
        $token =
            preg_match('/XSRF-TOKEN\t(\S+)/', (string) @file_get_contents($this->cookies), $m) === 1
                ? rawurldecode($m[1])
                : '';
        $handle = curl_init($this->url.$path) ?: throw new RuntimeException('curl cannot start');
        curl_setopt_array($handle, [
            CURLOPT_CUSTOMREQUEST => $method,
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_COOKIEFILE => $this->cookies,
            CURLOPT_COOKIEJAR => $this->cookies,
            CURLOPT_TIMEOUT => 240,
            CURLOPT_HTTPHEADER => [
                'Accept: application/json',
                "Referer: {$this->url}/",
                "X-XSRF-TOKEN: {$token}",
                ...is_string($body) ? ['Content-Type: application/json'] : [],
            ],
        ]);
        if ($body !== null) {
            curl_setopt($handle, CURLOPT_POSTFIELDS, $body);
        }

        return $handle;
    }
}
