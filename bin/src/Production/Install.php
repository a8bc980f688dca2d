<?php

declare(strict_types=1);

namespace Magpie\Bin\Production;

use Magpie\Bin\DatabaseClient;
use Magpie\Bin\Failure;
use Magpie\Bin\Packages;
use Magpie\Bin\Project;
use Magpie\Bin\Shell;
use Magpie\Bin\Terminal;
use Magpie\Bin\Upgrade;

/** Sets this checkout up as a server for strangers, with Debian's nginx, php-fpm and MariaDB. Run again, it brings all of it up to date. */
final readonly class Install
{
    public const INSTANCE = 'production';

    private const NAME = 'magpie';

    /** What of the checkout the application reads. */
    private const READ = [
        'app', 'artisan', 'bin', 'bootstrap', 'composer.json', 'config', 'core', 'database', 'demo', 'deploy', 'docs', 'public', 'resources',
        'routes', 'vendor',
    ];

    private const USAGE = 'usage: bin/magpie install --production --host=NAME [--cert=FILE --key=FILE] [--workers=N] [--home=FOLDER] [--into=FOLDER]';

    public function __construct(private Project $project, private Terminal $terminal)
    {
    }

    /**
     * @param  list<string>  $arguments
     *
     * @throws Failure
     */
    public function run(array $arguments): int
    {
        $given = self::options($arguments);
        $server = $this->server($given);
        if (isset($given['into'])) {
            $this->lay($server, $given['into']);
            $this->terminal->say(
                "  The files a server needs are in {$given['into']}; nothing of this machine was changed.",
            );

            return 0;
        }
        if (posix_geteuid() !== 0) {
            throw new Failure(
                'this sets up a machine and has to be run by root; --into=FOLDER shows what it would write.',
                2,
            );
        }
        $this->project->setUp(Packages::TO_HOST);
        $this->user($server);
        $this->readable($server);
        $this->folders($server);
        $this->database($server);
        $this->lay($server, $server->etc);
        $this->link($server);
        (new Upgrade($this->project, $this->terminal, $server->instance, $server->home))->bring(
            DatabaseClient::ofServed($server->home) ?? throw new Failure('the database does not answer.'),
        );
        $this->project->settle($server->instance);
        (new Secrets($server->home))->shut();
        Shell::run(
            'chown -R '.
                escapeshellarg("{$server->user}:{$server->user}").
                ' '.
                escapeshellarg($server->home).
                ' '.
                escapeshellarg("{$server->root}/storage"),
        );
        $this->begin($server);
        $this->terminal->say('');
        $this->terminal->say("  Open      {$server->url()}");
        $this->terminal->say("  Health    {$server->url()}/api/health");
        $this->terminal->say('  The first account is made at its door; later ones come by invitation.');

        return 0;
    }

    /**
     * @param  array<string, string>  $given
     */
    private function server(array $given): Server
    {
        $home = $given['home'] ?? '/var/lib/magpie';

        return new Server(
            $this->project->root,
            self::NAME,
            self::INSTANCE,
            $given['host'],
            '/etc/magpie',
            $home,
            '/var/log/magpie',
            self::NAME,
            isset($given['cert']) ? [$given['cert'], $given['key']] : null,
            ['/run/php/magpie.sock'],
            (int) ($given['workers'] ?? self::workers()),
            isset($given['cert']) ? '443' : '80',
        );
    }

    /** Two a processor and two more: most of the time one waits for the database. */
    private static function workers(): int
    {
        return 2 * max(1, substr_count((string) file_get_contents('/proc/cpuinfo'), "\nprocessor") + 1) + 2;
    }

    private function lay(Server $server, string $folder): void
    {
        @mkdir($folder, 0755, true);
        foreach ($server->files() as $name => $text) {
            if (@file_put_contents("{$folder}/{$name}", $text) === false) {
                throw new Failure("{$folder}/{$name} cannot be written.");
            }
        }
    }

    private function user(Server $server): void
    {
        if (posix_getpwnam($server->user) === false) {
            self::must(
                'useradd --system --home-dir '.
                    escapeshellarg($server->home).
                    ' --shell /usr/sbin/nologin '.
                    escapeshellarg($server->user),
            );
        }
    }

    private function folders(Server $server): void
    {
        foreach (['', '/files', '/sessions', '/cache', '/backups'] as $folder) {
            @mkdir($server->home.$folder, 0700, true);
        }
        @mkdir($server->logs, 0750, true);
        foreach (['access', 'error', 'app', 'php'] as $log) {
            touch("{$server->logs}/{$log}.log");
            chmod("{$server->logs}/{$log}.log", 0640);
        }
        Shell::run(
            'chown -R '.escapeshellarg("{$server->user}:{$server->user}").' '.escapeshellarg($server->logs),
        );
        // nginx opens its own log beside before it gives up being root; what is of this user is none of its business.
        Shell::run('gpasswd -d www-data '.escapeshellarg($server->user));
        $link = "{$server->root}/.data/{$server->instance}";
        @mkdir(dirname($link), 0755, true);
        if (! is_link($link) && ! is_dir($link) && ! symlink($server->home, $link)) {
            throw new Failure("{$link} cannot be made.");
        }
    }

    /** A database and a user of its own in the MariaDB of this machine, unless it is elsewhere; what is there stays. */
    private function database(Server $server): void
    {
        $this->terminal->begin('Database');
        $own = Settings::of($server->home);
        $held = Settings::lines((string) @file_get_contents("{$server->home}/.env"));
        $password = ($own->isDatabaseElsewhere() ? null : $held['DB_PASSWORD'] ?? null) ?? bin2hex(random_bytes(20));
        if (! $own->isDatabaseElsewhere()) {
            Shell::run('systemctl start mariadb || service mariadb start');
            $root = new DatabaseClient('/run/mysqld/mysqld.sock', '');
            $root->statement(
                'CREATE DATABASE IF NOT EXISTS magpie CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci; '.
                    "CREATE USER IF NOT EXISTS 'magpie'@'localhost' IDENTIFIED BY '{$password}'; ".
                    "ALTER USER 'magpie'@'localhost' IDENTIFIED BY '{$password}'; ".
                    "GRANT ALL ON `magpie%`.* TO 'magpie'@'localhost'",
            );
        }
        $this->settings($server, $password);
        $this->terminal->end();
        foreach ($own->refused() as $name) {
            $this->terminal->say("  {$name} in {$server->home}/".Settings::OWN.' is left out: the install decides it.');
        }
    }

    /** The key, made once, and the settings, written anew from what the install decides and what the keeper's own file says. */
    public function settings(Server $server, string $password): void
    {
        $key = "{$server->home}/key";
        if (! is_file($key)) {
            touch($key);
            chmod($key, 0600);
            file_put_contents($key, 'base64:'.base64_encode(random_bytes(32)));
        }
        $settings = "{$server->home}/.env";
        $text = Settings::of($server->home)->with(
            $server->decided((string) file_get_contents($key), '/run/mysqld/mysqld.sock', 'magpie', 'magpie', $password),
        );
        touch($settings);
        chmod($settings, 0600);
        file_put_contents($settings, $text);
    }

    /**
     * A checkout made under a strict mask is still read by the server's user: its code is no secret, its data lies elsewhere.
     *
     * @throws Failure where a folder above it is closed
     */
    public function readable(Server $server): void
    {
        $parts = array_filter(
            array_map(static fn (string $name): string => "{$server->root}/{$name}", self::READ),
            file_exists(...),
        );
        Shell::run('chmod a+rX '.escapeshellarg($server->root));
        Shell::run('chmod -R a+rX '.implode(' ', array_map(escapeshellarg(...), $parts)));
        clearstatcache();
        for ($folder = dirname($server->root); $folder !== '/'; $folder = dirname($folder)) {
            if ((fileperms($folder) & 0001) === 0) {
                throw new Failure(
                    "{$folder} is closed to the user {$server->user}, who could not read the checkout in it: move it, to /opt/magpie for example.",
                );
            }
        }
    }

    private function link(Server $server): void
    {
        $php = PHP_MAJOR_VERSION.'.'.PHP_MINOR_VERSION;
        foreach (
            [
                '/etc/nginx/sites-available/magpie.conf' => 'nginx.conf',
                '/etc/nginx/sites-enabled/magpie.conf' => 'nginx.conf',
                "/etc/php/{$php}/fpm/pool.d/magpie.conf" => 'php-fpm.conf',
                "/etc/php/{$php}/fpm/conf.d/90-magpie.ini" => 'php.ini',
                '/etc/logrotate.d/magpie' => 'logrotate',
                '/etc/systemd/system/magpie-judge.service' => 'judge.service',
                '/etc/systemd/system/magpie-errands.service' => 'errands.service',
                '/etc/systemd/system/magpie-inspector.service' => 'inspector.service',
                '/etc/systemd/system/magpie-backup.service' => 'backup.service',
                '/etc/systemd/system/magpie-backup.timer' => 'backup.timer',
            ] as $at => $of
        ) {
            @mkdir(dirname($at), 0755, true);
            @unlink($at);
            if (! copy("{$server->etc}/{$of}", $at)) {
                throw new Failure("{$at} cannot be written.");
            }
        }
        // Debian's greeting page and pool would answer in its place, and hold memory.
        @unlink('/etc/nginx/sites-enabled/default');
        @rename("/etc/php/{$php}/fpm/pool.d/www.conf", "/etc/php/{$php}/fpm/pool.d/www.conf.off");
        self::must('nginx -t');
        self::must("php-fpm{$php} -t");
    }

    private function begin(Server $server): void
    {
        $php = PHP_MAJOR_VERSION.'.'.PHP_MINOR_VERSION;
        if (
            Shell::status('systemctl is-system-running --quiet || systemctl list-units --quiet >/dev/null 2>&1') !== 0
        ) {
            $this->terminal->say(
                '  There is no systemd here: start mariadb, php-fpm, nginx, magpie:judge, magpie:errands and magpie:inspector by what there is.',
            );

            return;
        }
        self::must('systemctl daemon-reload');
        self::must(
            "systemctl enable --now mariadb nginx php{$php}-fpm magpie-judge magpie-errands magpie-inspector magpie-backup.timer",
        );
        self::must("systemctl restart php{$php}-fpm magpie-judge magpie-errands magpie-inspector && systemctl reload nginx");
    }

    private static function must(string $command): void
    {
        [$status, $output] = Shell::run($command);
        if ($status !== 0) {
            throw new Failure("\"{$command}\" did not work: ".Shell::lastLine($output));
        }
    }

    /**
     * @param  list<string>  $arguments
     * @return array<string, string>
     *
     * @throws Failure
     */
    private static function options(array $arguments): array
    {
        $given = [];
        foreach ($arguments as $argument) {
            if (preg_match('/^--(production)$|^--(host|cert|key|workers|home|into)=(.+)$/', $argument, $m) !== 1) {
                throw new Failure("\"{$argument}\" is not understood here. ".self::USAGE, 2);
            }
            $given[$m[1] !== '' ? $m[1] : $m[2]] = $m[3] ?? '';
        }
        if (! isset($given['production'], $given['host'])) {
            throw new Failure(self::USAGE, 2);
        }
        if (preg_match('/^[a-z0-9]([a-z0-9.-]*[a-z0-9])?$/i', $given['host']) !== 1) {
            throw new Failure("\"{$given['host']}\" is no name of a server.", 2);
        }
        if (isset($given['cert']) !== isset($given['key'])) {
            throw new Failure('a certificate needs its key, and a key its certificate.', 2);
        }
        foreach (['cert', 'key'] as $file) {
            if (isset($given[$file]) && ! is_readable($given[$file])) {
                throw new Failure("{$given[$file]} cannot be read.", 2);
            }
        }
        if (isset($given['workers']) && ((int) $given['workers'] < 1 || (int) $given['workers'] > 500)) {
            throw new Failure('--workers is a number from 1 to 500.', 2);
        }

        return $given;
    }
}
