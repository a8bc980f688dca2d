<?php

declare(strict_types=1);

namespace Magpie\Bin;

/**
 * Everything that has to hold before a change lands, the benchmarks and the screenshots: each on an instance of its
 * own.
 */
final readonly class Tests
{
    private const SUITES = ['core', 'external', 'feature', 'operation', 'browser'];

    /** Minutes after which a lane that has not ended hangs, and is ended; in the slowest hour seen all of them took half of it. */
    private const LONGEST = 70;

    /** Those that drive the application, and the instance each of them drives. */
    private const DRIVEN = ['feature' => 'test', 'operation' => 'test-operation', 'browser' => 'test-browser'];

    /** Those that wait the most, and go on beside the rest. With more of them at once each only has less of two cores. */
    private const BESIDE = ['operation', 'browser'];

    public function __construct(private Project $project, private Terminal $terminal)
    {
    }

    public function run(?string $suite, ?string $filter = null): int
    {
        if ($suite !== null && ! in_array($suite, self::SUITES, true)) {
            throw new Failure('the suites are '.implode(', ', self::SUITES).'.', 2);
        }
        $this->project->setUp(Packages::TO_TEST);

        return $suite === null ? $this->all() : $this->one($suite, $filter);
    }

    private function one(string $suite, ?string $filter = null): int
    {
        // They sign in some hundred times, and nobody's password is guarded here.
        putenv('BCRYPT_ROUNDS=5');
        $instance = isset(self::DRIVEN[$suite]) ? $this->freshInstance(self::DRIVEN[$suite]) : null;
        $status = $this->phpunit($suite, $filter);
        $instance?->stop();

        return $status;
    }

    /** Everything: some of it beside the rest, the rest one after another. */
    private function all(): int
    {
        $lanes = [];
        $until = time() + 60 * self::LONGEST;
        foreach (self::BESIDE as $suite) {
            $lanes[$suite] = $this->lane($suite);
        }
        try {
            $this->lint();
            $status = 0;
            foreach (array_diff(self::SUITES, self::BESIDE) as $suite) {
                $status = max($status, $this->one($suite));
            }
        } catch (Failure $failure) {
            foreach ($lanes as [$pid]) {
                Background::stop($pid, 10);
            }
            throw $failure;
        }
        foreach ($lanes as $suite => [$pid, $log]) {
            $ended = Background::ended($pid, $until);
            $this->terminal->say("\n  Meanwhile, {$suite}:");
            $this->terminal->say((string) file_get_contents($log));
            if ($ended === null) {
                Background::stop($pid, 10);
                $this->terminal->say('  It had not ended after '.self::LONGEST.' minutes. What it did last:');
                $this->terminal->say($this->lastEvents($suite));
            }
            $status = max($status, $ended ?? 1);
        }

        return $status;
    }

    /** Where PHPUnit writes what it does, as it does it, and how long it took. */
    private function record(string $suite, string $of): string
    {
        return "{$this->project->root}/.data/{$suite}-{$of}";
    }

    private function lastEvents(string $suite): string
    {
        return implode("\n", array_slice(explode("\n", trim((string) @file_get_contents($this->record($suite, 'events.log')))), -4));
    }

    /**
     * One suite in a process and on an instance of its own.
     *
     * @return array{int, string} the process, and the log it writes
     */
    private function lane(string $suite): array
    {
        $log = "{$this->project->root}/.data/{$suite}-tests.log";
        @mkdir(dirname($log), 0755, true);
        @unlink($log);
        $command = [PHP_BINARY, "{$this->project->root}/bin/magpie", 'test', $suite];

        return [Background::start($command, $log, [], $this->project->root), $log];
    }

    private function phpunit(string $suite, ?string $filter): int
    {
        $events = $this->record($suite, 'events.log');
        @unlink($events);
        // With this one's own input and output, not through a pipe: a process that a test left over would hold it open, and be waited for.
        $process = proc_open(
            'exec '.
                $this->php([
                    'vendor/bin/phpunit',
                    '--colors=never',
                    "--testsuite={$suite}",
                    "--log-events-text={$events}",
                    // How long each of them took, for whoever makes them shorter.
                    '--log-junit='.$this->record($suite, 'times.xml'),
                    ...$filter === null ? [] : ["--filter={$filter}"],
                ]),
            [],
            $pipes,
            $this->project->root,
        );

        return $process === false ? 127 : Background::status(proc_close($process));
    }

    public function bench(?string $what = null): int
    {
        $this->project->setUp(Packages::TO_TEST);
        $instance = $this->freshInstance('test');
        putenv("MAGPIE_URL={$instance->url()}");
        $file = [
            'load' => 'tests/load.php',
            'screen' => 'tests/bench-screen.php',
            'buy' => 'tests/bench-buy.php',
            'run' => 'tests/bench-run.php',
            'picture' => 'tests/bench-picture.php',
            'hosted' => 'tests/bench-hosted.php',
            'fuzz' => 'tests/bench-fuzz.php',
            'library' => 'tests/bench-library.php',
            'search' => 'tests/bench-search.php',
        ][$what ?? ''] ?? 'tests/bench.php';
        passthru($this->php(['-d', 'opcache.enable_cli=1', $file]), $status);
        $instance->stop();

        return $status;
    }

    public function shots(): int
    {
        $this->project->setUp(Packages::TO_TEST);
        $instance = $this->freshInstance('test');
        passthru($this->php(['tests/shots.php', $instance->url()]), $status);
        $instance->stop();

        return $status;
    }

    private function freshInstance(string $name): Instance
    {
        $instance = new Instance($this->project, $this->terminal, $name);
        $instance->claim(null);
        $instance->wipe();
        $instance->start(true, 4, Shell::freePort());
        putenv("MAGPIE_INSTANCE={$name}");
        putenv("MAGPIE_URL={$instance->url()}");
        putenv("MAGPIE_DATABASE_PID={$instance->databasePid()}");

        return $instance;
    }

    private function analysed(string $configuration): string
    {
        return $this->php([
            'vendor/bin/phpstan',
            'analyse',
            '-c',
            $configuration,
            '--no-progress',
            '--memory-limit=1G',
            '--error-format=raw',
        ]);
    }

    private function lint(): void
    {
        foreach (
            [
                'PHP style (pint)' => $this->php(['vendor/bin/pint', '--test', '-q']),
                'PHP analysis (phpstan)' => $this->analysed('phpstan.neon'),
                'PHP analysis of the tests' => $this->analysed('phpstan-tests.neon'),
                'API types are current' => 'npm run types --silent && git diff --exit-code --stat -- resources/ui/api/schema.d.ts',
                'TypeScript (vue-tsc)' => 'npm run check --silent',
                'Front-end style (eslint, prettier)' => 'npm run lint --silent',
                'Front-end tests (vitest)' => 'npm run unit --silent',
            ] as $what => $command
        ) {
            $this->terminal->begin($what);
            [$status, $output] = Shell::run($command, $this->project->root);
            if ($status !== 0) {
                $this->terminal->end('FAILED');
                fwrite(STDERR, $output);
                throw new Failure("{$what} found something to put right.");
            }
            $this->terminal->end();
        }
        // Said, and no failure: what others find out on a day on which nothing here changed is not for a commit to mend.
        (new Audit($this->project, $this->terminal))->run();
    }

    /**
     * @param  list<string>  $arguments
     */
    private function php(array $arguments): string
    {
        return implode(' ', array_map(escapeshellarg(...), [PHP_BINARY, '-d', 'memory_limit=1G', ...$arguments]));
    }
}
