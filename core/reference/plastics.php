<?php

declare(strict_types=1);

/*
 * Glass transition of printed plastics in °C: common practice, no source. Fibre-filled nylon creeps well below its own.
 */
return ['PLA' => 60, 'PETG' => 80, 'ABS' => 105, 'ASA' => 100, 'PC' => 147];
