<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Proving;

/**
 * Faults of the trade, planted one at a time in machines that are sound, each with the check that must speak.
 *
 * @phpstan-type File array<string, mixed>
 * @phpstan-type Fault array{machine: string, check: string, file: array<string, mixed>}
 */
final class Faults
{
    /**
     * @return iterable<string, array{string, string, array<string, mixed>}> fault and machine → machine, check, file
     */
    public static function all(): iterable
    {
        foreach (Machines::all() as $name => $make) {
            $file = $make()->file();
            foreach ([...self::ofAny(), ...self::ofSome()] as $fault => [$check, $plant]) {
                $with = $plant($file);
                if ($with !== null) {
                    yield "{$fault}: {$name}" => [$name, $check, $with];
                }
            }
        }
    }

    /**
     * What may go wrong on any machine.
     *
     * @return array<string, array{string, callable(array<string, mixed>): ?array<string, mixed>}>
     */
    private static function ofAny(): array
    {
        return [
            'an inlet fuse too small for its load' => [
                'E13',
                static fn (array $f): ?array => self::spec($f, 'inlet', 'fuse_rating', '0.1 A'),
            ],
            'a rail the board does not stand' => [
                'E06',
                static fn (array $f): ?array => self::spec($f, 'psu', 'output_voltage', '70 V'),
            ],
            'a supply too small' => [
                'E05',
                static fn (array $f): ?array => self::spec(
                    self::spec($f, 'psu', 'rated_current', '1.1 A'),
                    'psu',
                    'rated_power',
                    '3000 W',
                ),
            ],
            'bare terminals' => [
                'E05-kit',
                static fn (array $f): ?array => self::has($f, 'inlet') ? self::spec($f, 'psu', 'terminal_cover', false) : null,
            ],
            'no earth to the supply' => ['E14', static fn (array $f): ?array => self::without($f, 'psu.earth')],
            'a bond nobody would trust' => [
                'E14',
                static fn (array $f): ?array => self::lead($f, 'psu.earth', ['bond' => '1.2 Ω']),
            ],
            'no residual-current protection' => [
                'E14',
                static fn (array $f): ?array => self::has($f, 'inlet') ? self::site($f, 'residual_current_device', false) : null,
            ],
            'an outlet too small' => ['E15', static fn (array $f): array => self::site($f, 'other_load', '31 A')],
            'a main feed too thin' => [
                'E03',
                static fn (array $f): ?array => self::lead(
                    $f,
                    (self::has($f, 'drv-x') && ! self::has($f, 'stop')) || self::has($f, 'bed')
                        ? 'board.power'
                        : 'stop.in',
                    ['conductor' => ['size' => '28 AWG']],
                ),
            ],
            'a piece larger than the machine' => [
                'M01',
                static function (array $f): array {
                    $f['workpieces'][0]['length'] = '2.5 m';

                    return $f;
                },
            ],
            'steps for another screw' => [
                'E21',
                static fn (array $f): ?array => self::setting($f, '/^axis\..*\.steps_per_mm$/', '37'),
            ],
            'no driver current read as it should be' => [
                'E21',
                static fn (array $f): ?array => self::setting($f, '/^driver\..*\.current$/', '5 A'),
            ],
            'an axis that stalls' => [
                'M03',
                static function (array $f): array {
                    $f['axes'][0]['drive']['force'] = '9000 N';

                    return $f;
                },
            ],
            'nobody who can do the mains work' => [
                'E14-hands',
                static function (array $f): ?array {
                    $f['brief']['experience']['mains'] = 'none';

                    return self::has($f, 'inlet') ? $f : null;
                },
            ],
            'a plug-in supply for other mains' => [
                'E05-plug',
                static fn (array $f): ?array => self::has($f, 'inlet')
                    ? null
                    : self::spec($f, 'psu', 'input_voltage', '100 V to 120 V'),
            ],
            'a plug-in supply beside a switch that does not reach it' => [
                'E17',
                static function (array $f): ?array {
                    if (self::has($f, 'inlet')) {
                        return null;
                    }
                    $f['parts'][] = ['ref' => 'P-inlet', 'family' => 'mains_inlet', 'name' => 'Inlet', 'specs' => ['switch' => ['value' => true, 'evidence' => 'datasheet']]];
                    $f['needs'][] = ['ref' => 'inlet', 'role' => 'Inlet', 'family' => 'mains_inlet', 'candidates' => ['P-inlet'], 'choice' => 'P-inlet'];

                    return $f;
                },
            ],
        ];
    }

    /**
     * What some machines have to go wrong.
     *
     * @return array<string, array{string, callable(array<string, mixed>): ?array<string, mixed>}>
     */
    private static function ofSome(): array
    {
        return [
            'a motor driven too hard' => [
                'E08',
                static fn (array $f): ?array => self::spec($f, 'motor-x', 'rated_current', '0.6 A'),
            ],
            'a heater for another voltage' => [
                'E01',
                static fn (array $f): ?array => self::spec($f, 'cartridge', 'rated_voltage', '12 V'),
            ],
            'a lined hot end too hot' => [
                'T03',
                static fn (array $f): ?array => self::spec(
                    self::spec($f, 'hot-end', 'lined', true) ?? [],
                    'hot-end',
                    'lining_limit',
                    '220 °C',
                ),
            ],
            'no thermal-runaway protection' => [
                'E21',
                static fn (array $f): ?array => self::setting($f, '/^firmware\.runaway$/', 'absent'),
            ],
            'a limit above what a sensor stands' => [
                'E21',
                static fn (array $f): ?array => self::setting($f, '/^thermistor\.th-hot\.top$/', '400 °C'),
            ],
            'the wrong table for a sensor' => [
                'E21',
                static fn (array $f): ?array => self::setting($f, '/^thermistor\.th-bed\.table$/', 'type K'),
            ],
            'a fan for half the voltage' => [
                'E06',
                static fn (array $f): ?array => self::spec($f, 'fan-part', 'max_voltage', '13.8 V'),
            ],
            'two fans on one pin' => [
                'E12-fan',
                static function (array $f): ?array {
                    $found = false;
                    foreach ($f['parts'] as &$part) {
                        foreach ($part['ports'] ?? [] as $i => $port) {
                            if ($port['name'] === 'fan1' && self::has($f, 'fan-part')) {
                                $part['ports'][$i]['specs']['pin']['value'] = 'F0';
                                $found = true;
                            }
                        }
                    }

                    return $found ? $f : null;
                },
            ],
            'a bed plug that burns' => [
                'E02',
                static fn (array $f): ?array => self::spec($f, 'bed', 'contact_rating', '2 A'),
            ],
            'a bed lead too thin' => [
                'E03',
                static fn (array $f): ?array => self::lead($f, 'bed.power', ['conductor' => ['size' => '22 AWG']]),
            ],
            'solid wire in a lead that moves' => [
                'E19',
                static fn (array $f): ?array => self::moving($f, ['conductor' => ['stranding' => 'solid']]),
            ],
            'no strain relief where it moves' => [
                'E19',
                static fn (array $f): ?array => self::moving($f, ['ends' => [1 => ['strain_relief' => false]]]),
            ],
            'tinned ends under a screw' => [
                'E20',
                static fn (array $f): ?array => self::lead($f, 'board.power', ['ends' => [['termination' => 'tinned']]]),
            ],
            'a crimp that came off' => [
                'E20',
                static fn (array $f): ?array => self::lead($f, 'bed.power', [
                    'conductor' => ['size' => '16 AWG'],
                    'ends' => [1 => ['pulled' => '20 N']],
                ]),
            ],
            'a long thin lead' => [
                'E04',
                static fn (array $f): ?array => self::has($f, 'bed-relay')
                    ? null
                    : self::lead($f, 'bed.power', ['length' => '40 m']),
            ],
            'a printed part too near the heat' => [
                'M13',
                static fn (array $f): ?array => self::spec($f, 'duct', 'service_temperature', '105 °C'),
            ],
            'a stop that does not latch' => [
                'E17',
                static fn (array $f): ?array => self::spec($f, 'stop', 'latching', false),
            ],
            'a stop that closes when pressed' => [
                'E17',
                static fn (array $f): ?array => self::spec($f, 'stop', 'normally', 'open'),
            ],
            'a stop wired past the board' => [
                'E17',
                static function (array $f): ?array {
                    foreach ($f['leads'] as &$lead) {
                        if (
                            $lead['from'] === 'stop.out' &&
                            in_array($lead['to'], ['board.power', 'drv-x.power'], true)
                        ) {
                            $lead['from'] = 'psu.out';

                            return $f;
                        }
                    }

                    return null;
                },
            ],
            'no stop where a spindle turns' => [
                'E17',
                static function (array $f): ?array {
                    if (! self::has($f, 'stop') || ! (self::has($f, 'spindle') || self::has($f, 'arc'))) {
                        return null;
                    }
                    $f['needs'] = array_values(
                        array_filter($f['needs'], static fn (array $n): bool => $n['ref'] !== 'stop'),
                    );
                    $f['leads'] = array_values(
                        array_filter($f['leads'], static fn (array $l): bool => $l['to'] !== 'stop.in'),
                    );
                    foreach ($f['leads'] as &$lead) {
                        $lead['from'] = $lead['from'] === 'stop.out' ? 'psu.out' : $lead['from'];
                    }

                    return $f;
                },
            ],
            'no bore for the pulley' => [
                'M06',
                static fn (array $f): ?array => self::spec($f, 'pulley-x', 'bore', '8 mm'),
            ],
            'belts of another pitch' => [
                'M06',
                static fn (array $f): ?array => self::spec(
                    self::spec($f, 'belt-x', 'pitch', '3 mm'),
                    'belt-y',
                    'pitch',
                    '3 mm',
                ),
            ],
            'a screw that whips' => [
                'M05',
                static function (array $f): ?array {
                    foreach ($f['axes'] as &$axis) {
                        if (isset($axis['drive']['unsupported'], $axis['drive']['motors'])) {
                            $axis['drive']['unsupported'] = '6 m';

                            return $f;
                        }
                    }

                    return null;
                },
            ],
            'lost motion' => ['M16', static fn (array $f): ?array => self::spec($f, 'screw-x', 'backlash', '300 µm')],
            'a lift that falls when the power goes' => [
                'M03-drop',
                static function (array $f): ?array {
                    foreach ($f['axes'] as &$axis) {
                        if (($axis['drive']['incline'] ?? '') === '90 °' && isset($axis['drive']['motors'])) {
                            $axis['drive']['mass'] = self::has($f, 'stop') && ! self::has($f, 'bed') ? '40 kg' : '5 kg';
                            $axis['drive']['efficiency'] = '95 %';

                            return self::spec($f, 'motor-z', 'brake', false);
                        }
                    }

                    return null;
                },
            ],
            'a cutter turned too fast' => [
                'M08',
                static fn (array $f): ?array => self::spec($f, 'cutter', 'top_speed', '2000 rpm'),
            ],
            'a shank too large for its collet' => [
                'M08',
                static fn (array $f): ?array => self::spec($f, 'cutter', 'shank', '12 mm'),
            ],
            'reverse not locked' => [
                'E21',
                static fn (array $f): ?array => self::setting($f, '/^drive\..*\.reverse$/', 'not locked'),
            ],
            'a power word of another spindle' => [
                'E21',
                static fn (array $f): ?array => self::setting($f, '/^drive\..*\.full_scale$/', '12000 rpm'),
            ],
            'a drive too small' => [
                'E22',
                static fn (array $f): ?array => self::spec($f, 'drive', 'output_current', '1 A'),
            ],
            'an alternating relay on direct current' => [
                'E16',
                static fn (array $f): ?array => self::has($f, 'torch-relay')
                    ? self::spec(
                        self::spec($f, 'torch-relay', 'kind', 'solid state, AC') ?? [],
                        'torch-relay',
                        'on_resistance',
                        '10 mΩ',
                    )
                    : null,
            ],
            'a direct-current relay on the mains' => [
                'E16',
                static fn (array $f): ?array => self::spec($f, 'bed-relay', 'kind', 'solid state, DC'),
            ],
            'a mains bed without earth' => [
                'E14',
                static fn (array $f): ?array => self::has($f, 'bed-relay') ? self::without($f, 'bed.earth') : null,
            ],
            'a high-frequency start beside a board' => [
                'E18',
                static fn (array $f): ?array => self::spec(
                    self::spec($f, 'arc', 'start', 'high frequency') ?? [],
                    'arc',
                    'isolated',
                    false,
                ),
            ],
            'too little air' => [
                'M17',
                static fn (array $f): ?array => self::spec($f, 'compressor', 'flow', '40 L/min'),
            ],
            'no extraction for fumes' => [
                'M02-air',
                static fn (array $f): ?array => self::has($f, 'arc') || ($f['workpieces'][0]['material'] ?? '') === 'ASA'
                    ? self::site($f, 'ventilation', 'none')
                    : null,
            ],
            'no fire watch' => [
                'M02-ready',
                static function (array $f): ?array {
                    if (! self::has($f, 'arc')) {
                        return null;
                    }
                    $f['site']['ready']['fire_watch'] = false;

                    return $f;
                },
            ],
            'a hand wheel too small' => [
                'M19',
                static function (array $f): ?array {
                    foreach ($f['axes'] as &$axis) {
                        if (isset($axis['drive']['hand_wheel'])) {
                            $axis['drive']['hand_wheel'] = '3 mm';

                            return $f;
                        }
                    }

                    return null;
                },
            ],
        ];
    }

    /**
     * @param  array<string, mixed>  $file
     */
    private static function has(array $file, string $need): bool
    {
        return in_array($need, array_column($file['needs'] ?? [], 'ref'), true);
    }

    /**
     * @param  array<string, mixed>|null  $file
     * @return array<string, mixed>|null null where there is no such part
     */
    private static function spec(?array $file, string $need, string $key, string|bool|null $value): ?array
    {
        foreach ($file['parts'] ?? [] as $i => $part) {
            if ($part['ref'] === "P-{$need}") {
                $file['parts'][$i]['specs'][$key] = ['value' => $value, 'evidence' => 'datasheet', 'confirmed' => true];
                if ($value === null) {
                    unset($file['parts'][$i]['specs'][$key]);
                }

                return $file;
            }
        }

        return null;
    }

    /**
     * @param  array<string, mixed>  $file
     * @param  array<string, mixed>  $with
     * @return array<string, mixed>|null
     */
    private static function lead(array $file, string $to, array $with): ?array
    {
        foreach ($file['leads'] as $i => $lead) {
            if ($lead['to'] === $to) {
                $file['leads'][$i] = array_replace_recursive($lead, $with);

                return $file;
            }
        }

        return null;
    }

    /**
     * @param  array<string, mixed>  $file
     * @param  array<string, mixed>  $with
     * @return array<string, mixed>|null
     */
    private static function moving(array $file, array $with): ?array
    {
        foreach ($file['leads'] as $i => $lead) {
            if ($lead['route'] === 'flexing') {
                $file['leads'][$i] = array_replace_recursive($lead, $with);

                return $file;
            }
        }

        return null;
    }

    /**
     * @param  array<string, mixed>  $file
     * @return array<string, mixed>|null
     */
    private static function without(array $file, string $to): ?array
    {
        $left = array_values(array_filter($file['leads'], static fn (array $l): bool => $l['to'] !== $to));

        return count($left) === count($file['leads']) ? null : ['leads' => $left] + $file;
    }

    /**
     * @param  array<string, mixed>  $file
     * @return array<string, mixed>
     */
    private static function site(array $file, string $key, mixed $value): array
    {
        $file['site'][$key] = $value;

        return $file;
    }

    /**
     * @param  array<string, mixed>  $file
     * @return array<string, mixed>|null
     */
    private static function setting(array $file, string $about, string $value): ?array
    {
        foreach ($file['settings'] ?? [] as $i => $setting) {
            if (preg_match($about, $setting['about']) === 1) {
                $file['settings'][$i]['value'] = $value;

                return $file;
            }
        }

        return null;
    }
}
