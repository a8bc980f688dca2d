<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Builds\Document;
use App\Resident\Client;
use App\Resident\HeldBuild;
use App\Resident\Server;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Standing;
use ReflectionProperty;

/** The resident inspector: it says what a full inspection says, tells only what changed, and can be done without. */
final class ResidentTest extends FeatureTestCase
{
    public function test_an_edit_is_answered_with_what_it_changes_and_that_is_what_a_full_inspection_says(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $opened = $this->getJson("/api/builds/{$build->id}")->json();
        $told = array_column($opened['overview']['findings'], null, 'key');
        $edit = static fn (string $length): array => [
            ['section' => 'leads', 'ref' => 'W8', 'set' => [['path' => ['length'], 'to' => $length]]],
        ];

        $result = $this->edit($build, $edit('9 m'), seen: $opened['revision'])->assertOk()->json();

        self::assertSame([], $result['overview']['findings']);
        self::assertSame($opened['revision'], $result['findings']['since']);
        self::assertNotSame([], $result['findings']['changed']);
        self::assertLessThan(count($told) / 3, count($result['findings']['changed']));
        $told = array_diff_key($told, array_flip($result['findings']['gone']));
        $told = array_column($result['findings']['changed'], null, 'key') + $told;
        self::assertSame(self::full($build->refresh()), self::sorted($told));
        self::assertEquals(
            array_count_values(array_column($told, 'verdict')),
            array_filter($result['overview']['tally']),
            'The tally is of all of them.',
        );

        // Whoever has seen something else gets everything.
        $all = $this->edit($build, $edit('2 m'), seen: $opened['revision'])->assertOk()->json();
        self::assertNull($all['findings']);
        self::assertSame(
            self::full($build->refresh()),
            self::sorted(array_column($all['overview']['findings'], null, 'key')),
        );
    }

    public function test_what_breaks_the_format_is_refused_as_without_it(): void
    {
        $this->as($this->isla());
        $build = $this->linnet();
        $this->getJson("/api/builds/{$build->id}")->assertOk();
        $bad = [['section' => 'leads', 'ref' => 'W8', 'set' => [['path' => ['protection'], 'to' => 'nobody']]]];
        $with = $this->edit($build, $bad)->assertUnprocessable()->json();
        config(['magpie.inspector' => null]);
        $without = $this->edit($build, $bad)->assertUnprocessable()->json();

        self::assertSame($without, $with);
        self::assertSame(1, $build->refresh()->revision);
    }

    public function test_without_it_edits_are_answered_whole(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        config(['magpie.inspector' => '/nowhere/inspector.sock']);

        $result = $this->edit(
            $build,
            [['section' => 'leads', 'ref' => 'W1', 'set' => [['path' => ['length'], 'to' => '3 m']]]],
            seen: $build->revision,
        )
            ->assertOk()
            ->json();

        self::assertNull($result['findings']);
        self::assertSame(
            self::full($build->refresh()),
            self::sorted(array_column($result['overview']['findings'], null, 'key')),
        );
    }

    public function test_the_running_one_is_there(): void
    {
        $text = Document::of($this->dunlin())->text();
        $answer = Client::ask(999_999, 1, $text, null);
        self::assertNotNull($answer, 'Nobody answers at '.config('magpie.inspector'));
        self::assertNull($answer->findings, 'It had not seen this build.');
        $again = Client::ask(999_999, 2, $text, 1);
        self::assertSame(['since' => 1, 'changed' => [], 'gone' => []], $again?->findings);
        self::assertSame(
            '/leads',
            Client::ask(999_999, 3, '{"magpie":1,"build":{"name":"a","kind":"b","currency":"GBP"},"leads":3}', 2)
                ?->trouble['pointer'] ?? null,
        );
        self::assertSame(
            2,
            Client::ask(999_999, 4, $text, 2)?->findings['since'] ?? null,
            'What was refused was not taken over.',
        );
    }

    public function test_one_that_has_gone_wrong_is_found_out_and_healed(): void
    {
        $log = [];
        $server = new Server('', 1, static function (string $line) use (&$log): void {
            $log[] = $line;
        });
        $text = Document::of($this->dunlin())->text();
        $server->answer(['build' => 1, 'revision' => 1], $text);
        $held = (new ReflectionProperty($server, 'held'))->getValue($server)[1];
        self::assertSame([], $held->heal(), 'What it holds is right.');

        // Spoilt on purpose: it holds the findings of another build than it says.
        $other = json_decode($text, true);
        $other['site']['ambient'] = '55 °C';
        $standing = new ReflectionProperty(HeldBuild::class, 'standing');
        $standing->setValue($held, $standing->getValue(HeldBuild::of(1, $other)));
        $wrong = $held->heal();

        self::assertNotSame([], $wrong);
        self::assertSame([], $held->heal());
        self::assertInstanceOf(Standing::class, $standing->getValue($held));
        self::assertSame([], $log);
    }

    /**
     * @return array<string, mixed> by key
     */
    private static function full(\App\Models\Build $build): array
    {
        $findings = Rules::inspector()->inspect(Document::of($build)->machine())->findings;
        $told = array_map(static fn (Finding $f): array => $f->summary(), $findings);

        return self::sorted(array_column(json_decode((string) json_encode($told), true), null, 'key'));
    }

    /**
     * @param  array<string, mixed>  $told
     * @return array<string, mixed>
     */
    private static function sorted(array $told): array
    {
        ksort($told);

        return $told;
    }
}
