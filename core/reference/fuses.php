<?php

declare(strict_types=1);

/*
 * When a fuse or breaker opens: by kind, the multiple of its rating and the most seconds it may take at it. Below the first
 * multiple it need not open at all. All rows from memory; the standard stands beside each.
 */
return [
    // ISO 8820-3 (m): blade fuses.
    'blade' => ['1.35' => 600.0, '1.6' => 50.0, '2' => 5.0, '3.5' => 0.5, '6' => 0.1],

    // IEC 60127-2 sheet 2 (m): quick-acting cartridge fuses, glass or ceramic.
    'cartridge fast' => ['2.1' => 1800.0, '2.75' => 2.0, '4' => 0.3, '10' => 0.02],

    // IEC 60127-2 sheet 3 (m): time-lag ones.
    'cartridge slow' => ['2.1' => 120.0, '2.75' => 10.0, '4' => 3.0, '10' => 0.3],

    // IEC 60898-1 (m): miniature breakers, the slow end of type C.
    'breaker' => ['1.45' => 3600.0, '2.55' => 60.0, '5' => 16.0, '9.99' => 4.0, '10' => 0.1],

    // Common practice, no source: resettable fuses open late, and later when they are cool.
    'resettable' => ['2' => 1000.0, '5' => 40.0, '10' => 10.0],

    // What a breaker of up to 32 A lets through at most, in A²s (IEC 60898-1, energy limiting class 3, type C (m)).
    'breaker_lets_through' => 22000.0,

    // IEC 60364-5-54 table A.54.2 (m): k of copper in PVC, in A·√s/mm².
    'k' => 115.0,
];
