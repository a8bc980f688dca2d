<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Format;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Stage;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What a build may begin with: the frame of a machine, in which nothing is known yet and nothing is wrong. */
final class StartersTest extends TestCase
{
    /**
     * @return iterable<string, array{string}>
     */
    public static function starters(): iterable
    {
        foreach (glob(dirname(__DIR__, 3).'/demo/starters/*.json') ?: [] as $file) {
            yield basename($file, '.json') => [(string) file_get_contents($file)];
        }
    }

    #[DataProvider('starters')]
    public function test_it_is_whole_and_claims_nothing(string $text): void
    {
        $build = BuildFile::read($text);
        self::assertSame($text, BuildFile::write($build), 'As it would be written.');
        self::assertSame(Stage::Planned, $build->plan->stage);
        foreach ([$build->needs, $build->leads, $build->axes] as $some) {
            self::assertNotSame([], $some);
        }
        foreach ($build->parts as $part) {
            foreach ($part->specs as $spec) {
                self::assertSame('assumed', $spec->evidence->value, "{$part->ref} claims its {$spec->key}.");
            }
        }
        $inspection = Rules::inspector()->inspect($build);
        foreach ($inspection->findings as $finding) {
            self::assertNotContains($finding->verdict, [Verdict::Danger, Verdict::Fails], $finding->headline);
            self::assertStringNotContainsString('could not be judged', $finding->headline);
        }
        self::assertGreaterThan($inspection->tally()['holds'], $inspection->tally()['unproven'], 'It says so itself.');
    }

    public function test_there_are_five(): void
    {
        self::assertCount(5, [...self::starters()]);
    }
}
