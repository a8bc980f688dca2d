<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** An account made from the shell: while it is served or not, at a terminal or by a script, in a place that was never started too. */
final readonly class AccountCommand
{
    public function __construct(private Project $project, private Terminal $terminal, private string $instance)
    {
    }

    /**
     * @param  list<string>  $arguments
     *
     * @throws Failure
     */
    public function run(array $arguments): int
    {
        if (count($arguments) !== 3) {
            throw new Failure(
                'usage: bin/magpie account NAME EMAIL WORKSHOP [--instance=NAME]; the password is asked for, or read from standard input.',
                2,
            );
        }
        $password = self::password();
        $this->project->setUp(Packages::TO_SERVE);
        $folder = "{$this->project->root}/.data/{$this->instance}";
        $own = null;
        if (DatabaseClient::ofServed($folder) === null) {
            $own = new Instance($this->project, $this->terminal, $this->instance);
            $own->claim(null);
            $own->startDatabase(false);
            $own->upgrade();
        }
        putenv("MAGPIE_PASSWORD={$password}");
        try {
            $this->project->artisan($this->instance, ['magpie:account', ...$arguments], true);
        } finally {
            putenv('MAGPIE_PASSWORD');
            $own?->stop();
        }

        return 0;
    }

    /**
     * Asked for at a terminal; where there is none, the first line of standard input.
     *
     * @throws Failure
     */
    private static function password(): string
    {
        $password = Secret::ask('Password', 'MAGPIE_PASSWORD');
        if ($password === '') {
            throw new Failure('there is no password: type it, or give it on standard input.', 2);
        }

        return $password;
    }
}
