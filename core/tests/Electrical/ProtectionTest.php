<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Reference\FuseBands;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * What stands before a lead against its load, an overload and a short (IEC 60364-4-43 §433 and §434).
 */
final class ProtectionTest extends TestCase
{
    /**
     * A load on a supply of 24 V in air of 30 °C.
     *
     * @param  array<string, mixed>  $lead
     * @param  array<string, mixed>  $supply
     * @param  array<string, mixed>  $fuse
     * @param  array{string, array<string, mixed>}  $load
     * @param  list<array<string, mixed>>  $more  leads
     */
    private static function build(
        array $lead,
        array $supply = [],
        array $fuse = [],
        array $load = ['heater', ['rated_power' => '100 W']],
        array $more = [],
    ): SampleBuild {
        $fuse += ['rated_current' => '10 A', 'kind' => 'blade'];
        $size = $lead['size'] ?? '18 AWG';
        unset($lead['size']);

        return new SampleBuild(
            Examples::file(
                [
                    Examples::part(
                        'psu',
                        'power_supply',
                        $supply + [
                            'output_voltage' => '24 V',
                            'rated_current' => '100 A',
                        ],
                    ),
                    Examples::part('bed', $load[0], $load[1] + ['rated_voltage' => '24 V']),
                    Examples::part('F1', 'fuse', array_filter($fuse)),
                    Examples::part('F2', 'fuse', ['rated_current' => '3 A', 'kind' => 'blade']),
                ],
                [
                    'leads' => [
                        array_filter(
                            $lead + [
                                'ref' => 'W1',
                                'from' => 'psu.out',
                                'to' => 'bed.power',
                                'route' => 'fixed',
                                'conductor' => ['size' => $size, 'evidence' => 'datasheet'],
                                'length' => '1 mm',
                            ],
                        ),
                        ...$more,
                    ],
                    'site' => ['ambient' => '30 °C', 'mains_voltage' => '230 V'],
                ],
            ),
        );
    }

    private static function assertSays(Verdict $verdict, string $says, Finding $finding): void
    {
        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, str_replace("\u{a0}", ' ', $finding->headline));
    }

    /**
     * @return iterable<string, array{string, string, Verdict}>
     */
    public static function loads(): iterable
    {
        yield 'it carries the load and protects' => ['190 W', '2.5 mm²', Verdict::Holds];
        yield 'little to spare' => ['195 W', '2.5 mm²', Verdict::Tight];
        yield 'it opens in use' => ['245 W', '2.5 mm²', Verdict::Fails];
        // 10 A into a gauge 16 that may carry 10 A.
        yield 'at the lead\'s own limit' => ['100 W', '16 AWG', Verdict::Tight];
    }

    #[DataProvider('loads')]
    public function test_a_fuse_carries_its_load(string $watts, string $size, Verdict $verdict): void
    {
        $build = self::build(['size' => $size, 'protection' => 'F1'], load: ['heater', ['rated_power' => $watts]]);

        self::assertSame($verdict, $build->finding('E13/F1.out')->verdict);
    }

    public function test_a_short_must_open_the_fuse_before_the_lead_has_taken_what_it_stands(): void
    {
        $lead = ['protection' => 'F1'];
        $on = static fn (string $amps, string $kind = 'blade'): Finding => self::build(
            $lead,
            ['rated_current' => $amps],
            ['kind' => $kind, 'speed' => 'slow'],
        )->finding('E13/F1.out');

        // Gauge 18, 0.823 mm², may carry 7 A and stands (115 × 0.823)² = 8958 A²s. 100 A through a 10 A blade fuse: 360 A²s.
        self::assertSays(Verdict::Holds, 'protects W1', $on('100 A'));
        // From 20 A: twice its rating, 5 s, 2000 A²s.
        self::assertSame(Verdict::Holds, $on('20 A')->verdict);
        // From 16 A: 1.6 times, 50 s, 12 800 A²s.
        self::assertSays(Verdict::Danger, 'ends within 50 s', $on('16 A'));
        // From 8.9 A to 13.4 A it need not open at all.
        self::assertSays(Verdict::Danger, 'need not open', $on('8.9 A'));
        // A time-lag cartridge fuse needs 2.1 times its rating to open in two minutes.
        self::assertSays(Verdict::Danger, 'ends within', $on('20 A', 'glass'));
        self::assertSame(Verdict::Danger, $on('25 A', 'breaker')->verdict);
    }

    public function test_where_the_kind_of_fuse_decides_it_is_asked_for(): void
    {
        $with = static fn (array $fuse): Finding => self::build(
            ['protection' => 'F1'],
            ['rated_current' => '30 A'],
            $fuse,
        )->finding('E13/F1.out');

        self::assertSame(Verdict::Holds, $with([])->verdict);
        $unknown = $with(['kind' => '']);
        self::assertSays(Verdict::Unproven, 'kind and speed of the 10 A fuse (F1)', $unknown);
        self::assertContains('parts/F1/specs/kind', $unknown->wanted);
        // 10 A on a lead for 10 A: what surely opens within the hour is a blade fuse, not one that takes 21 A to.
        $even = static fn (string $kind): Finding => self::build(
            ['size' => '16 AWG', 'protection' => 'F1'],
            ['rated_current' => '20 A'],
            ['kind' => $kind, 'speed' => 'slow'],
            ['heater', ['rated_power' => '24 W']],
        )->finding('E13/F1.out');
        self::assertSame(Verdict::Tight, $even('blade')->verdict, 'It protects, with nothing to spare.');
        self::assertSame(Verdict::Danger, $even('glass')->verdict);
        self::assertSame(Verdict::Unproven, $even('')->verdict);
        // Where every kind comes to the same, none is asked for.
        $thin = self::build(['size' => '28 AWG', 'protection' => 'F1'], ['rated_current' => '12 A'], ['kind' => '']);
        self::assertSame(Verdict::Danger, $thin->finding('E13/F1.out')->verdict);
        $stout = self::build(['size' => '6 mm²', 'protection' => 'F1'], fuse: ['kind' => '']);
        self::assertSame(Verdict::Holds, $stout->finding('E13/F1.out')->verdict);
    }

    public function test_without_a_fuse_the_source_must_not_give_more_than_the_lead_stands(): void
    {
        $on = static fn (array $supply, array $lead = []): Finding => self::build(
            $lead,
            $supply,
            load: ['heater', ['rated_power' => '24 W']],
        )->finding('E13/psu.out');

        // 1.5 × 2 A into 7 A; 1.5 × 5 A, hot but no more; 1.5 × 8 A.
        self::assertSays(Verdict::Holds, 'none needed', $on(['rated_current' => '2 A']));
        self::assertSays(Verdict::Fails, 'if it lasts', $on(['rated_current' => '5 A']));
        self::assertSays(Verdict::Danger, 'No fuse: psu can push 12 A', $on(['rated_current' => '8 A']));
        self::assertSame(Verdict::Holds, $on(['rated_current' => '5 A', 'peak_current' => '6.9 A'])->verdict);
        // 24 V over 10 m of gauge 18 is more than 12 A; over 100 m it is not, and the supply goes on giving.
        $shuts = ['rated_current' => '8 A', 'on_short' => 'shuts down and tries again'];
        self::assertSays(Verdict::Holds, 'shuts down', $on($shuts, ['length' => '10 m']));
        self::assertSame(Verdict::Danger, $on($shuts, ['length' => '100 m'])->verdict);
        self::assertSame(Verdict::Danger, $on(['on_short' => 'goes on giving'] + $shuts)->verdict);
        self::assertSays(
            Verdict::Unproven,
            'length of W1',
            $on(['rated_current' => '20 A'] + $shuts, ['length' => '']),
        );
    }

    public function test_a_load_that_can_be_overloaded_wants_a_fuse_its_lead_can_carry(): void
    {
        $lead = ['protection' => 'F1'];
        $spindle = ['spindle', ['rated_power' => '100 W', 'efficiency' => '80 %']];

        // 10 A into 7 A: too much for a spindle that stalls, and nothing to a heater.
        self::assertSays(
            Verdict::Fails,
            'takes more when it is overloaded',
            self::build($lead, load: $spindle)->finding('E13/F1.out'),
        );
        self::assertSame(
            Verdict::Danger,
            self::build($lead, fuse: ['rated_current' => '15 A'], load: $spindle)->finding('E13/F1.out')->verdict,
        );
        self::assertSame(
            Verdict::Holds,
            self::build(['size' => '2.5 mm²'] + $lead, load: $spindle)->finding('E13/F1.out')->verdict,
        );
        self::assertSame(Verdict::Holds, self::build($lead)->finding('E13/F1.out')->verdict);
    }

    public function test_a_fuse_further_back_that_opens_sooner_protects_as_well(): void
    {
        $behind = static fn (?string $protection): Finding => self::build(
            ['size' => '20 AWG', 'from' => 'F1.out'],
            ['rated_current' => '11 A'],
            load: ['heater', ['rated_power' => '24 W']],
            more: [
                array_filter([
                    'ref' => 'W0',
                    'from' => 'psu.out',
                    'to' => 'F1.in',
                    'route' => 'fixed',
                    'length' => '1 mm',
                    'conductor' => ['size' => '2.5 mm²', 'evidence' => 'datasheet'],
                    'protection' => $protection,
                ]),
            ],
        )->finding('E13/F1.out');

        self::assertSame(Verdict::Danger, $behind(null)->verdict);
        self::assertSame(Verdict::Holds, $behind('F2')->verdict);
    }

    public function test_a_fuse_in_the_line_and_one_that_is_named_are_one(): void
    {
        $build = self::build(
            ['from' => 'F1.out'],
            more: [
                ['ref' => 'W0', 'from' => 'psu.out', 'to' => 'F1.in'],
                [
                    'ref' => 'W2',
                    'from' => 'psu.out',
                    'to' => 'bed.power',
                    'protection' => 'F1',
                    'conductor' => ['size' => '6 mm²', 'evidence' => 'datasheet'],
                ],
            ],
        );

        self::assertEqualsCanonicalizing(['W1', 'W2'], $build->finding('E13/F1.out')->leads);
    }

    public function test_a_length_nobody_knows_is_asked_for_where_it_decides(): void
    {
        // Ten metres leave 24 A of a short, which a 10 A fuse ends in 2.4 s: 1360 A²s, where gauge 24 stands 555. None: 360 A²s.
        $on = static fn (string $size, string $amps): Finding => self::build(
            ['size' => $size, 'protection' => 'F1', 'length' => ''],
            ['rated_current' => $amps],
            load: ['heater', ['rated_power' => '24 W']],
        )->finding('E13/F1.out');

        self::assertSays(Verdict::Unproven, 'length of W1', $on('24 AWG', '100 A'));
        self::assertSame(Verdict::Holds, $on('2.5 mm²', '100 A')->verdict);
        self::assertSame(Verdict::Danger, $on('20 AWG', '11 A')->verdict);
    }

    public function test_the_slow_end_of_the_bands(): void
    {
        // ISO 8820-3: 135 % in 600 s, 200 % in 5 s, 350 % in 0.5 s, 600 % in 0.1 s (from memory).
        self::assertNull(FuseBands::slowest('blade', 1.34));
        self::assertEqualsWithDelta(600.0, FuseBands::slowest('blade', 1.35), 1e-6);
        self::assertEqualsWithDelta(5.0, FuseBands::slowest('blade', 2.0), 1e-6);
        self::assertEqualsWithDelta(0.5, FuseBands::slowest('blade', 3.5), 1e-6);
        // Between two rows a straight line of logarithms; beyond the last the same I²t.
        self::assertEqualsWithDelta(sqrt(5 * 0.5), FuseBands::slowest('blade', sqrt(2 * 3.5)), 1e-6);
        self::assertEqualsWithDelta(0.025, FuseBands::slowest('blade', 12), 1e-6);
        self::assertEqualsWithDelta(360.0, FuseBands::letsThrough('blade', 10, 600), 1e-6);
        // A breaker lets through no more than its class allows (IEC 60898-1, from memory).
        self::assertSame(22000.0, FuseBands::letsThrough('breaker', 16, 1000));
        // (115 × 1)² and (115 × 0.2)², IEC 60364-5-54.
        self::assertEqualsWithDelta(13225.0, FuseBands::stands(1.0), 1e-6);
        self::assertEqualsWithDelta(529.0, FuseBands::stands(0.2), 1e-6);
    }
}
