<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Proving;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Machine\Build;

/** A sound machine, written down part by part as its builder would: every value from a sheet or a reading. */
final class Machine
{
    /** @var array<string, mixed> */
    private array $file;

    private int $leads = 0;

    /**
     * @param  array<string, mixed>  $site  beside the usual
     * @param  array<string, mixed>  $brief
     */
    public function __construct(string $name, string $kind, array $site = [], array $brief = [])
    {
        $this->file = [
            'magpie' => BuildFile::VERSION,
            'build' => ['name' => $name, 'kind' => $kind, 'currency' => 'EUR', 'stage' => 'made'],
            'site' => $site + [
                'mains_voltage' => '230 V',
                'mains_frequency' => '50 Hz',
                'outlet' => '16 A',
                'other_load' => '1 A',
                'ambient' => '30 °C',
                'residual_current_device' => true,
                'tariff' => '0.30',
                'door' => ['width' => '900 mm', 'height' => '2000 mm'],
                'bench' => ['length' => '2000 mm', 'width' => '1200 mm', 'load' => '200 kg'],
                'room' => ['length' => '5 m', 'width' => '4 m', 'height' => '2.4 m'],
                'service' => '200 mm',
                'humidity' => '45 %',
                'noise' => 'nobody near',
                'ventilation' => 'extraction outside',
                'ready' => array_fill_keys(
                    [
                        'smoke_alarm',
                        'extinguisher',
                        'eyes_and_ears',
                        'dust_extraction',
                        'shade',
                        'screen',
                        'bare_floor',
                        'fire_watch',
                    ],
                    true,
                ),
            ],
            'brief' => $brief + [
                'accuracy' => '0.1 mm',
                'margin' => '5 mm',
                'duty' => '40 %',
                'weekly' => '20 h',
                'experience' => [
                    'fitting' => 'practised',
                    'crimping' => 'practised',
                    'soldering' => 'practised',
                    'mains' => 'practised',
                    'printing' => 'practised',
                    'software' => 'practised',
                ],
                'outline' => [
                    'length' => '700 mm',
                    'width' => '600 mm',
                    'height' => '600 mm',
                    'mass' => '30 kg',
                    'evidence' => 'measured',
                ],
            ],
        ];
    }

    /**
     * @param  array<string, string|bool>  $specs  as its sheet has them
     * @param  array<string, mixed>  $need  further members of the need; `ports` are those of the part
     */
    public function part(string $ref, string $family, array $specs, array $need = []): self
    {
        $ports = $need['ports'] ?? null;
        unset($need['ports']);
        $sheet = static fn (array $all): array => array_map(
            static fn (string|bool $v): array => ['value' => $v, 'evidence' => 'datasheet'],
            $all,
        );
        $this->file['parts'][] = array_filter([
            'ref' => "P-{$ref}",
            'family' => $family,
            'name' => ucfirst(str_replace('-', ' ', $ref)),
            'specs' => $sheet($specs),
            'ports' => $ports === null
                    ? null
                    : array_map(
                        static fn (array $p): array => isset($p['specs']) ? ['specs' => $sheet($p['specs'])] + $p : $p,
                        $ports,
                    ),
        ]);
        $this->file['needs'][] = $need + [
            'ref' => $ref,
            'role' => ucfirst(str_replace('-', ' ', $ref)),
            'family' => $family,
            'quantity' => 1,
            'candidates' => ["P-{$ref}"],
            'choice' => "P-{$ref}",
            'purpose' => 'core',
        ];

        return $this;
    }

    /**
     * A lead that is made: ferrules at screws, crimps elsewhere.
     *
     * @param  array<string, mixed>  $rest
     */
    public function lead(string $from, string $to, string $size, string $length, array $rest = []): self
    {
        $conductor = [
            'size' => $size,
            'evidence' => 'datasheet',
            'stranding' => ($rest['route'] ?? 'fixed') === 'flexing' ? 'fine' : 'stranded',
            'insulation' => 'PVC 300/500 V',
        ];
        $this->file['leads'][] = array_replace_recursive(
            [
                'ref' => 'W'.++$this->leads,
                'from' => $from,
                'to' => $to,
                'conductor' => $conductor,
                'length' => $length,
                'route' => 'fixed',
                'diameter' => '4 mm',
                'made' => true,
                'ends' => [
                    ['termination' => 'ferrule', 'contacts_per_pole' => 1, 'strain_relief' => true],
                    ['termination' => 'crimp', 'contacts_per_pole' => 1, 'strain_relief' => true],
                ],
            ],
            $rest,
        );

        return $this;
    }

    /** The last lead's ref. */
    public function last(): string
    {
        return "W{$this->leads}";
    }

    /**
     * @param  array<string, mixed>  $entry
     */
    public function add(string $section, array $entry): self
    {
        $this->file[$section][] = $entry;

        return $this;
    }

    public function set(string $about, string $value, string $kind = 'setting'): self
    {
        return $this->add('settings', [
            'ref' => 'S'.(count($this->file['settings'] ?? []) + 1),
            'kind' => $kind,
            'about' => $about,
            'value' => $value,
        ]);
    }

    /** From the wall: an inlet with fuse and switch, a covered supply, and its earth. */
    public function supplied(string $volts, string $amps, string $fuse = '6.3 A'): self
    {
        $watts = (float) $volts * (float) $amps;

        return $this->part('inlet', 'mains_inlet', [
            'rated_current' => '10 A',
            'rated_voltage' => '250 V',
            'fuse_rating' => $fuse,
            'fuse_kind' => 'ceramic',
            'speed' => 'slow',
            'switch' => true,
            'poles_switched' => '2',
            'contact_rating' => '10 A',
        ])
            ->part('psu', 'power_supply', [
                'output_voltage' => $volts,
                'voltage_tolerance' => '1 %',
                'rated_current' => $amps,
                'rated_power' => "{$watts} W",
                'on_short' => 'shuts down and tries again',
                'input_voltage' => '90 V to 264 V',
                'mains_selector' => 'automatic',
                'efficiency' => '90 %',
                'power_factor' => '0.95',
                'cooling' => 'fan',
                'own_fuse' => true,
                'own_switch' => true,
                'terminal_cover' => true,
                'earth_terminal' => true,
                'contact_rating' => '20 A',
                'contacts_per_pole' => '3',
                'start_line' => 'none',
            ])
            ->lead('inlet.out', 'psu.mains', '1 mm²', '0.3 m')
            ->lead('inlet.earth', 'psu.earth', '1.5 mm²', '0.3 m', [
                'bond' => '0.03 Ω',
                'conductor' => ['insulation' => 'green and yellow PVC'],
            ]);
    }

    /** From the wall by a supply with a plug of its own. */
    public function plugged(string $volts, string $amps): self
    {
        $watts = (float) $volts * (float) $amps;

        return $this->part('psu', 'plug_supply', [
            'output_voltage' => $volts,
            'voltage_tolerance' => '2 %',
            'rated_current' => $amps,
            'rated_power' => "{$watts} W",
            'on_short' => 'shuts down and tries again',
            'input_voltage' => '100 V to 240 V',
            'efficiency' => '87 %',
            'power_factor' => '0.55',
            'derate_from' => '40 °C',
            'contact_rating' => '7.5 A',
        ]);
    }

    /**
     * A control board with so many driver slots, and the drivers in them.
     *
     * @param  list<string>  $axes
     * @param  list<array<string, mixed>>  $ports
     */
    public function controlled(array $axes, array $ports, string $most = '30 V', string $fuse = '15 A'): self
    {
        $slots = array_map(
            static fn (string $axis): array => [
                'name' => "drv-{$axis}",
                'kind' => 'outlet',
                'fed_from' => 'power',
                'specs' => ['rated_current' => '4 A', 'use' => 'motor'],
            ],
            $axes,
        );
        $this->part(
            'board',
            'controller_board',
            [
                'own_current' => '0.2 A',
                'min_voltage' => '11 V',
                'max_voltage' => $most,
                'input_terminal_rating' => '20 A',
                'input_fuse' => $fuse,
                'fuse_kind' => 'blade',
                'logic_voltage' => '3.3 V',
                'driver_slots' => (string) count($axes),
                'heater_outputs' => '3',
                'fan_outputs' => '3',
                'thermistor_inputs' => '3',
                'switch_inputs' => '6',
                'step_rate' => '250 kHz',
                'body_length' => '120 mm',
                'body_width' => '90 mm',
                'body_height' => '25 mm',
                'firmware' => 'released',
            ],
            ['ports' => [...$slots, ...$ports]],
        );
        $this->lead('psu.out', 'board.power', '2.5 mm²', '0.4 m');
        foreach ($axes as $axis) {
            $this->part(
                "drv-{$axis}",
                'motor_driver',
                [
                    'min_voltage' => '5 V',
                    'max_voltage' => '36 V',
                    'continuous_current' => '2 A',
                    'bare_current' => '1.4 A',
                    'set_current' => '1.1 A',
                    'supply_current' => '0.6 A',
                    'heat_sink' => true,
                    'mode' => 'serial',
                    'microsteps' => '16',
                    'signal_voltage' => '3.3 V',
                ],
                ['sits_in' => "board.drv-{$axis}"],
            )
                ->set("driver.drv-{$axis}.current", '1.1 A')
                ->set("driver.drv-{$axis}.microsteps", '16')
                ->set("slot.drv-{$axis}.mode", 'for serial', 'link')
                ->set("slot.drv-{$axis}.sensorless", 'open', 'link');
        }

        return $this;
    }

    /**
     * A motor on a driver of the board, and the axis it moves by a belt.
     *
     * @param  array<string, mixed>  $drive
     * @param  array<string, mixed>  $axis
     */
    public function belted(string $ref, string $along, array $drive, array $axis): self
    {
        return $this->motor($ref)
            ->part("pulley-{$ref}", 'pulley', [
                'teeth' => '20',
                'pitch' => '2 mm',
                'bore' => '5 mm',
                'grub_screws' => '2',
                'width' => '6 mm',
            ])
            ->part("belt-{$ref}", 'belt', [
                'pitch' => '2 mm',
                'width' => '6 mm',
                'core' => 'glass fibre',
                'closed' => false,
            ])
            ->axis($ref, $along, $drive + ['by' => "pulley-{$ref}"], $axis)
            ->set("axis.{$ref}.steps_per_mm", '80');
    }

    /**
     * The same by a screw of 8 mm lead.
     *
     * @param  array<string, mixed>  $drive
     * @param  array<string, mixed>  $axis
     * @param  array<string, string|bool>  $screw
     */
    public function screwed(string $ref, string $along, array $drive, array $axis, array $screw = []): self
    {
        return $this->motor($ref)
            ->part(
                "screw-{$ref}",
                'drive_screw',
                $screw + [
                    'kind' => 'lead screw',
                    'diameter' => '8 mm',
                    'root_diameter' => '6.2 mm',
                    'lead' => '8 mm',
                    'length' => '350 mm',
                    'backlash' => '20 µm',
                ],
            )
            ->axis(
                $ref,
                $along,
                $drive + [
                    'by' => "screw-{$ref}",
                    'support' => 'fixed-supported',
                    'unsupported' => '300 mm',
                    'end_play' => '10 µm',
                    'turning_torque' => '0.01 N m',
                ],
                $axis,
            )
            ->set("axis.{$ref}.steps_per_mm", (string) (3200 / (float) ($screw['lead'] ?? '8 mm')));
    }

    public function motor(string $ref): self
    {
        return $this->part("motor-{$ref}", 'stepper_motor', [
            'frame' => '17',
            'rated_current' => '1.5 A',
            'holding_torque' => '0.45 N m',
            'step_angle' => '1.8 °',
            'phase_resistance' => '2 Ω',
            'inductance' => '3 mH',
            'rotor_inertia' => '68 g cm²',
            'shaft_diameter' => '5 mm',
            'shaft_form' => 'flat',
            'body_length' => '40 mm',
            'mass' => '280 g',
        ])->lead("drv-{$ref}.motor", "motor-{$ref}.phases", '22 AWG', '0.8 m');
    }

    /**
     * @param  array<string, mixed>  $drive
     * @param  array<string, mixed>  $axis
     */
    public function axis(string $ref, string $along, array $drive, array $axis): self
    {
        $this->part("switch-{$ref}", 'limit_switch', [
            'kind' => 'lever',
            'normally' => 'closed',
            'contact_rating' => '1 A',
            'max_voltage' => '30 V',
        ])
            ->lead("switch-{$ref}.signal", "board.in-{$ref}", '24 AWG', '0.8 m')
            ->add(
                'axes',
                $axis + [
                    'ref' => $ref,
                    'name' => strtoupper($ref),
                    'along' => $along,
                    'blocks' => 2,
                    'block_pitch' => '80 mm',
                    'drive' => $drive + [
                        'motors' => ["motor-{$ref}"],
                        'top_speed' => '150 mm/s',
                        'acceleration' => '2000 mm/s²',
                        'force' => '0 N',
                        'friction' => '3 N',
                        'efficiency' => '90 %',
                        'incline' => '0 °',
                        'inertia' => '0.02 kg cm²',
                        'board' => 'board',
                        'closed_loop' => false,
                        'lever' => '30 mm',
                        'spread' => '80 mm',
                        'evidence' => 'measured',
                    ],
                    'homing' => ['by' => 'switch', 'sensors' => ["switch-{$ref}"], 'both_ends' => false],
                ],
            )
            ->set("axis.{$ref}.direction", 'tried by hand')
            ->set("axis.{$ref}.homing", 'switch');

        return $this;
    }

    /** Something the board drives: a fan, a heater, a lamp. */
    public function driven(string $port, string $ref, string $size = '22 AWG', string $route = 'fixed'): self
    {
        return $this->lead("board.{$port}", "{$ref}.power", $size, '0.8 m', ['route' => $route]);
    }

    /** A stop in the line from the supply, before all that can hurt: what `$from` fed it feeds now. */
    public function stopped(string $from = 'psu.out', string $size = '2.5 mm²'): self
    {
        $this->part(
            'stop',
            'stop_button',
            [
                'latching' => true,
                'positive_opening' => true,
                'normally' => 'closed',
                'rated_current' => '20 A',
                'voltage_rating' => '400 V',
                'dc_voltage' => '125 V',
                'contacts' => '2',
                'separate_reset' => true,
            ],
            ['purpose' => 'safety'],
        );
        foreach ($this->file['leads'] as &$lead) {
            if ($lead['from'] === $from && ! str_ends_with($lead['to'], '.earth')) {
                $lead['from'] = 'stop.out';
            }
        }
        unset($lead);

        return $this->lead($from, 'stop.in', $size, '0.6 m');
    }

    /** An earth lead from the inlet to something that can be touched, and what was read along it. */
    public function earthed(string $ref, string $from = 'inlet', string $size = '1.5 mm²'): self
    {
        return $this->lead("{$from}.earth", "{$ref}.earth", $size, '0.8 m', [
            'bond' => '0.04 Ω',
            'conductor' => ['insulation' => 'green and yellow PVC'],
        ]);
    }

    /**
     * @return array<string, mixed>
     */
    public function file(): array
    {
        return $this->file;
    }

    public function build(): Build
    {
        return BuildFile::build($this->file);
    }
}
