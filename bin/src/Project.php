<?php

declare(strict_types=1);

namespace Magpie\Bin;

/**
 * The checkout: its locked dependencies and its built front end, each made again only when what it follows from
 * changed.
 */
final readonly class Project
{
    private Packages $packages;

    public function __construct(public string $root, private Terminal $terminal)
    {
        $this->packages = new Packages($terminal);
    }

    /** @param  Packages::TO_*  $for */
    public function setUp(string $for): void
    {
        $this->packages->install($for);
        $this->dependencies();
        $this->once(
            'Front-end packages (npm)',
            'npm',
            ['package-lock.json', 'package.json'],
            'node_modules',
            'npm ci --no-audit --no-fund --loglevel=error',
        );
        $this->once(
            'Front end (vite)',
            'build',
            ['resources/ui', 'vite.config.ts', 'package-lock.json', 'tsconfig.json'],
            'public/build',
            'npm run build --silent',
        );
    }

    public function dependencies(): void
    {
        $this->packages->install(Packages::TO_SERVE);
        $this->once(
            'PHP packages (composer)',
            'composer',
            ['composer.lock', 'composer.json'],
            'vendor',
            'composer install --no-interaction --no-progress --quiet --prefer-dist',
            ['COMPOSER_ALLOW_SUPERUSER' => '1'],
        );
    }

    /**
     * @param  list<string>  $arguments
     * @param  array<string, string>  $environment
     *
     * @throws Failure
     */
    public function artisan(
        string $instance,
        array $arguments,
        bool $interactive = false,
        array $environment = [],
    ): string {
        $command = implode(' ', array_map(escapeshellarg(...), [PHP_BINARY, "{$this->root}/artisan", ...$arguments]));
        if ($interactive) {
            putenv("MAGPIE_INSTANCE={$instance}");
            passthru($command, $status);
            if ($status !== 0) {
                throw new Failure('that did not work; is bin/magpie serve running?', $status);
            }

            return '';
        }
        [$status, $output] = Shell::run($command, $this->root, ['MAGPIE_INSTANCE' => $instance] + $environment);
        if ($status !== 0) {
            throw new Failure("{$arguments[0]} failed: ".Shell::lastLine($output));
        }

        return $output;
    }

    /**
     * Makes one file each of settings and routes for an instance, which saves about a third of the time of a small request.
     *
     * @return array<string, string> by which its web server finds them
     *
     * @throws Failure
     */
    public function settle(string $instance): array
    {
        $folder = "{$this->root}/.data/{$instance}/made";
        Shell::run('rm -rf '.escapeshellarg($folder));
        @mkdir($folder, 0700, true);
        $made = [
            'APP_CONFIG_CACHE' => "{$folder}/config.php",
            'APP_ROUTES_CACHE' => "{$folder}/routes.php",
            'APP_EVENTS_CACHE' => "{$folder}/events.php",
        ];
        $this->artisan($instance, ['optimize'], environment: $made);
        // The key and the password of the database are in them.
        array_map(static fn (string $file): bool => is_file($file) && chmod($file, 0600), $made);

        return $made;
    }

    /**
     * @param  list<string>  $follows  files and folders the result depends on
     * @param  array<string, string>  $environment
     */
    private function once(
        string $what,
        string $stamp,
        array $follows,
        string $makes,
        string $command,
        array $environment = [],
    ): void {
        $hash = $this->hash($follows);
        $file = "{$this->root}/.data/stamps/{$stamp}";
        if (is_dir("{$this->root}/{$makes}") && @file_get_contents($file) === $hash) {
            return;
        }
        $this->terminal->begin($what);
        if (Shell::find(explode(' ', $command)[0]) === null) {
            throw new Failure(explode(' ', $command)[0].' is not on this machine; install it first.');
        }
        [$status, $output] = Shell::run($command, $this->root, $environment);
        if ($status !== 0) {
            throw new Failure("{$what} failed: ".Shell::lastLine($output)." (run \"{$command}\" to see all of it)");
        }
        @mkdir(dirname($file), 0755, true);
        file_put_contents($file, $hash);
        $this->terminal->end();
    }

    /**
     * @param  list<string>  $paths
     */
    private function hash(array $paths): string
    {
        $context = hash_init('sha256');
        foreach ($paths as $path) {
            $full = "{$this->root}/{$path}";
            $files = [$full];
            if (is_dir($full)) {
                $found = new \RecursiveIteratorIterator(
                    new \RecursiveDirectoryIterator($full, \FilesystemIterator::SKIP_DOTS),
                );
                /** @var list<\SplFileInfo> $within */
                $within = iterator_to_array($found, false);
                $files = array_map(static fn (\SplFileInfo $f): string => $f->getPathname(), $within);
                sort($files);
            }
            foreach ($files as $file) {
                hash_update($context, $file.(is_file($file) ? (string) hash_file('sha256', $file) : ''));
            }
        }

        return hash_final($context);
    }
}
