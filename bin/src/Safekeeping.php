<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** The two commands that keep people's work safe: everything out into one archive, and back. */
final readonly class Safekeeping
{
    private const INSTANCE = 'main';

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
        $file = $arguments[0] ?? 'magpie-'.date('Ymd-His').'.zip';
        if (str_starts_with($file, '-') || count($arguments) > 1) {
            throw new Failure('usage: bin/magpie backup [FILE]', 2);
        }
        $file = str_starts_with($file, '/') ? $file : getcwd()."/{$file}";
        $folder = "{$this->project->root}/.data/{$this->instance}";
        if (! is_dir("{$folder}/mariadb/data")) {
            throw new Failure('there is nothing to back up yet.', 2);
        }
        $this->project->dependencies();
        $running = DatabaseClient::ofServed($folder);
        $instance = null;
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
            $made = (new Backup($folder))->write($running, $migrations, $file);
            $this->terminal->end(
                sprintf('%s, %.1f MB, %d pictures', $file, (int) filesize($file) / 1048576, count($made['files']) - 2),
            );
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
        $files = array_values(array_filter($arguments, static fn (string $a): bool => ! str_starts_with($a, '-')));
        if (count($files) !== 1 || count($arguments) !== 1 + ($replace ? 1 : 0)) {
            throw new Failure('usage: bin/magpie restore FILE [--replace]', 2);
        }
        $this->project->dependencies();
        $data = "{$this->project->root}/.data";
        $place = "{$data}/{$this->instance}";
        $there = is_dir("{$place}/mariadb/data/magpie");
        if ($there && ! $replace) {
            throw new Failure(
                "there is data in {$place} already; --replace sets it aside before the archive takes its place.",
                2,
            );
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
}
