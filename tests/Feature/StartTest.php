<?php

declare(strict_types=1);

namespace Tests\Feature;

use Magpie\Bin\Failure;
use Magpie\Bin\Instance;
use Magpie\Bin\Project;
use Magpie\Bin\Shell;
use Magpie\Bin\Terminal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\HttpClient;

/** Starting and stopping: said in one line when it cannot be, and nothing left half-running. */
final class StartTest extends TestCase
{
    private static function root(): string
    {
        return dirname(__DIR__, 2);
    }

    private static function instance(): Instance
    {
        $quiet = new Terminal(quiet: true);

        return new Instance(new Project(self::root(), $quiet), $quiet, 'start-test');
    }

    /**
     * @return list<string> processes that still speak of the test's folder
     */
    private static function leftovers(): array
    {
        [, $list] = Shell::run('ps -eo args');

        return array_values(
            array_filter(
                explode("\n", $list),
                static fn (string $line): bool => str_contains($line, '.data/start-test'),
            ),
        );
    }

    protected function tearDown(): void
    {
        Shell::run('rm -rf '.escapeshellarg(self::root().'/.data/start-test'));
    }

    public function test_a_second_start_keeps_the_data_and_stopping_leaves_nothing_running(): void
    {
        $first = self::instance();
        $first->claim(null);
        $first->start(true, 2, Shell::freePort());
        $client = new HttpClient($first->url());
        $client->post('/api/session/demo');
        $builds = $client->get('/api/builds')[0];
        $client->post('/api/builds', [
            'workshop' => $builds['id'],
            'name' => 'Kept',
            'kind' => 'plotter',
            'currency' => 'GBP',
        ]);

        try {
            self::instance()->claim(null);
            self::fail('Two starts shared one folder.');
        } catch (Failure $failure) {
            self::assertStringContainsString("running already at {$first->url()}", $failure->getMessage());
        }
        self::assertNotSame([], self::leftovers());
        $first->stop();
        self::assertSame([], self::leftovers());

        $second = self::instance();
        $second->claim(null);
        $second->start(true, 2, Shell::freePort());
        $client = new HttpClient($second->url());
        $client->post('/api/session/demo');
        self::assertContains('Kept', array_column($client->get('/api/builds')[0]['builds'], 'name'));
        $second->stop();
    }

    public function test_a_taken_port_is_said_before_anything_starts(): void
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0') ?: throw new \RuntimeException('no port');
        $port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        try {
            self::instance()->claim($port);
            self::fail('A taken port was claimed.');
        } catch (Failure $failure) {
            self::assertSame(
                "port {$port} is taken; choose another with --port=N or leave it out.",
                $failure->getMessage(),
            );
        }
        self::assertSame([], self::leftovers());
    }

    public function test_a_database_that_does_not_come_up_is_said_with_its_reason(): void
    {
        $first = self::instance();
        $first->claim(null);
        $first->startDatabase(false, Shell::freePort());
        $first->stop();
        file_put_contents(self::root().'/.data/start-test/mariadb/data/ibdata1', 'not a tablespace');
        $broken = self::instance();
        $broken->claim(null);
        try {
            $broken->start(false, 1, Shell::freePort());
            self::fail('A broken database came up.');
        } catch (Failure $failure) {
            self::assertStringStartsWith('the database did not come up: [ERROR]', $failure->getMessage());
            self::assertStringNotContainsString("\n", $failure->getMessage());
        }
        self::assertSame([], self::leftovers());
    }

    /** As the README says: without a terminal, in a place where nothing was started before. */
    public function test_an_account_is_made_in_a_fresh_place_by_a_script(): void
    {
        $make = static fn (string $password): array => Shell::run(
            'printf %s\\\\n '.escapeshellarg($password).' | '.escapeshellarg(PHP_BINARY).' '.escapeshellarg(self::root().'/bin/magpie').
                " account 'Robin Teal' robin@bench.example 'Bench in the barn' --instance=start-test",
        );
        [$status, $said] = $make('short');
        self::assertNotSame(0, $status, $said);
        self::assertStringContainsString('at least 10 characters', $said);
        [$status, $said] = $make('three-legged-magpie');
        self::assertSame(0, $status, $said);
        self::assertStringContainsString('Robin Teal can sign in to Bench in the barn.', $said);
        self::assertSame([], self::leftovers());
        $served = self::instance();
        $served->claim(null);
        $served->start(false, 1, Shell::freePort());
        $client = new HttpClient($served->url());
        $entered = $client->post('/api/session', ['email' => 'robin@bench.example', 'password' => 'three-legged-magpie']);
        $served->stop();
        self::assertSame('Robin Teal', $entered['user']['name'] ?? null);
    }

    /**
     * @return iterable<string, array{list<string>, int, string}>
     */
    public static function commands(): iterable
    {
        yield 'an unknown command' => [['dance'], 2, 'there is no command "dance"'];
        yield 'an unknown option' => [['demo', '--loud'], 2, '"--loud" is not understood here'];
        yield 'a check without a file' => [['check'], 2, 'usage: bin/magpie check FILE'];
        yield 'a file that is not there' => [['check', '/nowhere.json'], 2, '/nowhere.json cannot be opened'];
        yield 'a suite that is not there' => [['test', 'luck'], 2, 'the suites are core'];
        yield 'help' => [['help'], 0, 'bin/magpie demo'];
        yield 'doctor' => [['doctor'], 0, 'Nothing is missing.'];
    }

    /**
     * @param  list<string>  $arguments
     */
    #[DataProvider('commands')]
    public function test_the_command_line_says_what_it_wants(array $arguments, int $status, string $says): void
    {
        [$exit, $output] = Shell::run(
            implode(' ', array_map(escapeshellarg(...), [self::root().'/bin/magpie', ...$arguments])),
        );

        self::assertSame($status, $exit, $output);
        self::assertStringContainsString($says, $output);
        self::assertStringNotContainsString('Stack trace', $output);
    }
}
