<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Mechanical;

use Magpie\Core\Electrical\Stops;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Motion\SampleAxis;
use Magpie\Core\Motion\Views\MotionLedger;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** What asks for more never looks better for it, on axes drawn by lot: the direction of every rule of motion. */
final class MonotoneTest extends TestCase
{
    /** Member of the drive → checks that may only get worse when it grows. */
    private const WORSE = [
        'mass' => ['M03/x', 'M04/x', 'M05/x', 'M07/x'],
        'acceleration' => ['M03/x', 'M05/x', 'M07/x'],
        'top_speed' => ['M03/x', 'M05/x', 'E10/x'],
        'force' => ['M03/x', 'M05/x', 'M07/x', 'M12/x'],
        'friction' => ['M03/x', 'M05/x'],
        'lever' => ['M07/x'],
        'unsupported' => ['M05/x'],
        'inertia' => ['M03/x', 'M04/x'],
    ];

    /** Spec of a part → checks that may only get better when it grows. */
    private const BETTER = [
        'motor.holding_torque' => ['M03/x'],
        'motor.rotor_inertia' => ['M04/x'],
        'screw.root_diameter' => ['M05/x'],
        'rail.static_load' => ['M07/x'],
        'beam.second_moment' => ['M12/x'],
        'board.step_rate' => ['E10/x'],
    ];

    private const UNITS = [
        'mass' => 'kg',
        'acceleration' => 'm/s²',
        'top_speed' => 'mm/s',
        'force' => 'N',
        'friction' => 'N',
        'lever' => 'mm',
        'unsupported' => 'mm',
        'inertia' => 'kg cm²',
        'holding_torque' => 'N m',
        'rotor_inertia' => 'g cm²',
        'root_diameter' => 'mm',
        'static_load' => 'N',
        'second_moment' => 'mm⁴',
        'step_rate' => 'kHz',
    ];

    /**
     * @return iterable<string, array{int}>
     */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 30; $seed++) {
            yield "axis {$seed}" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_asking_for_more_never_looks_better(int $seed): void
    {
        $file = self::axis(new Randomizer(new Mt19937($seed)));
        foreach (self::WORSE as $member => $checks) {
            $more = $file;
            $more['axes'][0]['drive'][$member] = self::grown($file['axes'][0]['drive'][$member], $member);
            foreach ($checks as $key) {
                [$before, $after] = [self::margin($file, $key), self::margin($more, $key)];
                self::assertLessThanOrEqual($before + 1e-6, $after, "{$key} looks better with more {$member}");
            }
        }
    }

    #[DataProvider('seeds')]
    public function test_having_more_never_looks_worse(int $seed): void
    {
        $file = self::axis(new Randomizer(new Mt19937($seed)));
        foreach (self::BETTER as $where => $checks) {
            [$ref, $spec] = explode('.', $where);
            $more = $file;
            foreach ($more['parts'] as $i => $part) {
                if ($part['ref'] === $ref) {
                    $more['parts'][$i]['specs'][$spec]['value'] = self::grown($part['specs'][$spec]['value'], $spec);
                }
            }
            foreach ($checks as $key) {
                self::assertGreaterThanOrEqual(
                    self::margin($file, $key) - 1e-6,
                    self::margin($more, $key),
                    "{$key} looks worse with more {$where}",
                );
            }
        }
    }

    #[DataProvider('seeds')]
    public function test_the_ledger_shows_what_the_check_judged(int $seed): void
    {
        $sample = new SampleBuild(self::axis(new Randomizer(new Mt19937($seed))));
        $axis = (new MotionLedger(new Survey($sample->build)))->toArray()[0];
        $worst = INF;
        foreach ($axis['phases'] as $phase) {
            $worst = $phase['torque'] > 0 ? min($worst, $phase['has'] / $phase['torque']) : $worst;
        }
        $finding = $sample->finding('M03/x');
        self::assertEqualsWithDelta($finding->figures['acceleration'][1]->in('mm/s²'), $axis['max_acceleration'], 0.1);
        self::assertEqualsWithDelta($finding->figures['stall'][1]->in('N'), $axis['stall_force'], 0.1);
        $step =
            array_values(
                array_filter(
                    $finding->working,
                    static fn ($s): bool => str_starts_with($s->label, 'Torque there is at'),
                ),
            )[0] ?? self::fail();

        self::assertEqualsWithDelta($step->result?->in(''), $worst, 0.02 * $worst + 0.01);
    }

    #[DataProvider('seeds')]
    public function test_a_further_stop_that_is_pressed_makes_nothing_live(int $seed): void
    {
        $die = new Randomizer(new Mt19937($seed));
        $parts = [
            Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
            Examples::part('board', 'controller_board', []),
        ];
        $parts[1][0]['ports'] = [['name' => 'sig', 'kind' => 'signal']];
        $outs = ['psu.out'];
        $leads = [['ref' => 'B', 'from' => 'psu.out', 'to' => 'board.power']];
        for ($i = 0; $i < 4; $i++) {
            $parts[] = Examples::part("stop{$i}", 'stop_button', []);
            $leads[] = ['ref' => "S{$i}", 'from' => $outs[$die->getInt(0, count($outs) - 1)], 'to' => "stop{$i}.in"];
            $outs[] = "stop{$i}.out";
        }
        for ($i = 0; $i < 3; $i++) {
            $parts[] = Examples::part("mod{$i}", 'switching_module', []);
            $leads[] = ['ref' => "M{$i}", 'from' => $outs[$die->getInt(0, count($outs) - 1)], 'to' => "mod{$i}.in"];
            $leads[] = ['ref' => "C{$i}", 'from' => 'board.sig', 'to' => "mod{$i}.control"];
            $parts[] = Examples::part("bed{$i}", 'heater', ['rated_power' => '10 W']);
            $leads[] = ['ref' => "H{$i}", 'from' => "mod{$i}.out", 'to' => "bed{$i}.power"];
        }
        $leads[0]['from'] = $outs[$die->getInt(0, count($outs) - 1)];
        $stops = Stops::of(new Survey((new SampleBuild(Examples::file($parts, ['leads' => $leads])))->build));
        for ($set = 0; $set < 16; $set++) {
            $pressed = array_values(
                array_filter(
                    ['stop0', 'stop1', 'stop2', 'stop3'],
                    static fn (string $s): bool => (($set >> (int) substr($s, 4)) & 1) === 1,
                ),
            );
            foreach (['stop0', 'stop1', 'stop2', 'stop3'] as $one) {
                $more = $stops->state(array_values(array_unique([...$pressed, $one])));
                foreach ($stops->state($pressed) as $load => $state) {
                    self::assertFalse(
                        $state !== Stops::LIVE && $more[$load] === Stops::LIVE,
                        "{$load} comes alive when {$one} is pressed too",
                    );
                }
            }
        }
    }

    /**
     * @return array<string, mixed>
     */
    private static function axis(Randomizer $die): array
    {
        $in = static fn (float $low, float $high, string $unit): string => round(
            $low * ($high / $low) ** ($die->getInt(0, 1000) / 1000),
            4,
        ).
            ' '.
            $unit;
        $file = SampleAxis::file(
            [
                'by' => 'screw',
                'beam' => 'beam',
                'mass' => $in(0.5, 40, 'kg'),
                'acceleration' => $in(0.2, 8, 'm/s²'),
                'top_speed' => $in(10, 400, 'mm/s'),
                'force' => $in(1, 400, 'N'),
                'friction' => $in(1, 60, 'N'),
                'efficiency' => $in(20, 99, '%'),
                'incline' => ['0 °', '90 °', '35 °'][$die->getInt(0, 2)],
                'inertia' => $in(0.01, 2, 'kg cm²'),
                'support' => ['fixed-free', 'supported', 'fixed-supported', 'fixed-fixed'][$die->getInt(0, 3)],
                'unsupported' => $in(150, 1500, 'mm'),
                'lever' => $in(10, 200, 'mm'),
                'spread' => $in(60, 300, 'mm'),
            ],
            ['brief' => ['accuracy' => '0.05 mm']],
        );
        foreach (
            [
                Examples::part('screw', 'drive_screw', [
                    'lead' => $in(2, 20, 'mm'),
                    'diameter' => '16 mm',
                    'root_diameter' => $in(8, 15, 'mm'),
                    'length' => '500 mm',
                ]),
                Examples::part('beam', 'extrusion', [
                    'length' => '560 mm',
                    'second_moment' => $in(8000, 400000, 'mm⁴'),
                ]),
                Examples::part('rail', 'linear_rail', [
                    'length' => '480 mm',
                    'block_length' => '58 mm',
                    'static_load' => $in(500, 20000, 'N'),
                    'dynamic_load' => '8000 N',
                ]),
            ] as [$part, $need]
        ) {
            $file['parts'][] = $part;
            $file['needs'][] = $need;
        }
        $file['axes'][0] += ['rail' => 'rail', 'blocks' => 2, 'block_pitch' => '80 mm'];

        return $file;
    }

    private static function grown(string $text, string $member): string
    {
        $unit = self::UNITS[$member];

        return round(Quantity::parse($text, Quantity::of(1, $unit)->unit->dimension)->in($unit) * 1.37, 6)." {$unit}";
    }

    /**
     * @param  array<string, mixed>  $file
     */
    private static function margin(array $file, string $key): float
    {
        $finding = (new SampleBuild($file))->finding($key);

        return self::marginOf($finding);
    }

    /**
     * By its verdict first and its margin second: a danger of one kind is worse than a failure of another, whatever its
     * figure.
     */
    private static function marginOf(Finding $finding): float
    {
        return 1000 * $finding->verdict->rank() + max(-400.0, min(400.0, $finding->margin?->in('') ?? 0.0));
    }
}
