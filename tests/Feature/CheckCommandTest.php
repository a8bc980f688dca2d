<?php

declare(strict_types=1);

namespace Tests\Feature;

use Magpie\Core\Electrical\Rules\ContactLoad;
use Magpie\Core\Electrical\Rules\MainStop;
use Magpie\Core\Simulation\SimulatedLog;
use PHPUnit\Framework\TestCase;
use Tests\Support\Schemas;

/** The shell's own way in: no database, no server. */
final class CheckCommandTest extends TestCase
{
    /**
     * @return array{int, string, string} exit status, standard output, standard error
     */
    private static function check(string $json, string ...$options): array
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'magpie');
        file_put_contents($file, $json);
        [$status, $out, $error] = self::shell('check', $file, ...$options);
        unlink($file);

        return [$status, $out, str_replace($file, 'FILE', $error)];
    }

    /**
     * @return array{int, string, string}
     */
    private static function shell(string ...$arguments): array
    {
        $process =
            proc_open(
                [dirname(__DIR__, 2).'/bin/magpie', ...$arguments],
                [1 => ['pipe', 'w'], 2 => ['pipe', 'w']],
                $pipes,
            ) ?:
            throw new \RuntimeException('bin/magpie cannot be run');
        $out = (string) stream_get_contents($pipes[1]);
        $error = (string) stream_get_contents($pipes[2]);

        return [proc_close($process), $out, $error];
    }

    public function test_what_is_bought_dated_and_printed_is_worked_out_from_the_shell(): void
    {
        $demo = dirname(__DIR__, 2).'/demo/dunlin.json';
        foreach (
            [
                'order' => ['magpie_order', 'Dunlin: '],
                'dates' => ['magpie_dates', 'What the end hangs on:'],
                'prints' => ['magpie_prints', 'thin: Motor mounts, printed'],
                'steps' => ['magpie_steps', 'Run W3: 24 V main supply to Bed switch'],
            ] as $command => [$shape, $says]
        ) {
            [$status, $out] = self::shell($command, $demo);
            self::assertStringContainsString($says, $out);
            [$again, $json] = self::shell($command, $demo, '--format', 'json');
            self::assertSame($status, $again);
            self::assertSame(1, json_decode($json, true)[$shape], $command);
            self::assertSame(2, self::shell($command, $demo, '--wrong')[0]);
            [$status, , $error] = self::shell($command, '/nowhere.json');
            self::assertSame([2, true], [$status, str_contains($error, '/nowhere.json cannot be opened.')]);
        }
        [$status, $out] = self::shell('open', $demo);
        self::assertSame([1, true], [$status, str_contains($out, 'danger: Terminal cover')]);
        [$status, $out] = self::shell('way-back', '--format=json', $demo, 'bed');
        self::assertSame([0, 1], [$status, json_decode($out, true)['magpie_way_back']]);
        self::assertSame(2, self::shell('way-back', $demo, 'nobody')[0]);
        self::assertSame(2, self::shell('way-back', $demo)[0]);
        $run = sys_get_temp_dir().'/magpie-run-'.getmypid();
        @mkdir($run);
        $log = new SimulatedLog(5);
        file_put_contents("{$run}/l.csv", $log->acceleration(400, 10));
        file_put_contents("{$run}/h.csv", $log->heating());
        file_put_contents("{$run}/n.wav", $log->note());
        file_put_contents("{$run}/r.json", '[{"kind":"cranks","given":{"distance":"2 mm","lead":"8 mm"}}]');
        file_put_contents("{$run}/bad.json", '[{"kind":"cranks","given":{"distance":"2 mm"}}]');
        $first = dirname(__DIR__).'/Browser/first.nc';
        foreach (
            [
                [['ladder', $demo], 1, '24 V main supply alone', 'magpie_ladder'],
                [['straight', "{$run}/r.json"], 0, '0.2500 turns', 'magpie_straight'],
                [['spectrum', "{$run}/l.csv"], 0, 'three impulses', 'magpie_spectrum'],
                [['note', "{$run}/n.wav", '--span=150mm', '--mass=8.4g/m'], 0, 'tension:', 'magpie_note'],
                [['step-response', "{$run}/h.csv", '--step=40'], 0, 'by the reaction curve', 'magpie_step_response'],
                [['job', $first, '--build', $demo], 1, 'line 2: The spindle is switched on', 'magpie_job'],
            ] as [$command, $status, $says, $shape]
        ) {
            [$done, $out, $error] = self::shell(...$command);
            self::assertSame($status, $done, "{$command[0]}: {$error}");
            self::assertStringContainsString($says, $out, $command[0]);
            [$done, $json] = self::shell(...$command, ...['--format', 'json']);
            self::assertSame([$status, 1], [$done, json_decode($json, true)[$shape] ?? null], $command[0]);
            self::assertSame(2, self::shell($command[0], '/nowhere', ...array_slice($command, 2))[0]);
        }
        [$status, , $error] = self::shell('straight', "{$run}/bad.json");
        self::assertSame([2, true], [$status, str_contains($error, 'number 1, lead: is missing.')], $error);
        [$status] = self::shell('book', $demo, '--out', "{$run}/book.pdf");
        self::assertSame([0, '%PDF-'], [$status, substr((string) file_get_contents("{$run}/book.pdf"), 0, 5)]);
        self::assertSame(2, self::shell('book', $demo)[0]);
        array_map(unlink(...), glob("{$run}/*") ?: []);
        rmdir($run);
        [$status, $out] = self::shell('mesh', dirname(__DIR__).'/Browser/cube.stl');
        self::assertSame([0, true], [$status, str_contains($out, 'volume  8.000 cm³')]);
    }

    private static function bed(int $contacts): string
    {
        return (string) json_encode(
            ContactLoad::bedOn($contacts) + [
                'magpie' => 1,
                'build' => ['name' => 'Bed', 'kind' => 'printer', 'currency' => 'GBP'],
                'site' => ['ambient' => '30 °C'],
            ],
        );
    }

    public function test_text_shows_every_finding_with_its_working_and_the_status_says_whether_something_fails(): void
    {
        [$status, $out] = self::check(self::bed(1));

        self::assertSame(1, $status);
        self::assertStringContainsString(
            '  1  Danger    W1: psu to bed: One contact carries',
            $out,
            'What to look at first.',
        );
        self::assertStringContainsString('DANGER  E02 Contact load', $out);
        self::assertStringContainsString('Each contact at bed, port power: I_e = I / n = 12 A / 1 = 12 A', $out);
        self::assertStringContainsString('Limit: 80 % of 10 A holds', $out);
        self::assertStringContainsString('[datasheet]', $out);
        $stopped = (string) json_encode(
            MainStop::bed('stop') + [
                'magpie' => 1,
                'build' => ['name' => 'Bed', 'kind' => 'printer', 'currency' => 'GBP'],
                'site' => ['ambient' => '30 °C'],
            ],
        );
        self::assertSame(0, self::check($stopped)[0], 'Unproven is not a failure.');
    }

    public function test_json_is_stable_and_documented(): void
    {
        [$status, $out] = self::check(self::bed(1), '--format', 'json');
        $data = json_decode($out, true, 64, JSON_THROW_ON_ERROR);

        self::assertSame(1, $status);
        self::assertSame([2, 'Bed', true], [$data['magpie_inspection'], $data['build'], $data['power_forbidden']]);
        self::assertSame('E02/W1', $data['causes'][0]['key']);
        self::assertSame([[], []], [$data['later'], $data['accepted']]);
        foreach ($data['causes'] as $cause) {
            self::assertSame(
                [],
                Schemas::breaks((string) json_encode($cause), 'api/openapi.json#/components/schemas/Cause'),
                $cause['key'],
            );
        }
        foreach ($data['findings'] as $finding) {
            self::assertSame(
                [],
                Schemas::breaks((string) json_encode($finding), 'api/openapi.json#/components/schemas/Finding'),
                $finding['key'],
            );
        }
        $contact = $data['findings'][array_search('E02/W1', array_column($data['findings'], 'key'), true)];
        self::assertSame(
            ['danger', -0.2, '24 V', 'datasheet'],
            [
                $contact['verdict'],
                $contact['margin'],
                $contact['inputs'][0]['value'],
                $contact['inputs'][0]['evidence'],
            ],
        );
    }

    public function test_a_file_that_cannot_be_read_gives_the_pointer_and_status_two(): void
    {
        [$status, $out, $error] = self::check(
            '{"magpie":1,"build":{"name":"A","kind":"b","currency":"GBP"},"parts":[{"ref":"x","family":"fan","name":"F","specs":{"rated_current":"3 W"}}]}',
        );
        self::assertSame([2, ''], [$status, $out]);
        self::assertSame(
            "magpie: FILE cannot be read at /parts/0/specs/rated_current: Rated current: \"3 W\" is a power; a current is wanted here, in A for example.\n",
            $error,
        );

        [$status, $out] = self::check('[', '--format', 'json');
        self::assertSame(2, $status);
        self::assertSame('', json_decode($out, true)['error']['pointer']);
        self::assertSame(2, self::check('{}', '--format', 'xml')[0]);
    }

    public function test_the_demo_is_checked_with_nothing_started_for_it(): void
    {
        $start = microtime(true);
        [$status] = self::check((string) file_get_contents(dirname(__DIR__, 2).'/demo/linnet.json'));

        self::assertSame(1, $status);
        // Not a benchmark: only that nothing starts a database or a framework on the way.
        self::assertLessThan(20.0, microtime(true) - $start);
    }
}
