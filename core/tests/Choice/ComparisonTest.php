<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Choice;

use Eris\Generators;
use Eris\TestTrait;
use Magpie\Core\Advice\InspectionReport;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Choice\Comparison;
use Magpie\Core\Choice\Preference;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Machine\Build;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ComparisonTest extends TestCase
{
    use TestTrait;

    /**
     * @return iterable<string, array{string}>
     */
    public static function demos(): iterable
    {
        foreach (['linnet', 'dunlin'] as $name) {
            yield $name => [(string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json")];
        }
    }

    #[DataProvider('demos')]
    public function test_inspecting_a_candidate_in_place_is_choosing_it_and_inspecting(string $file): void
    {
        $build = BuildFile::read($file);
        $standing = Standing::of(Rules::inspector(), $build);
        $before = BuildFile::write($build);
        foreach ($build->needs as $need) {
            foreach (array_diff($need->candidates, [$need->choice]) as $candidate) {
                $data = json_decode($file, true);
                foreach ($data['needs'] as $i => $entry) {
                    $data['needs'][$i]['choice'] = $entry['ref'] === $need->ref ? $candidate : $entry['choice'] ?? null;
                }
                $chosen = InspectionReport::json(Rules::inspector()->inspect(BuildFile::build($data)));

                self::assertSame(
                    $chosen,
                    InspectionReport::json((new Comparison($standing, $need->ref))->inspectWith($candidate)),
                    "{$need->ref}: {$candidate}",
                );
            }
        }
        self::assertSame($before, BuildFile::write($build), 'Comparing changes nothing.');
    }

    public function test_so_it_is_for_supplies_of_any_size(): void
    {
        $this->limitTo(25)
            ->forAll(Generators::choose(1, 60), Generators::choose(5, 60), Generators::choose(1, 600))
            ->then(function (int $amps, int $volts, int $watts): void {
                $build = $this->supplies([['psu', '24 V', '20 A'], ['other', "{$volts} V", "{$amps} A"]], "{$watts} W");
                $standing = Standing::of(Rules::inspector(), $build);
                $other = (new Comparison($standing, 'psu'))->inspectWith('other');

                self::assertSame(
                    InspectionReport::json(
                        Rules::inspector()->inspect(
                            BuildFile::read(BuildFile::write($build->choosing('psu', 'other'))),
                        ),
                    ),
                    InspectionReport::json($other),
                );
            });
    }

    public function test_a_candidate_shows_which_verdicts_turn_with_it(): void
    {
        $comparison = $this->compare([['psu', '24 V', '6 A'], ['large', '24 V', '20 A'], ['wrong', '48 V', '20 A']]);
        [$now, $large, $wrong] = $comparison['candidates'];

        self::assertSame([], $now['changes']);
        self::assertTrue($now['barred'], '9 A on 6 A.');
        self::assertContains(
            ['fails', 'holds'],
            array_map(static fn (array $c): array => [$c['from'], $c['to']], $large['changes']),
        );
        self::assertFalse($large['barred']);
        self::assertContains('danger', array_column($wrong['changes'], 'to'), '48 V on a 24 V heater.');
        self::assertStringContainsString(
            "48\u{a0}V for 24\u{a0}V: another supply or converter at bed",
            implode(' ', $wrong['forces']),
        );
    }

    public function test_cells_carry_the_worst_verdict_that_reads_them_and_the_ends_are_marked(): void
    {
        $comparison = $this->compare([['psu', '24 V', '6 A'], ['large', '24 V', '20 A']]);
        $row = array_column($comparison['rows'], null, 'key')['rated_current'];

        self::assertSame(['fails', 'holds'], array_column($row['cells'], 'verdict'));
        self::assertSame([['large'], ['psu']], [$row['best'], $row['worst']]);
        self::assertSame(
            [[], []],
            array_values(
                array_intersect_key(array_column($comparison['rows'], null, 'key')['output_voltage'], [
                    'best' => 0,
                    'worst' => 0,
                ]),
            ),
            'Neither more nor fewer volts are better.',
        );
    }

    public function test_no_preference_puts_one_that_fails_before_one_that_does(): void
    {
        // The failing supply is the cheaper by far, and nothing but its price is weighted.
        $comparison = $this->compare(
            [['psu', '24 V', '6 A', '10.00'], ['large', '24 V', '20 A', '90.00'], ['larger', '24 V', '30 A', '80.00']],
            ['landed' => 5],
        );

        self::assertSame(['larger', 'large', 'psu'], $comparison['order']);
        self::assertSame([1.0, 0.0, 0.125], array_column($comparison['candidates'], 'score'));
        self::assertSame(['10.00', '90.00', '80.00'], array_column($comparison['candidates'], 'landed'));
    }

    public function test_a_value_that_is_not_stated_earns_nothing(): void
    {
        $rows = [
            ['key' => 'torque', 'better' => 'more', 'cells' => [['size' => 1.0], null, ['size' => 3.0]]],
            ['key' => 'frame', 'better' => null, 'cells' => [['size' => null], ['size' => null], ['size' => null]]],
        ];
        $candidates = array_map(
            static fn (string $p, ?string $mass): array => [
                'part' => $p,
                'landed' => null,
                'lead_days' => null,
                'mass' => $mass,
                'watts' => null,
            ],
            ['a', 'b', 'c'],
            ['700 g', null, '1400 g'],
        );

        self::assertSame(
            ['a' => 0.0, 'b' => 0.0, 'c' => 1.0],
            (new Preference(['torque' => 4, 'frame' => 5]))->scores($rows, $candidates),
        );
        self::assertSame(
            ['a' => 0.5, 'b' => 0.0, 'c' => 0.5],
            (new Preference(['torque' => 2, 'mass' => 2]))->scores($rows, $candidates),
        );
        self::assertSame(['a' => null, 'b' => null, 'c' => null], (new Preference([]))->scores($rows, $candidates));
    }

    public function test_ratios_name_both_terms(): void
    {
        $comparison = $this->compare([['psu', '24 V', '10 A', '24.00'], ['free', '24 V', '20 A']]);

        self::assertSame(['Rated output power, W per GBP'], array_column($comparison['ratios'], 'label'));
        self::assertSame(
            [10.0, null],
            $comparison['ratios'][0]['values'],
            '240 W for 24.00; without a price there is no ratio.',
        );
    }

    /** Found in use: of four motors that are needed, torque was divided by the price of all four. */
    public function test_a_ratio_is_of_one_piece_however_many_are_needed_and_however_they_are_packed(): void
    {
        $ratio = static function (int $quantity, int $pack): mixed {
            $build = BuildFile::build([
                'magpie' => 2,
                'build' => ['name' => 'a', 'kind' => 'b', 'currency' => 'GBP'],
                'parts' => [['ref' => 'm', 'family' => 'stepper_motor', 'name' => 'M', 'specs' => ['holding_torque' => ['value' => '2 N m', 'evidence' => 'datasheet']]]],
                'needs' => [
                    ['ref' => 'x', 'role' => 'X', 'family' => 'stepper_motor', 'quantity' => $quantity, 'choice' => 'm', 'candidates' => ['m']],
                    ['ref' => 'y', 'role' => 'Y', 'family' => 'stepper_motor', 'choice' => 'm'],
                ],
                'suppliers' => [['ref' => 's', 'name' => 'S', 'currency' => 'GBP']],
                'offers' => [['ref' => '1', 'part' => 'm', 'supplier' => 's', 'price' => (string) (20 * $pack), 'pack' => $pack, 'date' => '2026-11-01']],
            ]);
            $ratios = (new Comparison(Standing::of(Rules::inspector(), $build), 'x'))->toArray()['ratios'];

            return array_column($ratios, 'values', 'label')['Holding torque, N m per GBP'][0] ?? null;
        };
        self::assertSame(0.1, $ratio(1, 1), '2 N m for 20.00');
        self::assertSame(0.1, $ratio(4, 1));
        self::assertSame(0.1, $ratio(9, 5));
    }

    public function test_a_lead_to_a_port_it_has_not_stands_in_the_way(): void
    {
        $file = Examples::file(
            [Examples::part('a', 'power_supply', ['output_voltage' => '24 V']), Examples::part('bed', 'heater', [])],
            ['leads' => [['ref' => 'W1', 'from' => 'a.out2', 'to' => 'bed.power']]],
        );
        $file['parts'][0]['ports'] = [['name' => 'out2', 'kind' => 'source']];
        $file['parts'][] = ['ref' => 'b', 'family' => 'power_supply', 'name' => 'b'];
        $file['needs'][0]['candidates'] = ['a', 'b'];
        $candidates = (new Comparison(
            Standing::of(Rules::inspector(), (new SampleBuild($file))->build),
            'a',
        ))->toArray()['candidates'];

        self::assertSame([], $candidates[0]['blocked']);
        self::assertStringContainsString('W1 goes to its port out2', $candidates[1]['blocked'][0]);
    }

    public function test_a_longer_heavier_motor_says_what_it_forces(): void
    {
        $file = Examples::file(
            [
                Examples::part('m', 'stepper_motor', [
                    'frame' => '17',
                    'body_length' => '40 mm',
                    'mass' => '280 g',
                    'shaft_diameter' => '5 mm',
                    'rated_current' => '1.5 A',
                ]),
                Examples::part('plate', 'plate', []),
            ],
            ['mates' => [['ref' => 'mm', 'kind' => 'mount', 'between' => ['m', 'plate']]]],
        );
        $file['parts'][] = [
            'ref' => 'n',
            'family' => 'stepper_motor',
            'name' => 'n',
            'specs' => [
                'frame' => '23',
                'body_length' => '56 mm',
                'mass' => '700 g',
                'shaft_diameter' => '6.35 mm',
                'rated_current' => '2.8 A',
            ],
        ];
        $file['needs'][0]['candidates'] = ['m', 'n'];
        $forces = implode(
            "\n",
            (new Comparison(Standing::of(Rules::inspector(), (new SampleBuild($file))->build), 'm'))->toArray()[
                'candidates'
            ][1]['forces'],
        );

        foreach (
            [
                'Frame 23 for 17: another bolt pattern and pilot at plate',
                "6.35\u{a0}mm for 5\u{a0}mm: what it meets must fit",
                "16\u{a0}mm longer: room behind it, screws and spacers at plate",
                "420\u{a0}g heavier",
                "1.3\u{a0}A more to feed",
            ] as $wanted
        ) {
            self::assertStringContainsString($wanted, $forces);
        }
    }

    /**
     * @param  list<array{0: string, 1: string, 2: string, 3?: string}>  $supplies  ref, volts, amps and price; the
     * first is chosen
     */
    private function supplies(array $supplies, string $watts = '216 W'): Build
    {
        $file = Examples::file([
            Examples::part('bed', 'heater', [
                'rated_power' => $watts,
                'rated_voltage' => '24 V',
                'min_voltage' => '20 V',
                'max_voltage' => '26 V',
            ]),
        ]);
        $offers = [];
        foreach ($supplies as $s) {
            [$part] = Examples::part($s[0], 'power_supply', [
                'output_voltage' => $s[1],
                'rated_current' => $s[2],
                'rated_power' => (float) $s[1] * (float) $s[2].' W',
                'cooling' => 'fan',
            ]);
            $file['parts'][] = $part;
            if (isset($s[3])) {
                $offers[] = [
                    'ref' => "o-{$s[0]}",
                    'part' => $s[0],
                    'supplier' => 'shop',
                    'price' => $s[3],
                    'date' => '2026-11-01',
                ];
            }
        }
        $file['needs'][] = [
            'ref' => 'psu',
            'role' => 'Supply',
            'family' => 'power_supply',
            'candidates' => array_column($supplies, 0),
            'choice' => $supplies[0][0],
        ];

        return (new SampleBuild(
            $file + [
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'psu.out',
                        'to' => 'bed.power',
                        'conductor' => ['size' => '10 mm²', 'evidence' => 'datasheet'],
                        'length' => '0.5 m',
                        'route' => 'fixed',
                    ],
                ],
                'suppliers' => [
                    [
                        'ref' => 'shop',
                        'name' => 'Shop',
                        'currency' => 'GBP',
                        'shipping' => [['from' => '0', 'cost' => '0']],
                    ],
                ],
                'offers' => $offers,
            ],
        ))->build;
    }

    /**
     * @param  list<array{0: string, 1: string, 2: string, 3?: string}>  $supplies
     * @param  array<string, int>  $weights
     * @return array<string, mixed>
     */
    private function compare(array $supplies, array $weights = []): array
    {
        $build = $this->supplies($supplies);
        $data = BuildFile::data($build);
        foreach ($data['needs'] as $i => $need) {
            $data['needs'][$i] += $need['ref'] === 'psu' && $weights !== [] ? ['weights' => $weights] : [];
        }

        return (new Comparison(Standing::of(Rules::inspector(), BuildFile::build($data)), 'psu'))->toArray();
    }
}
