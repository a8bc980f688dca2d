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
];
