<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\LeadProposal;
use Magpie\Core\Electrical\LeadProposals;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Tests\Proving\Machines;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Machines that were wired with thought, their leads taken away: what is proposed puts them back, and is sound. */
final class LeadProposalsTest extends TestCase
{
    /** Checks a proposed lead must not fail: contact, conductor, drop, window, board output, signal, voltage. */
    private const JUDGED = ['E02', 'E03', 'E04', 'E06', 'E07', 'E11', 'E26'];

    /**
     * @param  array<string, mixed>  $file
     * @return array{leads: list<LeadProposal>, open: list<array{port: string, why: string}>}
     */
    private static function of(array $file): array
    {
        return LeadProposals::of(new Survey(BuildFile::build($file)));
    }

    /**
     * @param  array<string, mixed>  $file
     * @return array<string, array{string, string|null, string|null}> size, current, length by way
     */
    private static function ways(array $file): array
    {
        $ways = [];
        foreach (self::of($file)['leads'] as $lead) {
            $ways["{$lead->from->text()} > {$lead->to->text()}"] = [
                $lead->size,
                $lead->current?->text(),
                $lead->length?->text(),
            ];
        }

        return $ways;
    }

    /**
     * @return iterable<string, array{string, int}> machine, leads that may be told otherwise
     */
    public static function machines(): iterable
    {
        $unlike = [
            // A stop in the mains, a mains bed and a contactor behind it are the builder's to lay out.
            'printer with a mains bed' => 4,
            'router with a spindle on a drive' => 4,
            'plasma table' => 6,
            'drag-knife cutter' => 1,
        ];
        foreach (array_keys(Machines::all()) as $name) {
            yield $name => [$name, $unlike[$name] ?? 0];
        }
    }

    #[DataProvider('machines')]
    public function test_what_is_proposed_is_how_the_machine_was_wired_and_none_of_it_fails(
        string $machine,
        int $unlike,
    ): void {
        $file = Machines::all()[$machine]()->file();
        self::assertIsArray($file['leads']);
        $way = static fn (string $from, string $to): string => implode(' ', $from < $to ? [$from, $to] : [$to, $from]);
        $wired = array_map(static fn (array $l): string => $way($l['from'], $l['to']), $file['leads']);
        $leads = self::of(['leads' => []] + $file)['leads'];
        $proposed = array_map(static fn (LeadProposal $l): string => $way($l->from->text(), $l->to->text()), $leads);

        self::assertLessThanOrEqual(
            $unlike,
            count(array_diff($wired, $proposed)),
            implode(', ', array_diff($wired, $proposed)),
        );

        $entries = [];
        foreach ($leads as $i => $lead) {
            $entries[] = ['ref' => "P{$i}"] + $lead->entry() + ['length' => '0.5 m'];
        }
        $failing = [];
        foreach (Rules::inspector()->inspect(BuildFile::build(['leads' => $entries] + $file))->findings as $finding) {
            $grave = in_array($finding->verdict, [Verdict::Danger, Verdict::Fails], true);
            if ($grave && in_array($finding->card->id, self::JUDGED, true)) {
                $failing[] = "{$finding->card->id} {$finding->headline}";
            }
        }
        self::assertSame([], $failing);

        // What is proposed once is not proposed again.
        self::assertSame([], self::of(['leads' => $entries] + $file)['leads']);
    }

    /**
     * @param  array<string, mixed>  $members
     * @param  array<string, string>  $fan
     * @return array<string, mixed>
     */
    private static function cabinet(array $members = [], array $fan = []): array
    {
        return Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '10 A',
                    'rated_power' => '240 W',
                ]),
                Examples::part('bed', 'heater', ['rated_voltage' => '24 V', 'rated_power' => '120 W']),
                Examples::part(
                    'fan',
                    'fan',
                    $fan + ['min_voltage' => '20 V', 'max_voltage' => '28 V', 'rated_current' => '0.1 A'],
                ),
            ],
            $members + [
                'magpie' => BuildFile::VERSION,
                'build' => ['name' => 'Cabinet', 'kind' => 'sample', 'currency' => 'GBP'],
                'site' => ['mains_voltage' => '230 V', 'ambient' => '30 °C'],
            ],
        );
    }

    public function test_a_size_follows_the_current_the_air_and_the_drop(): void
    {
        // 5 A at 80 %: 6.25 A, 0.75 mm² carries 8.5 A (IEC 60204-1 table 6, B2).
        self::assertSame(['0.75 mm²', '5 A', null], self::ways(self::cabinet())['psu.out > bed.power']);
        // At 60 °C that is 0.58 of it (table D.1): the next size up, 1 mm², 10.1 A × 0.58 = 5.9 A, is not enough either.
        self::assertSame(
            '1.5 mm²',
            self::ways(self::cabinet(['site' => ['mains_voltage' => '230 V', 'ambient' => '60 °C']]))[
                'psu.out > bed.power'
            ][0],
        );
        // The bed's warm chamber counts as the room's air does, whichever end of the lead it is.
        $chamber = [
            'zones' => [
                [
                    'ref' => 'warm',
                    'name' => 'Chamber',
                    'kind' => 'chamber',
                    'temperature' => '60 °C',
                    'evidence' => 'measured',
                    'holds' => ['bed'],
                ],
            ],
        ];
        self::assertSame('1.5 mm²', self::ways(self::cabinet($chamber))['psu.out > bed.power'][0]);
        // 10 m there and back: 3 % of 24 V at 5 A leaves 144 mΩ, 7.2 mΩ/m: 4 mm² has 4.95 × 1.2, 2.5 mm² 7.98 × 1.2.
        $with = self::cabinet([
            'leads' => [['ref' => 'W1', 'from' => 'bed.earth', 'to' => 'psu.earth', 'length' => '10 m']],
        ]);
        self::assertSame(['4 mm²', '5 A', '10 m'], self::ways($with)['psu.out > bed.power']);
        // A fan is a small load, and gauges are for who reads in inches.
        self::assertSame('0.25 mm²', self::ways(self::cabinet())['psu.out > fan.power'][0]);
        $inches = self::cabinet();
        self::assertIsArray($inches['build']);
        $inches['build']['units'] = 'imperial';
        self::assertSame('18 AWG', self::ways($inches)['psu.out > bed.power'][0]);
    }

    public function test_what_no_size_carries_gets_the_largest(): void
    {
        $file = self::cabinet();
        $file['parts'][1]['specs']['rated_power']['value'] = '9000 W';
        self::assertSame('10 mm²', self::ways($file)['psu.out > bed.power'][0]);
        self::assertStringContainsString('not even the thickest listed carries it', self::of($file)['leads'][0]->why);
        self::assertStringNotContainsString('thickest', self::of(self::cabinet())['leads'][0]->why);
    }

    public function test_what_finds_no_far_end_says_why(): void
    {
        $found = self::of(self::cabinet(fan: ['min_voltage' => '10 V', 'max_voltage' => '14 V']));

        self::assertSame(
            [
                'psu.mains' => 'no power inlet is fitted: mains comes in through one with its fuse and switch',
                'fan.power' => "no supply has a voltage it stands: psu 24\u{a0}V",
            ],
            array_column($found['open'], 'why', 'port'),
        );
        self::assertNotContains('fan', array_map(static fn (LeadProposal $l): string => $l->to->need, $found['leads']));
    }

    public function test_a_spindle_hangs_on_no_fan_output_and_a_boxed_driver_in_no_slot(): void
    {
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '30 A']),
                self::withPorts(
                    Examples::part('board', 'controller_board', ['min_voltage' => '12 V', 'max_voltage' => '28 V']),
                    self::outlet('fan-0', 'fan', '1 A'),
                    self::outlet('heater-0', 'heater', '10 A'),
                    self::outlet('drv-0', 'motor', '2 A'),
                ),
                Examples::part('spindle-own-fan', 'spindle', ['rated_voltage' => '24 V', 'rated_power' => '200 W']),
                Examples::part('box', 'motor_driver', [
                    'min_voltage' => '20 V',
                    'max_voltage' => '50 V',
                    'continuous_current' => '3 A',
                ]),
                Examples::part('bed', 'heater', [
                    'rated_voltage' => '24 V',
                    'rated_power' => '360 W',
                    'place' => 'bed',
                ]),
            ],
            ['magpie' => BuildFile::VERSION, 'build' => ['name' => 'Box', 'kind' => 'sample', 'currency' => 'GBP']],
        );
        $found = self::of($file);
        $ways = array_map(
            static fn (LeadProposal $l): string => "{$l->from->text()} > {$l->to->text()}",
            $found['leads'],
        );

        self::assertContains('psu.out > spindle-own-fan.power', $ways);
        self::assertContains('psu.out > box.power', $ways);
        self::assertStringContainsString(
            'this one wants outputs for step and direction',
            array_column($found['open'], 'why', 'port')['box.control'] ?? '',
        );
        self::assertStringContainsString(
            'gives 10 A there, and it takes 15 A: a switching module goes between them',
            str_replace("\u{a0}", ' ', array_column($found['open'], 'why', 'port')['bed.power'] ?? ''),
        );
    }

    /**
     * @param  array{array<string, mixed>, array<string, mixed>}  $part
     * @param  array<string, mixed>  ...$ports
     * @return array{array<string, mixed>, array<string, mixed>}
     */
    private static function withPorts(array $part, array ...$ports): array
    {
        return [$part[0] + ['ports' => array_values($ports)], $part[1]];
    }

    /**
     * @return array<string, mixed>
     */
    private static function outlet(string $name, string $use, string $amps): array
    {
        return [
            'name' => $name,
            'kind' => 'outlet',
            'fed_from' => 'power',
            'specs' => ['use' => $use, 'rated_current' => $amps],
        ];
    }

    /**
     * @return iterable<string, array{array<string, string>, list<array{string, string, array<string, string>}>, string}> heater,
     *     parts beside it, why
     */
    public static function leftOn(): iterable
    {
        $ssr = ['bed-relay', 'relay', ['coil_voltage' => '5 V', 'contact_rating' => '25 A']];
        $psu = ['psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']];
        $mains = ['rated_voltage' => '230 V', 'rated_power' => '600 W'];
        $low = ['rated_voltage' => '24 V', 'rated_power' => '120 W'];
        yield 'mains, and nothing switches it' => [$mains, [], 'it would be on for ever'];
        yield 'mains, through its relay' => [$mains, [$ssr], ''];
        yield 'low voltage, and the board has no output for it' => [$low, [$psu], 'it would be on for ever'];
        yield 'low voltage, through its relay' => [$low, [$psu, $ssr], ''];
    }

    /**
     * @param  array<string, string>  $heater
     * @param  list<array{string, string, array<string, string>}>  $beside
     */
    #[DataProvider('leftOn')]
    public function test_what_heats_hangs_on_nothing_that_never_goes_off(
        array $heater,
        array $beside,
        string $why,
    ): void {
        $bed = Examples::part('bed', 'heater', $heater);
        $mains = $heater['rated_voltage'] === '230 V';
        $file = Examples::file(
            [
                Examples::part('inlet', 'mains_inlet', ['rated_current' => '10 A', 'fuse_rating' => '10 A']),
                self::withPorts(
                    Examples::part('board', 'controller_board', ['min_voltage' => '12 V', 'max_voltage' => '28 V']),
                ),
                $mains
                    ? self::withPorts($bed, [
                        'name' => 'power',
                        'kind' => 'inlet',
                        'mains' => true,
                        'draw' => 'resistive',
                    ])
                    : $bed,
                ...array_map(static fn (array $one): array => Examples::part(...$one), $beside),
            ],
            [
                'magpie' => BuildFile::VERSION,
                'build' => ['name' => 'Bed', 'kind' => 'sample', 'currency' => 'GBP'],
                'site' => ['mains_voltage' => '230 V', 'ambient' => '30 °C'],
            ],
        );
        $found = self::of($file);
        $ways = array_map(
            static fn (LeadProposal $l): string => "{$l->from->text()} > {$l->to->text()}",
            $found['leads'],
        );
        $from = $mains ? 'inlet.out' : 'psu.out';

        self::assertNotContains("{$from} > bed.power", $ways);
        self::assertStringContainsString($why, array_column($found['open'], 'why', 'port')['bed.power'] ?? '');
        self::assertSame(
            $why === '' ? ["{$from} > bed-relay.in", 'bed-relay.out > bed.power'] : [],
            array_values(
                array_filter($ways, static fn (string $w): bool => preg_match('/bed(-relay.in|.power)$/', $w) === 1),
            ),
        );
        if ($mains && $why === '') {
            // Both stand before the fuse of the inlet, and the earth goes with them.
            $sizes = array_column(
                array_map(static fn (LeadProposal $l): array => [$l->to->text(), $l->size], $found['leads']),
                1,
                0,
            );
            self::assertSame(
                [$sizes['bed-relay.in'], $sizes['bed-relay.in']],
                [$sizes['bed.power'], $sizes['bed.earth']],
            );
            self::assertSame('1 mm²', $sizes['bed.power'], '2.6 A would want less than the 10 A of the fuse does.');
        }
    }

    public function test_of_two_supplies_the_second_takes_what_the_first_cannot(): void
    {
        $two = self::cabinet();
        self::assertIsArray($two['parts']);
        self::assertIsArray($two['needs']);
        foreach (
            [
                ['second', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '10 A']],
                ['mat', 'heater', ['rated_voltage' => '24 V', 'rated_power' => '120 W']],
            ] as $one
        ) {
            [$two['parts'][], $two['needs'][]] = Examples::part(...$one);
        }
        $ways = self::ways($two);

        // 5 A and 5 A are more than 80 % of 10 A.
        self::assertArrayHasKey('psu.out > bed.power', $ways);
        self::assertArrayHasKey('second.out > mat.power', $ways);
    }
}
