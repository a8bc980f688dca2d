<?php

declare(strict_types=1);

namespace Magpie\Core\Motion;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;

/**
 * Torque a motor has at a speed: from the points of its curve where its sheet has them, else a flat line to the corner
 * speed and one over the speed beyond it, which is an estimate and says so.
 */
final readonly class TorqueCurve
{
    /**
     * @param  list<array{float, float}>  $points  rev/s and N m, by rising speed
     * @param  bool  $estimated  made from the corner speed
     */
    private function __construct(public array $points, public bool $estimated)
    {
    }

    /**
     * The maker's points, such as "0 rpm 1.2 N m; 600 rpm 0.8 N m".
     *
     * @throws CannotReadCurve naming the point that cannot be read
     */
    public static function read(string $text): self
    {
        $points = [];
        foreach (
            array_filter(array_map(trim(...), explode(';', $text)), static fn (string $p): bool => $p !== '') as $pair
        ) {
            if (preg_match('/^([\d.,]+\s*(?:rpm|rev\/s|1\/min))\s+([\d.,]+\s*\S.*?)$/u', $pair, $m) !== 1) {
                throw CannotReadCurve::at($pair, 'a speed and a torque with their units are wanted');
            }
            try {
                $points[] = [
                    Quantity::parse($m[1], Dimension::RotationalSpeed)->in('rev/s'),
                    Quantity::parse($m[2], Dimension::Torque)->in('N m'),
                ];
            } catch (CannotReadQuantity $e) {
                throw CannotReadCurve::at($pair, $e->getMessage());
            }
        }
        sort($points);

        return count($points) < 2
            ? throw CannotReadCurve::at($text, 'at least two points are wanted')
            : new self($points, false);
    }

    /**
     * Flat up to the corner, then as one over the speed, up to ten times the corner.
     *
     * @param  Quantity  $holding  torque up to the corner
     */
    public static function estimate(Quantity $holding, Quantity $corner): self
    {
        $points = [[0.0, $holding->in('N m')]];
        foreach ([1, 1.25, 1.6, 2, 2.5, 3.2, 4, 5, 6.4, 8, 10] as $times) {
            $points[] = [$corner->in('rev/s') * $times, $holding->in('N m') / $times];
        }

        return new self($points, true);
    }

    /** Flat: what a servo gives up to its rated speed and not beyond. */
    public static function flat(Quantity $torque, Quantity $top): self
    {
        return new self([[0.0, $torque->in('N m')], [$top->in('rev/s'), $torque->in('N m')]], false);
    }

    /** Torque at a speed; nought beyond the last point of a maker's curve. */
    public function at(Quantity $speed): Quantity
    {
        $n = $speed->in('rev/s');
        $last = $this->points[count($this->points) - 1];
        if ($n > $last[0] + 1e-9) {
            return Quantity::of($this->estimated ? ($last[1] * $last[0]) / $n : 0.0, 'N m');
        }
        for ($i = 1; $i < count($this->points); $i++) {
            [[$a, $ta], [$b, $tb]] = [$this->points[$i - 1], $this->points[$i]];
            if ($n <= $b + 1e-9) {
                // Between two points of an estimate the true line is one over the speed, not straight.
                $torque =
                    $this->estimated && $a > 0
                        ? ($ta * $a) / $n
                        : ($b - $a < 1e-12
                            ? $tb
                            : $ta + (($tb - $ta) * ($n - $a)) / ($b - $a));

                return Quantity::of($torque, 'N m');
            }
        }

        return Quantity::of($last[1], 'N m');
    }

    /** Scaled, as for two motors or a lower current. */
    public function times(float $factor): self
    {
        return new self(
            array_map(static fn (array $p): array => [$p[0], $p[1] * $factor], $this->points),
            $this->estimated,
        );
    }
}
