<?php

declare(strict_types=1);

namespace Magpie\Core\PartsList;

use Magpie\Core\Families\Catalogue;

/** The family a line of a parts list belongs to, from what its builder wrote. */
final class FamilyGuess
{
    /** Words tried in order: the more particular first. */
    private const WORDS = [
        'printed_part' => ['printed', '3d print'],
        'tool' => [
            'screwdriver',
            'crimper',
            'hex key',
            'spanner',
            'wrench',
            'calliper',
            'caliper',
            'multimeter',
            'soldering iron',
            'indicator',
            'tap and',
        ],
        'consumable' => [
            'grease',
            'thread lock',
            'ferrules',
            'solder ',
            'tape',
            'cleaner',
            'glue',
            'cutter',
            'heat shrink',
            'cable tie',
        ],
        'cable_chain' => ['cable chain', 'drag chain', 'chain'],
        'wire' => ['wire', 'cable', 'awg'],
        'fan' => ['fan', 'blower'],
        'dc_converter' => ['converter', 'buck', 'step-down'],
        'power_supply' => ['power supply', 'supply', 'psu'],
        'switching_module' => ['switching module', 'mosfet', 'solid-state relay', 'solid state relay', 'ssr', 'relay'],
        'motor_driver' => ['stepper driver', 'motor driver', 'driver'],
        'controller_board' => ['controller', 'mainboard', 'main board', 'board'],
        'servo_motor' => ['servo'],
        'stepper_motor' => ['stepper', 'motor'],
        'spindle' => ['spindle'],
        'heater' => ['heater', 'cartridge', 'heated bed', 'silicone mat'],
        'thermistor' => ['thermistor', 'temperature sensor'],
        'lamp' => ['led', 'light', 'lamp'],
        'host_computer' => ['host computer', 'single-board', 'computer'],
        'display' => ['display', 'screen', 'touch'],
        'mains_inlet' => ['inlet', 'mains socket'],
        'stop_button' => ['emergency stop', 'stop button', 'e-stop'],
        'fuse' => ['fuse', 'breaker'],
        'terminal_block' => ['terminal block', 'terminal row', 'terminal strip', 'distribution block'],
        'splice' => ['splice', 'butt connector', 'lever connector'],
        'connector' => ['plug and socket', 'panel plug', 'panel socket'],
        'contact_housing' => ['housing', 'connector', 'plug', 'terminal', 'crimp contact'],
        'sensor' => ['switch', 'sensor', 'probe', 'endstop'],
        'drive_screw' => ['ball screw', 'ballscrew', 'lead screw', 'leadscrew'],
        'linear_rail' => ['rail', 'linear guide'],
        'screw' => ['screw', 'bolt'],
        'nut' => ['nut', 'insert'],
        'coupling' => ['coupling', 'coupler'],
        'pulley' => ['pulley', 'idler'],
        'belt' => ['belt'],
        'bearing' => ['bearing'],
        'extrusion' => ['extrusion', 'profile'],
        'cabinet' => ['cabinet', 'panel', 'enclosure', 'door'],
        'filament' => ['filament', 'reel'],
        'plate' => ['plate', 'bracket', 'sheet'],
    ];

    public static function of(string ...$texts): ?string
    {
        $text = mb_strtolower(implode(' ', $texts));
        $key = str_replace([' ', '-'], '_', trim(mb_strtolower($texts[0] ?? '')));
        if (Catalogue::standard()->find($key) !== null) {
            return $key;
        }
        foreach (self::WORDS as $family => $words) {
            foreach ($words as $word) {
                if (preg_match('/(?<![\p{L}])'.preg_quote($word, '/').'(?:s|es)?(?![\p{L}])/u', $text) === 1) {
                    return $family;
                }
            }
        }

        return null;
    }
}
