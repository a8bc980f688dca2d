<?php

declare(strict_types=1);

/*
 * Metric coarse threads. Pitch: ISO 261. Nut height: ISO 4032 style 1, greatest (from memory). Lengths: ISO 4762,
 * preferred (from memory). Sizes in mm.
 */
return [
    'pitch' => [
        'M2' => 0.4,
        'M2.5' => 0.45,
        'M3' => 0.5,
        'M4' => 0.7,
        'M5' => 0.8,
        'M6' => 1.0,
        'M8' => 1.25,
        'M10' => 1.5,
        'M12' => 1.75,
    ],
    'nut_height' => [
        'M2' => 1.6,
        'M2.5' => 2.0,
        'M3' => 2.4,
        'M4' => 3.2,
        'M5' => 4.7,
        'M6' => 5.2,
        'M8' => 6.8,
        'M10' => 8.4,
        'M12' => 10.8,
    ],
    'lengths' => [5, 6, 8, 10, 12, 16, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 80, 90, 100, 110, 120],
    // Thread engagement in diameters, common practice, no source.
    'engagement' => ['steel' => 1.0, 'brass' => 1.5, 'cast' => 1.5, 'aluminium' => 2.0, 'plastic' => 2.5],

    // Clearance hole, ISO 273 medium.
    'clearance' => [
        'M2' => 2.4,
        'M2.5' => 2.9,
        'M3' => 3.4,
        'M4' => 4.5,
        'M5' => 5.5,
        'M6' => 6.6,
        'M8' => 9.0,
        'M10' => 11.0,
        'M12' => 13.5,
    ],
    // Stress area in mm², ISO 898-1.
    'stress_area' => [
        'M3' => 5.03,
        'M4' => 8.78,
        'M5' => 14.2,
        'M6' => 20.1,
        'M8' => 36.6,
        'M10' => 58.0,
        'M12' => 84.3,
    ],
    // Hexagon socket of a cap screw (ISO 4762), across flats.
    'key' => [
        'M2' => 1.5,
        'M2.5' => 2.0,
        'M3' => 2.5,
        'M4' => 3.0,
        'M5' => 4.0,
        'M6' => 5.0,
        'M8' => 6.0,
        'M10' => 8.0,
        'M12' => 10.0,
    ],
    // Of a button or countersunk head (ISO 7380, ISO 10642).
    'small_key' => ['M3' => 2.0, 'M4' => 2.5, 'M5' => 3.0, 'M6' => 4.0, 'M8' => 5.0, 'M10' => 6.0, 'M12' => 8.0],
    // What a screw is tightened to, of the torque into steel: common practice, no source.
    'softer' => ['steel' => 1.0, 'brass' => 0.7, 'cast' => 0.7, 'aluminium' => 0.7, 'plastic' => 0.2],
];
