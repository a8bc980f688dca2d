<?php

declare(strict_types=1);

/*
 * What parts are made of, by the words of the families.
 */
return [
    // kg/m³. Metals and glass as handbooks list them; wood and plastics the heavier of what is sold (from memory).
    // Printed plastics: usual values, common practice, no source.
    'density' => [
        'aluminium' => 2700.0,
        'steel' => 7850.0,
        'stainless steel' => 8000.0,
        'brass' => 8500.0,
        'plywood' => 750.0,
        'acrylic' => 1190.0,
        'polycarbonate' => 1200.0,
        'glass' => 2500.0,
        'plastic' => 1500.0,
        'composite' => 2000.0,
        'PLA' => 1240.0,
        'PETG' => 1270.0,
        'ABS' => 1040.0,
        'ASA' => 1070.0,
        'PC' => 1200.0,
        'PA' => 1140.0,
    ],

    // J/kg·K: usual handbook values (from memory).
    'specific_heat' => ['aluminium' => 897.0, 'steel' => 490.0, 'glass' => 840.0],

    // Pa: usual handbook values (from memory).
    'modulus' => ['aluminium' => 70e9, 'steel' => 210e9],

    // Specific cutting energy in J/mm³, the upper end of what handbooks give, so that power is not under-read: common
    // practice (from memory).
    'cutting_energy' => [
        'softwood' => 0.05,
        'hardwood' => 0.09,
        'plywood' => 0.08,
        'MDF' => 0.06,
        'acrylic' => 0.15,
        'plastic' => 0.12,
        'aluminium' => 1.1,
        'brass' => 2.2,
        'steel' => 4.0,
    ],
];
