<?php

declare(strict_types=1);

/*
 * Mains of some countries: nominal voltage (IEC 60038), frequency, and what the usual outlet is rated for. Outlet
 * ratings from memory; the plate on the outlet and the breaker behind it decide.
 */
return [
    'Australia' => ['230 V', '50 Hz', ['10 A', '15 A']],
    'Austria' => ['230 V', '50 Hz', ['16 A']],
    'Belgium' => ['230 V', '50 Hz', ['16 A']],
    'Brazil, 127 V' => ['127 V', '60 Hz', ['10 A', '20 A']],
    'Brazil, 220 V' => ['220 V', '60 Hz', ['10 A', '20 A']],
    'Canada' => ['120 V', '60 Hz', ['15 A', '20 A']],
    'Denmark' => ['230 V', '50 Hz', ['13 A', '16 A']],
    'Finland' => ['230 V', '50 Hz', ['16 A']],
    'France' => ['230 V', '50 Hz', ['16 A']],
    'Germany' => ['230 V', '50 Hz', ['16 A']],
    'India' => ['230 V', '50 Hz', ['6 A', '16 A']],
    'Ireland' => ['230 V', '50 Hz', ['13 A']],
    'Italy' => ['230 V', '50 Hz', ['10 A', '16 A']],
    'Japan, east' => ['100 V', '50 Hz', ['15 A']],
    'Japan, west' => ['100 V', '60 Hz', ['15 A']],
    'Netherlands' => ['230 V', '50 Hz', ['16 A']],
    'New Zealand' => ['230 V', '50 Hz', ['10 A']],
    'Norway' => ['230 V', '50 Hz', ['16 A']],
    'Poland' => ['230 V', '50 Hz', ['16 A']],
    'Portugal' => ['230 V', '50 Hz', ['16 A']],
    'South Africa' => ['230 V', '50 Hz', ['16 A']],
    'Spain' => ['230 V', '50 Hz', ['16 A']],
    'Sweden' => ['230 V', '50 Hz', ['16 A']],
    'Switzerland' => ['230 V', '50 Hz', ['10 A', '16 A']],
    'United Kingdom' => ['230 V', '50 Hz', ['13 A']],
    'United States' => ['120 V', '60 Hz', ['15 A', '20 A']],
];
