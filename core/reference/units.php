<?php

declare(strict_types=1);

/*
 * Units by dimension: symbol => [factor to SI, other spellings, offset added before the factor].
 * Factors: ISO 80000 and NIST SP 811 (inch 25.4 mm, pound 0.45359237 kg, standard gravity 9.80665 m/s²).
 * An ounce-inch of torque is an ounce-force inch, as motor sheets use it. 'AWG' is computed (ASTM B258).
 */
return [
    'ratio' => ['' => [1.0, ['1']], '%' => [0.01, ['percent', 'pct']]],
    'voltage' => ['V' => [1.0, ['Volt', 'Volts', 'VDC', 'VAC', 'Vdc', 'Vac']], 'mV' => [1e-3], 'kV' => [1e3]],
    'current' => ['A' => [1.0, ['Amp', 'Amps', 'Ampere', 'Arms']], 'mA' => [1e-3], 'µA' => [1e-6]],
    'power' => [
        'W' => [1.0, ['Watt', 'Watts']],
        'mW' => [1e-3],
        'kW' => [1e3],
        'VA' => [1.0],
        'hp' => [745.69987158227, ['HP']],
    ],
    'resistance' => [
        'Ω' => [1.0, ['ohm', 'ohms', 'R']],
        'mΩ' => [1e-3, ['mohm', 'milliohm']],
        'kΩ' => [1e3, ['kohm']],
        'MΩ' => [1e6, ['Mohm', 'megohm']],
    ],
    'line_resistance' => ['Ω/m' => [1.0, ['ohm/m']], 'Ω/km' => [1e-3, ['ohm/km']], 'mΩ/m' => [1e-3, ['mohm/m']]],
    'inductance' => ['H' => [1.0], 'mH' => [1e-3], 'µH' => [1e-6]],
    'capacitance' => ['F' => [1.0], 'mF' => [1e-3], 'µF' => [1e-6], 'nF' => [1e-9]],
    'charge' => ['C' => [1.0], 'A h' => [3600.0], 'mA h' => [3.6]],
    'energy' => ['J' => [1.0], 'kJ' => [1e3], 'W h' => [3600.0], 'kW h' => [3.6e6]],
    'length' => [
        'm' => [1.0, ['metre', 'metres', 'meter']],
        'mm' => [1e-3, ['millimetre', 'millimetres']],
        'cm' => [1e-2],
        'µm' => [1e-6, ['micron', 'microns']],
        'km' => [1e3],
        'in' => [0.0254, ['"', 'inch', 'inches']],
        'ft' => [0.3048, ['foot', 'feet']],
        'thou' => [2.54e-5, ['mil']],
    ],
    'area' => [
        'm²' => [1.0, ['m2', 'sqm']],
        'mm²' => [1e-6, ['mm2', 'sqmm', 'sq mm', 'qmm']],
        'cm²' => [1e-4, ['cm2']],
        'in²' => [6.4516e-4, ['in2']],
        'AWG' => [1.0, ['ga', 'gauge']],
    ],
    'second_moment' => ['m⁴' => [1.0], 'mm⁴' => [1e-12, ['mm4']], 'cm⁴' => [1e-8]],
    'volume' => [
        'm³' => [1.0, ['m3']],
        'mm³' => [1e-9, ['mm3']],
        'cm³' => [1e-6, ['cm3', 'cc']],
        'L' => [1e-3, ['litre', 'l', 'litres']],
        'mL' => [1e-6, ['ml']],
    ],
    'mass' => [
        'kg' => [1.0],
        'g' => [1e-3, ['gram', 'grams']],
        'mg' => [1e-6],
        't' => [1e3],
        'lb' => [0.45359237, ['lbs', 'pound']],
        'oz' => [0.028349523125, ['ounce']],
    ],
    'density' => ['kg/m³' => [1.0, ['kg/m3']], 'g/cm³' => [1e3, ['g/cm3', 'g/cc']]],
    'time' => [
        's' => [1.0, ['sec']],
        'ms' => [1e-3],
        'min' => [60.0, ['minute', 'minutes', 'mins']],
        'h' => [3600.0, ['hr', 'hour', 'hours', 'hrs']],
        'd' => [86400.0, ['day', 'days']],
    ],
    'frequency' => ['Hz' => [1.0], 'kHz' => [1e3], 'MHz' => [1e6]],
    'rotational_speed' => ['rev/s' => [1.0, ['rps']], 'rpm' => [1 / 60, ['rev/min', 'r/min']]],
    'temperature' => [
        '°C' => [1.0, ['degC', 'C deg', 'celsius', 'deg C'], 273.15],
        '°F' => [5 / 9, ['degF', 'fahrenheit', 'deg F'], 459.67],
    ],
    'temperature_difference' => ['K' => [1.0, ['kelvin']], 'Δ°F' => [5 / 9]],
    'temperature_coefficient' => ['1/K' => [1.0, ['/K']], '%/K' => [0.01, ['%/°C']]],
    'thermal_resistance' => ['K/W' => [1.0, ['°C/W', 'C/W']]],
    'torque' => [
        'N m' => [1.0, ['newton metre']],
        'N cm' => [1e-2],
        'mN m' => [1e-3],
        'kgf cm' => [0.0980665, ['kg cm', 'kg.cm']],
        'oz in' => [0.00706155181422604, ['ozf in', 'in oz']],
        'lbf in' => [0.112984829027617, ['lb in', 'in lb']],
        'lbf ft' => [1.3558179483314, ['lb ft', 'ft lb']],
    ],
    'force' => ['N' => [1.0], 'kN' => [1e3], 'kgf' => [9.80665], 'lbf' => [4.4482216152605]],
    'inertia' => [
        'kg m²' => [1.0, ['kg m2']],
        'kg cm²' => [1e-4, ['kg cm2']],
        'g cm²' => [1e-7, ['g cm2']],
        'oz in²' => [1.82899783e-5, ['oz in2']],
    ],
    'speed' => [
        'm/s' => [1.0],
        'mm/s' => [1e-3],
        'mm/min' => [1e-3 / 60],
        'm/min' => [1 / 60],
        'in/min' => [0.0254 / 60, ['ipm']],
        'in/s' => [0.0254],
    ],
    'acceleration' => ['m/s²' => [1.0, ['m/s2']], 'mm/s²' => [1e-3, ['mm/s2']]],
    'pressure' => [
        'Pa' => [1.0],
        'kPa' => [1e3],
        'MPa' => [1e6],
        'GPa' => [1e9],
        'bar' => [1e5],
        'psi' => [6894.757293168],
    ],
    'flow' => [
        'm³/s' => [1.0, ['m3/s']],
        'm³/h' => [1 / 3600, ['m3/h']],
        'mm³/s' => [1e-9, ['mm3/s']],
        'L/min' => [1e-3 / 60, ['l/min', 'lpm']],
        'ft³/min' => [4.719474432e-4, ['cfm', 'ft3/min']],
    ],
    'angle' => ['rad' => [1.0], '°' => [M_PI / 180, ['deg', 'degrees']]],
];
