<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Electrical\Rules\MainStop;
use Magpie\Core\Electrical\Stops;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** Truth tables against enumeration: every simple way from a supply to a load is walked by hand. */
final class StopsTest extends TestCase
{
    /**
     * @return iterable<string, array{int}>
     */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 40; $seed++) {
            yield "network {$seed}" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_the_table_says_what_walking_every_way_says(int $seed): void
    {
        $die = new Randomizer(new Mt19937($seed));
        $parts = [Examples::part('psu', 'power_supply', ['output_voltage' => '24 V'])];
        $stops = $heaters = $edges = [];
        for ($i = 0; $i < 3; $i++) {
            $parts[] = Examples::part("stop{$i}", 'stop_button', []);
            $stops[] = "stop{$i}";
            $parts[] = Examples::part("bed{$i}", 'heater', ['rated_power' => '10 W']);
            $heaters[] = "bed{$i}";
        }
        $outs = ['psu.out', ...array_map(static fn (string $s): string => "{$s}.out", $stops)];
        $leads = [];
        foreach (
            [
                ...array_map(static fn (string $s): string => "{$s}.in", $stops),
                ...array_map(static fn (string $h): string => "{$h}.power", $heaters),
            ] as $to
        ) {
            foreach (range(1, $die->getInt(1, 2)) as $ignored) {
                $from = $outs[$die->getInt(0, count($outs) - 1)];
                if (explode('.', $from)[0] !== explode('.', $to)[0] && ! isset($edges["{$from} {$to}"])) {
                    $edges["{$from} {$to}"] = [$from, $to];
                    $leads[] = ['ref' => 'W'.count($leads), 'from' => $from, 'to' => $to];
                }
            }
        }
        $table = Stops::of(new Survey((new SampleBuild(Examples::file($parts, ['leads' => $leads])))->build));
        for ($set = 0; $set < 8; $set++) {
            $pressed = array_values(
                array_filter($stops, static fn (string $s): bool => (($set >> (int) substr($s, 4)) & 1) === 1),
            );
            foreach ($table->state($pressed) as $heater => $state) {
                self::assertSame(
                    self::reachable("{$heater}.power", $edges, $pressed),
                    $state === Stops::LIVE,
                    "seed {$seed}, {$heater} with ".implode(',', $pressed),
                );
            }
        }
    }

    /**
     * @param  array<string, array{string, string}>  $edges
     * @param  list<string>  $pressed
     * @param  array<string, true>  $been
     */
    private static function reachable(string $port, array $edges, array $pressed, array $been = []): bool
    {
        if ($port === 'psu.out') {
            return true;
        }
        $been[$port] = true;
        $next = [];
        foreach ($edges as [$a, $b]) {
            $port === $a && ($next[] = $b);
            $port === $b && ($next[] = $a);
        }
        if (str_starts_with($port, 'stop') && ! in_array(explode('.', $port)[0], $pressed, true)) {
            $next[] = str_ends_with($port, '.in') ? substr($port, 0, -2).'out' : substr($port, 0, -3).'in';
        }
        foreach ($next as $other) {
            if (! isset($been[$other]) && self::reachable($other, $edges, $pressed, $been)) {
                return true;
            }
        }

        return false;
    }

    public function test_a_module_opens_when_the_board_that_commands_it_is_dead(): void
    {
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                Examples::part('stop', 'stop_button', []),
                Examples::part('board', 'controller_board', []),
                Examples::part('module', 'switching_module', []),
                Examples::part('bed', 'heater', ['rated_power' => '10 W']),
                Examples::part('drv', 'motor_driver', []),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'stop.in'],
                    ['ref' => 'W2', 'from' => 'stop.out', 'to' => 'board.power'],
                    ['ref' => 'W3', 'from' => 'psu.out', 'to' => 'module.in'],
                    ['ref' => 'W4', 'from' => 'module.out', 'to' => 'bed.power'],
                    ['ref' => 'W5', 'from' => 'board.sig', 'to' => 'module.control'],
                    ['ref' => 'W6', 'from' => 'psu.out', 'to' => 'drv.power'],
                    ['ref' => 'W7', 'from' => 'board.sig', 'to' => 'drv.control'],
                ],
            ],
        );
        $file['parts'][2]['ports'] = [['name' => 'sig', 'kind' => 'signal']];
        $stops = Stops::of(new Survey((new SampleBuild($file))->build));

        self::assertSame(['bed' => Stops::LIVE, 'drv' => Stops::LIVE], $stops->state([]));
        self::assertSame(
            ['bed' => Stops::OFF, 'drv' => Stops::HELD],
            $stops->state(['stop']),
            'The driver keeps its supply and only loses its command.',
        );
    }

    public function test_a_spindle_only_stop_beside_a_main_one(): void
    {
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '48 V']),
                Examples::part('main', 'stop_button', [
                    'latching' => true,
                    'positive_opening' => true,
                    'normally' => 'closed',
                    'separate_reset' => true,
                ]),
                Examples::part('hold', 'stop_button', []),
                Examples::part('spindle', 'spindle', []),
                Examples::part('drv', 'motor_driver', []),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'main.in'],
                    ['ref' => 'W2', 'from' => 'main.out', 'to' => 'drv.power'],
                    ['ref' => 'W3', 'from' => 'main.out', 'to' => 'hold.in'],
                    ['ref' => 'W4', 'from' => 'hold.out', 'to' => 'spindle.power'],
                ],
            ],
        );
        $sample = new SampleBuild($file);
        $stops = Stops::of(new Survey($sample->build));

        self::assertSame(['spindle' => Stops::OFF, 'drv' => Stops::LIVE], $stops->state(['hold']), 'Position is kept.');
        self::assertSame(['spindle' => Stops::OFF, 'drv' => Stops::OFF], $stops->state(['main']));
        self::assertSame('main', $stops->main());
        self::assertSame(Verdict::Holds, $sample->finding('E17/stops')->verdict);
        self::assertSame(Verdict::Unproven, $sample->finding('E17/hold')->verdict);
    }

    /**
     * ISO 13850 §4.4 asks for latching actuators and positive opening; IEC 60204-1 §9.2.3 that a reset alone starts
     * nothing.
     *
     * @return iterable<string, array{array<string, string|bool>, Verdict, string}>
     */
    public static function buttons(): iterable
    {
        yield 'as it should be' => [[], Verdict::Holds, 'nothing that can hurt live'];
        yield 'springs back' => [['latching' => false], Verdict::Danger, 'does not latch'];
        yield 'contacts that may weld' => [['positive_opening' => false], Verdict::Danger, 'open positively'];
        yield 'closes to stop' => [['normally' => 'open'], Verdict::Danger, 'open at rest'];
        yield 'starts when released' => [['separate_reset' => false], Verdict::Danger, 'releasing it starts'];
    }

    /**
     * @param  array<string, string|bool>  $button
     */
    #[DataProvider('buttons')]
    public function test_what_makes_a_button_a_stop(array $button, Verdict $verdict, string $says): void
    {
        $finding = (new SampleBuild(MainStop::bed('stop', $button)))->finding('E17/stops');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, $finding->headline);
    }

    public function test_no_stop_at_all_is_a_danger(): void
    {
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                Examples::part('bed', 'heater', ['rated_power' => '10 W']),
            ],
            ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power']]],
        );

        self::assertSame(Verdict::Danger, (new SampleBuild($file))->finding('E17/stops')->verdict);
    }

    /**
     * A supply, a stop in the circuit of a contactor's coil, and a spindle drive behind its contact.
     *
     * @param  array<string, string|bool>  $relay
     * @param  array<string, string|bool>  $button
     * @param  bool  $beside  whether the stop feeds a bed of its own accord too
     */
    private static function coil(array $relay = [], array $button = [], bool $beside = false): SampleBuild
    {
        return new SampleBuild(
            Examples::file(
                [
                    Examples::part('inlet', 'mains_inlet', []),
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                    Examples::part(
                        'stop',
                        'stop_button',
                        $button + [
                            'latching' => true,
                            'positive_opening' => true,
                            'normally' => 'closed',
                            'separate_reset' => true,
                        ],
                    ),
                    Examples::part('k', 'relay', $relay + ['kind' => 'contactor', 'normally' => 'open']),
                    Examples::part('drive', 'spindle_drive', []),
                    ...$beside ? [Examples::part('bed', 'heater', ['rated_power' => '10 W'])] : [],
                ],
                [
                    'leads' => [
                        ...$beside ? [['ref' => 'W6', 'from' => 'stop.out', 'to' => 'bed.power']] : [],
                        ['ref' => 'W1', 'from' => 'inlet.out', 'to' => 'psu.mains'],
                        ['ref' => 'W2', 'from' => 'psu.out', 'to' => 'stop.in'],
                        ['ref' => 'W3', 'from' => 'stop.out', 'to' => 'k.coil'],
                        ['ref' => 'W4', 'from' => 'inlet.out', 'to' => 'k.in'],
                        ['ref' => 'W5', 'from' => 'k.out', 'to' => 'drive.mains'],
                    ],
                ],
            ),
        );
    }

    public function test_a_stop_in_the_circuit_of_a_coil_drops_the_contactor(): void
    {
        $stops = Stops::of(new Survey(self::coil()->build));

        self::assertSame(['drive' => Stops::LIVE], $stops->state([]));
        self::assertSame(['drive' => Stops::OFF], $stops->state(['stop']));
        self::assertSame(Verdict::Holds, self::coil()->finding('E17/stops')->verdict);
    }

    public function test_a_contact_that_is_closed_at_rest_stops_nothing(): void
    {
        $finding = self::coil(['normally' => 'closed'])->finding('E17/stops');

        self::assertSame(Verdict::Danger, $finding->verdict);
        self::assertStringContainsString('leaves live: drive', $finding->headline);
    }

    public function test_a_safety_relay_stays_off_until_it_is_reset(): void
    {
        self::assertSame(Verdict::Danger, self::coil([], ['separate_reset' => false])->finding('E17/stops')->verdict);
        self::assertSame(
            Verdict::Holds,
            self::coil(['kind' => 'safety'], ['separate_reset' => false])->finding('E17/stops')->verdict,
        );
    }

    public function test_a_safety_relay_holds_off_nothing_that_the_stop_feeds_beside_it(): void
    {
        $finding = self::coil(['kind' => 'safety'], ['separate_reset' => false], true)->finding('E17/stops');

        self::assertSame(Verdict::Danger, $finding->verdict);
        self::assertStringContainsString('releasing it starts', $finding->headline);
    }

    /**
     * @return iterable<string, array{array<string, string|bool>, Verdict, string}>
     */
    public static function spindleStops(): iterable
    {
        $good = ['latching' => true, 'normally' => 'closed', 'separate_reset' => true];
        yield 'as it should be' => [$good, Verdict::Holds, 'stay stopped'];
        yield 'starts when released' => [['separate_reset' => false] + $good, Verdict::Danger, 'releasing it starts'];
        yield 'springs back' => [['latching' => false] + $good, Verdict::Danger, 'does not latch'];
        yield 'closes to stop' => [['normally' => 'open'] + $good, Verdict::Danger, 'open at rest'];
        yield 'nothing said' => [[], Verdict::Unproven, 'stops spindle'];
    }

    /**
     * @param  array<string, string|bool>  $button
     */
    #[DataProvider('spindleStops')]
    public function test_a_stop_of_the_spindle_alone_is_judged_too(array $button, Verdict $verdict, string $says): void
    {
        $build = static fn (string $from): SampleBuild => new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '48 V']),
                    Examples::part('main', 'stop_button', []),
                    Examples::part('hold', 'stop_button', $button),
                    Examples::part('spindle', 'spindle', []),
                    Examples::part('drv', 'motor_driver', []),
                ],
                [
                    'leads' => [
                        ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'main.in'],
                        ['ref' => 'W2', 'from' => 'main.out', 'to' => 'drv.power'],
                        ['ref' => 'W3', 'from' => 'main.out', 'to' => 'hold.in'],
                        ['ref' => 'W4', 'from' => $from, 'to' => 'spindle.power'],
                    ],
                ],
            ),
        );
        $finding = $build('hold.out')->finding('E17/hold');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, $finding->headline);
        self::assertSame(Verdict::Fails, $build('main.out')->finding('E17/hold')->verdict, 'It stops nothing.');
    }
}
