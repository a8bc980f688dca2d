<?php

declare(strict_types=1);

/*
 * With what a builder measures a value, how, and how far that can be trusted. Common practice, no source; the
 * instrument's own sheet decides. First by spec, then by what it measures.
 */
return [
    'by_spec' => [
        'other_load' => [
            'the rating plates of what else runs',
            'Add their amps; 0 A when the circuit is the machine\'s alone.',
            '10 %',
        ],
        'outlet' => ['the plate on the outlet', 'And the rating of the breaker behind it: the smaller counts.', '0 %'],
        'size' => ['callipers', 'Diameter of one strand and the number of strands; or read it off the sheath.', '5 %'],
        'length' => ['callipers or a tape', 'Along the run it really takes, for a lead.', '1 %'],
        'depth' => ['callipers', 'With the depth rod, to the last full thread.', '2 %'],
        'room' => ['callipers', 'To the nearest moving part, at its nearest.', '2 %'],
        'block_pitch' => ['callipers or a tape', 'Middle to middle.', '1 %'],
        'span' => ['a tape', 'Between the faces that stop it.', '1 %'],
        'rotor_inertia' => [
            'its datasheet, or a swing test',
            'Hang the rotor on two threads and time its swing; ten swings.',
            '10 %',
        ],
        'holding_torque' => [
            'luggage scale and a 100 mm arm',
            'Hold at the set current and pull until it slips; three times each way.',
            '10 %',
        ],
        'phase_resistance' => [
            'multimeter',
            'Power off and unplugged, motor cold; subtract the leads touched together.',
            '5 %',
        ],
        'cold_resistance' => ['multimeter', 'Power off and unplugged, heater at room temperature.', '3 %'],
        'rated_current' => [
            'clamp meter',
            'Close the clamp round one conductor at full load, and let it settle for a minute.',
            '3 %',
        ],
        'supply_current' => ['clamp meter', 'Round one supply conductor while the axis runs at speed.', '3 %'],
        'rated_power' => ['clamp meter and multimeter', 'Volts at the load times amps into it, warm.', '4 %'],
        'efficiency' => [
            'plug-in power meter and clamp meter',
            'Watts out of its output over watts from the wall, at the usual load.',
            '4 %',
        ],
        'power_factor' => ['plug-in power meter', 'Read it at the usual load.', '3 %'],
        'output_voltage' => ['multimeter', 'At the terminals, at full load.', '1 %'],
        'service_temperature' => ['thermocouple', 'Taped to the part after an hour at work.', '2 %'],
        'skin_temperature' => ['thermocouple', 'Taped to the housing after an hour at work.', '2 %'],
        'runout' => ['dial indicator', 'On a gauge pin in the collet, turned by hand, drive unplugged.', '5 %'],
    ],
    'by_dimension' => [
        'length' => ['callipers', 'Three places; zero them first. A rule or tape above 150 mm.', '1 %'],
        'area' => ['callipers', 'Strand diameter and number of strands, or the diameter without insulation.', '5 %'],
        'mass' => ['kitchen scale', 'Weigh ten small ones together.', '1 %'],
        'voltage' => ['multimeter', 'At the terminals, under load. Mains only by somebody practised.', '1 %'],
        'current' => ['clamp meter', 'Round one conductor, at full load.', '3 %'],
        'power' => ['plug-in power meter', 'Let it settle for a minute.', '3 %'],
        'resistance' => ['multimeter', 'Power off and unplugged; subtract the leads touched together.', '3 %'],
        'inductance' => ['component tester', 'Unplugged, rotor still.', '10 %'],
        'temperature' => ['thermocouple', 'Taped on, after it has settled.', '2 %'],
        'torque' => ['luggage scale and an arm', 'Pull at right angles; force times arm.', '10 %'],
        'force' => ['luggage scale', 'Pull slowly and read as it begins to move.', '5 %'],
        'rotational_speed' => ['tachometer', 'A mark on the shaft; stand clear of the tool.', '1 %'],
        'time' => ['stopwatch', 'Three times.', '2 %'],
        'flow' => ['kitchen scale and stopwatch', 'Weigh what came in a minute.', '3 %'],
    ],
    // What a part may be asked for is its maker's word; no instrument gives it.
    'limits' => [
        'min_voltage',
        'max_voltage',
        'min_input',
        'max_input',
        'input_voltage',
        'heat_limit',
        'highest_temperature',
        'top_temperature',
        'top_speed',
        'lowest_speed',
        'derate_from',
        'derating',
        'glass_transition',
        'dynamic_load',
        'static_load',
        'lining_limit',
        'fuse_rating',
        'input_fuse',
        'input_terminal_rating',
        'continuous_current',
        'bare_current',
        'contact_rating',
        'peak_current',
        'control_min',
        'control_max',
        'contacts_per_pole',
    ],
    'limit' => [
        'the maker\'s sheet',
        'Ask for it by the exact part number and revision; a limit is not measured.',
        '0 %',
    ],
    'otherwise' => ['the maker\'s datasheet', 'Ask the seller for it by the exact part number.', '0 %'],
];
