<?php

declare(strict_types=1);

/*
 * What is tried on the bench when a part comes, before anything is built with it, by family: what, how and with what. Common
 * practice, no source. Sizes, masses and resistances come from the part's own sheet.
 */
return [
    'every' => [
        [
            'carton and labels',
            'Before it is opened: a picture of the carton, its labels and any dent; the day a claim must be made by.',
            'camera',
        ],
        ['signs of use', 'Solder, residue, scratches, cut ends: is it new?', 'a look'],
    ],
    'families' => [
        'limit_switch' => [
            [
                'opens and closes',
                'Unplugged, over its terminals: pressed and released, ten times, each time the other way.',
                'multimeter',
            ],
        ],
        'stop_button' => [
            [
                'opens and latches',
                'Unplugged, over each contact: pressed it opens and stays open until it is turned.',
                'multimeter',
            ],
        ],
        'fan' => [
            [
                'starts and runs even',
                'On its rated voltage from a bench supply: it starts by itself, and hums without ticking.',
                'bench supply',
            ],
        ],
        'power_supply' => [
            [
                'output without load',
                'By somebody practised in mains: terminals covered, nothing connected, volts at the output.',
                'multimeter',
            ],
        ],
        'heater' => [['not shorted to its body', 'Unplugged, from each lead to bare metal: open.', 'multimeter']],
        'thermistor' => [
            ['answers to a warm hand', 'Its resistance goes down in a closed hand, and comes back.', 'multimeter'],
        ],
        'stepper_motor' => [
            [
                'phases apart',
                'Unplugged: each phase has a few ohms, nothing between phases, nothing to the body.',
                'multimeter',
            ],
        ],
        'controller_board' => [
            [
                'seated and clear',
                'Heat sinks in place and clear of pins; jumpers and modules the way round of the picture.',
                'a look',
            ],
            [
                'firmware version',
                'From its USB port alone, no supply: it answers with the version the settings are for.',
                'computer',
            ],
        ],
        'motor_driver' => [
            ['heat sink clear of pins', 'It sits straight, and touches no pin or part beside it.', 'a look'],
        ],
        'linear_rail' => [
            [
                'runs smooth and keeps its balls',
                'Each block by hand over the whole rail: no notch, no play; grease, not oil.',
                'fingers',
            ],
        ],
        'drive_screw' => [
            [
                'straight, and its nut smooth',
                'Rolled on a flat plate; the nut turned over the whole length.',
                'flat plate',
            ],
        ],
        'bearing' => [
            [
                'turns without grating',
                'Between two fingers, slowly; the marks on it are those that were ordered.',
                'fingers',
            ],
        ],
        'belt' => [['pitch and width', 'Ten teeth laid on a rule; what looks alike differs in pitch.', 'rule']],
        'relay' => [
            [
                'clicks and switches',
                'On its rated coil voltage from a bench supply: the contact changes, and back.',
                'multimeter',
            ],
        ],
        'fuse' => [
            [
                'whole, and the rating on it',
                'Continuity, and the rating and speed printed on it are those that were ordered.',
                'multimeter',
            ],
        ],
        'wire' => [
            [
                'strands and length',
                'Count the strands at a cut end, and measure the length unrolled.',
                'callipers and tape',
            ],
        ],
    ],
];
