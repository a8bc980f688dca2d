<?php

declare(strict_types=1);

/*
 * Questions on which good practice is divided: both sides, what each buys, and what decides between them. Common
 * practice, no source.
 */
return [
    'kit-or-sourced' => [
        'question' => 'Buy a kit, or source every part?',
        'sides' => [
            'kit' => 'One order, and cheaper once tools are counted.',
            'sourced' => 'Every part is your own choice.',
        ],
        'decides' => 'How unusual the build is, the grade and revision of the kit, the parts you own already.',
    ],
    'tool-or-project' => [
        'question' => 'Is the machine a tool or a project?',
        'sides' => [
            'tool' => 'Bought built: it works the first evening.',
            'project' => 'Built yourself: you can repair and change all of it.',
        ],
        'decides' => 'Hours until it is useful, and whether you want to modify it.',
    ],
    'upgrade-first' => [
        'question' => 'Upgrade before first power, or run it as delivered first?',
        'sides' => [
            'before' => 'What is known to be weak never goes into service.',
            'after' => 'A baseline to compare with, and no work that was not needed.',
        ],
        'decides' => 'Safety items always before; quality items after.',
    ],
    'bed-leads' => [
        'question' => 'Bed leads: plug with doubled contacts, or soldered on?',
        'sides' => ['plug' => 'The bed comes off without an iron.', 'soldered' => 'No contact that can brown.'],
        'decides' => 'Whether it must unplug, your tools and skill, and the strain relief fitted.',
    ],
    'supply-kind' => [
        'question' => 'Which kind of supply?',
        'sides' => [
            'computer supply' => 'Cheap, several rails, own fan, switch and plugs.',
            'industrial' => 'One honest rail with terminals; you add switch, fuse and cover.',
            'server unit' => 'Much current for little money; needs a start line and an adapter.',
        ],
        'decides' => 'Amps on the output you need, fan, switch, fuse, earth, start line.',
    ],
    'homing' => [
        'question' => 'Home by switches or without?',
        'sides' => [
            'switches' => 'Repeatable, and indifferent to settings.',
            'sensorless' => 'No switch and no lead to break; must be tuned.',
        ],
        'decides' => 'Driver mode, tuning time, repeatability. Buy the switch as a way back.',
    ],
    'bed-probe' => [
        'question' => 'Inductive or contact probe?',
        'sides' => [
            'inductive' => 'Nothing touches; drifts with heat.',
            'contact' => 'Finds the surface itself; a moving part that wears.',
        ],
        'decides' => 'Chamber heat, stiffness of the mount, metal of the sheet, speed.',
    ],
    'lift-motors' => [
        'question' => 'Lift motors driven apart or linked?',
        'sides' => [
            'apart' => 'Each corner can be levelled by the machine.',
            'linked' => 'One channel, and nothing to get out of step.',
        ],
        'decides' => 'Driver channels, levelling routine, wish for simplicity.',
    ],
    'spindle-stop' => [
        'question' => 'A spindle stop that keeps position, or every red button stops all?',
        'sides' => [
            'spindle only' => 'A job can be gone on with.',
            'everything' => 'Nothing to think about when it matters.',
        ],
        'decides' => 'What a restart costs. The main stop must kill everything in either case.',
    ],
    'motor-kind' => [
        'question' => 'A small closed-loop motor or a larger open-loop one?',
        'sides' => [
            'closed loop' => 'Tells of a lost step; runs cool.',
            'open loop' => 'Simple and cheap; needs twice the torque.',
        ],
        'decides' => 'Measured following error and current.',
    ],
    'backlash' => [
        'question' => 'Backlash: compensated in software or removed by preload?',
        'sides' => ['software' => 'Costs nothing.', 'preload' => 'Holds the table against the cut.'],
        'decides' => 'Climb cuts, cutting force, tolerance.',
    ],
    'inertia' => [
        'question' => 'Inertia ratio up to the maker\'s limit, or at most ten?',
        'sides' => [
            'limit' => 'A higher top speed from the same motor.',
            'ten' => 'Tunes easily, with room for what was left out.',
        ],
        'decides' => 'Top speed wanted, patience in tuning, what the estimate left out.',
    ],
    'size' => [
        'question' => 'Small and stiff or several, or one large?',
        'sides' => [
            'small' => 'Stiffer, and another goes on when one stops.',
            'large' => 'Takes the largest piece in one.',
        ],
        'decides' => 'The largest one-piece part, and output a day.',
    ],
    'loom' => [
        'question' => 'A made-up loom, or leads cut to length?',
        'sides' => [
            'loom' => 'Hours saved; slack to stow.',
            'cut' => 'Right length; needs crimper and patience.',
            'bus' => 'One lead to the tool head; one thing that can fail for all.',
        ],
        'decides' => 'Hours, tools, space, spare parts.',
    ],
    'rails' => [
        'question' => 'Clean and grease rails first, or oil at the end?',
        'sides' => ['first' => 'No dirt or preservative is run in.', 'end' => 'Nothing to drip while you build.'],
        'decides' => 'Their state on arrival.',
    ],
    'nozzle' => [
        'question' => 'High flow or easy nozzle change?',
        'sides' => ['flow' => 'Fast with large nozzles.', 'change' => 'Any nozzle in a minute.'],
        'decides' => 'Nozzle size and usual speed.',
    ],
    'cut-direction' => [
        'question' => 'Conventional narrow cuts, or climb and wide?',
        'sides' => ['conventional' => 'Safe on a light machine.', 'climb' => 'Better face, shorter time.'],
        'decides' => 'Stiffness, backlash, hand or motor feed.',
    ],
    'torch-height' => [
        'question' => 'Torch height set at the start, or held by arc voltage?',
        'sides' => ['start' => 'Nothing to tune.', 'held' => 'Follows a warped sheet.'],
        'decides' => 'Sheet warp, length of cut, heat.',
    ],
];
