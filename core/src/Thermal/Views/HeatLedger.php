<?php

declare(strict_types=1);

namespace Magpie\Core\Thermal\Views;

use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Thermal\HeatLimit;

/**
 * Places with their air and what stands in each, with the distance to what it bears; and every printed part by its
 * plastic.
 */
final readonly class HeatLedger
{
    public function __construct(private Inspection $inspection)
    {
    }

    /**
     * Temperatures in °C, distances in K.
     *
     * @return array{zones: list<array<string, mixed>>, prints: list<array<string, mixed>>}
     */
    public function toArray(): array
    {
        $build = $this->inspection->survey->build;
        $zones = [];
        foreach ($build->zones as $zone) {
            $air = $zone->temperature;
            $things = [];
            foreach ($zone->holds as $ref) {
                $fitted = $build->fitted($ref);
                $limit = $fitted === null ? null : HeatLimit::of($fitted);
                $things[] = [
                    'need' => $ref,
                    'role' => $build->roleOf($ref),
                    'limit' => self::celsius($limit),
                    'left' => $limit === null || $air === null ? null : round($limit->minus($air)->in('K'), 1),
                ];
            }
            usort($things, static fn (array $a, array $b): int => ($a['left'] ?? 1e9) <=> ($b['left'] ?? 1e9));
            $zones[] = [
                'ref' => $zone->ref,
                'name' => $zone->name,
                'kind' => $zone->kind->value,
                'air' => self::celsius($air),
                'things' => $things,
            ];
        }

        return ['zones' => $zones, 'prints' => $this->prints()];
    }

    /**
     * @return list<array<string, mixed>>
     */
    private function prints(): array
    {
        $prints = [];
        foreach ($this->inspection->survey->build->fittedThat(Ability::Printed) as $ref => $fitted) {
            $glass = HeatLimit::glass($fitted);
            $service = $fitted->part->spec('service_temperature')?->nominal();
            $prints[] = [
                'need' => $ref,
                'role' => $fitted->need->role,
                'material' => $fitted->part->spec('material')?->choice(),
                'service' => self::celsius($service),
                'glass' => self::celsius($glass),
                'left' => $glass === null || $service === null ? null : round($glass->minus($service)->in('K'), 1),
                'walls' => self::number($fitted, 'walls'),
                'infill' => self::number($fitted, 'infill'),
                'zone' => $this->inspection->survey->build->zoneOf($ref)?->name,
            ];
        }
        usort($prints, static fn (array $a, array $b): int => ($a['left'] ?? 1e9) <=> ($b['left'] ?? 1e9));

        return $prints;
    }

    private static function celsius(?Quantity $temperature): ?float
    {
        return $temperature === null ? null : round($temperature->in('°C'), 1);
    }

    private static function number(Fitted $fitted, string $key): ?float
    {
        return $fitted->part->spec($key)?->nominal()?->in('');
    }
}
