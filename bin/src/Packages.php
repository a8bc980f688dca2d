<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Bin\Production\Secrets;

/** The Debian packages the project stands on, and how it gets them. */
final readonly class Packages
{
    public const TO_SERVE = 'serve';

    public const TO_TEST = 'test';

    public const TO_HOST = 'host';

    public function __construct(private Terminal $terminal)
    {
    }

    public function install(string $for): void
    {
        $missing = array_values(
            array_unique(
                array_column(array_filter(self::wanted($for), static fn (array $w): bool => ! $w['present']), 'package'),
            ),
        );
        if ($missing === []) {
            return;
        }
        $this->terminal->begin('Installing '.count($missing).' Debian packages');
        $sudo = posix_geteuid() === 0 ? '' : 'sudo -n ';
        if ($sudo !== '' && Shell::status('sudo -n true') !== 0) {
            throw new Failure(
                'these Debian packages are missing and this user may not install them: apt-get install '.
                    implode(' ', $missing),
            );
        }
        $install =
            "{$sudo}env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends ".
            implode(' ', $missing);
        [$status, $output] = Shell::run("{$sudo}apt-get update -q && {$install}");
        if ($status !== 0) {
            throw new Failure(
                'Debian packages could not be installed ('.implode(' ', $missing).'): '.Shell::lastLine($output),
            );
        }
        $this->terminal->end(implode(' ', $missing));
    }

    public function report(): int
    {
        $missing = 0;
        foreach (self::wanted(self::TO_TEST) as $want) {
            $this->terminal->say(
                sprintf(
                    '  %-9s %-22s %s',
                    $want['present'] ? 'present' : 'MISSING',
                    $want['what'],
                    $want['present'] ? $want['version'] : "Debian package {$want['package']}",
                ),
            );
            $missing += $want['present'] ? 0 : 1;
        }
        foreach (
            [
                'composer' => 'COMPOSER_ALLOW_SUPERUSER=1 composer --version',
                'node' => 'node --version',
                'npm' => 'npm --version',
            ] as $tool => $command
        ) {
            [$status, $output] = Shell::run($command);
            $this->terminal->say(
                sprintf(
                    '  %-9s %-22s %s',
                    $status === 0 ? 'present' : 'MISSING',
                    $tool,
                    $status === 0 ? Shell::lastLine(explode("\n", $output)[0]) : "install {$tool} first",
                ),
            );
            $missing += $status === 0 ? 0 : 1;
        }
        foreach ($this->readable() as $file) {
            $this->terminal->say("  OPEN      {$file} holds a secret and can be read by others: chmod 600");
            $missing++;
        }
        $this->terminal->say(
            $missing === 0
                ? '  Nothing is missing.'
                : '  bin/magpie demo and bin/magpie test install the Debian packages themselves.',
        );

        return $missing === 0 ? 0 : 1;
    }

    /**
     * Files with secrets that others can read, of every instance of this checkout.
     *
     * @return list<string>
     */
    private function readable(): array
    {
        $open = [];
        foreach (glob(dirname(__DIR__, 2).'/.data/*', GLOB_ONLYDIR) ?: [] as $folder) {
            $open = is_file("{$folder}/key") ? [...$open, ...(new Secrets((string) realpath($folder)))->open()] : $open;
        }

        return $open;
    }

    /**
     * @return list<array{what: string, package: string, present: bool, version: string}>
     */
    private static function wanted(string $for): array
    {
        [, $modules] = Shell::run(escapeshellarg(PHP_BINARY).' -m');
        $loaded = array_map(strtolower(...), explode("\n", $modules));
        $php = 'php'.PHP_MAJOR_VERSION.'.'.PHP_MINOR_VERSION;
        $extensions = [
            'pdo_mysql' => 'mysql',
            'mbstring' => 'mbstring',
            'dom' => 'xml',
            'xmlwriter' => 'xml',
            'gd' => 'gd',
            'curl' => 'curl',
            'zip' => 'zip',
        ] + ($for === self::TO_SERVE ? [] : ['redis' => 'redis']);
        $wanted = [['what' => 'PHP', 'package' => "{$php}-cli", 'present' => true, 'version' => PHP_VERSION]];
        foreach ($extensions as $extension => $package) {
            $wanted[] = [
                'what' => "PHP {$extension}",
                'package' => "{$php}-{$package}",
                'present' => in_array($extension, $loaded, true),
                'version' => PHP_VERSION,
            ];
        }
        // mariadb-server-core starts no service of its own; making a data folder takes a small program of the client
        // package.
        $programs = [
            'mariadbd' => 'mariadb-server-core',
            'my_print_defaults' => 'mariadb-client-core',
            'mariadb-dump' => 'mariadb-client',
            'unzip' => 'unzip',
            'qrencode' => 'qrencode',
        ];
        if ($for !== self::TO_SERVE) {
            $programs += [
                'nginx' => 'nginx-light',
                'php-fpm'.PHP_MAJOR_VERSION.'.'.PHP_MINOR_VERSION => "{$php}-fpm",
                'redis-server' => 'redis-server',
                'logrotate' => 'logrotate',
            ];
        }
        if ($for === self::TO_HOST) {
            $programs += ['mariadbd-safe' => 'mariadb-server'];
        }
        if ($for === self::TO_TEST) {
            $programs += [
                'chromium' => 'chromium',
                'chromedriver' => 'chromium-driver',
                'ngspice' => 'ngspice',
                'units' => 'units',
                'glpsol' => 'glpk-utils',
                'admesh' => 'admesh',
                'octave-cli' => 'octave',
                'openscad' => 'openscad',
            ];
        }
        foreach ($programs as $program => $package) {
            $path = Shell::find($program);
            $wanted[] = [
                'what' => $program,
                'package' => $package,
                'present' => $path !== null,
                'version' => $path === null ? '' : Shell::packageVersion($package),
            ];
        }

        if ($for === self::TO_TEST) {
            // Tables to test against, not a program.
            $wanted[] = [
                'what' => 'mechanical tables',
                'package' => 'openscad-mcad',
                'present' => is_file('/usr/share/openscad/libraries/MCAD/bearing.scad'),
                'version' => Shell::packageVersion('openscad-mcad'),
            ];
        }

        return $wanted;
    }
}
