<?php

declare(strict_types=1);

namespace Magpie\Core\Reference;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/** The standard tables of the trade, each with its source, ready to be shown. */
final class StandardTables
{
    /** Clearance holes ISO 273, medium; torque K·F·d with K 0.2 at 75 % of proof, class 8.8. */
    private const CLEARANCE = [
        'M2' => 2.4,
        'M2.5' => 2.9,
        'M3' => 3.4,
        'M4' => 4.5,
        'M5' => 5.5,
        'M6' => 6.6,
        'M8' => 9.0,
        'M10' => 11.0,
        'M12' => 13.5,
    ];

    private const STRESS_AREA = [
        'M3' => 5.03,
        'M4' => 8.78,
        'M5' => 14.2,
        'M6' => 20.1,
        'M8' => 36.6,
        'M10' => 58.0,
        'M12' => 84.3,
    ];

    private const PROOF = 580e6;

    /**
     * @return list<array{key: string, title: string, source: string, columns: list<string>,
     *     rows: list<list<string|float|null>>}>
     */
    public static function all(): array
    {
        return [self::frames(), self::conductors(), self::fasteners(), self::bearings()];
    }

    /** Clearance hole of a metric thread, medium fit (ISO 273), in mm; null for a thread that is not in the table. */
    public static function clearance(string $thread): ?float
    {
        return self::CLEARANCE[$thread] ?? null;
    }

    /** Tightening torque of a class 8.8 screw into steel: T = K × F × d, F 75 % of its proof load. */
    public static function torque(string $thread): ?Quantity
    {
        $area = self::STRESS_AREA[$thread] ?? null;

        return $area === null
            ? null
            : Quantity::of(
                round(0.2 * 0.75 * self::PROOF * $area * 1e-6 * (float) substr($thread, 1) * 1e-3, 2),
                'N m',
            );
    }

    /**
     * @return array{key: string, title: string, source: string, columns: list<string>,
     *     rows: list<list<string|float|null>>}
     */
    private static function frames(): array
    {
        $rows = [];
        /** @var array<int|string, array{face: float, holes: float, fastener: string, pilot: float, shaft: float}> $frames */
        $frames = Tables::named('motor_frames');
        foreach ($frames as $frame => $f) {
            $rows[] = [(string) $frame, $f['face'], $f['holes'], $f['fastener'], $f['pilot'], $f['shaft']];
        }

        return [
            'key' => 'motor-frames',
            'title' => 'Motor frames',
            'source' => 'NEMA ICS 16 for hole spacing and pilot of 17, 23 and 34 (from memory); the rest common practice, no source',
            'columns' => ['Frame', 'Face, mm', 'Hole spacing, mm', 'Holes', 'Pilot, mm', 'Usual shaft, mm'],
            'rows' => $rows,
        ];
    }

    /**
     * @return array{key: string, title: string, source: string, columns: list<string>,
     *     rows: list<list<string|float|null>>}
     */
    private static function conductors(): array
    {
        $rows = [];
        foreach (
            ['28 AWG', '26 AWG', '24 AWG', '22 AWG', '20 AWG', '18 AWG', '16 AWG', '14 AWG', '12 AWG', '10 AWG'] as $size
        ) {
            $area = Quantity::parse($size, Dimension::Area);
            $rows[] = [$size, round($area->in('mm²'), 3), round(Conductors::resistance($area)->in('Ω/m') * 1000, 1)];
        }

        return [
            'key' => 'conductors',
            'title' => 'Conductor sizes',
            'source' => 'ASTM B258 for gauges, IEC 60028 for copper at 20 °C',
            'columns' => ['Size', 'Area, mm²', 'Resistance, Ω/km'],
            'rows' => $rows,
        ];
    }

    /**
     * @return array{key: string, title: string, source: string, columns: list<string>,
     *     rows: list<list<string|float|null>>}
     */
    private static function fasteners(): array
    {
        /** @var array{pitch: array<string, float>, nut_height: array<string, float>} $table */
        $table = Tables::named('fasteners');
        $rows = [];
        foreach ($table['pitch'] as $thread => $pitch) {
            $rows[] = [
                $thread,
                $pitch,
                round((float) substr($thread, 1) - $pitch, 2),
                self::CLEARANCE[$thread] ?? null,
                $table['nut_height'][$thread] ?? null,
                self::torque($thread)?->in('N m'),
            ];
        }

        return [
            'key' => 'fasteners',
            'title' => 'Metric threads',
            'source' => 'ISO 261 pitch, ISO 273 medium clearance, ISO 4032 nuts (from memory), torque K·F·d for class 8.8 (ISO 898-1 proof stress), K 0.2: common practice',
            'columns' => [
                'Thread',
                'Pitch, mm',
                'Tap drill, mm',
                'Clearance hole, mm',
                'Nut height, mm',
                'Torque into steel, N m',
            ],
            'rows' => $rows,
        ];
    }

    /**
     * @return array{key: string, title: string, source: string, columns: list<string>,
     *     rows: list<list<string|float|null>>}
     */
    private static function bearings(): array
    {
        $rows = [];
        /** @var array<int|string, array{float, float, float}> $bearings */
        $bearings = Tables::named('bearings');
        foreach ($bearings as $name => [$bore, $outer, $width]) {
            $rows[] = [(string) $name, (float) $bore, (float) $outer, (float) $width];
        }

        return [
            'key' => 'bearings',
            'title' => 'Ball bearings',
            'source' => 'ISO 15 boundary dimensions (from memory)',
            'columns' => ['Designation', 'Bore, mm', 'Outer diameter, mm', 'Width, mm'],
            'rows' => $rows,
        ];
    }
}
