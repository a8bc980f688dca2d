<?php

declare(strict_types=1);

/*
 * What a material gives off while it is printed, by the name it is sold under; one that is not here gives off little.
 * Styrene: occupational exposure limits of the substance (from memory); the rest common practice, no source.
 */
return [
    'ABS' => 'styrene',
    'ASA' => 'styrene',
    'HIPS' => 'styrene',
    'PC' => 'bisphenol A and fine dust',
    'PA' => 'caprolactam',
];
