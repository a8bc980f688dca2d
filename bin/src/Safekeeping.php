<?php

declare(strict_types=1);

namespace Magpie\Bin;

use DateTimeImmutable;

/** The two commands that keep people's work safe: everything out into one archive, and back. */
final readonly class Safekeeping
{
    public const INSTANCE = 'main';

    public function __construct(
        private Project $project,
        private Terminal $terminal,
        private string $instance = self::INSTANCE,
    ) {
    }

    /**
     * @param  list<string>  $arguments
     *
     * @throws Failure
     */
    public function backup(array $arguments): int
    {
        $folder = "{$this->project->root}/.data/{$this->instance}";
        $keep = in_array('--keep', $arguments, true);
        $named = array_values(array_diff($arguments, ['--keep', '--encrypt']));
        $keyFile = self::keyFile($named);
        // The nightly one is encrypted where a key for it lies in its place.
        $keyFile ??= $keep && is_file("{$folder}/backup.key") ? "{$folder}/backup.key" : null;
        $kept = "{$folder}/backups/kept-";
        $isSealed = $keyFile !== null || in_array('--encrypt', $arguments, true);
        $ending = $isSealed ? '.zip.sealed' : '.zip';
        $file = $keep ? $kept.date('Ymd-His').$ending : $named[0] ?? 'magpie-'.date('Ymd-His').$ending;
        if (str_starts_with($file, '-') || count($named) > ($keep ? 0 : 1)) {
            throw new Failure('usage: bin/magpie backup [FILE | --keep] [--encrypt | --key=FILE] [--instance=NAME]', 2);
        }
        $seal = $isSealed ? self::seal($keyFile, true) : null;
        $file = str_starts_with($file, '/') ? $file : getcwd()."/{$file}";
        $hosted = self::isHosted($folder);
        if (! $hosted && ! is_dir("{$folder}/mariadb/data")) {
            throw new Failure('there is nothing to back up yet.', 2);
        }
        $this->project->dependencies();
        $running = DatabaseClient::ofServed($folder);
        $instance = null;
        if ($running === null && $hosted) {
            throw new Failure('the database of this machine does not answer.');
        }
        if ($running === null) {
            $instance = new Instance($this->project, $this->terminal, $this->instance);
            $instance->claim(null);
            $instance->startDatabase(false);
            $running = $instance->databaseClient();
        }
        try {
            $this->terminal->begin('Backup');
            $migrations = array_values(
                array_filter(explode("\n", $running->statement('SELECT migration FROM magpie.migrations ORDER BY id'))),
            );
            $made = (new Backup($folder))->write($running, $migrations, $seal === null ? $file : "{$file}.open");
            if ($seal !== null) {
                try {
                    $seal->seal("{$file}.open", "{$file}.part");
                    rename("{$file}.part", $file);
                } finally {
                    @unlink("{$file}.open");
                    @unlink("{$file}.part");
                }
            }
            $this->terminal->end(
                sprintf('%s, %.1f MB, %d pictures', $file, (int) filesize($file) / 1048576, count($made['files']) - 2),
            );
            if ($keep) {
                $this->thin($kept);
            }
        } finally {
            $instance?->stop();
        }

        return 0;
    }

    /**
     * Fills a place beside the final one and puts it there only when all of it is in order.
     *
     * @param  list<string>  $arguments
     *
     * @throws Failure
     */
    public function restore(array $arguments): int
    {
        $replace = in_array('--replace', $arguments, true);
        $keyFile = self::keyFile($arguments);
        $files = array_values(array_filter($arguments, static fn (string $a): bool => ! str_starts_with($a, '-')));
        if (count($files) !== 1 || count($arguments) !== 1 + ($replace ? 1 : 0)) {
            throw new Failure('usage: bin/magpie restore FILE [--replace] [--key=FILE] [--instance=NAME]', 2);
        }
        if (Sealed::is($files[0])) {
            return $this->opened($files[0], $keyFile, $replace);
        }
        $this->project->dependencies();
        $data = "{$this->project->root}/.data";
        $place = "{$data}/{$this->instance}";
        $there = is_dir("{$place}/mariadb/data/magpie") || self::isHosted($place);
        if ($there && ! $replace) {
            throw new Failure(
                "there is data in {$place} already; --replace sets it aside before the archive takes its place.",
                2,
            );
        }
        if (self::isHosted($place)) {
            return $this->restoreHosted($files[0], $place);
        }
        $target = new Instance($this->project, $this->terminal, $this->instance);
        $target->claim(null);
        Shell::run('rm -rf '.escapeshellarg("{$place}.restoring"));
        $instance = new Instance($this->project, $this->terminal, "{$this->instance}.restoring");
        $instance->claim(null);
        try {
            $this->terminal->begin('Unpacking');
            $dump = (new Backup($instance->folder()))->unpack($files[0]);
            $this->terminal->end();
            $instance->startDatabase(false);
            $this->terminal->begin('Filling the database');
            $instance->databaseClient()->load('magpie', $dump);
            unlink($dump);
            $this->terminal->end();
            $instance->upgrade();
            $this->project->artisan("{$this->instance}.restoring", ['magpie:restored']);
            $instance->stop();
        } catch (Failure $failure) {
            $instance->stop();
            Shell::run('rm -rf '.escapeshellarg($instance->folder()));
            throw $failure;
        }
        $target->stop();
        $aside = null;
        if (is_dir($place)) {
            $aside = "{$place}-set-aside-".date('Ymd-His');
            rename($place, $aside);
        }
        rename($instance->folder(), $place);
        if ($there) {
            $this->terminal->say("  What was there is in {$aside}.");
        } elseif ($aside !== null) {
            Shell::run('rm -rf '.escapeshellarg($aside));
        }
        $this->terminal->say('  Restored. bin/magpie serve starts it.');

        return 0;
    }

    /**
     * An encrypted one, by way of a file that only its owner can read and that goes at once.
     *
     * @throws Failure
     */
    private function opened(string $file, ?string $keyFile, bool $replace): int
    {
        $folder = "{$this->project->root}/.data";
        @mkdir($folder, 0755, true);
        $open = "{$folder}/restoring-".getmypid().'.zip';
        try {
            self::seal($keyFile, false)->unseal($file, $open);

            return $this->restore([$open, ...$replace ? ['--replace'] : []]);
        } finally {
            @unlink($open);
        }
    }

    /** @throws Failure */
    private static function seal(?string $keyFile, bool $make): Sealed
    {
        return $keyFile !== null
            ? Sealed::byKeyFile($keyFile, $make)
            : Sealed::byPassphrase(Secret::ask('Passphrase of the backup', 'MAGPIE_PASSPHRASE'));
    }

    /**
     * @param  list<string>  $arguments  that one is taken out
     */
    private static function keyFile(array &$arguments): ?string
    {
        $keys = array_values(preg_grep('/^--key=./', $arguments) ?: []);
        $arguments = array_values(array_diff($arguments, $keys));

        return $keys === [] ? null : substr($keys[0], strlen('--key='));
    }

    /** Whether it lives in a database server of the machine's own. */
    private static function isHosted(string $folder): bool
    {
        return preg_match('/^DB_(SOCKET|HOST)="/m', (string) @file_get_contents("{$folder}/.env")) === 1;
    }

    /**
     * Into the database of the machine: tried on a copy first, and what is there goes into a backup before it is replaced.
     *
     * @throws Failure
     */
    private function restoreHosted(string $file, string $place): int
    {
        $database =
            DatabaseClient::ofServed($place) ?? throw new Failure('the database of this machine does not answer.');
        $work = "{$place}/restoring";
        Shell::run('rm -rf '.escapeshellarg($work));
        try {
            $this->terminal->begin('Unpacking');
            $dump = (new Backup($work))->unpack($file);
            $this->terminal->end();
            $upgrade = new Upgrade($this->project, $this->terminal, $this->instance, $place);
            $upgrade->tryOn($database, $dump);
            $before = "{$place}/backups/before-restore-".date('Ymd-His').'.zip';
            (new Backup($place))->write($database, $upgrade->state()['ran'], $before);
            $this->terminal->say("  What was there is in {$before}.");
            $this->terminal->begin('Filling the database');
            $database->load('magpie', $dump);
            $this->terminal->end();
            $upgrade->bring($database);
            $this->swap($work, $place);
            $this->project->artisan($this->instance, ['magpie:restored']);
        } finally {
            Shell::run('rm -rf '.escapeshellarg($work));
        }
        $this->terminal->say(
            '  Restored. Start php-fpm, magpie-judge, magpie-errands and magpie-inspector again: they may hold what was before.',
        );

        return 0;
    }

    /** Pictures and key take the place of those that were there. */
    private function swap(string $work, string $place): void
    {
        Shell::run('rm -rf '.escapeshellarg("{$place}/files/photos"));
        @mkdir("{$place}/files", 0750, true);
        if (is_dir("{$work}/files/photos")) {
            rename("{$work}/files/photos", "{$place}/files/photos");
        }
        if (is_file("{$work}/key")) {
            $key = (string) file_get_contents("{$work}/key");
            rename("{$work}/key", "{$place}/key");
            $settings = (string) file_get_contents("{$place}/.env");
            file_put_contents("{$place}/.env", preg_replace('/^APP_KEY=.*$/m', "APP_KEY=\"{$key}\"", $settings));
        }
        $owner = fileowner($place);
        if (posix_geteuid() === 0 && is_int($owner)) {
            Shell::run(
                "chown -R {$owner} ".
                    escapeshellarg("{$place}/files").
                    ' '.
                    escapeshellarg("{$place}/key").
                    ' '.
                    escapeshellarg("{$place}/.env"),
            );
        }
    }

    /** Old ones of the nightly backups go, most of them. */
    private function thin(string $kept): void
    {
        $made = [];
        foreach ([...glob("{$kept}*.zip") ?: [], ...glob("{$kept}*.zip.sealed") ?: []] as $file) {
            $made[$file] = new DateTimeImmutable('@'.(int) filemtime($file));
        }
        array_map(unlink(...), Retention::gone($made, new DateTimeImmutable));
    }
}
