<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** Everything that has to hold before a change lands, the benchmarks and the screenshots: each on an instance of its own. */
final readonly class Tests
{
    private const SUITES = ['core', 'external', 'feature', 'browser'];

    public function __construct(private Project $project, private Terminal $terminal)
    {
    }

    public function run(?string $suite, ?string $filter = null): int
    {
        if ($suite !== null && ! in_array($suite, self::SUITES, true)) {
            throw new Failure('the suites are '.implode(', ', self::SUITES).'.', 2);
        }
        $this->project->setUp(Packages::TO_TEST);
        if ($suite === null) {
            $this->lint();
        }
        $instance = null;
        if ($suite === null || $suite === 'feature' || $suite === 'browser') {
            $instance = $this->freshInstance();
        }
        putenv('MAGPIE_INSTANCE=test');
        passthru($this->php(['vendor/bin/phpunit', '--colors=never', ...($suite === null ? [] : ["--testsuite={$suite}"]), ...($filter === null ? [] : ["--filter={$filter}"])]), $status);
        $instance?->stop();

        return $status;
    }

    public function bench(?string $what = null): int
    {
        $this->project->setUp(Packages::TO_TEST);
        $instance = $this->freshInstance();
        putenv("MAGPIE_URL={$instance->url()}");
        passthru($this->php(['-d', 'opcache.enable_cli=1', $what === 'load' ? 'tests/load.php' : 'tests/bench.php']), $status);
        $instance->stop();

        return $status;
    }

    public function shots(): int
    {
        $this->project->setUp(Packages::TO_TEST);
        $instance = $this->freshInstance();
        passthru($this->php(['tests/shots.php', $instance->url()]), $status);
        $instance->stop();

        return $status;
    }

    private function freshInstance(): Instance
    {
        $instance = new Instance($this->project, $this->terminal, 'test');
        $instance->claim(null);
        $instance->wipe();
        $instance->start(true, 4, Shell::freePort());
        putenv('MAGPIE_INSTANCE=test');
        putenv("MAGPIE_URL={$instance->url()}");
        putenv("MAGPIE_DATABASE_PID={$instance->databasePid()}");

        return $instance;
    }

    private function lint(): void
    {
        foreach ([
            'PHP style (pint)' => $this->php(['vendor/bin/pint', '--test', '-q']),
            'PHP analysis (phpstan)' => $this->php(['vendor/bin/phpstan', 'analyse', '--no-progress', '--memory-limit=1G', '--error-format=raw']),
            'API types are current' => 'npm run types --silent && git diff --exit-code --stat -- resources/ui/api/schema.d.ts',
            'TypeScript (vue-tsc)' => 'npm run check --silent',
            'Front-end style (eslint)' => 'npm run lint --silent',
            'Front-end tests (vitest)' => 'npm run unit --silent',
        ] as $what => $command) {
            $this->terminal->begin($what);
            [$status, $output] = Shell::run($command, $this->project->root);
            if ($status !== 0) {
                $this->terminal->end('FAILED');
                fwrite(STDERR, $output);
                throw new Failure("{$what} found something to put right.");
            }
            $this->terminal->end();
        }
    }

    /**
     * @param  list<string>  $arguments
     */
    private function php(array $arguments): string
    {
        return implode(' ', array_map(escapeshellarg(...), [PHP_BINARY, '-d', 'memory_limit=1G', ...$arguments]));
    }
}
