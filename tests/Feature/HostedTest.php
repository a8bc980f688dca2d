<?php

declare(strict_types=1);

namespace Tests\Feature;

use DateTimeImmutable;
use Magpie\Bin\Audit;
use Magpie\Bin\Failure;
use Magpie\Bin\Production\Install;
use Magpie\Bin\Production\Server;
use Magpie\Bin\Project;
use Magpie\Bin\Retention;
use Magpie\Bin\Safekeeping;
use Magpie\Bin\Shell;
use Magpie\Bin\Terminal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\Hosted;
use Tests\Support\HttpClient;

/** A server for strangers as the templates write it: nginx, two application servers, MariaDB and Redis. */
final class HostedTest extends TestCase
{
    private ?Hosted $hosted = null;

    protected function tearDown(): void
    {
        $this->hosted?->stop();
    }

    private static function root(): string
    {
        return dirname(__DIR__, 2);
    }

    /**
     * @return array{int, array<string, string>, string} status, headers, body
     */
    private static function fetch(string $url): array
    {
        $headers = [];
        $handle = curl_init($url);
        curl_setopt_array($handle, [
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_TIMEOUT => 60,
            CURLOPT_HEADERFUNCTION => static function ($handle, string $line) use (&$headers): int {
                if (str_contains($line, ':')) {
                    [$name, $value] = explode(':', $line, 2);
                    $headers[strtolower($name)] = trim($value);
                }

                return strlen($line);
            },
        ]);
        $body = (string) curl_exec($handle);

        return [curl_getinfo($handle, CURLINFO_RESPONSE_CODE), $headers, $body];
    }

    public function test_two_application_servers_without_sticky_sessions_lose_no_confirmed_edit_and_restore_what_was_kept(): void
    {
        $hosted = $this->hosted = new Hosted(self::root(), 2, 3, true);
        $url = $hosted->server->url();
        self::assertSame('', $hosted->complaints());
        [$status, , $body] = self::fetch("{$url}/api/health");
        self::assertSame([200, true], [$status, json_decode($body, true)['well']], $body);

        // Files, and what is none of anybody's business.
        [$status, $headers, $page] = self::fetch("{$url}/");
        self::assertSame(
            [200, 'nosniff', 'DENY'],
            [$status, $headers['x-content-type-options'], $headers['x-frame-options']],
        );
        self::assertSame(1, preg_match('#/build/assets/[^"]+\.js#', $page, $asset));
        [$status, $headers] = self::fetch($url.$asset[0]);
        self::assertSame(200, $status);
        self::assertStringContainsString('immutable', $headers['cache-control']);
        self::assertStringContainsString("default-src 'self'", $headers['content-security-policy']);
        foreach (['/.env', '/.git/config', '/index.php', '/router.php', '/../.data/hosted/.env'] as $path) {
            self::assertNotSame('php', substr(self::fetch($url.$path)[2], 2, 3));
            self::assertContains(self::fetch($url.$path)[0], [400, 404], $path);
        }

        // One session over both application servers; then one of them dies in the middle.
        $client = new HttpClient($url);
        $client->post('/api/session/demo');
        $build = $client->get('/api/builds')[0]['builds'][0]['id'];
        $edit = static fn (string $ref): array => $client->post("/api/builds/{$build}/edits", [
            'key' => sprintf('%08x-0000-4000-8000-%012x', crc32($ref), crc32($ref)),
            'label' => $ref,
            'changes' => [['section' => 'needs', 'create' => ['ref' => $ref, 'role' => $ref, 'family' => 'fan']]],
        ]);
        $confirmed = [];
        for ($i = 0; $i < 24; $i++) {
            if ($i === 8) {
                $hosted->kill('pool 1');
            }
            if ($i === 16) {
                $hosted->killWorker(0);
            }
            if (isset($edit("n{$i}")['revision'])) {
                $confirmed[] = "n{$i}";
            }
        }
        self::assertGreaterThan(20, count($confirmed));
        // Nobody is there, as while it is upgraded; once they are back, whoever asks is answered.
        $hosted->kill('pool 0');
        for ($i = 0; $i < 8; $i++) {
            self::assertSame(502, self::fetch("{$url}/api/session")[0]);
        }
        $hosted->startPool(0);
        $hosted->startPool(1);
        for ($i = 0; $i < 8; $i++) {
            self::assertSame(200, self::fetch("{$url}/api/session")[0]);
        }
        $held = array_column($client->get("/api/builds/{$build}")['document']['needs'], 'ref');
        self::assertSame([], array_diff($confirmed, $held));

        // A request is found in the log by its number, where it is written once it has been answered.
        [, $headers] = self::fetch("{$url}/api/session");
        for ($ids = [], $i = 0; $i < 200 && ! in_array($headers['x-request-id'], $ids, true); $i++, usleep(50_000)) {
            $log = explode("\n", (string) file_get_contents("{$hosted->home()}/logs/access.log"));
            $ids = array_column(array_map(static fn (string $l): mixed => json_decode($l, true), array_filter($log)), 'id');
        }
        self::assertContains($headers['x-request-id'], $ids);

        // Kept while it runs; what came after is gone when it is restored, and all before is there to the byte.
        $quiet = new Terminal(quiet: true);
        $keeping = new Safekeeping(new Project(self::root(), $quiet), $quiet, 'hosted');
        $dump = "{$hosted->home()}/run/dump.sql";
        $state = static function () use ($hosted, $dump): string {
            $hosted->client()->dump('magpie', $dump);

            return (string) preg_replace(
                '/^INSERT INTO `(sign_ins|presences|judgings|snapshots)`.*$/m',
                '',
                (string) file_get_contents($dump),
            );
        };
        $before = $state();
        self::assertSame(0, $keeping->backup(['--keep']));
        $kept = glob("{$hosted->home()}/backups/kept-*.zip") ?: [];
        self::assertCount(1, $kept);
        $edit('late');
        self::assertNotSame($before, $state());
        try {
            $keeping->restore([$kept[0]]);
            self::fail('It replaces nothing unasked.');
        } catch (Failure $failure) {
            self::assertStringContainsString('--replace', $failure->getMessage());
        }
        self::assertSame(0, $keeping->restore([$kept[0], '--replace']));
        self::assertSame($before, $state());
        self::assertNotSame([], glob("{$hosted->home()}/backups/before-restore-*.zip"));
        $again = new HttpClient($url);
        $again->post('/api/session/demo');
        self::assertNotContains('late', array_column($again->get("/api/builds/{$build}")['document']['needs'], 'ref'));
    }

    public function test_a_certificate_is_asked_for_by_name_and_what_is_missing_is_said(): void
    {
        $quiet = new Terminal(quiet: true);
        $install = new Install(new Project(self::root(), $quiet), $quiet);
        $folder = sys_get_temp_dir().'/magpie-install-'.getmypid();
        foreach (
            [
                [['--host=bench.example'], 'usage'],
                [['--production', '--host=-x'], 'no name of a server'],
                [['--production', '--host=bench.example', '--cert=/etc/hostname'], 'needs its key'],
                [['--production', '--host=bench.example', '--cert=/nowhere', '--key=/nowhere'], 'cannot be read'],
                [['--production', '--host=bench.example', '--colour=red'], 'not understood'],
            ] as [$arguments, $why]
        ) {
            try {
                $install->run([...$arguments, "--into={$folder}"]);
                self::fail($why);
            } catch (Failure $failure) {
                self::assertStringContainsString($why, $failure->getMessage());
                self::assertSame(2, $failure->status);
            }
        }
        self::assertSame(
            0,
            $install->run([
                '--production',
                '--host=bench.example',
                '--cert=/etc/hostname',
                '--key=/etc/hostname',
                "--into={$folder}",
            ]),
        );
        $site = (string) file_get_contents("{$folder}/nginx.conf");
        foreach (
            [
                'ssl_certificate /etc/hostname;',
                'return 308 https://',
                'Strict-Transport-Security',
                'listen 443 ssl http2;',
            ] as $line
        ) {
            self::assertStringContainsString($line, $site);
        }
        foreach (glob("{$folder}/*") ?: [] as $file) {
            self::assertStringNotContainsString('{{', (string) file_get_contents($file), $file);
        }
        $settings = (new Server(self::root(), 'a', 'a', 'h', '', '', '', '', ['c', 'k'], ['s'], 1, '443'))->environment(
            'key',
            's',
            'd',
            'u',
            'p',
            ['MAIL_MAILER' => 'smtp'],
        );
        self::assertStringContainsString("SESSION_SECURE_COOKIE=\"true\"\n", $settings);
        self::assertStringContainsString("MAIL_MAILER=\"smtp\"\n", $settings);
        Shell::run('rm -rf '.escapeshellarg($folder));
    }

    public function test_nightly_backups_thin_out_with_age_and_the_newest_stays(): void
    {
        $now = new DateTimeImmutable('2026-11-28 04:00:00');
        $made = [];
        for ($day = 0; $day < 800; $day++) {
            $made["d{$day}"] = $now->modify("-{$day} days");
        }
        $kept = array_values(array_diff(array_keys($made), Retention::gone($made, $now)));
        self::assertContains('d0', $kept);
        self::assertSame(['d0', 'd1', 'd2', 'd3'], array_slice($kept, 0, 4));
        $ages = array_map(static fn (string $d): int => (int) substr($d, 1), $kept);
        self::assertCount(15, array_filter($ages, static fn (int $a): bool => $a <= 14));
        self::assertEqualsWithDelta(7, count(array_filter($ages, static fn (int $a): bool => $a > 14 && $a <= 60)), 1);
        self::assertEqualsWithDelta(11, count(array_filter($ages, static fn (int $a): bool => $a > 60)), 1);
        self::assertLessThanOrEqual(400, max($ages));
        // One that nobody renewed for years is all there is.
        self::assertSame([], Retention::gone(['old' => $now->modify('-5 years')], $now));
    }

    /**
     * @return iterable<string, array{string, list<string>|null}>
     */
    public static function answers(): iterable
    {
        yield 'nobody answers' => ["npm warn\n{\"error\": {\"code\": \"EAUDIT\"}}", null];
        yield 'no JSON' => ['could not resolve host', null];
        yield 'nothing known' => ['{"advisories": [], "abandoned": []}', []];
        yield 'one of PHP' => ['{"advisories": {"a/b": [{"title": "Reads files"}]}}', ['a/b: Reads files']];
        yield 'one of the front end, and one that is slight' => [
            '{"vulnerabilities": {"x": {"severity": "high"}, "y": {"severity": "low"}}}',
            ['x: high'],
        ];
    }

    /** @param  list<string>|null  $holes */
    #[DataProvider('answers')]
    public function test_known_holes_are_read_from_what_a_registry_says(string $output, ?array $holes): void
    {
        self::assertSame($holes, Audit::holes($output));
    }
}
