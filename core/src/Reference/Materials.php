<?php

declare(strict_types=1);

namespace Magpie\Core\Reference;

/** Properties of what parts are made of, from core/reference/materials.php; null for a material that is not there. */
final class Materials
{
    /** In kg/m³. */
    public static function density(string $material): ?float
    {
        return self::table()['density'][$material] ?? null;
    }

    /** In J/kg·K. */
    public static function specificHeat(string $material): ?float
    {
        return self::table()['specific_heat'][$material] ?? null;
    }

    /** Young's modulus in Pa. */
    public static function modulus(string $material): ?float
    {
        return self::table()['modulus'][$material] ?? null;
    }

    /**
     * @return array<string, float> specific cutting energy in J/mm³ by material
     */
    public static function cuttingEnergies(): array
    {
        return self::table()['cutting_energy'];
    }

    /**
     * @return array{density: array<string, float>, specific_heat: array<string, float>, modulus: array<string, float>,
     *     cutting_energy: array<string, float>}
     */
    private static function table(): array
    {
        /** @var array{density: array<string, float>, specific_heat: array<string, float>, modulus: array<string, float>, cutting_energy: array<string, float>} $table */
        $table = Tables::named('materials');

        return $table;
    }
}
