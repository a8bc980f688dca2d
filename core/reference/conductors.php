<?php

declare(strict_types=1);

/*
 * Conductor tables. Rows marked (m) were written from memory and wait for a second source.
 */
return [
    // IEC 60228:2004 table 3, class 5 flexible copper, plain: highest resistance at 20 °C, Ω/km by mm².
    'class5_resistance' => [
        '0.5' => 39.0,
        '0.75' => 26.0,
        '1' => 19.5,
        '1.5' => 13.3,
        '2.5' => 7.98,
        '4' => 4.95,
        '6' => 3.3,
        '10' => 1.91,
        '16' => 1.21,
    ],

    // IEC 60204-1:2016 table 6: ampacity of PVC-insulated copper at 40 °C by mm² and method of installation.
    // 0.75, 1.5 and 2.5 mm² and 4 and 6 mm² method E as the handbook gives them; the rest (m).
    'ampacity' => [
        '0.75' => ['B1' => 8.6, 'B2' => 8.5, 'C' => 9.8, 'E' => 10.4],
        '1' => ['B1' => 10.3, 'B2' => 10.1, 'C' => 11.7, 'E' => 12.4],
        '1.5' => ['B1' => 13.5, 'B2' => 13.1, 'C' => 15.2, 'E' => 16.1],
        '2.5' => ['B1' => 18.3, 'B2' => 17.4, 'C' => 21.0, 'E' => 22.0],
        '4' => ['B1' => 25.0, 'B2' => 23.0, 'C' => 28.0, 'E' => 30.0],
        '6' => ['B1' => 32.0, 'B2' => 30.0, 'C' => 36.0, 'E' => 37.0],
        '10' => ['B1' => 44.0, 'B2' => 40.0, 'C' => 50.0, 'E' => 52.0],
        '16' => ['B1' => 60.0, 'B2' => 54.0, 'C' => 66.0, 'E' => 70.0],
    ],

    // NFPA 79 table 12.5.1 (m): small conductors at 30 °C, A by gauge.
    'small_ampacity' => [28 => 0.8, 26 => 1.0, 24 => 2.0, 22 => 3.0, 20 => 5.0, 18 => 7.0, 16 => 10.0],

    // IEC 60204-1 table D.1: factor on the 40 °C values by ambient in °C ((m) but for 30, 50 and 60).
    'ambient' => [30 => 1.15, 35 => 1.08, 40 => 1.0, 45 => 0.91, 50 => 0.82, 55 => 0.71, 60 => 0.58],

    // IEC 60364-5-52 table B.52.17 row 1 (m): factor by number of loaded circuits bunched together.
    'grouping' => [
        1 => 1.0,
        2 => 0.8,
        3 => 0.7,
        4 => 0.65,
        5 => 0.6,
        6 => 0.57,
        7 => 0.54,
        8 => 0.52,
        9 => 0.5,
        12 => 0.45,
        16 => 0.41,
        20 => 0.38,
    ],

    // Newtons a crimp must stand by AWG, UL 486A (m).
    'pull' => [22 => 36, 20 => 58, 18 => 89, 16 => 133, 14 => 222, 12 => 311],

    // Sizes that are sold, from the thinnest, by gauge and by area.
    'gauges' => ['28 AWG', '26 AWG', '24 AWG', '22 AWG', '20 AWG', '18 AWG', '16 AWG', '14 AWG', '12 AWG', '10 AWG'],
    'sections' => [
        '0.25 mm²',
        '0.34 mm²',
        '0.5 mm²',
        '0.75 mm²',
        '1 mm²',
        '1.5 mm²',
        '2.5 mm²',
        '4 mm²',
        '6 mm²',
        '10 mm²',
    ],
];
