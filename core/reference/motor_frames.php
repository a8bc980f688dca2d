<?php

declare(strict_types=1);

/*
 * Stepper motor frames: side of the square face, spacing of the four holes, hole or thread, pilot diameter, usual
 * shaft. Hole spacing and pilot of 17, 23 and 34 by NEMA ICS 16 (from memory); the rest common practice, no source.
 * Sizes in mm.
 */
return [
    '11' => ['face' => 28.0, 'holes' => 23.0, 'fastener' => 'M2.5 tapped', 'pilot' => 22.0, 'shaft' => 5.0],
    '14' => ['face' => 35.3, 'holes' => 26.0, 'fastener' => 'M3 tapped', 'pilot' => 22.0, 'shaft' => 5.0],
    '17' => ['face' => 42.3, 'holes' => 31.0, 'fastener' => 'M3 tapped', 'pilot' => 22.0, 'shaft' => 5.0],
    '23' => ['face' => 56.4, 'holes' => 47.14, 'fastener' => '5.1 mm through', 'pilot' => 38.1, 'shaft' => 6.35],
    '24' => ['face' => 60.0, 'holes' => 49.0, 'fastener' => '4.5 mm through', 'pilot' => 36.0, 'shaft' => 8.0],
    '34' => ['face' => 86.0, 'holes' => 69.6, 'fastener' => '6.5 mm through', 'pilot' => 73.0, 'shaft' => 14.0],
];
