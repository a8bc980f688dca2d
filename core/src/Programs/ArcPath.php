<?php

declare(strict_types=1);

namespace Magpie\Core\Programs;

use Magpie\Core\Inspection\Verdict;

/** Points along an arc: its quadrants, so that its bounds are right, and what lies between for its length. */
final class ArcPath
{
    /** Shorter than the noise of rounding, mm. */
    private const NOTHING = 1e-9;

    /** The word for the middle along each axis. */
    private const MIDDLE = ['X' => 'I', 'Y' => 'J', 'Z' => 'K'];

    /**
     * @param  array{string, string}  $plane  the axes it turns in
     * @param  bool  $left  against the clock, seen from above its plane (G3)
     * @param  bool  $absolute  whether its middle is said from nought, not from its begin
     * @param  float  $unit  mm for one of the program's
     */
    public function __construct(
        private readonly array $plane,
        private readonly bool $left,
        private readonly bool $absolute,
        private readonly float $unit,
    ) {
    }

    /**
     * @param  array<string, float|null>  $from  mm, by X, Y, Z
     * @param  array<string, float|null>  $to
     * @return non-empty-list<array<string, float|null>>|Trouble
     */
    public function points(array $from, array $to, Block $block): array|Trouble
    {
        [$a, $b] = $this->plane;
        [$x0, $y0, $x1, $y1] = [$from[$a], $from[$b], $to[$a], $to[$b]];
        if ($x0 === null || $y0 === null || $x1 === null || $y1 === null) {
            return new Trouble(Verdict::Unproven, 'An arc begins where nobody knows.');
        }
        $middle = $block->has('R')
            ? $this->byRadius($x0, $y0, $x1, $y1, $block->words['R'] * $this->unit)
            : $this->byMiddle($x0, $y0, $block);
        if ($middle === null) {
            return new Trouble(Verdict::Fails, 'An arc whose radius does not reach from its begin to its end.');
        }
        [$cx, $cy] = $middle;
        $r = hypot($x0 - $cx, $y0 - $cy);
        if ($r < self::NOTHING || abs(hypot($x1 - $cx, $y1 - $cy) - $r) > max(0.02, 0.002 * $r)) {
            return new Trouble(Verdict::Fails, 'An arc whose centre is not as far from its begin as from its end.');
        }
        $start = atan2($y0 - $cy, $x0 - $cx);
        $turn = $this->turn(atan2($y1 - $cy, $x1 - $cx) - $start);
        $c = array_values(array_diff(['X', 'Y', 'Z'], $this->plane))[0];
        $points = [];
        foreach ($this->angles($start, $turn) as $off) {
            $points[] = [
                $a => $cx + $r * cos($start + $off),
                $b => $cy + $r * sin($start + $off),
                $c => $from[$c] === null || $to[$c] === null
                        ? $to[$c]
                        : $from[$c] + (($to[$c] - $from[$c]) * $off) / $turn,
            ];
        }

        return [...$points, $to];
    }

    /**
     * @param  float  $r  mm; below nought for the long way round
     * @return array{float, float}|null
     */
    private function byRadius(float $x0, float $y0, float $x1, float $y1, float $r): ?array
    {
        $chord = hypot($x1 - $x0, $y1 - $y0);
        if ($chord < self::NOTHING || abs($r) < $chord / 2 - 1e-3) {
            return null;
        }
        $high = sqrt(max(0.0, $r ** 2 - ($chord / 2) ** 2)) * ($r < 0 ? -1 : 1) * ($this->left ? -1 : 1);

        return [($x0 + $x1) / 2 + ($high * ($y1 - $y0)) / $chord, ($y0 + $y1) / 2 - ($high * ($x1 - $x0)) / $chord];
    }

    /**
     * @return array{float, float}
     */
    private function byMiddle(float $x0, float $y0, Block $block): array
    {
        $i = ($block->word(self::MIDDLE[$this->plane[0]]) ?? 0.0) * $this->unit;
        $j = ($block->word(self::MIDDLE[$this->plane[1]]) ?? 0.0) * $this->unit;

        return $this->absolute ? [$i, $j] : [$x0 + $i, $y0 + $j];
    }

    /** How far it turns, rad, its own way round; where it ends as it began, once round. */
    private function turn(float $turn): float
    {
        if ($this->left) {
            return $turn <= self::NOTHING ? $turn + 2 * M_PI : $turn;
        }

        return $turn >= -self::NOTHING ? $turn - 2 * M_PI : $turn;
    }

    /**
     * @return list<float> rad past its begin, on the way, in order: every ten degrees, and its quadrants to the last digit
     */
    private function angles(float $start, float $turn): array
    {
        $steps = max(4, (int) ceil(abs($turn) / (M_PI / 18)));
        $angles = [];
        for ($k = 1; $k < $steps; $k++) {
            $angles[] = ($turn * $k) / $steps;
        }
        for ($q = -8; $q <= 8; $q++) {
            $off = ($q * M_PI) / 2 - $start;
            if ($off * $turn > 0 && abs($off) < abs($turn)) {
                $angles[] = $off;
            }
        }
        sort($angles);

        return $turn > 0 ? $angles : array_reverse($angles);
    }
}
