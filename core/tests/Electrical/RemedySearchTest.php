<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Rules\ContactLoad;
use Magpie\Core\Electrical\Rules\MotorCurrent;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Format\Reading;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Library\Entry;
use Magpie\Core\Machine\Build;
use Magpie\Core\Remedies\CheapestSet;
use Magpie\Core\Remedies\RemedySearch;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class RemedySearchTest extends TestCase
{
    /**
     * @return list<Entry>
     */
    private static function shelf(): array
    {
        static $shelf = null;

        return $shelf ??= array_map(
            LibraryFile::read(...),
            json_decode((string) file_get_contents(dirname(__DIR__, 2).'/reference/starter-library.json'), true),
        );
    }

    /**
     * @return array{tried: int, remedies: list<array<string, mixed>>, left_out: int}
     */
    private static function search(Build $build, string $key): array
    {
        $standing = Standing::of(Rules::inspector(), $build);

        return (new RemedySearch($standing, self::shelf()))->for(
            $standing->findings()[$key] ?? self::fail("There is no {$key}."),
        );
    }

    /**
     * @return iterable<string, array{string}>
     */
    public static function demos(): iterable
    {
        yield 'linnet' => ['linnet'];
        yield 'dunlin' => ['dunlin'];
    }

    #[DataProvider('demos')]
    public function test_no_remedy_leaves_a_worse_verdict_anywhere(string $name): void
    {
        $build = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json"));
        $reading = Reading::of($build);
        $standing = Standing::of(Rules::inspector(), $build);
        $inspection = $standing->inspection();
        $now = [];
        foreach ($inspection->findings as $finding) {
            $now[$finding->key()] = $finding->verdict;
        }
        $offered = 0;
        $short = array_filter(
            $inspection->findings,
            static fn (Finding $f): bool => $f->verdict->rank() <= Verdict::Tight->rank(),
        );
        // Of the larger machine every third; MAGPIE_FUZZ tries all of them.
        $every = $name === 'linnet' && getenv('MAGPIE_FUZZ') === false ? 3 : 1;
        $short = array_filter(array_values($short), static fn (int $i): bool => $i % $every === 0, ARRAY_FILTER_USE_KEY);
        foreach ($short as $finding) {
            foreach ((new RemedySearch($standing, self::shelf()))->for($finding)['remedies'] as $remedy) {
                $offered++;
                $after = [];
                $fitted = Remedy::toBeFitted($remedy['changes']);
                foreach ($standing->after($reading->changed($remedy['changes']))->findings() as $then) {
                    $after[$then->key()] = $then->onceFitted($fitted);
                    self::assertGreaterThanOrEqual(
                        isset($now[$then->key()]) ? $now[$then->key()]->rank() : Verdict::Tight->rank(),
                        $after[$then->key()]->rank(),
                        "{$remedy['says']} worsens {$then->key()}",
                    );
                }
                // Nothing is left to judge where no lead is unprotected any more.
                $then = $after[$finding->key()] ?? ($finding->card->mayGo ? Verdict::Holds : $finding->verdict);
                self::assertSame($remedy['to'], $then->value);
                self::assertGreaterThan($finding->verdict->rank(), $then->rank(), $remedy['says']);
                foreach ($remedy['cured'] as $key => $verdict) {
                    self::assertSame($verdict, ($after[$key] ?? Verdict::Holds)->value);
                }
            }
        }
        self::assertGreaterThan(intdiv(25, $every), $offered);
    }

    public function test_the_burnt_bed_plug_is_cured_by_contacts_of_which_one_may_open(): void
    {
        $file = ContactLoad::bedOn(1);
        $file['leads'][0]['ends'][0]['contact'] = null;
        $first = self::search((new SampleBuild($file))->build, 'E02/W1')['remedies'][0];

        self::assertStringContainsString('3 contacts per pole at bed', $first['says']);
        self::assertSame('holds', $first['to']);
    }

    public function test_a_driver_set_too_high_is_set_lower_before_anything_is_bought(): void
    {
        $result = self::search((new SampleBuild(MotorCurrent::axis(['set_current' => '2.4 A'])))->build, 'E08/drv');

        self::assertSame(
            "Set drv to 1.87\u{a0}A",
            $result['remedies'][0]['says'],
            '85 % of 2.2 A, and the driver gives 2.',
        );
        self::assertFalse($result['remedies'][0]['buys']);
        self::assertGreaterThanOrEqual(4, $result['tried']);
    }

    public function test_a_fan_on_the_wrong_rail_gets_its_own_or_another(): void
    {
        $file = Examples::file(
            [
                Examples::part('psu24', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '10 A',
                    'cooling' => 'fan',
                ]),
                Examples::part('psu12', 'power_supply', [
                    'output_voltage' => '12 V',
                    'rated_current' => '10 A',
                    'cooling' => 'fan',
                ]),
                Examples::part('fan', 'fan', [
                    'rated_voltage' => '12 V',
                    'min_voltage' => '7 V',
                    'max_voltage' => '13.8 V',
                    'rated_current' => '0.1 A',
                ]),
                Examples::part('lamp', 'lamp', ['rated_voltage' => '24 V', 'rated_current' => '1 A']),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu24.out', 'to' => 'fan.power', 'route' => 'fixed'],
                    ['ref' => 'W2', 'from' => 'psu24.out', 'to' => 'lamp.power', 'route' => 'fixed'],
                ],
            ],
        );
        $result = self::search((new SampleBuild($file))->build, 'E06/fan.power');

        $own = array_column($result['remedies'], null, 'says')['W1 from psu12 instead of psu24'];
        self::assertSame(['holds', false, '0.00'], [$own['to'], $own['buys'], $own['cost']]);
        self::assertContains(true, array_column($result['remedies'], 'buys'), 'A fan for 24 V is offered too.');
    }

    public function test_an_unfused_lead_gets_the_smallest_fuse_that_carries_its_load(): void
    {
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '40 A',
                    'cooling' => 'fan',
                ]),
                Examples::part('lamp', 'lamp', ['rated_voltage' => '24 V', 'rated_current' => '1.4 A']),
            ],
            [
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'psu.out',
                        'to' => 'lamp.power',
                        'route' => 'fixed',
                        'conductor' => ['size' => '22 AWG', 'evidence' => 'datasheet'],
                        'length' => '0.5 m',
                        'ends' => [['termination' => 'ferrule'], ['termination' => 'soldered']],
                    ],
                ],
            ],
        );
        $result = self::search((new SampleBuild($file))->build, 'E13/psu.out');
        $fuses = array_values(
            array_filter(
                array_column($result['remedies'], 'says'),
                static fn (string $s): bool => str_starts_with($s, 'Fuse'),
            ),
        );

        self::assertSame(
            'Fuse, glass, 2 A in W1, at psu',
            $fuses[0] ?? '',
            '1.4 A ≤ 0.8 × 2 A, which is less than the 3 A of AWG 22, IEC 60364-4-43.',
        );
        self::assertNotContains(
            'Fuse, glass, 10 A in W1, at psu',
            $fuses,
            'Its lead stands 1405 A²s; a slow one may let through 4800.',
        );
    }

    public function test_an_earth_that_is_missing_is_laid_as_large_as_the_line(): void
    {
        $file = Examples::file(
            [
                Examples::part('inlet', 'mains_inlet', [
                    'fuse_rating' => '6.3 A',
                    'switch' => true,
                    'rated_current' => '10 A',
                ]),
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '10 A']),
            ],
            [
                'site' => ['mains_voltage' => '230 V', 'residual_current_device' => true, 'ambient' => '25 °C'],
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'inlet.out',
                        'to' => 'psu.mains',
                        'conductor' => ['size' => '1.5 mm²', 'evidence' => 'datasheet'],
                    ],
                ],
            ],
        );
        $remedy = self::search((new SampleBuild($file))->build, 'E14/inlet')['remedies'][0];

        self::assertSame('1.5 mm²', $remedy['changes'][0]['create']['conductor']['size']);
        // No bond is known before it is read.
        self::assertSame('unproven', $remedy['to']);
    }

    public function test_what_holds_or_is_only_unknown_is_left_alone(): void
    {
        $build = (new SampleBuild(MotorCurrent::axis()))->build;

        self::assertSame(['tried' => 0, 'remedies' => [], 'left_out' => 0], self::search($build, 'E08/drv'));
    }

    public function test_a_set_of_findings_is_cured_at_least_cost(): void
    {
        $build = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/dunlin.json'));
        $standing = Standing::of(Rules::inspector(), $build);
        $inspection = $standing->inspection();
        $offers = $keys = [];
        foreach ($inspection->findings as $finding) {
            foreach (
                count($keys) < 5 && $finding->verdict->rank() < Verdict::Tight->rank()
                    ? (new RemedySearch($standing, self::shelf()))->for($finding)['remedies']
                    : [] as $remedy
            ) {
                $keys[$finding->key()] = $finding->key();
                $offers[] = [
                    'says' => $remedy['says'],
                    'changes' => $remedy['changes'],
                    'cured' => array_keys($remedy['cured']),
                    'cost' => (float) $remedy['cost'],
                    'buys' => $remedy['buys'],
                ];
            }
        }
        $keys = array_values($keys);
        $set = (new CheapestSet($standing))->of($keys, $offers);

        self::assertGreaterThan(2, count($keys));
        self::assertTrue($set['proven']);
        self::assertSame([], $set['left']);
        $after = Rules::inspector()->inspect(Reading::of($build)->changed($set['changes']));
        $then = [];
        foreach ($after->findings as $finding) {
            $then[$finding->key()] = $finding->verdict->rank();
        }
        foreach ($inspection->findings as $finding) {
            self::assertGreaterThanOrEqual($finding->verdict->rank(), $then[$finding->key()] ?? 4, $finding->key());
            in_array($finding->key(), $keys, true) &&
                self::assertGreaterThan($finding->verdict->rank(), $then[$finding->key()]);
        }
        self::assertEqualsWithDelta(
            self::cheapestByTryingAll($keys, $offers),
            array_sum(array_map(static fn (int $i): float => max(0.0, $offers[$i]['cost']), $set['chosen'])),
            0.005,
        );
    }

    /**
     * Every set of one offer a finding: the reference, which knows nothing of branches or bounds. Sets that clash cost
     * more in truth, so it is a lower bound.
     *
     * @param  list<string>  $keys
     * @param  list<array{cured: list<string>, cost: float, changes: list<array<string, mixed>>}>  $offers
     */
    private static function cheapestByTryingAll(array $keys, array $offers): float
    {
        $sets = [[]];
        foreach ($keys as $key) {
            $wider = [];
            foreach ($sets as $set) {
                foreach ($offers as $i => $offer) {
                    if (in_array($key, $offer['cured'], true)) {
                        $wider[] = $set + [$i => true];
                    }
                }
            }
            $sets = $wider;
        }

        return min(
            array_map(
                static fn (array $set): float => array_sum(
                    array_map(static fn (int $i): float => max(0.0, $offers[$i]['cost']), array_keys($set)),
                ),
                $sets,
            ),
        );
    }
}
