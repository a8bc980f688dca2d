<?php

declare(strict_types=1);

namespace Magpie\Core\Reference;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/** The standard tables of the trade, each with its source, ready to be shown. */
final class StandardTables
{
    /**
     * @return list<array{key: string, title: string, source: string, columns: list<string>,
     *     rows: list<list<string|float|null>>}>
     */
    public static function all(): array
    {
        return [self::frames(), self::conductors(), self::fasteners(), self::bearings()];
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
        foreach (Conductors::gauges() as $size) {
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
        $rows = [];
        foreach (Fasteners::pitches() as $thread => $pitch) {
            $torque = Fasteners::torque($thread)?->in('N m');
            $rows[] = [
                $thread,
                $pitch,
                round((float) substr($thread, 1) - $pitch, 2),
                Fasteners::clearance($thread)?->in('mm'),
                Fasteners::nutHeight($thread)?->in('mm'),
                $torque === null ? null : round($torque, 2),
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
