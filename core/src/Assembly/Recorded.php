<?php

declare(strict_types=1);

namespace Magpie\Core\Assembly;

use Magpie\Core\Inspection\Standing;
use Magpie\Core\Machine\Build;
use Magpie\Core\Reference\Tables;

/**
 * Which specs each check reads, recorded while it judges: its own samples, and whole machines. What it asked for and did
 * not find counts as well.
 */
final class Recorded
{
    /** What is read as well, in machines that are neither a sample nor a demo. */
    private const ELSEWHERE = [
        'E07' => ['relay.contact_rating'],
        'E09' => ['stepper_motor.rated_current'],
        'E11' => ['relay.coil_voltage', 'relay.coil_current', 'arc_source.torch_switch'],
        'E21' => [
            'motor_driver.set_current',
            'motor_driver.microsteps',
            'thermistor.table',
            'thermistor.highest_temperature',
            'fan.speed_sense',
        ],
        'E22' => ['spindle_drive.input_phases'],
        'E23' => ['cabinet.width', 'cabinet.height', 'cabinet.depth'],
        'M03' => ['servo_motor.rated_torque', 'servo_motor.rated_speed'],
        'M03-drop' => ['servo_motor.brake'],
        'M04' => ['servo_motor.rotor_inertia', 'servo_motor.inertia_limit'],
        'M05-preload' => ['servo_motor.rated_torque'],
        'M06' => ['pulley.grub_screws'],
        'M09' => ['pulley.bore'],
        'M09-cutout' => ['stop_button.cut_out', 'display.cut_out', 'fan.cut_out', 'lamp.cut_out'],
        'T04' => ['probe.heat_limit', 'bus_module.heat_limit'],
    ];

    /**
     * As it was recorded last; see core/reference/reads.php.
     *
     * @return array<string, list<string>> check → "family.key"
     */
    public static function reads(): array
    {
        /** @var array<string, list<string>> $reads */
        $reads = Tables::named('reads');

        return $reads;
    }

    /**
     * @param  list<Build>  $machines  beside the samples of every check
     * @return array<string, list<string>> check → "family.key", both in order
     */
    public static function anew(array $machines): array
    {
        $reads = [];
        foreach (Rules::all() as $check) {
            $id = $check->card()->id;
            $reads[$id] = array_fill_keys(self::ELSEWHERE[$id] ?? [], true);
            array_push($machines, $check->examples()->tripping(), $check->examples()->holding());
        }
        foreach ($machines as $build) {
            $standing = Standing::of(Rules::inspector(), $build);
            foreach ($standing->findings() as $key => $finding) {
                $read = $standing->cellsOf($key);
                foreach ($finding->inputs as $input) {
                    $read[] = str_replace('/specs/', '/', $input->where);
                }
                foreach ($read as $cell) {
                    $words = explode('/', $cell);
                    $part = $words[0] === 'parts' && count($words) === 3 ? $build->parts[$words[1]] ?? null : null;
                    if ($part?->family->field($words[2]) !== null) {
                        $reads[$finding->card->id]["{$part->family->key()}.{$words[2]}"] = true;
                    }
                }
            }
        }

        return array_map(static function (array $keys): array {
            ksort($keys);

            return array_map(strval(...), array_keys($keys));
        }, $reads);
    }
}
