<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Electrical\Rules\MainStop;
use Magpie\Core\Electrical\Stops;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
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

    public function test_a_plain_switch_commands_without_power_and_a_sensor_only_with_it(): void
    {
        $by = static fn (string $family, array $more): Stops => Stops::of(
            new Survey(
                (new SampleBuild(
                    Examples::file(
                        [
                            Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                            Examples::part('stop', 'stop_button', []),
                            Examples::part('eye', $family, []),
                            Examples::part('module', 'switching_module', []),
                            Examples::part('bed', 'heater', ['rated_power' => '10 W']),
                        ],
                        [
                            'leads' => [
                                ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'stop.in'],
                                ['ref' => 'W2', 'from' => 'psu.out', 'to' => 'module.in'],
                                ['ref' => 'W3', 'from' => 'module.out', 'to' => 'bed.power'],
                                ['ref' => 'W4', 'from' => 'eye.signal', 'to' => 'module.control'],
                                ...$more,
                            ],
                        ],
                    ),
                ))->build,
            ),
        );
        $switch = $by('limit_switch', []);
        self::assertSame(
            [['bed' => Stops::LIVE], ['bed' => Stops::LIVE]],
            [$switch->state([]), $switch->state(['stop'])],
        );
        $sensor = $by('probe', [['ref' => 'W5', 'from' => 'stop.out', 'to' => 'eye.power']]);
        self::assertSame(
            [['bed' => Stops::LIVE], ['bed' => Stops::OFF]],
            [$sensor->state([]), $sensor->state(['stop'])],
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
        $finding = $sample->finding('E17/stops');
        self::assertSame(Verdict::Tight, $finding->verdict);
        self::assertStringContainsString('spindle starts by itself when the power comes back', $finding->headline);
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
        $finding = self::coil()->finding('E17/stops');
        self::assertSame(Verdict::Tight, $finding->verdict);
        self::assertStringContainsString('welded, k leaves live: drive', $finding->headline);
    }

    public function test_a_contactor_that_holds_itself_waits_for_its_start_button(): void
    {
        foreach ([false, true] as $holds) {
            $sample = self::coil(['holds_itself' => $holds], ['separate_reset' => false]);
            $stops = Stops::of(new Survey($sample->build));

            self::assertSame($holds ? [] : ['drive'], $stops->restarting('stop', $stops->state(['stop'])));
            self::assertSame($holds ? [] : ['drive'], $stops->startingWithThePower());
            self::assertSame($holds ? Verdict::Tight : Verdict::Danger, $sample->finding('E17/stops')->verdict);
        }
    }

    public function test_a_broken_wire_stops_or_disables_a_stop_as_its_contact_is_at_rest(): void
    {
        foreach (['closed' => Stops::OFF, 'open' => Stops::LIVE] as $normally => $is) {
            $table = Stops::of(new Survey(self::coil([], ['normally' => $normally])->build))->toArray();
            $broken = array_values(
                array_filter($table['states'], static fn (array $s): bool => $s['kind'] === 'broken'),
            );

            self::assertSame(['drive' => $is], $broken[0]['loads'], $normally);
        }
    }

    public function test_the_table_says_what_becomes_of_board_position_and_supplies(): void
    {
        $board = Examples::part('board', 'controller_board', []);
        $file = Examples::file(
            [
                Examples::part('wall', 'mains_inlet', []),
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                Examples::part('stop', 'stop_button', ['normally' => 'closed']),
                $board,
                Examples::part('drv', 'motor_driver', []),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'wall.out', 'to' => 'psu.mains'],
                    ['ref' => 'W2', 'from' => 'psu.out', 'to' => 'board.power'],
                    ['ref' => 'W3', 'from' => 'psu.out', 'to' => 'stop.in'],
                    ['ref' => 'W4', 'from' => 'stop.out', 'to' => 'drv.power'],
                ],
            ],
        );
        $states = Stops::of(new Survey((new SampleBuild($file))->build))->toArray()['states'];
        $of = static fn (string $kind): array => array_values(
            array_filter($states, static fn (array $s): bool => $s['kind'] === $kind),
        )[0];

        self::assertSame(
            [true, true, ['psu']],
            [$of('rest')['board'], $of('rest')['position'], $of('rest')['supplies']],
        );
        self::assertSame(
            [true, false, ['psu']],
            [$of('pressed')['board'], $of('pressed')['position'], $of('pressed')['supplies']],
        );
        self::assertSame([false, false], [$of('power back')['board'], $of('power back')['position']]);
    }

    public function test_a_board_that_lost_its_power_starts_nothing_by_itself(): void
    {
        $file = static fn (array $port): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                Examples::part('stop', 'stop_button', [
                    'latching' => true,
                    'positive_opening' => true,
                    'normally' => 'closed',
                ]),
                (static function () use ($port): array {
                    $board = Examples::part('board', 'controller_board', []);
                    $board[0]['ports'] = [
                        ['name' => 'bed', 'kind' => 'outlet', 'fed_from' => 'power', 'specs' => Examples::sheet($port)],
                    ];

                    return $board;
                })(),
                Examples::part('bed', 'heater', ['rated_power' => '10 W']),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'stop.in'],
                    ['ref' => 'W2', 'from' => 'stop.out', 'to' => 'board.power'],
                    ['ref' => 'W3', 'from' => 'board.bed', 'to' => 'bed.power'],
                ],
            ],
        );
        foreach (
            [
                [['use' => 'heater'], Verdict::Holds],
                [['control' => 'switched'], Verdict::Holds],
                // Nobody has said that the program opens it: it may be live as soon as the board is.
                [[], Verdict::Unproven],
                [['use' => 'heater', 'control' => 'always on'], Verdict::Unproven],
            ] as [$port, $verdict]
        ) {
            $finding = (new SampleBuild($file($port)))->finding('E17/stops');

            self::assertSame($verdict, $finding->verdict, json_encode($port)." {$finding->headline}");
        }
    }

    public function test_a_driver_in_fault_halts_the_board_that_hears_of_it(): void
    {
        $file = static fn (bool $heard): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                (static function (): array {
                    $board = Examples::part('board', 'controller_board', []);
                    $board[0]['ports'] = [['name' => 'sig', 'kind' => 'signal'], ['name' => 'in', 'kind' => 'signal']];

                    return $board;
                })(),
                Examples::part('left', 'motor_driver', []),
                Examples::part('right', 'motor_driver', []),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'board.power'],
                    ['ref' => 'W2', 'from' => 'psu.out', 'to' => 'left.power'],
                    ['ref' => 'W3', 'from' => 'psu.out', 'to' => 'right.power'],
                    ['ref' => 'W4', 'from' => 'board.sig', 'to' => 'left.control'],
                    ['ref' => 'W5', 'from' => 'board.sig', 'to' => 'right.control'],
                    ...$heard ? [['ref' => 'W6', 'from' => 'left.fault', 'to' => 'board.in']] : [],
                ],
            ],
        );
        foreach ([true, false] as $heard) {
            $states = Stops::of(new Survey((new SampleBuild($file($heard)))->build))->toArray()['states'];
            $fault = array_values(array_filter($states, static fn (array $s): bool => $s['of'] === ['left']))[0];

            self::assertSame(['left' => Stops::HELD, 'right' => $heard ? Stops::HELD : Stops::LIVE], $fault['loads']);
        }
    }

    /**
     * Chains of relays, some of which remember, against an enumeration that goes through time by steps.
     */
    #[DataProvider('seeds')]
    public function test_sequences_say_what_stepping_through_time_says(int $seed): void
    {
        $die = new Randomizer(new Mt19937($seed));
        $parts = [Examples::part('psu', 'power_supply', ['output_voltage' => '24 V'])];
        $elements = $feeds = $coils = $kinds = [];
        for ($i = 0; $i < 2; $i++) {
            $reset = $die->getInt(0, 1) === 1;
            $parts[] = Examples::part("s{$i}", 'stop_button', ['separate_reset' => $reset]);
            $elements[] = "s{$i}";
            $kinds["s{$i}"] = $reset ? 'remembers' : 'plain';
        }
        for ($i = 0; $i < 3; $i++) {
            $kind = ['contactor', 'safety', 'holding'][$die->getInt(0, 2)];
            $parts[] = Examples::part("k{$i}", 'relay', [
                'kind' => $kind === 'holding' ? 'contactor' : $kind,
                'normally' => 'open',
                'holds_itself' => $kind === 'holding',
            ]);
            $kinds["k{$i}"] = $kind === 'contactor' ? 'plain' : 'remembers';
            $coils["k{$i}"] = $elements[$die->getInt(0, count($elements) - 1)];
            $elements[] = "k{$i}";
        }
        foreach ($elements as $i => $element) {
            $feeds[$element] = $i === 0 || $die->getInt(0, 2) === 0 ? 'psu' : $elements[$die->getInt(0, $i - 1)];
        }
        for ($i = 0; $i < 3; $i++) {
            $parts[] = Examples::part("bed{$i}", 'heater', ['rated_power' => '10 W']);
            $feeds["bed{$i}"] = $elements[$die->getInt(0, count($elements) - 1)];
        }
        $leads = [];
        foreach ($feeds as $to => $from) {
            $port = str_starts_with($to, 'bed') ? 'power' : 'in';
            $leads[] = ['ref' => 'W'.count($leads), 'from' => "{$from}.out", 'to' => "{$to}.{$port}"];
        }
        foreach ($coils as $relay => $from) {
            $leads[] = ['ref' => 'W'.count($leads), 'from' => "{$from}.out", 'to' => "{$relay}.coil"];
        }
        $stops = Stops::of(new Survey((new SampleBuild(Examples::file($parts, ['leads' => $leads])))->build));
        // One state of every contact, stepped until nothing moves; what remembers never closes again by itself.
        $step = static function (array $closed, array $pressed, array $welded = []) use (
            $feeds,
            $coils,
            $kinds,
        ): array {
            do {
                $was = $closed;
                $live = static function (string $at) use (&$live, $feeds, &$closed): bool {
                    return $at === 'psu' || (($closed[$at] ?? true) && $live($feeds[$at]));
                };
                foreach ($kinds as $element => $kind) {
                    $wants = isset($coils[$element]) ? $live($coils[$element]) : ! in_array($element, $pressed, true);
                    $closed[$element] =
                        in_array($element, $welded, true) || ($wants && ($kind === 'plain' || $closed[$element]));
                }
            } while ($closed !== $was);

            return $closed;
        };
        $beds = static function (array $closed) use ($feeds): array {
            $live = static function (string $at) use (&$live, $feeds, $closed): bool {
                return $at === 'psu' || (($closed[$at] ?? true) && $live($feeds[$at]));
            };

            return array_keys(
                array_filter(
                    ['bed0' => 1, 'bed1' => 1, 'bed2' => 1],
                    static fn ($_, $b) => $live($b),
                    ARRAY_FILTER_USE_BOTH,
                ),
            );
        };
        $told = static fn (array $state): array => array_keys(
            array_filter($state, static fn (string $s): bool => $s === Stops::LIVE),
        );
        $on = array_fill_keys($elements, true);
        foreach (['s0', 's1'] as $stop) {
            $pressed = $step($on, [$stop]);
            self::assertSame($beds($pressed), $told($stops->state([$stop])), "seed {$seed}, {$stop} pressed");
            self::assertSame(
                array_values(array_diff($beds($step($pressed, [])), $beds($pressed))),
                $stops->restarting($stop, $stops->state([$stop])),
                "seed {$seed}, {$stop} released",
            );
            foreach (['k0', 'k1', 'k2'] as $relay) {
                $with = array_values(array_diff($beds($step($on, [$stop], [$relay])), $beds($pressed)));
                $safety = $kinds[$relay] === 'remembers' && self::isSafety($parts, $relay);
                self::assertSame(
                    $safety ? [] : $with,
                    $stops->welded($stop, $stops->state([$stop]))[$relay] ?? [],
                    "seed {$seed}, {$relay} welded",
                );
            }
        }
    }

    /**
     * @param  list<array{array<string, mixed>, array<string, mixed>}>  $parts
     */
    private static function isSafety(array $parts, string $ref): bool
    {
        foreach ($parts as [$part]) {
            if ($part['ref'] === $ref) {
                return $part['specs']['kind']['value'] === 'safety';
            }
        }

        return false;
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

    public function test_without_a_stop_the_kind_of_machine_decides(): void
    {
        $known = ['mass' => '2 kg', 'top_speed' => '0.1 m/s', 'evidence' => 'measured'];
        $machine = static fn (array $load, array $drive = [], bool $switch = true): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('inlet', 'mains_inlet', ['switch' => $switch, 'rated_current' => '10 A']),
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '10 A']),
                    Examples::part('load', ...$load),
                ],
                [
                    'axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => $drive + $known]],
                    'leads' => [
                        ['ref' => 'W1', 'from' => 'inlet.out', 'to' => 'psu.mains'],
                        ['ref' => 'W2', 'from' => 'psu.out', 'to' => 'load.power'],
                    ],
                ],
            ),
        ))->finding('E17/stops');
        $heater = ['heater', ['rated_power' => '100 W', 'rated_voltage' => '24 V']];

        // Small and of low voltage, with one switch for all of it.
        $this->assertSame(Verdict::Tight, $machine($heater)->verdict);
        $this->assertStringContainsString('within reach', $machine($heater)->headline);
        $this->assertSame(Verdict::Danger, $machine($heater, [], false)->verdict, 'No switch either.');
        // How heavy and how fast it is has to be known, and by more than a guess.
        $this->assertSame(['the mass that moves with X'], $machine($heater, ['mass' => null])->missing);
        $this->assertSame(['the top speed of X'], $machine($heater, ['top_speed' => null])->missing);
        $this->assertSame(Verdict::Unproven, $machine($heater, ['evidence' => 'assumed'])->verdict);
        // A spindle, a heavy axis and a fast one want a stop.
        $spindle = ['spindle', ['rated_power' => '100 W', 'rated_voltage' => '24 V']];
        $this->assertSame(Verdict::Danger, $machine($spindle)->verdict);
        $this->assertSame(Verdict::Danger, $machine($heater, ['mass' => '10.1 kg'])->verdict);
        $this->assertSame(Verdict::Tight, $machine($heater, ['mass' => '10 kg'])->verdict);
        $this->assertSame(Verdict::Danger, $machine($heater, ['top_speed' => '510 mm/s'])->verdict);
        // What it carries is heavy, whatever is said of the axis.
        $carried = static fn (string $mass): Verdict => $machine(
            [$heater[0], $heater[1] + ['mass' => $mass]],
            ['mass' => '1 kg', 'carries' => ['load']],
        )->verdict;
        $this->assertSame(Verdict::Danger, $carried('10.1 kg'));
        $this->assertSame(Verdict::Tight, $carried('10 kg'));
    }

    /** A spindle that no lead feeds may have a plug of its own: what stops the rest proves nothing of it. */
    public function test_a_load_that_nobody_wired_is_not_known_to_stop(): void
    {
        $verdict = static function (bool $wired): Finding {
            $file = Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']),
                    Examples::part('stop', 'stop_button', ['latching' => true, 'positive_opening' => true, 'normally' => 'closed', 'separate_reset' => true]),
                    Examples::part('bed', 'heater', ['rated_power' => '60 W', 'rated_voltage' => '24 V']),
                    Examples::part('router', 'spindle', ['rated_power' => '60 W', 'rated_voltage' => '24 V', 'efficiency' => '60 %']),
                ],
                [
                    'leads' => [
                        ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'stop.in'],
                        ['ref' => 'W2', 'from' => 'stop.out', 'to' => 'bed.power'],
                        ...$wired ? [['ref' => 'W3', 'from' => 'stop.out', 'to' => 'router.power']] : [],
                    ],
                ],
            );

            return (new SampleBuild($file))->finding('E17/stops');
        };
        self::assertSame([Verdict::Unproven, ['what feeds router']], [$verdict(false)->verdict, $verdict(false)->missing]);
        self::assertTrue($verdict(true)->verdict->passes());
    }
}
