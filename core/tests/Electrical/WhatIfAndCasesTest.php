<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Views\Harness;
use Magpie\Core\Electrical\Views\WhatIf;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class WhatIfAndCasesTest extends TestCase
{
    /**
     * @return array<string, mixed>
     */
    private static function bench(): array
    {
        return Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '20 A',
                    'voltage_tolerance' => '4 %',
                ]),
                Examples::part('stop', 'stop_button', []),
                Examples::part('bed', 'heater', ['rated_voltage' => '24 V', 'rated_power' => '96 W']),
                Examples::part('lamp', 'lamp', [
                    'rated_voltage' => '24 V',
                    'rated_current' => '1 A',
                    'min_voltage' => '20 V',
                    'max_voltage' => '26 V',
                ]),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'stop.in'],
                    ['ref' => 'W2', 'from' => 'stop.out', 'to' => 'bed.power'],
                    ['ref' => 'W3', 'from' => 'psu.out', 'to' => 'lamp.power'],
                ],
            ],
        );
    }

    /**
     * By hand: 96 W at 24 V is 6 Ω, 4 A. Doubled: two of them, 8 A. Sagging by 4 %: 23.04 V, 3.84 A. Pressed: none.
     *
     * @return iterable<string, array{WhatIf, float|null, float|null}> amps in W2 and W3
     */
    public static function days(): iterable
    {
        yield 'as planned' => [new WhatIf, 4.0, 1.0];
        yield 'the bed doubled' => [new WhatIf('bed'), 8.0, 1.0];
        yield 'the lamp doubled' => [new WhatIf('lamp'), 4.0, 2.0];
        yield 'the supply sags' => [new WhatIf(null, true), 3.84, 1.0];
        yield 'the stop pressed' => [new WhatIf(null, false, ['stop']), null, 1.0];
        yield 'a lamp is no stop' => [new WhatIf(null, false, ['lamp']), 4.0, 1.0];
        yield 'all at once' => [new WhatIf('bed', true, ['stop']), null, 1.0];
    }

    #[DataProvider('days')]
    public function test_a_bad_day_by_hand(WhatIf $day, ?float $bed, ?float $lamp): void
    {
        $build = (new SampleBuild(self::bench()))->build;
        $flow = Circuits::of(new Survey($day->of($build)))->flows()[0];

        foreach (['W2' => $bed, 'W3' => $lamp] as $lead => $amps) {
            $amps === null
                ? self::assertNull($flow->current($lead))
                : self::assertEqualsWithDelta($amps, $flow->current($lead)?->in('A'), 0.001, $lead);
        }
    }

    public function test_a_bad_day_leaves_the_plan_alone_and_names_what_it_makes_worse(): void
    {
        $build = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/linnet.json'));
        $text = BuildFile::write($build);
        $planned = Rules::inspector()->inspect($build);
        $worse = $planned->worseIn(Rules::inspector()->inspect((new WhatIf('spindle'))->of($build)));

        self::assertSame($text, BuildFile::write($build));
        self::assertSame([], $planned->worseIn($planned));
        self::assertContains(
            'E03/W7',
            array_column($worse, 'key'),
            'Twice the spindle is more than its lead may carry.',
        );
        foreach ($worse as $one) {
            self::assertNotSame($one['from'], $one['to']);
        }
    }

    /**
     * @return iterable<string, array{list<array{array<string, mixed>, array<string, mixed>}>, list<array<string,
     *     mixed>>, string, Verdict}>
     */
    public static function interference(): iterable
    {
        $box = Examples::part('box', 'cabinet', ['material' => 'steel', 'earthed' => true]);
        $drive = [Examples::part('drive', 'spindle_drive', []), Examples::part('spindle', 'spindle', []), $box];
        $lead = static fn (?string $screen): array => [
            ['ref' => 'W1', 'from' => 'drive.motor', 'to' => 'spindle.power'] +
            ($screen === null ? [] : ['conductor' => ['screen' => $screen]]),
        ];
        yield 'a screened lead' => [$drive, $lead('both ends'), 'E18/drive', Verdict::Holds];
        yield 'a bare one' => [$drive, $lead('none'), 'E18/drive', Verdict::Fails];
        yield 'nobody said' => [$drive, $lead(null), 'E18/drive', Verdict::Unproven];
        yield 'a plywood box' => [
            [$drive[0], $drive[1], Examples::part('box', 'cabinet', ['material' => 'plywood', 'earthed' => true])],
            $lead('both ends'),
            'E18/drive',
            Verdict::Unproven,
        ];
        yield 'blow-back' => [
            [Examples::part('arc', 'arc_source', ['start' => 'blow-back', 'duty_cycle' => '60 %']), $box],
            [],
            'E18/arc',
            Verdict::Holds,
        ];
        yield 'high frequency' => [
            [Examples::part('arc', 'arc_source', ['start' => 'high frequency', 'duty_cycle' => '60 %']), $box],
            [],
            'E18/arc',
            Verdict::Fails,
        ];
        yield 'high frequency, isolated' => [
            [
                Examples::part('arc', 'arc_source', [
                    'start' => 'high frequency',
                    'isolated' => true,
                    'duty_cycle' => '60 %',
                ]),
                $box,
            ],
            [],
            'E18/arc',
            Verdict::Holds,
        ];
        yield 'a start nobody knows' => [
            [Examples::part('arc', 'arc_source', ['duty_cycle' => '60 %']), $box],
            [],
            'E18/arc',
            Verdict::Unproven,
        ];
    }

    /**
     * @param  list<array{array<string, mixed>, array<string, mixed>}>  $parts
     * @param  list<array<string, mixed>>  $leads
     */
    #[DataProvider('interference')]
    public function test_what_throws_at_the_controls(array $parts, array $leads, string $key, Verdict $verdict): void
    {
        if ($key === 'E18/arc') {
            $parts[] = Examples::part('start', 'relay', ['kind' => 'mechanical']);
            $leads[] = [
                'ref' => 'W9',
                'from' => 'start.out',
                'to' => 'arc.torch',
                'conductor' => ['screen' => 'one end'],
            ];
        }
        $finding = (new SampleBuild(Examples::file($parts, ['leads' => $leads])))->finding($key);

        self::assertSame($verdict, $finding->verdict, $finding->headline);
    }

    /**
     * @return iterable<string, array{string, string|null, string, Verdict}>
     */
    public static function startLines(): iterable
    {
        yield 'tied, and enough on it' => ['tied to common', '0.5 A', '1 A', Verdict::Holds];
        yield 'tied, and too little on it' => ['tied to common', '2 A', '1 A', Verdict::Tight];
        yield 'open' => ['open', '0.5 A', '1 A', Verdict::Fails];
        yield 'least load not known' => ['tied to common', null, '1 A', Verdict::Unproven];
    }

    #[DataProvider('startLines')]
    public function test_a_computer_supply_in_a_machine(
        string $line,
        ?string $least,
        string $load,
        Verdict $verdict,
    ): void {
        $file = Examples::file(
            [
                Examples::part(
                    'psu',
                    'power_supply',
                    array_filter([
                        'output_voltage' => '12 V',
                        'rated_current' => '30 A',
                        'start_line' => $line,
                        'least_load' => $least,
                    ]),
                ),
                Examples::part('lamp', 'lamp', ['rated_voltage' => '12 V', 'rated_current' => $load]),
            ],
            [
                'leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'lamp.power']],
                'scenarios' => [['ref' => 'rest', 'name' => 'At rest', 'loads' => ['lamp' => '100 %']]],
            ],
        );

        self::assertSame($verdict, (new SampleBuild($file))->finding('E24/psu')->verdict);
    }

    /**
     * @return iterable<string, array{string, string, Verdict}> mains, selector
     */
    public static function selectors(): iterable
    {
        yield '230 V at 230 V' => ['230 V', '230 V', Verdict::Holds];
        yield '115 V at 230 V burns' => ['230 V', '115 V', Verdict::Danger];
        yield '230 V at 120 V does not start' => ['120 V', '230 V', Verdict::Fails];
        yield 'automatic anywhere' => ['120 V', 'automatic', Verdict::Holds];
    }

    #[DataProvider('selectors')]
    public function test_the_mains_selector_of_a_supply(string $mains, string $selector, Verdict $verdict): void
    {
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'terminal_cover' => true,
                    'earth_terminal' => true,
                    'own_switch' => true,
                    'own_fuse' => true,
                    'cooling' => 'fan',
                    'mains_selector' => $selector,
                ]),
            ],
            ['site' => ['mains_voltage' => $mains]],
        );

        self::assertSame($verdict, (new SampleBuild($file))->finding('E05-kit/psu')->verdict);
    }

    /**
     * @return iterable<string, array{string, string, string|null, string, Verdict}> job, control, other fan's job on
     * the same pin, feed
     */
    public static function fans(): iterable
    {
        yield 'a hot-end fan of its own' => ['hot end', 'speed', null, 'board.fan0', Verdict::Holds];
        yield 'with the part fan' => ['hot end', 'speed', 'part', 'board.fan0', Verdict::Fails];
        yield 'straight from the supply' => ['hot end', 'speed', null, 'psu.out', Verdict::Holds];
        yield 'a part fan straight from the supply' => ['part', 'speed', null, 'psu.out', Verdict::Fails];
        yield 'a part fan that is only switched' => ['part', 'switched', null, 'board.fan0', Verdict::Fails];
        yield 'two part fans on one pin' => ['part', 'speed', 'part', 'board.fan0', Verdict::Holds];
    }

    #[DataProvider('fans')]
    public function test_each_fan_on_the_output_its_job_asks_for(
        string $job,
        string $control,
        ?string $other,
        string $from,
        Verdict $verdict,
    ): void {
        [$board, $need] = Examples::part('board', 'controller_board', []);
        $board['ports'] = array_map(
            static fn (string $name): array => [
                'name' => $name,
                'kind' => 'outlet',
                'fed_from' => 'power',
                'specs' => Examples::sheet(['use' => 'fan', 'pin' => 'P1', 'control' => $control]),
            ],
            ['fan0', 'fan1'],
        );
        $file = Examples::file(
            [
                [$board, $need],
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                Examples::part('it', 'fan', ['job' => $job]),
                Examples::part('other', 'fan', ['job' => $other ?? 'cabinet']),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => $from, 'to' => 'it.power'],
                    ...$other === null ? [] : [['ref' => 'W2', 'from' => 'board.fan1', 'to' => 'other.power']],
                ],
            ],
        );

        self::assertSame($verdict, (new SampleBuild($file))->finding('E12-fan/it')->verdict);
    }

    public function test_a_loom_against_ones_own_hours(): void
    {
        // Three leads of two cores: twelve joints at two minutes are 0.4 h; at 8.00 an hour 3.20.
        $harness = new Harness((new SampleBuild(self::bench() + ['brief' => ['hour' => '8.00']]))->build);

        self::assertSame(12, $harness->toArray()['joints']);
        $dear = $harness->againstLoom(Money::of('5.00', 'GBP'), 2);
        self::assertSame([0.4, '3.20'], [$dear['hours'], $dear['own']]);
        self::assertStringContainsString('made by hand it costs less', $dear['says']);
        self::assertStringContainsString(
            'the loom costs less',
            $harness->againstLoom(Money::of('3.00', 'GBP'), 2)['says'],
        );
        $unknown = (new Harness((new SampleBuild(self::bench()))->build))->againstLoom(Money::of('3.00', 'GBP'), 2);
        self::assertNull($unknown['own']);
        self::assertStringContainsString('decides nothing', $unknown['says']);
    }
}
