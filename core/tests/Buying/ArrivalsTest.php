<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Buying;

use Magpie\Core\Buying\Arrivals;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use PHPUnit\Framework\TestCase;

/** What came, and what it should read. */
final class ArrivalsTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $specs
     * @return array<string, array<string, mixed>> checks by what
     */
    private static function checks(string $family, array $specs): array
    {
        $build = BuildFile::build(
            Examples::file(
                [Examples::part('part', $family, [])],
                [
                    'magpie' => BuildFile::VERSION,
                    'build' => ['name' => 'Sample', 'kind' => 'sample', 'currency' => 'GBP'],
                ],
            ),
        );
        $data = BuildFile::data($build);
        $data['parts'][0]['specs'] = $specs;

        return array_column(Arrivals::checks(BuildFile::build($data)->parts['part']), null, 'what');
    }

    public function test_a_heater_is_known_by_its_resistance(): void
    {
        // 24 V and 288 W: 2 Ω, within 3 % of the claim and 3 % of the meter.
        $cold = self::checks('heater', ['rated_power' => '288 W', 'rated_voltage' => '24 V'])['resistance when cold'];
        self::assertSame(
            ["2\u{a0}Ω", "1.88\u{a0}Ω to 2.12\u{a0}Ω", null],
            [$cold['claimed'], $cold['between'], $cold['verdict']],
        );
        // Half of a pair has twice the resistance.
        $read = static fn (string $ohm): array => self::checks('heater', [
            'rated_power' => '288 W',
            'rated_voltage' => '24 V',
            'cold_resistance' => [
                'value' => $ohm,
                'evidence' => 'measured',
                'rivals' => [['value' => '2 Ω', 'evidence' => 'listing']],
            ],
        ])['resistance when cold'];
        self::assertSame('off', $read('4 Ω')['verdict']);
        self::assertSame('as claimed', $read('2.1 Ω')['verdict']);
        self::assertSame('off', $read('1.8 Ω')['verdict']);
    }

    public function test_a_size_that_was_listed_is_held_against_what_is_measured(): void
    {
        $bore = static fn (string $value): array => self::checks('bearing', [
            'outer_diameter' => [
                'value' => $value,
                'evidence' => 'measured',
                'rivals' => [['value' => '30 mm', 'evidence' => 'listing']],
            ],
        ]);
        $found = array_filter($bore('32 mm'), static fn (array $c): bool => $c['read'] === "32\u{a0}mm");
        self::assertSame(['off'], array_values(array_column($found, 'verdict')));
        $found = array_filter($bore('30.1 mm'), static fn (array $c): bool => $c['read'] === "30.1\u{a0}mm");
        self::assertSame(['as claimed'], array_values(array_column($found, 'verdict')));
        // What no bench tells, a rating, is not asked; nor is what nobody claims.
        self::assertArrayNotHasKey('dynamic load rating', self::checks('linear_rail', ['dynamic_load' => '900 N']));
        self::assertArrayNotHasKey('rail length', self::checks('linear_rail', []));
        self::assertArrayHasKey('rail length', self::checks('linear_rail', ['length' => '350 mm']));
        self::assertArrayHasKey('opens and closes', self::checks('limit_switch', []));
    }

    public function test_what_is_not_looked_at_comes_first_and_what_is_short_is_told(): void
    {
        $buy = static fn (string $ref, int $received, int $accepted): array => [
            'ref' => "b-{$ref}",
            'part' => $ref,
            'supplier' => 'shop',
            'pieces' => 4,
            'paid' => '1',
            'date' => '2026-11-01',
            'received' => $received,
            'accepted' => $accepted,
        ];
        $build = BuildFile::build(
            Examples::file(
                [Examples::part('a', 'belt', []), Examples::part('b', 'fan', []), Examples::part('c', 'fan', [])],
                [
                    'magpie' => BuildFile::VERSION,
                    'build' => ['name' => 'Sample', 'kind' => 'sample', 'currency' => 'GBP'],
                    'suppliers' => [['ref' => 'shop', 'name' => 'Shop', 'currency' => 'GBP']],
                    'purchases' => [$buy('a', 4, 4), $buy('b', 3, 1), $buy('c', 0, 0)],
                ],
            ),
        );
        $lines = (new Arrivals($build))->toArray();
        self::assertSame(
            [['b', 2, 1], ['a', 0, 0]],
            array_map(static fn (array $l): array => [$l['part'], $l['unseen'], $l['short']], $lines),
        );
    }
}
