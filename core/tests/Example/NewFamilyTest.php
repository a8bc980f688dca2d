<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Example;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Inspection\Inspector;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Need;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Plan;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Quantity\Quantity;
use PHPUnit\Framework\TestCase;

/** A family, a check and a cure: three files, and the one line that registers the check. */
final class NewFamilyTest extends TestCase
{
    private static function build(string $open, Evidence $evidence = Evidence::Datasheet): Build
    {
        return new Build(
            new Plan('Example', 'example', 'GBP'),
            parts: [
                'b' => new Part('b', new Bellows, 'Bellows', [
                    'closed' => new Spec('closed', Quantity::of(60, 'mm'), $evidence),
                    'open' => new Spec('open', Quantity::of($open, 'mm'), $evidence),
                ]),
            ],
            needs: ['cover' => new Need('cover', 'Cover of the X guide', 'bellows', 1, ['b'], 'b')],
        );
    }

    public function test_they_are_judged_weighed_and_cured_like_any_other(): void
    {
        $inspector = new Inspector([...Rules::all(), new BellowsStroke]);
        $short = Standing::of($inspector, self::build('350'));
        $finding = $short->findings()['X01/cover'];

        self::assertSame(Verdict::Fails, $finding->verdict, $finding->headline);
        self::assertEqualsWithDelta(290, $finding->working[0]->result?->in('mm'), 1e-9);
        [$cure] = $inspector->curesOf($finding);
        [$remedy] = [...$cure->remedies($finding, new Repair($short->survey(), []))];
        self::assertSame('Bellows with more folds', $remedy->says);
        self::assertSame(Verdict::Holds, $short->after(self::build('361'))->findings()['X01/cover']->verdict);
        self::assertSame(
            Verdict::Unproven,
            $short->after(self::build('361', Evidence::Listing))->findings()['X01/cover']->verdict,
            'On a seller\'s word it proves nothing, without a line about evidence in the check.',
        );
    }

    public function test_every_family_is_found_by_its_file_alone(): void
    {
        $files = array_diff(
            array_map(
                static fn (string $f): string => basename($f, '.php'),
                glob(dirname(__DIR__, 2).'/src/Families/*.php') ?: [],
            ),
            ['Catalogue'],
        );
        $known = array_map(
            static fn ($family): string => (new \ReflectionClass($family))->getShortName(),
            Catalogue::standard()->all(),
        );

        self::assertSame(array_values($files), array_values($known));
        foreach (Catalogue::standard()->all() as $key => $family) {
            self::assertSame($key, $family->key(), 'A file is named as its key is.');
        }
    }
}
