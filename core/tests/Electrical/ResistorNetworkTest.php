<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Eris\Generators;
use Eris\TestTrait;
use Magpie\Core\Electrical\ResistorNetwork;
use Magpie\Core\Electrical\VoltageCollapses;
use Magpie\Core\Quantity\Quantity;
use PHPUnit\Framework\TestCase;

final class ResistorNetworkTest extends TestCase
{
    use TestTrait;

    public function test_a_divider_and_a_bridge_worked_by_hand(): void
    {
        $divider = new ResistorNetwork;
        $divider->hold(0, Quantity::of(24, 'V'));
        $divider->connect(0, 1, Quantity::of(1, 'Ω'));
        $divider->shunt(1, Quantity::of(2, 'Ω'));
        self::assertEqualsWithDelta(16.0, $divider->solve()[1], 1e-9);

        // An unbalanced bridge: 10 V, arms 1 and 2 against 2 and 1 ohms, 1 ohm across. By symmetry v₁ + v₂ = 10 and
        // (10 − v₁)/1 = v₁/2 + (v₁ − v₂)/1, so v₁ = 40/7 V.
        $bridge = new ResistorNetwork;
        $bridge->hold(0, Quantity::of(10, 'V'));
        $bridge->connect(0, 1, Quantity::of(1, 'Ω'));
        $bridge->connect(0, 2, Quantity::of(2, 'Ω'));
        $bridge->connect(1, 2, Quantity::of(1, 'Ω'));
        $bridge->shunt(1, Quantity::of(2, 'Ω'));
        $bridge->shunt(2, Quantity::of(1, 'Ω'));
        self::assertEqualsWithDelta(40 / 7, $bridge->solve()[1], 1e-9);
        self::assertEqualsWithDelta(30 / 7, $bridge->solve()[2], 1e-9);
    }

    public function test_current_into_every_node_balances_in_any_network(): void
    {
        $this->limitTo(60)
            ->forAll(Generators::choose(2, 14), Generators::choose(0, 10_000))
            ->then(static function (int $nodes, int $seed): void {
                $roll = static function (int $most) use (&$seed): int {
                    $seed = ($seed * 1103515245 + 12345) % 2147483648;

                    return intdiv($seed, 65536) % $most;
                };
                $network = new ResistorNetwork;
                $network->hold(0, Quantity::of(24, 'V'));
                $links = [];
                for ($node = 1; $node < $nodes; $node++) {
                    $links[] = [$node, $roll($node), 0.01 + $roll(100) / 100];
                    if ($roll(3) === 0) {
                        $links[] = [$node, $roll($node), 0.02 + $roll(100) / 50];
                    }
                }
                $drains = [];
                foreach ($links as [$a, $b, $ohms]) {
                    $network->connect($a, $b, Quantity::of($ohms, 'Ω'));
                }
                for ($node = 1; $node < $nodes; $node++) {
                    $drains[$node] = $roll(50) / 100;
                    $network->drain($node, Quantity::of($drains[$node], 'A'));
                }
                $volts = $network->solve();
                for ($node = 1; $node < $nodes; $node++) {
                    $sum = -$drains[$node];
                    foreach ($links as [$a, $b, $ohms]) {
                        if ($a === $node || $b === $node) {
                            $sum += ($volts[$a === $node ? $b : $a] - $volts[$node]) / $ohms;
                        }
                    }
                    self::assertEqualsWithDelta(0.0, $sum, 1e-6, "Kirchhoff at node {$node}");
                }
            });
    }

    public function test_a_load_of_constant_power_by_the_quadratic_formula(): void
    {
        // V = (E + √(E² − 4PR))/2 on a line of R: 24 V, 0.5 Ω, 100 W.
        $line = new ResistorNetwork;
        $line->hold(0, Quantity::of(24, 'V'));
        $line->connect(0, 1, Quantity::of(0.5, 'Ω'));
        $line->power(1, Quantity::of(100, 'W'));

        self::assertEqualsWithDelta((24 + sqrt(24 ** 2 - 4 * 100 * 0.5)) / 2, $line->solve()[1], 1e-9);
    }

    public function test_more_power_than_can_arrive_collapses(): void
    {
        // A line gives at most E²/4R: 288 W here, at half the voltage.
        $line = static function (float $watts): ResistorNetwork {
            $network = new ResistorNetwork;
            $network->hold(0, Quantity::of(24, 'V'));
            $network->connect(0, 1, Quantity::of(0.5, 'Ω'));
            $network->power(1, Quantity::of($watts, 'W'));

            return $network;
        };

        self::assertGreaterThan(12.0, $line(280)->solve()[1]);
        $this->expectException(VoltageCollapses::class);
        $line(290)->solve();
    }

    public function test_more_current_than_can_arrive_collapses(): void
    {
        // 24 V over 0.5 Ω gives 48 A into a dead short, and no load may take more.
        $line = static function (float $amps): ResistorNetwork {
            $network = new ResistorNetwork;
            $network->hold(0, Quantity::of(24, 'V'));
            $network->connect(0, 1, Quantity::of(0.5, 'Ω'));
            $network->drain(1, Quantity::of($amps, 'A'));

            return $network;
        };

        self::assertEqualsWithDelta(1.0, $line(46)->solve()[1], 1e-9);
        $this->expectException(VoltageCollapses::class);
        $line(48)->solve();
    }
}
