<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Views;

/**
 * A belt around two pulleys: its length to whole teeth, the centre distance that gives, teeth in mesh, and its note.
 */
final class BeltLoop
{
    /**
     * L = 2C + π(D + d)/2 + (D − d)²/4C, rounded to whole teeth.
     *
     * @param  float  $pitch  mm
     * @param  float  $centre  wanted distance of the shafts, mm
     * @return array{length: float, teeth: int, centre: float, mesh: float}|null null when the pulleys would overlap
     */
    public static function of(float $pitch, int $one, int $other, float $centre): ?array
    {
        $big = (max($one, $other) * $pitch) / M_PI;
        $small = (min($one, $other) * $pitch) / M_PI;
        if ($pitch <= 0 || min($one, $other) < 6 || $centre <= ($big + $small) / 2) {
            return null;
        }
        $length = 2 * $centre + (M_PI * ($big + $small)) / 2 + ($big - $small) ** 2 / (4 * $centre);
        $teeth = (int) round($length / $pitch);
        // The centre distance of whole teeth, from the same formula turned round.
        $straight = $teeth * $pitch - (M_PI * ($big + $small)) / 2;
        $exact = ($straight + sqrt($straight ** 2 - 2 * ($big - $small) ** 2)) / 4;
        $wrap = M_PI - 2 * asin(($big - $small) / (2 * $exact));

        return [
            'length' => round($teeth * $pitch, 2),
            'teeth' => $teeth,
            'centre' => round($exact, 3),
            'mesh' => round((min($one, $other) * $wrap) / (2 * M_PI), 1),
        ];
    }

    /** Note of a free span in Hz: f = √(T/µ)/(2L), tension in N, mass in g/m, span in mm. */
    public static function note(float $tension, float $mass, float $span): float
    {
        return sqrt($tension / ($mass / 1000)) / ((2 * $span) / 1000);
    }
}
