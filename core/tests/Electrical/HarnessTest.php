<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Views\Harness;
use Magpie\Core\Electrical\Views\WiringMap;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Machine\Build;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\TestCase;

/** What is cut, crimped and drawn follows from the leads. */
final class HarnessTest extends TestCase
{
    private function build(): Build
    {
        return (new SampleBuild(
            Examples::file(
                [
                    Examples::part('inlet', 'mains_inlet', ['rated_current' => '10 A']),
                    Examples::part('psu', 'power_supply', [
                        'output_voltage' => '24 V',
                        'rated_current' => '20 A',
                        'efficiency' => '90 %',
                        'power_factor' => '1',
                    ]),
                    Examples::part('module', 'switching_module', ['rated_current' => '25 A']),
                    Examples::part('bed', 'heater', ['rated_voltage' => '24 V', 'rated_power' => '288 W']),
                    Examples::part('drv', 'motor_driver', ['supply_current' => '1 A']),
                    Examples::part('motor', 'stepper_motor', []),
                    Examples::part('plug', 'contact_housing', ['contact_rating' => '10 A']),
                ],
                [
                    'leads' => [
                        [
                            'ref' => 'W1',
                            'from' => 'inlet.out',
                            'to' => 'psu.mains',
                            'conductor' => ['size' => '0.75 mm²', 'stranding' => 'fine'],
                            'length' => '0.5 m',
                            'route' => 'fixed',
                            'ends' => [['termination' => 'fork'], ['termination' => 'fork']],
                        ],
                        [
                            'ref' => 'W2',
                            'from' => 'psu.out',
                            'to' => 'module.in',
                            'conductor' => ['size' => '1.5 mm²', 'evidence' => 'datasheet', 'stranding' => 'fine'],
                            'length' => '0.401 m',
                            'route' => 'fixed',
                            'ends' => [['termination' => 'ferrule'], ['termination' => 'ferrule']],
                        ],
                        [
                            'ref' => 'W3',
                            'from' => 'module.out',
                            'to' => 'bed.power',
                            'conductor' => ['size' => '16 AWG', 'stranding' => 'fine', 'parallel' => 2],
                            'length' => '3 ft',
                            'route' => 'flexing',
                            'made' => true,
                            'ends' => [
                                ['termination' => 'ferrule'],
                                ['termination' => 'crimp', 'contact' => 'plug', 'contacts_per_pole' => 2],
                            ],
                        ],
                        ['ref' => 'W4', 'from' => 'psu.out', 'to' => 'drv.power'],
                        [
                            'ref' => 'W5',
                            'from' => 'drv.motor',
                            'to' => 'motor.phases',
                            'conductor' => ['size' => '20 AWG'],
                            'length' => '1 m',
                            'ends' => [['termination' => 'ferrule'], ['termination' => 'moulded']],
                        ],
                        [
                            'ref' => 'W6',
                            'from' => 'inlet.earth',
                            'to' => 'psu.earth',
                            'conductor' => ['size' => '0.75 mm²'],
                            'length' => '0.5 m',
                            'ends' => [['termination' => 'ring'], ['termination' => 'ring']],
                        ],
                    ],
                ],
            ),
        ))->build;
    }

    public function test_cores_lengths_ends_and_pull_tests_of_every_lead(): void
    {
        $list = (new Harness($this->build()))->toArray();
        $rows = array_column($list['rows'], null, 'ref');

        self::assertSame(['mains', 'power', 'power', 'power', 'motor', 'earth'], array_column($list['rows'], 'use'));
        // Two poles of two conductors; four phases; one earth.
        self::assertSame([2, 2, 4, 2, 4, 1], array_column($list['rows'], 'cores'));
        // A tenth of slack, up to the next centimetre: 0.401 m gives 450; 3 ft are 914.4 mm.
        self::assertSame(
            ['550 mm', '450 mm', '1010 mm', null, '1100 mm', '550 mm'],
            array_column($list['rows'], 'cut'),
        );
        self::assertSame(
            ['plug', 4],
            [$rows['W3']['ends'][1]['contact'], $rows['W3']['ends'][1]['pieces']],
            'Two contacts for each of two poles.',
        );
        self::assertSame([4, 133, true], [$rows['W3']['ends'][0]['pieces'], $rows['W3']['pull'], $rows['W3']['made']]);
        self::assertSame(0, $rows['W5']['ends'][1]['pieces'], 'What is moulded on is not bought.');
        self::assertSame(['size', 'length', 'stranding', 'route', 'an end', 'the other end'], $rows['W4']['missing']);
        self::assertSame(1, $list['made']);
    }

    public function test_what_to_have_is_summed(): void
    {
        $list = (new Harness($this->build()))->toArray();
        $contacts = array_column($list['contacts'], 'pieces', 'what');
        $metres = array_column($list['conductors'], 'metres', 'what');

        self::assertSame(
            ['ferrule' => 12, 'fork' => 4, 'plug' => 4, 'ring' => 2],
            array_intersect_key($contacts, ['ferrule' => 0, 'fork' => 0, 'plug' => 0, 'ring' => 0]),
        );
        // 4 conductors of 1.01 m.
        self::assertSame(4.04, $metres['16 AWG fine']);
        self::assertSame(2 * (2 + 2 + 4 + 2 + 4 + 1), $list['joints']);
    }

    public function test_the_list_goes_out_as_rows_a_spreadsheet_reads(): void
    {
        $lines = [...(new Harness($this->build()))->lines()];
        $heading = str_getcsv(trim($lines[0]), ',', '"', '');

        self::assertCount(7, $lines);
        foreach ($lines as $line) {
            self::assertStringEndsWith("\r\n", $line);
            self::assertCount(count($heading), str_getcsv(trim($line), ',', '"', ''));
        }
        self::assertStringContainsString('W3', $lines[3]);
    }

    public function test_the_drawing_knows_currents_fill_and_the_way_to_each_load(): void
    {
        $map = (new WiringMap(Rules::inspector()->inspect($this->build())))->toArray();
        $leads = array_column($map['leads'], null, 'ref');
        $loads = array_column($map['loads'], null, 'port');

        self::assertSame(['W2', 'W3'], $loads['bed.power']['way']);
        self::assertEqualsWithDelta(11.9, ((array) $leads['W3']['amps'])['everything-on'], 0.2);
        self::assertGreaterThan(0.4, $leads['W2']['fill']);
        self::assertFalse($leads['W3']['proven'], 'Its size rests on nothing.');
        self::assertSame([], (array) $leads['W6']['amps'], 'An earth carries nothing.');
        self::assertLessThan(24.0, ((array) ((array) $map['volts'])['everything-on'])['bed.power']);
    }

    public function test_every_lead_of_the_demos_is_drawn_and_listed(): void
    {
        foreach (['linnet', 'dunlin'] as $name) {
            $build = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json"));
            $map = (new WiringMap(Rules::inspector()->inspect($build)))->toArray();
            $ports = array_column($map['ports'], 'ref');

            self::assertSame(array_keys($build->leads), array_column($map['leads'], 'ref'));
            self::assertSame(array_keys($build->leads), array_column((new Harness($build))->toArray()['rows'], 'ref'));
            foreach ($map['leads'] as $lead) {
                self::assertContains($lead['from'], $ports);
                self::assertContains($lead['to'], $ports);
            }
            foreach ($map['loads'] as $load) {
                $last = $build->leads[end($load['way'])]->to;
                if ($last->text() !== $load['port']) {
                    // Fed through the slot it sits in.
                    self::assertSame($build->needs[explode('.', $load['port'])[0]]->host(), $last->need);
                }
            }
        }
    }

    public function test_what_sits_in_a_slot_is_drawn_with_what_it_takes(): void
    {
        $build = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/dunlin.json'));
        $seats = (new WiringMap(Rules::inspector()->inspect($build)))->toArray()['seats'];

        self::assertSame(
            [
                'board.drv-a' => 'drv-a.power',
                'board.drv-b' => 'drv-b.power',
                'board.drv-z' => 'drv-z.power',
                'board.drv-e' => 'drv-e.power',
            ],
            array_column($seats, 'to', 'from'),
        );
        self::assertEqualsWithDelta(0.6, ((array) $seats[0]['amps'])['everything-on'] ?? 0.0, 1e-6);
    }
}
