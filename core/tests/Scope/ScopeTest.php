<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Scope;

use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Scale;
use Magpie\Core\Machine\ScaleKind;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Scope\BriefFigures;
use Magpie\Core\Scope\Countries;
use Magpie\Core\Scope\Envelope;
use Magpie\Core\Scope\Scaling;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ScopeTest extends TestCase
{
    private const PIECES = [
        [
            'ref' => 'a',
            'name' => 'Board',
            'length' => '90 mm',
            'width' => '530 mm',
            'height' => '9 mm',
            'per_week' => 4,
            'volume' => '60 cm³',
        ],
        ['ref' => 'b', 'name' => 'Disc', 'length' => '150 mm', 'width' => '150 mm', 'height' => '40 mm'],
    ];

    public function test_the_envelope_holds_every_piece_lying_the_better_way(): void
    {
        $envelope = new Envelope(
            (new SampleBuild(['workpieces' => self::PIECES, 'brief' => ['margin' => '15 mm']]))->build,
        );

        // 530 + 30 along whichever way it was written; the disc decides across and above.
        self::assertSame(
            ['560 mm', '180 mm', '55 mm'],
            array_map(static fn (?Quantity $q): ?string => $q?->to('mm')->text(), array_values($envelope->sizes)),
        );
        self::assertSame(
            ['a', 'b', 'b'],
            array_map(static fn ($w): ?string => $w?->ref, array_values($envelope->deciding)),
        );
        $turned = new Envelope(
            (new SampleBuild([
                'workpieces' => self::PIECES,
                'brief' => ['size' => ['x' => '300 mm', 'y' => '640 mm']],
            ]))->build,
        );
        self::assertSame(
            '550 mm',
            $turned->sizes['y']?->to('mm')->text(),
            'A machine that is longer along y takes the long side there; 10 mm a side by default.',
        );
        self::assertSame('640 mm', $turned->workArea('y')?->text());
    }

    /**
     * @return iterable<string, array{array<string, mixed>, string, string, list<string>}>
     */
    public static function figures(): iterable
    {
        $site = ['mains_voltage' => '230 V', 'outlet' => '13 A', 'other_load' => '1 A'];
        yield 'no workpiece' => [
            [],
            'envelope',
            'every workpiece',
            ['size of a workpiece along x', 'size of a workpiece along y', 'size of a workpiece along z'],
        ];
        // M15: 300 gives a sheet of 320 and a heater of 280; T02: 784 cm² at 0.4 to 0.6 W.
        yield 'plates of a 300 mm printer' => [
            ['brief' => ['process' => 'printing', 'size' => ['x' => '300 mm', 'y' => '300 mm']]],
            'plates',
            '320 mm × 320 mm, heater 280 mm × 280 mm; 314 W to 470 W',
            [],
        ];
        // A 120 V heater on 230 V: (230/120)² = 3.674; the other way round 0.272.
        yield 'a mains heater in Europe' => [
            ['site' => $site],
            'mains-heater',
            'made for 230 V: one made for 120 V would give 367 %',
            [],
        ];
        yield 'a mains heater in America' => [
            ['site' => ['mains_voltage' => '120 V']],
            'mains-heater',
            'made for 230 V would give 27.2 %',
            [],
        ];
        // 800 W / (0.75 × 0.95 × 0.65) = 1727 VA: 7.51 A at 230 V, below 10.4 − 1; on 120 V 14.39 A, above 12 A.
        yield 'a spindle that fits' => [
            ['site' => $site, 'brief' => ['spindle_power' => '800 W']],
            'spindle',
            'about 7.51 A of the 9.4 A that are left: this circuit carries it',
            [],
        ];
        yield 'one that fits if nothing else runs' => [
            ['site' => ['mains_voltage' => '230 V', 'outlet' => '13 A'], 'brief' => ['spindle_power' => '800 W']],
            'spindle',
            'of the 10.4 A this outlet gives for long: it carries it while nothing else runs on its circuit',
            ['what else runs on this circuit (0 A when nothing does)'],
        ];
        yield 'a heater of its own flow' => [
            ['workpieces' => [['ref' => 'p', 'name' => 'P', 'per_week' => 2]], 'brief' => ['process' => 'printing', 'duty' => '50 %', 'weekly' => '6 h']],
            'output',
            'how many machines',
            ['flow of the hot end', 'volume of one P', 'pieces a week and their volume'],
        ];
        yield 'one machine' => [
            ['workpieces' => self::PIECES, 'brief' => ['flow' => '10 mm³/s', 'duty' => '50 %', 'weekly' => '13.4 h']],
            'output',
            'takes one machine.',
            [],
        ];
        $craft = static fn (string $family, array $brief, array $leads = []): array => [
            'parts' => [['ref' => 'i', 'family' => $family, 'name' => 'It']],
            'needs' => [['ref' => 'i', 'role' => 'It', 'family' => $family, 'choice' => 'i', 'candidates' => ['i']]],
            'brief' => $brief,
            'leads' => $leads,
        ];
        yield 'somebody helps with the mains' => [
            $craft('mains_inlet', ['helper' => 'Ros', 'experience' => ['mains' => 'none']]),
            'skills',
            'Ros helps with the mains.',
            [],
        ];
        yield 'practised on the mains' => [
            $craft('mains_inlet', ['experience' => ['mains' => 'practised']]),
            'skills',
            'You have what the build asks for.',
            [],
        ];
        yield 'leads on mains without an inlet' => [
            $craft('power_supply', ['experience' => ['mains' => 'none']], [['ref' => 'W1', 'from' => 'i.mains', 'to' => 'i.earth']]),
            'skills',
            'name a helper or a licensed electrician',
            [],
        ];
        yield 'new to software' => [
            $craft('controller_board', ['experience' => ['software' => 'none']]),
            'skills',
            'New to you: software; practise on scrap first.',
            [],
        ];
        yield 'some software' => [$craft('controller_board', ['experience' => ['software' => 'some']]), 'skills', 'You have what', []];
        yield 'nobody says' => [$craft('controller_board', []), 'skills', 'What the build asks of your hands.', ['your experience in software']];
        yield 'no trade' => [[], 'skills', 'Nothing in the build asks for a trade yet.', []];
        yield 'no tool' => [[], 'tools', 'No tool is named in the build yet.', []];
        yield 'every tool' => [
            ['needs' => [['ref' => 't', 'role' => 'Saw', 'family' => 'tool', 'owned' => 1]], 'steps' => [['ref' => 's', 'section' => 'A', 'title' => 'Cut', 'tools' => ['saw']]]],
            'tools',
            'Every tool that is named is there.',
            [],
        ];
        yield 'one that wants a circuit of its own' => [
            ['site' => ['other_load' => '4 A'] + $site, 'brief' => ['spindle_power' => '800 W']],
            'spindle',
            'only 6.4 A are left: it needs a circuit of its own',
            [],
        ];
        yield 'one that no outlet here feeds' => [
            ['site' => ['mains_voltage' => '120 V', 'outlet' => '15 A'], 'brief' => ['spindle_power' => '800 W']],
            'spindle',
            'needs a larger circuit',
            ['what else runs on this circuit (0 A when nothing does)'],
        ];
        // 4 × 60 cm³ at 10 mm³/s half the time: 48 000 s, 13.3 h; 6 h a week take 3.
        yield 'how many machines' => [
            ['workpieces' => self::PIECES, 'brief' => ['flow' => '10 mm³/s', 'duty' => '50 %', 'weekly' => '6 h']],
            'output',
            '13.3 h of machine time; at 6 h a week that takes 3 machines',
            [],
        ];
        yield 'an output without a rate' => [
            ['workpieces' => self::PIECES],
            'output',
            'how many machines',
            ['removal rate', 'share of its hours in which it works', 'hours a week it may run'],
        ];
        yield 'unskilled on the mains' => [
            [
                'parts' => [['ref' => 'i', 'family' => 'mains_inlet', 'name' => 'Inlet']],
                'needs' => [
                    [
                        'ref' => 'i',
                        'role' => 'Inlet',
                        'family' => 'mains_inlet',
                        'choice' => 'i',
                        'candidates' => ['i'],
                    ],
                ],
                'brief' => ['experience' => ['mains' => 'some']],
            ],
            'skills',
            'name a helper or a licensed electrician',
            [],
        ];
        yield 'a tool a step asks for' => [
            [
                'steps' => [['ref' => 's', 'section' => 'A', 'title' => 'Cut', 'tools' => ['saw']]],
                'needs' => [['ref' => 't', 'role' => 'Crimper', 'family' => 'tool', 'owned' => 1]],
            ],
            'tools',
            'Still to find: saw.',
            [],
        ];
    }

    /**
     * @param  array<string, mixed>  $file
     * @param  list<string>  $missing
     */
    #[DataProvider('figures')]
    public function test_what_follows_from_a_brief_worked_by_hand(
        array $file,
        string $key,
        string $says,
        array $missing,
    ): void {
        $figure = array_column((new BriefFigures((new SampleBuild($file))->build))->toArray(), null, 'key')[$key];

        self::assertStringContainsString($says, str_replace("\u{a0}", ' ', $figure['says']));
        self::assertSame($missing, $figure['missing']);
    }

    public function test_counts_and_lengths_follow_the_size(): void
    {
        $need = static fn (string $ref, int $quantity, array $scale): array => [
            'ref' => $ref,
            'role' => $ref,
            'family' => 'screw',
            'quantity' => $quantity,
            'scale' => $scale,
        ];
        $rows = (new Scaling(
            (new SampleBuild([
                'needs' => [
                    $need('nuts', 8, ['along' => 'x', 'as' => 'count', 'every' => '100 mm', 'plus' => 4]),
                    $need('member', 2, ['along' => 'x', 'as' => 'length', 'longer' => '60 mm']),
                    $need('lost', 2, ['along' => 'z', 'as' => 'length']),
                    ['ref' => 'fixed', 'role' => 'fixed', 'family' => 'screw'],
                ],
                'brief' => ['size' => ['x' => '450 mm'], 'kit_size' => ['x' => '300 mm']],
            ]))->build,
        ))->toArray();

        self::assertSame(['nuts', 'member', 'lost'], array_column($rows, 'need'));
        // 300: at 0, 100, 200, 300 and 4 more; 450: one more stretch and the short one.
        self::assertSame([8, 8, 10], [$rows[0]['written'], $rows[0]['counted'], $rows[0]['wanted']]);
        self::assertSame(["360\u{a0}mm", "510\u{a0}mm"], [$rows[1]['cut_written'], $rows[1]['cut_wanted']]);
        self::assertCount(2, $rows[2]['missing']);
        self::assertSame(
            1,
            Scaling::pieces(new Scale(Along::X, ScaleKind::Count), Quantity::of(1, 'm')),
            'Without a spacing there is one.',
        );
    }

    public function test_outlets_of_the_world_give_what_they_are_rated_for(): void
    {
        // Handbook E15: 120 V 15 A, 230 V 13 A, 230 V 16 A.
        self::assertSame(['120 V', '60 Hz', ['15 A', '20 A']], Countries::all()['United States']);
        self::assertSame(['230 V', '50 Hz', ['13 A']], Countries::all()['United Kingdom']);
        foreach (Countries::all() as $name => [$volts, $hertz, $outlets]) {
            self::assertContains($volts, ['100 V', '120 V', '127 V', '220 V', '230 V'], $name);
            self::assertContains($hertz, ['50 Hz', '60 Hz'], $name);
            self::assertNotSame([], $outlets, $name);
        }
    }
}
