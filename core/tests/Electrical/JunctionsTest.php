<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Rules\Junctions;
use Magpie\Core\Electrical\Stops;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Remedies\RemedySearch;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\TestCase;

/** Plugs, terminals and splices that leads end on: what goes through one is summed over all of them. */
final class JunctionsTest extends TestCase
{
    public function test_one_plug_carries_what_all_leads_behind_it_ask(): void
    {
        $finding = (new SampleBuild(Junctions::bedBehind('1')))->finding('E27/plug');

        $this->assertSame(Verdict::Danger, $finding->verdict);
        $this->assertStringStartsWith(
            '12 A through one contact of plug, circuit',
            str_replace("\u{a0}", ' ', $finding->headline),
        );
        // Each lead alone would pass: neither is asked again at its end there.
        $this->assertSame(Verdict::Unproven, (new SampleBuild(Junctions::bedBehind('1')))->finding('E02/W2')->verdict);
    }

    public function test_what_a_sheet_does_not_say_is_asked_for(): void
    {
        foreach (['contact_rating', 'ways', 'wire_to'] as $key) {
            $file = Junctions::bedBehind('2');
            unset($file['parts'][1]['specs'][$key]);
            $finding = (new SampleBuild($file))->finding('E27/plug');

            $this->assertSame(Verdict::Unproven, $finding->verdict, $key);
            $this->assertContains("parts/plug/specs/{$key}", $finding->wanted, $key);
        }
    }

    public function test_conductors_have_to_fit_and_ways_to_be_enough(): void
    {
        foreach (
            [
                ['wire_to', '2 mm²', 'W1 (2.5 mm²) is too thick for it'],
                ['wire_from', '4 mm²', 'W1 (2.5 mm²) is too thin for it'],
                ['ways', '3', 'its circuits ask for 4 ways, and it has 3'],
            ] as [$key, $value, $says]
        ) {
            $finding = (new SampleBuild(Junctions::bedBehind('2', [$key => $value])))->finding('E27/plug');

            $this->assertSame(Verdict::Fails, $finding->verdict, $key);
            $this->assertStringContainsString($says, str_replace("\u{a0}", ' ', $finding->headline));
        }
    }

    public function test_circuits_of_one_plug_are_not_one_circuit(): void
    {
        $file = self::twoCircuits('2');
        $flow = Circuits::of(new Survey((new SampleBuild($file))->build))->flows()[0];

        $this->assertEqualsWithDelta(1.0, $flow->current('W2')?->in('A'), 1e-6);
        $this->assertEqualsWithDelta(2.0, $flow->current('W4')?->in('A'), 1e-6);
        $finding = (new SampleBuild($file))->finding('E27/plug');
        $this->assertSame(Verdict::Holds, $finding->verdict);
        $this->assertStringContainsString('plug, circuit-2', $finding->headline);
    }

    public function test_a_lead_cannot_end_on_a_circuit_that_is_not_there(): void
    {
        $this->expectExceptionMessage('has no port "circuit-2"');
        new SampleBuild(self::twoCircuits('1'));
    }

    public function test_a_terminal_takes_so_many_conductors(): void
    {
        foreach (['3' => Verdict::Holds, '2' => Verdict::Fails] as $takes => $verdict) {
            $file = Junctions::bedBehind('1');
            $file['parts'][1] = Examples::part('plug', 'terminal_block', [
                'contact_rating' => '24 A',
                'per_terminal' => (string) $takes,
                'wire_from' => '0.2 mm²',
                'wire_to' => '4 mm²',
            ])[0];
            $file['needs'][1]['family'] = 'terminal_block';

            $this->assertSame($verdict, (new SampleBuild($file))->finding('E27/plug')->verdict, "{$takes}");
        }
    }

    public function test_a_plug_for_low_voltage_is_none_for_the_mains(): void
    {
        $wall = Examples::part('wall', 'mains_inlet', ['rated_current' => '10 A']);
        $mat = Examples::part('mat', 'heater', ['rated_power' => '400 W', 'rated_voltage' => '230 V']);
        foreach (['60 V' => Verdict::Danger, '250 V' => Verdict::Holds] as $rated => $verdict) {
            $plug = Examples::part('plug', 'connector', ['voltage_rating' => $rated]);
            $sample = new SampleBuild(
                Examples::file(
                    [$wall, $mat, $plug],
                    [
                        'leads' => [
                            ['ref' => 'W1', 'from' => 'wall.out', 'to' => 'plug.circuit'],
                            ['ref' => 'W2', 'from' => 'plug.circuit', 'to' => 'mat.power'],
                        ],
                    ],
                ),
            );

            $this->assertSame($verdict, $sample->finding('E26/plug')->verdict, $rated);
        }
    }

    public function test_signals_and_phases_run_through_a_junction_as_if_it_were_not_there(): void
    {
        $board = Examples::part('board', 'controller_board', ['logic_voltage' => '3.3 V', 'driver_slots' => '1']);
        $board[0]['ports'] = [['name' => 'sig', 'kind' => 'signal'], ['name' => 'in', 'kind' => 'signal']];
        $row = Examples::part('row', 'terminal_block', ['circuits' => '4']);
        $lead = static fn (string $ref, string $from, string $to): array => [
            'ref' => $ref,
            'from' => $from,
            'to' => $to,
        ];
        $file = static fn (bool $through): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                Examples::part('stop', 'stop_button', ['normally' => 'closed']),
                $board,
                $row,
                Examples::part('drv', 'motor_driver', ['set_current' => '1 A']),
                Examples::part('motor', 'stepper_motor', ['rated_current' => '2 A']),
                Examples::part('module', 'switching_module', ['control_min' => '3 V', 'control_max' => '32 V']),
                Examples::part('bed', 'heater', ['rated_power' => '100 W', 'rated_voltage' => '24 V']),
            ],
            [
                'leads' => [
                    $lead('P1', 'psu.out', 'stop.in'),
                    $lead('P2', 'stop.out', 'board.power'),
                    $lead('P3', 'psu.out', 'module.in'),
                    $lead('P4', 'module.out', 'bed.power'),
                    ...$through
                        ? [
                            $lead('S1', 'board.sig', 'row.circuit'),
                            $lead('S2', 'row.circuit', 'module.control'),
                            $lead('M1', 'drv.motor', 'row.circuit-2'),
                            $lead('M2', 'row.circuit-2', 'motor.phases'),
                        ]
                        : [$lead('S2', 'board.sig', 'module.control'), $lead('M1', 'drv.motor', 'motor.phases')],
                ],
            ],
        );
        [$plain, $joined] = [new SampleBuild($file(false)), new SampleBuild($file(true))];
        foreach (['E08/drv', 'E11/S2', 'E12/board'] as $key) {
            $this->assertSame($plain->finding($key)->headline, $joined->finding($key)->headline, $key);
        }
        // The board is dead with the stop pressed, and so is its command, however many terminals it runs through.
        foreach ([$plain, $joined] as $sample) {
            $stops = Stops::of(new Survey($sample->build));
            $this->assertSame('live', $stops->state([])['bed']);
            $this->assertSame('off', $stops->state(['stop'])['bed']);
        }
    }

    public function test_a_motor_s_phases_load_the_contacts_they_run_through(): void
    {
        foreach (['2 A' => Verdict::Danger, '3 A' => Verdict::Holds] as $rated => $verdict) {
            $lead = static fn (string $ref, string $from, string $to): array => [
                'ref' => $ref,
                'from' => $from,
                'to' => $to,
                'conductor' => ['size' => '0.5 mm²', 'evidence' => 'datasheet'],
            ];
            $sample = new SampleBuild(
                Examples::file(
                    [
                        Examples::part('plug', 'connector', [
                            'contact_rating' => $rated,
                            'ways' => '4',
                            'wire_to' => '1 mm²',
                        ]),
                        Examples::part('drv', 'motor_driver', ['set_current' => '2.2 A']),
                        Examples::part('motor', 'stepper_motor', []),
                    ],
                    [
                        'leads' => [
                            $lead('W1', 'drv.motor', 'plug.circuit'),
                            $lead('W2', 'plug.circuit', 'motor.phases'),
                        ],
                    ],
                ),
            );

            $this->assertSame($verdict, $sample->finding('E27/plug')->verdict, $rated);
        }
    }

    public function test_a_thicker_conductor_and_the_block_that_takes_it_are_found_together(): void
    {
        // 12 A through 1 mm² is too much; the block takes nothing thicker, and no further conductor.
        $block = static fn (string $ref, string $thickest): array => Examples::part($ref, 'terminal_block', [
            'contact_rating' => '24 A',
            'per_terminal' => '3',
            'wire_from' => '0.2 mm²',
            'wire_to' => $thickest,
        ]);
        $file = Junctions::bedBehind('1');
        [$file['parts'][1], $file['needs'][1]] = $block('plug', '1 mm²');
        foreach ($file['leads'] as $i => $lead) {
            $file['leads'][$i]['conductor']['size'] = '1 mm²';
        }
        $shelf = [LibraryFile::read(['part' => $block('wide', '4 mm²')[0]])];
        $standing = Standing::of(Rules::inspector(), (new SampleBuild($file))->build);
        $finding = $standing->findings()['E03/W1'];
        $this->assertContains($finding->verdict, [Verdict::Danger, Verdict::Fails, Verdict::Tight]);

        $alone = (new RemedySearch($standing))->for($finding)['remedies'];
        $together = (new RemedySearch($standing, $shelf))->for($finding)['remedies'];

        $this->assertStringNotContainsString('and with it', implode(' ', array_column($alone, 'says')));
        $this->assertStringContainsString('; and with it: ', $together[0]['says'] ?? '');
        $this->assertContains('needs', array_column($together[0]['changes'], 'section'));
        $this->assertContains('leads', array_column($together[0]['changes'], 'section'));
    }

    /**
     * Two supplies through one plug.
     *
     * @return array<string, mixed>
     */
    private static function twoCircuits(string $circuits): array
    {
        $supply = static fn (string $ref, string $volts): array => Examples::part($ref, 'power_supply', [
            'output_voltage' => $volts,
            'rated_current' => '10 A',
        ]);
        $lead = static fn (string $ref, string $from, string $to): array => [
            'ref' => $ref,
            'from' => $from,
            'to' => $to,
            'conductor' => ['size' => '1 mm²', 'evidence' => 'datasheet'],
        ];

        return Examples::file(
            [
                $supply('main', '24 V'),
                $supply('logic', '5 V'),
                Examples::part('plug', 'connector', [
                    'contact_rating' => '5 A',
                    'circuits' => $circuits,
                    'ways' => '4',
                    'wire_to' => '1.5 mm²',
                ]),
                Examples::part('fan', 'fan', ['rated_current' => '1 A', 'rated_voltage' => '24 V']),
                Examples::part('host', 'fan', ['rated_current' => '2 A', 'rated_voltage' => '5 V']),
            ],
            [
                'leads' => [
                    $lead('W1', 'main.out', 'plug.circuit'),
                    $lead('W2', 'plug.circuit', 'fan.power'),
                    $lead('W3', 'logic.out', 'plug.circuit-2'),
                    $lead('W4', 'plug.circuit-2', 'host.power'),
                ],
            ],
        );
    }
}
