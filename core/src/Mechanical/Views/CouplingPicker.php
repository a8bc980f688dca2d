<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Views;

use Magpie\Core\Library\Entry;

/** Couplings that take two shafts, the ones with enough torque first, short before long. */
final class CouplingPicker
{
    /**
     * @param  list<Entry>  $shelf
     * @param  float  $one  diameter of one shaft, mm
     * @param  float  $torque  of the motor, N m; twice as much is wanted of the coupling
     * @return list<array{ref: string, name: string, torque: float|null, length: float|null, enough: bool|null}>
     */
    public static function of(array $shelf, float $one, float $other, float $torque): array
    {
        $found = [];
        foreach ($shelf as $entry) {
            $read = static fn (string $key, string $unit): ?float => $entry->part->spec($key)?->nominal()?->in($unit);
            [$a, $b] = [$read('bore_a', 'mm'), $read('bore_b', 'mm')];
            $takes =
                $a !== null &&
                $b !== null &&
                ((abs($a - $one) <= 0.05 && abs($b - $other) <= 0.05) ||
                    (abs($a - $other) <= 0.05 && abs($b - $one) <= 0.05));
            if ($takes) {
                $rated = $read('rated_torque', 'N m');
                $found[] = [
                    'ref' => $entry->part->ref,
                    'name' => $entry->part->name,
                    'torque' => $rated,
                    'length' => $read('length', 'mm'),
                    'enough' => $rated === null ? null : $rated >= 2 * $torque,
                ];
            }
        }
        usort(
            $found,
            static fn (array $x, array $y): int => [$x['enough'] === true ? 0 : 1, $x['length'] ?? 1e9] <=> [
                $y['enough'] === true ? 0 : 1,
                $y['length'] ?? 1e9,
            ],
        );

        return $found;
    }
}
