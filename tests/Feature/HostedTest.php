<?php

declare(strict_types=1);

namespace Tests\Feature;

use DateTimeImmutable;
use Magpie\Bin\Audit;
use Magpie\Bin\Background;
use Magpie\Bin\Failure;
use Magpie\Bin\Production\Install;
use Magpie\Bin\Production\Secrets;
use Magpie\Bin\Production\Server;
use Magpie\Bin\Production\Settings;
use Magpie\Bin\Project;
use Magpie\Bin\Retention;
use Magpie\Bin\Safekeeping;
use Magpie\Bin\Sealed;
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
    private static function fetch(string $url, ?string $host = null): array
    {
        $headers = [];
        $handle = curl_init($url);
        curl_setopt_array($handle, [
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_TIMEOUT => 60,
            CURLOPT_HTTPHEADER => $host === null ? [] : ["Host: {$host}"],
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

        // What opens something stands in no log, but its hash does.
        foreach (['/invited/', '/shared/', '/api/invited/'] as $way) {
            self::fetch("{$url}{$way}a-secret-of-40-letters");
        }
        self::fetch("{$url}/reset?token=a-secret-of-40-letters&email=a");
        $client->post('/api/shared/a-secret-of-40-letters');
        $hash = substr(hash('sha256', 'a-secret-of-40-letters'), 0, 16);
        for ($log = '', $i = 0; $i < 200 && substr_count($log, $hash) < 4; $i++, usleep(50_000)) {
            $log = implode('', array_map(static fn (string $f): string => (string) file_get_contents($f), glob("{$hosted->home()}/logs/*") ?: []));
        }
        self::assertSame(4, substr_count($log, $hash));
        self::assertStringNotContainsString('a-secret-of-40-letters', $log);

        // Another name is answered by nobody, not with a file either.
        foreach (['/', '/mark.svg', '/api/health'] as $path) {
            self::assertSame(0, self::fetch($url.$path, 'elsewhere.example')[0], $path);
        }
        self::assertSame(0600, (int) fileperms("{$hosted->home()}/made/config.php") & 07777);

        // Encrypted, while it runs; without the passphrase nothing is restored.
        putenv('MAGPIE_PASSPHRASE=four small brown eggs');
        $sealed = "{$hosted->home()}/run/away.zip.sealed";
        $away = new Safekeeping(new Project(self::root(), new Terminal(quiet: true)), new Terminal(quiet: true), 'hosted');
        self::assertSame(0, $away->backup([$sealed, '--encrypt']));
        self::assertStringNotContainsString('PK', (string) file_get_contents($sealed, length: 200));
        self::assertSame([], glob("{$hosted->home()}/run/*.open") ?: []);
        putenv('MAGPIE_PASSPHRASE=four small green eggs');
        self::assertRefused(static fn () => $away->restore([$sealed, '--replace']), 'another passphrase');
        putenv('MAGPIE_PASSPHRASE=four small brown eggs');
        self::assertSame(0, $away->restore([$sealed, '--replace']));
        putenv('MAGPIE_PASSPHRASE');

        // Kept while it runs; what came after is gone when it is restored, and all before is there to the byte.
        $quiet = new Terminal(quiet: true);
        $keeping = new Safekeeping(new Project(self::root(), $quiet), $quiet, 'hosted');
        $dump = "{$hosted->home()}/run/dump.sql";
        $state = static function () use ($hosted, $dump): string {
            $hosted->client()->dump('magpie', $dump);

            return (string) preg_replace(
                '/^INSERT INTO `(sign_ins|presences|judgings|snapshots|events|browsers)`.*?;$| AUTO_INCREMENT=\d+/ms',
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
        Shell::run('rm -rf '.escapeshellarg($folder));
    }

    /** Found by attack: run again with a certificate, the install kept the cookie it had allowed without one. */
    public function test_what_the_install_decides_is_decided_anew_each_time_and_the_own_file_stays(): void
    {
        $home = sys_get_temp_dir().'/magpie-settings-'.getmypid();
        mkdir($home, 0700);
        $quiet = new Terminal(quiet: true);
        $install = new Install(new Project(self::root(), $quiet), $quiet);
        $run = static function (bool $tls) use ($install, $home): array {
            $server = new Server(self::root(), 'a', 'a', 'bench.example', '', $home, '/var/log/a', '', $tls ? ['c', 'k'] : null, ['s'], 1, $tls ? '443' : '80');
            $install->settings($server, 'secret');

            return Settings::lines((string) file_get_contents("{$home}/.env"));
        };
        // The first run, and what somebody added by hand to its file with an older version.
        $first = $run(false);
        self::assertSame(['false', 'http://bench.example'], [$first['SESSION_SECURE_COOKIE'], $first['APP_URL']]);
        unlink("{$home}/own.env");
        file_put_contents("{$home}/.env", "MAIL_MAILER=\"smtp\"\nSESSION_DRIVER=redis\nDB_HOST=10.0.0.6\nDB_PASSWORD=away\n", FILE_APPEND);
        foreach (['second', 'third'] as $time) {
            $now = $run(true);
            self::assertSame('true', $now['SESSION_SECURE_COOKIE'], $time);
            self::assertSame('https://bench.example', $now['APP_URL'], $time);
            self::assertSame($first['APP_KEY'], $now['APP_KEY'], $time);
            self::assertSame(['smtp', 'redis'], [$now['MAIL_MAILER'], $now['SESSION_DRIVER']], $time);
            self::assertSame(['10.0.0.6', 'away'], [$now['DB_HOST'], $now['DB_PASSWORD']], $time);
            self::assertArrayNotHasKey('DB_SOCKET', $now, 'The database is elsewhere.');
        }
        // In a place of their own: what is changed there counts, what the install decides does not.
        file_put_contents("{$home}/own.env", "MAIL_MAILER=sendmail\nSESSION_SECURE_COOKIE=false\nAPP_URL=http://x\n");
        $now = $run(true);
        self::assertSame(['sendmail', 'true', 'https://bench.example'], [$now['MAIL_MAILER'], $now['SESSION_SECURE_COOKIE'], $now['APP_URL']]);
        self::assertSame(['secret', '/run/mysqld/mysqld.sock'], [$now['DB_PASSWORD'], $now['DB_SOCKET']]);
        self::assertSame(['SESSION_SECURE_COOKIE', 'APP_URL'], Settings::of($home)->refused());
        self::assertStringContainsString('MAIL_MAILER=sendmail', (string) file_get_contents("{$home}/own.env"), 'It is not written again.');
        foreach (['.env', 'own.env', 'key'] as $file) {
            self::assertSame(0600, fileperms("{$home}/{$file}") & 07777, $file);
        }
        Shell::run('rm -rf '.escapeshellarg($home));
    }

    /** Found in use: under a mask of 077 the packages could be read by root alone, and nothing started. */
    public function test_a_checkout_made_under_a_strict_mask_is_made_readable_and_a_closed_folder_above_it_is_said(): void
    {
        $root = sys_get_temp_dir().'/magpie-mask-'.getmypid();
        mkdir("{$root}/open/magpie/vendor/a", 0700, true);
        mkdir("{$root}/open/magpie/.data", 0700);
        file_put_contents("{$root}/open/magpie/vendor/a/b.php", '<?php');
        file_put_contents("{$root}/open/magpie/.data/key", 'secret');
        chmod("{$root}/open/magpie/vendor/a/b.php", 0600);
        chmod("{$root}/open/magpie/.data/key", 0600);
        $quiet = new Terminal(quiet: true);
        $install = new Install(new Project(self::root(), $quiet), $quiet);
        $server = new Server("{$root}/open/magpie", 'a', 'a', 'bench.example', '', '', '', 'magpie', null, ['s'], 1, '80');
        try {
            $install->readable($server);
            self::fail('Nobody gets through a closed folder.');
        } catch (Failure $failure) {
            self::assertStringContainsString("{$root}/open is closed to the user magpie", $failure->getMessage());
        }
        chmod("{$root}/open", 0711);
        chmod($root, 0711);
        $install->readable($server);
        clearstatcache();
        $mode = static fn (string $of): string => sprintf('%o', (int) fileperms("{$root}/open/magpie{$of}") & 0777);
        self::assertSame(['755', '755', '644', '700', '600'], array_map($mode, ['', '/vendor/a', '/vendor/a/b.php', '/.data', '/.data/key']));
        Shell::run('rm -rf '.escapeshellarg($root));
    }

    public function test_files_with_secrets_that_others_can_read_are_named(): void
    {
        $home = sys_get_temp_dir().'/magpie-secrets-'.getmypid();
        mkdir("{$home}/made", 0755, true);
        chmod($home, 0755);
        foreach (['.env', 'key', 'made/config.php', 'own.env'] as $file) {
            file_put_contents("{$home}/{$file}", 'x');
            chmod("{$home}/{$file}", 0600);
        }
        $secrets = new Secrets($home);
        self::assertSame([], $secrets->open());
        chmod("{$home}/made/config.php", 0644);
        chmod("{$home}/key", 0640);
        self::assertSame(["{$home}/key (mode 0640)", "{$home}/made/config.php (mode 0644)"], $secrets->open());
        chmod("{$home}/made", 0700);
        self::assertSame(["{$home}/key (mode 0640)"], $secrets->open(), 'Nobody else gets into that folder.');
        $secrets->shut();
        self::assertSame([0600, 0700], [fileperms("{$home}/key") & 0777, fileperms($home) & 0777]);
        Shell::run('rm -rf '.escapeshellarg($home));
    }

    /**
     * @return iterable<string, array{bool}>
     */
    public static function secrets(): iterable
    {
        yield 'a passphrase' => [false];
        yield 'a key file' => [true];
    }

    /** Read back to the byte; any change of it, at any place, is refused, and so is another secret. */
    #[DataProvider('secrets')]
    public function test_an_encrypted_backup_opens_with_its_secret_and_whole_only(bool $byKey): void
    {
        $home = sys_get_temp_dir().'/magpie-sealed-'.getmypid();
        mkdir($home, 0700);
        $secret = static fn (string $which): Sealed => $byKey
            ? Sealed::byKeyFile("{$home}/{$which}.key", true)
            : Sealed::byPassphrase("{$which} brown eggs in a nest");
        foreach ([0, 1, 65_536, 200_001] as $size) {
            $bytes = $size === 0 ? '' : random_bytes($size);
            file_put_contents("{$home}/plain", $bytes);
            $secret('four')->seal("{$home}/plain", "{$home}/sealed");
            self::assertTrue(Sealed::is("{$home}/sealed"));
            self::assertFalse($size > 0 && str_contains((string) file_get_contents("{$home}/sealed"), substr($bytes, 0, 16)) && $size > 16);
            $secret('four')->unseal("{$home}/sealed", "{$home}/back");
            self::assertSame($bytes, (string) file_get_contents("{$home}/back"), (string) $size);
        }
        $sealed = (string) file_get_contents("{$home}/sealed");
        $piece = 65_536 + 17;
        $begin = strlen($sealed) - 3 * $piece - (200_001 - 3 * 65_536 + 17);
        $damaged = [
            'cut off at a piece' => substr($sealed, 0, -(200_001 - 3 * 65_536 + 17)),
            'cut off in a piece' => substr($sealed, 0, -5),
            'longer' => "{$sealed}x",
            'two pieces changed places' => substr($sealed, 0, $begin).substr($sealed, $begin + $piece, $piece).substr($sealed, $begin, $piece).substr($sealed, $begin + 2 * $piece),
            'nothing after its head' => substr($sealed, 0, $begin),
        ];
        foreach ([20, 40, $begin + 3, $begin + $piece + 100, strlen($sealed) - 1] as $at) {
            $damaged["byte {$at}"] = substr_replace($sealed, chr(ord($sealed[$at]) ^ 1), $at, 1);
        }
        foreach ($damaged as $how => $bytes) {
            file_put_contents("{$home}/sealed", $bytes);
            self::assertRefused(static fn () => $secret('four')->unseal("{$home}/sealed", "{$home}/back"), $how);
            self::assertFileDoesNotExist("{$home}/back", $how);
        }
        file_put_contents("{$home}/sealed", $sealed);
        self::assertRefused(static fn () => $secret('five')->unseal("{$home}/sealed", "{$home}/back"), 'another secret');
        Shell::run('rm -rf '.escapeshellarg($home));
    }

    private static function assertRefused(callable $act, string $how): void
    {
        try {
            $act();
        } catch (Failure $failure) {
            self::assertMatchesRegularExpression('/does not open|is not an encrypted backup/', $failure->getMessage(), $how);

            return;
        }
        self::fail($how);
    }

    /** The site with a certificate, as the templates write it, before an application that is away. */
    public function test_a_line_without_forward_secrecy_and_another_name_are_refused(): void
    {
        $home = sys_get_temp_dir().'/magpie-tls-'.getmypid();
        mkdir($home, 0700);
        Shell::run(
            "openssl req -x509 -newkey rsa:2048 -nodes -days 2 -subj /CN=bench.example -keyout {$home}/key.pem -out {$home}/cert.pem",
        );
        $port = Shell::freePort();
        $server = new Server(self::root(), 'tls', 'tls', 'bench.example', $home, $home, $home, '', ["{$home}/cert.pem", "{$home}/key.pem"], ["{$home}/none.sock"], 1, "127.0.0.1:{$port}");
        foreach ($server->files() as $name => $text) {
            file_put_contents("{$home}/{$name}", $text);
        }
        file_put_contents("{$home}/main.conf", Hosted::main($home, "{$home}/nginx.conf"));
        $pid = Background::start(['nginx', '-c', "{$home}/main.conf", '-g', 'daemon off;', '-e', "{$home}/start.log"], "{$home}/nginx.log", [], $home);
        try {
            for ($i = 0; $i < 100 && @fsockopen('127.0.0.1', $port) === false; $i++) {
                usleep(50_000);
            }
            $shake = static fn (string $with, string $name = 'bench.example'): string => Shell::run(
                "openssl s_client -connect 127.0.0.1:{$port} -servername {$name} {$with} </dev/null 2>&1",
            )[1];
            self::assertStringContainsString('Cipher is TLS_', $shake('-tls1_3'));
            self::assertMatchesRegularExpression('/Cipher is ECDHE-RSA-(AES|CHACHA)/', $shake('-tls1_2'));
            foreach (['AES128-SHA', 'AES256-GCM-SHA384', 'ECDHE-RSA-AES128-SHA'] as $old) {
                self::assertStringContainsString('Cipher is (NONE)', $shake("-tls1_2 -cipher {$old}:@SECLEVEL=0"), $old);
            }
            self::assertStringContainsString('Cipher is (NONE)', $shake('-tls1_1 -cipher ALL:@SECLEVEL=0'));
            self::assertStringContainsString('Cipher is (NONE)', $shake('', 'elsewhere.example'));
            $site = $server->files()['nginx.conf'];
            self::assertStringNotContainsString('https://$host', $site);
            // By the version of nginx nobody learns what to try.
            [, $answer] = Shell::run("curl -ski --resolve bench.example:{$port}:127.0.0.1 https://bench.example:{$port}/mark.svg");
            self::assertStringContainsString('strict-transport-security', strtolower($answer));
            self::assertDoesNotMatchRegularExpression('#nginx/\d#', $answer);
        } finally {
            Background::stop($pid, 10);
            Shell::run('rm -rf '.escapeshellarg($home));
        }
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
