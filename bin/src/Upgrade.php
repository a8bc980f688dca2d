<?php

declare(strict_types=1);

namespace Magpie\Bin;

/**
 * Brings the tables of an instance up to this version: after a backup, and only once the same steps have succeeded on a
 * copy. What cannot be brought over stops here, with nothing changed.
 */
final readonly class Upgrade
{
    private const REHEARSAL = 'magpie_rehearsal';

    /** Automatic backups that are kept; older ones go. */
    private const KEPT = 5;

    public function __construct(
        private Project $project,
        private Terminal $terminal,
        private string $instance,
        private string $folder,
    ) {
    }

    /** @throws Failure */
    public function bring(DatabaseClient $database): void
    {
        $state = $this->state();
        if ($state['unknown'] !== []) {
            throw new Failure(
                'this data was last used by a newer version (it knows '.
                    implode(', ', $state['unknown']).
                    '). Start that version, or restore a backup made by this one. Nothing was changed.',
            );
        }
        if ($state['pending'] === []) {
            return;
        }
        if ($state['ran'] === []) {
            $this->terminal->begin('Laying out the tables');
            $this->migrate();
            $this->terminal->end();

            return;
        }
        $backup = "{$this->folder}/backups/before-".end($state['pending']).'-'.date('Ymd-His').'.zip';
        $this->terminal->begin('Backup before the upgrade');
        (new Backup($this->folder))->write($database, $state['ran'], $backup);
        $this->forgetOld();
        $this->terminal->end($backup);
        $this->rehearse($database, $backup);
        $this->terminal->begin('Bringing the tables up to date');
        try {
            $this->migrate();
        } catch (Failure $failure) {
            throw new Failure(
                "{$failure->getMessage()} Your data as it was before is in {$backup}; bin/magpie restore brings it back.",
            );
        }
        $this->terminal->end(count($state['pending']).(count($state['pending']) === 1 ? ' step' : ' steps'));
    }

    /**
     * @return array{ran: list<string>, pending: list<string>, unknown: list<string>}
     */
    public function state(): array
    {
        /** @var array{ran: list<string>, pending: list<string>, unknown: list<string>} $state */
        $state = json_decode(
            Shell::lastLine($this->project->artisan($this->instance, ['magpie:migrations'])),
            true,
            8,
            JSON_THROW_ON_ERROR,
        );

        return $state;
    }

    /**
     * Fills a copy beside the database from a dump, and brings it up to date: whether that works, and all builds can be read.
     *
     * @throws Failure
     */
    public function tryOn(DatabaseClient $database, string $dump): void
    {
        $this->terminal->begin('Trying it on a copy');
        try {
            $database->load(self::REHEARSAL, $dump);
            $copy = ['DB_DATABASE' => self::REHEARSAL];
            $this->migrate($copy);
            $this->terminal->end(
                Shell::lastLine($this->project->artisan($this->instance, ['magpie:readable'], environment: $copy)),
            );
        } catch (Failure $failure) {
            $this->terminal->end('it does not work');
            throw $failure;
        } finally {
            $database->drop(self::REHEARSAL);
        }
    }

    /** @throws Failure */
    private function rehearse(DatabaseClient $database, string $backup): void
    {
        $dump = "{$this->folder}/rehearsal.sql";
        try {
            // What is tried is the backup itself, which shows that it is whole.
            if (! copy("zip://{$backup}#database.sql", $dump)) {
                throw new Failure('the backup could not be read back');
            }
            $this->tryOn($database, $dump);
        } catch (Failure $failure) {
            throw new Failure(
                "the upgrade was tried on a copy and failed ({$failure->getMessage()}). Nothing was changed; a backup is in {$backup}. Go on with the version before this one.",
            );
        } finally {
            @unlink($dump);
        }
    }

    /**
     * @param  array<string, string>  $environment
     */
    private function migrate(array $environment = []): void
    {
        $this->project->artisan($this->instance, ['migrate', '--force', '--no-interaction'], environment: $environment);
    }

    private function forgetOld(): void
    {
        $kept = glob("{$this->folder}/backups/before-*.zip") ?: [];
        usort($kept, static fn (string $a, string $b): int => filemtime($b) <=> filemtime($a));
        array_map(unlink(...), array_slice($kept, self::KEPT));
    }
}
