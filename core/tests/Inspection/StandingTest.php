<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspector;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Layout\AsDrawn;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Differences;
use Magpie\Core\Machine\Same;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * After any edit, an inspection that stood before it has the findings a full inspection has. Edits of every kind, drawn
 * at random; MAGPIE_FUZZ=N draws N times as many.
 */
final class StandingTest extends TestCase
{
    /**
     * @return iterable<string, array{string, int}>
     */
    public static function demos(): iterable
    {
        yield 'linnet' => ['linnet', 30];
        yield 'dunlin' => ['dunlin', 50];
    }

    #[DataProvider('demos')]
    public function test_after_an_edit_it_has_the_findings_of_a_full_inspection(string $demo, int $edits): void
    {
        $file = (string) file_get_contents(dirname(__DIR__, 3)."/demo/{$demo}.json");
        $data = BuildFile::data(BuildFile::read($file));
        $this->edit($data, $edits * (int) (getenv('MAGPIE_FUZZ') ?: 1), crc32($demo));
    }

    public function test_so_it_does_from_every_sample_build(): void
    {
        foreach (Rules::all() as $i => $check) {
            $this->edit(BuildFile::data($check->examples()->holding()), 3 * (int) (getenv('MAGPIE_FUZZ') ?: 1), $i);
        }
    }

    public function test_so_it_does_where_the_leads_are_as_long_as_the_places_make_them(): void
    {
        $file = (string) file_get_contents(dirname(__DIR__, 3).'/demo/linnet.json');
        $data = BuildFile::data(BuildFile::read($file));
        foreach ($data['leads'] as $i => $lead) {
            unset($data['leads'][$i]['length']);
        }
        $this->edit($data, 40 * (int) (getenv('MAGPIE_FUZZ') ?: 1), 18, [
            'places',
            'places',
            'places',
            'parts',
            'axes',
            'leads',
            'needs',
            'zones',
        ]);
    }

    public function test_one_spec_judges_few_again_and_leaves_the_one_before_as_it_was(): void
    {
        $file = (string) file_get_contents(dirname(__DIR__, 3).'/demo/linnet.json');
        $build = BuildFile::read($file);
        $before = Standing::of(Rules::inspector(), $build);
        $said = self::told($before->findings());
        $data = BuildFile::data($build);
        foreach ($data['leads'] as $i => $lead) {
            if (isset($lead['length'])) {
                $data['leads'][$i]['length'] = '9 m';
                break;
            }
        }
        $after = $before->after(BuildFile::build($data));

        self::assertLessThan(count($said) / 4, count($after->judged()), 'A lead concerns few.');
        self::assertNotSame([], $after->judged());
        self::assertNotSame($said, self::told($after->findings()));
        self::assertSame($said, self::told($before->findings()), 'What is tried leaves what stood as it was.');
        self::assertSame($said, self::told($after->after($build)->findings()), 'And back.');
    }

    /**
     * @param  array<string, mixed>  $data
     * @param  non-empty-list<string>  $sections  that are edited
     */
    private function edit(array $data, int $edits, int $seed, array $sections = RandomEdit::SECTIONS): void
    {
        $dice = new Randomizer(new Mt19937($seed));
        $standing = Standing::of(Rules::inspector(), BuildFile::build($data, kept: true));
        $log = [];
        for ($i = 0; $i < $edits; $i++) {
            [$what, $next] = RandomEdit::of($data, $dice, $sections);
            try {
                $build = BuildFile::build($next, kept: true);
            } catch (CannotReadBuildFile) {
                continue;
            }
            $log[] = $what;
            $data = $next;
            $after = "seed {$seed}, after: ".implode('; ', array_slice($log, -3));
            $edited = self::alike($standing->build(), $build);
            // By an inspector that remembers nothing of the builds before.
            $afresh = new Inspector(Rules::all(), (new AsDrawn)->of(...));
            $full = self::told($afresh->inspect($build)->findings);
            $keys = array_keys($standing->findings());
            $some =
                $keys === []
                    ? []
                    : array_map(
                        static fn (int $at): string => $keys[$at],
                        $dice->pickArrayKeys($keys, min(9, count($keys))),
                    );
            self::assertTrialTells($standing, $edited, $dice->getInt(0, 1) === 1 ? $some : $keys, $full, $after);
            $standing = $standing->after($edited);
            self::assertSame($full, self::told($standing->findings()), $after);
        }
    }

    /**
     * What is only tried comes out as it does when it is done.
     *
     * @param  list<string>  $keys
     * @param  array<string, mixed>  $full  findings of the edited build, by key
     */
    private static function assertTrialTells(
        Standing $from,
        Build $edited,
        array $keys,
        array $full,
        string $after,
    ): void {
        $tried = $from->trial($edited, $keys);
        foreach ($keys as $key) {
            $is = array_key_exists($key, $tried) ? $tried[$key] : $from->findings()[$key];
            self::assertSame($full[$key] ?? null, $is?->toArray(), "{$key} {$after}");
        }
    }

    /** The build with every entry that has not changed taken from the one before, as the app hands it on. */
    private static function alike(Build $before, Build $build): Build
    {
        $members = [];
        foreach (['parts', 'needs', 'leads', 'mates', 'axes'] as $section) {
            foreach ($build->{$section} as $ref => $entry) {
                $was = $before->{$section}[$ref] ?? null;
                $members[$section][$ref] = $was == $entry ? $was : $entry;
            }
        }

        return $build->with($members);
    }

    /**
     * @param  iterable<Finding>  $findings
     * @return array<string, mixed> by key
     */
    private static function told(iterable $findings): array
    {
        $told = [];
        foreach ($findings as $finding) {
            $told[$finding->key()] = $finding->toArray();
        }
        ksort($told);

        return $told;
    }

    public function test_nothing_said_is_another_thing_than_no(): void
    {
        $site = static fn (array $said): Build => BuildFile::build([
            'magpie' => BuildFile::VERSION,
            'build' => ['name' => 'A', 'kind' => 'a', 'currency' => 'GBP'],
            'site' => $said,
        ]);

        self::assertArrayHasKey(
            'site',
            Differences::between($site(['residual_current_device' => false]), $site([]))->cells ?? [],
        );
        self::assertFalse(Same::values([null], [false]));
        self::assertFalse(Same::values(['a' => 0], ['a' => '0']));
        self::assertTrue(Same::values(['a' => 1, 'b' => [2.5]], ['b' => [2.5], 'a' => 1]));
    }
}
