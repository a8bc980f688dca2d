<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Format;

use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\Context;
use Magpie\Core\Format\Header;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Buying\Supplier;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Every collection of the file: what short and careless forms become, and what is refused at which member. */
final class SectionsTest extends TestCase
{
    private static function context(): Context
    {
        return new Context(Catalogue::standard(), 'GBP', ['shop' => new Supplier('shop', 'Shop', 'EUR')]);
    }

    /**
     * @return iterable<string, array{string, array<string, mixed>, array<string, mixed>}>
     */
    public static function forms(): iterable
    {
        yield 'a part in short form rests on nothing' => [
            'parts',
            [
                'ref' => 'fan',
                'family' => 'fan',
                'name' => 'Fan',
                'specs' => ['rated_current' => '0.1A', 'speed_sense' => true, 'job' => 'part'],
            ],
            [
                'ref' => 'fan',
                'family' => 'fan',
                'name' => 'Fan',
                'specs' => [
                    'rated_current' => ['value' => '0.1 A', 'evidence' => 'assumed'],
                    'speed_sense' => ['value' => true, 'evidence' => 'assumed'],
                    'job' => ['value' => 'part', 'evidence' => 'assumed'],
                ],
            ],
        ];
        yield 'a spec keeps its source, tolerance and confirmation' => [
            'parts',
            [
                'ref' => 'm',
                'family' => 'stepper_motor',
                'name' => 'M',
                'specs' => [
                    'holding_torque' => [
                        'value' => '283 oz-in',
                        'evidence' => 'listing',
                        'source' => 'shop page',
                        'tolerance' => '15%',
                        'confirmed' => true,
                    ],
                ],
            ],
            [
                'ref' => 'm',
                'family' => 'stepper_motor',
                'name' => 'M',
                'specs' => [
                    'holding_torque' => [
                        'value' => '283 oz in',
                        'evidence' => 'listing',
                        'source' => 'shop page',
                        'tolerance' => '15 %',
                        'confirmed' => true,
                    ],
                ],
            ],
        ];
        yield 'a range' => [
            'parts',
            ['ref' => 'p', 'family' => 'power_supply', 'name' => 'P', 'specs' => ['input_voltage' => '90-264V']],
            [
                'ref' => 'p',
                'family' => 'power_supply',
                'name' => 'P',
                'specs' => ['input_voltage' => ['value' => '90 V to 264 V', 'evidence' => 'assumed']],
            ],
        ];
        yield 'a port of its own and one refined' => [
            'parts',
            [
                'ref' => 'b',
                'family' => 'controller_board',
                'name' => 'B',
                'ports' => [
                    [
                        'name' => 'heater0',
                        'kind' => 'outlet',
                        'fed_from' => 'power',
                        'specs' => ['rated_current' => '5 A'],
                    ],
                    ['name' => 'power', 'specs' => ['fuse_rating' => '10 A']],
                ],
            ],
            [
                'ref' => 'b',
                'family' => 'controller_board',
                'name' => 'B',
                'ports' => [
                    [
                        'name' => 'heater0',
                        'kind' => 'outlet',
                        'fed_from' => 'power',
                        'specs' => ['rated_current' => ['value' => '5 A', 'evidence' => 'assumed']],
                    ],
                    [
                        'name' => 'power',
                        'kind' => 'inlet',
                        'draw' => 'current',
                        'specs' => ['fuse_rating' => ['value' => '10 A', 'evidence' => 'assumed']],
                    ],
                ],
            ],
        ];
        yield 'a need of one piece' => [
            'needs',
            ['ref' => 'n', 'role' => 'Fan', 'family' => 'fan', 'owned' => 0],
            ['ref' => 'n', 'role' => 'Fan', 'family' => 'fan', 'quantity' => 1],
        ];
        yield 'a bare lead' => [
            'leads',
            [
                'ref' => 'W1',
                'from' => 'a.out',
                'to' => 'b.power',
                'bundled_with' => 0,
                'conductor' => ['parallel' => 1],
                'ends' => [],
            ],
            ['ref' => 'W1', 'from' => 'a.out', 'to' => 'b.power'],
        ];
        yield 'a lead with one end described' => [
            'leads',
            [
                'ref' => 'W1',
                'from' => 'a.out',
                'to' => 'b.power',
                'conductor' => ['size' => '18AWG', 'parallel' => 2],
                'length' => '3ft',
                'ends' => [['termination' => 'ferrule']],
            ],
            [
                'ref' => 'W1',
                'from' => 'a.out',
                'to' => 'b.power',
                'conductor' => ['size' => '18 AWG', 'parallel' => 2],
                'length' => '3 ft',
                'ends' => [['termination' => 'ferrule'], []],
            ],
        ];
        yield 'a joint' => [
            'mates',
            [
                'ref' => 'm',
                'kind' => 'mount',
                'between' => ['a', 'b'],
                'screws' => [['screw' => 's', 'clamped' => ['1/4 in', '2mm']]],
            ],
            [
                'ref' => 'm',
                'kind' => 'mount',
                'between' => ['a', 'b'],
                'screws' => [['screw' => 's', 'count' => 1, 'clamped' => ['0.25 in', '2 mm']]],
            ],
        ];
        yield 'a scenario' => [
            'scenarios',
            ['ref' => 's', 'name' => 'S', 'loads' => ['a' => '50%', 'b' => '0.5'], 'duration' => '90min'],
            ['ref' => 's', 'name' => 'S', 'loads' => ['a' => '50 %', 'b' => '0.5'], 'duration' => '90 min'],
        ];
        yield 'shipping is put in order' => [
            'suppliers',
            [
                'ref' => 's',
                'name' => 'S',
                'currency' => 'EUR',
                'shipping' => [['from' => '100', 'cost' => '0'], ['from' => '0', 'cost' => '6.9']],
                'tax' => '20 %',
            ],
            [
                'ref' => 's',
                'name' => 'S',
                'currency' => 'EUR',
                'shipping' => [['from' => '0.00', 'cost' => '6.90'], ['from' => '100.00', 'cost' => '0.00']],
                'tax' => '20 %',
            ],
        ];
        yield 'a price keeps its digits' => [
            'offers',
            ['ref' => 'o', 'part' => 'p', 'supplier' => 'shop', 'price' => '0.0415', 'date' => '2026-11-01'],
            [
                'ref' => 'o',
                'part' => 'p',
                'supplier' => 'shop',
                'price' => '0.0415',
                'pack' => 1,
                'date' => '2026-11-01',
            ],
        ];
        yield 'terms at the border' => [
            'suppliers',
            [
                'ref' => 's',
                'name' => 'S',
                'currency' => 'EUR',
                'duty' => '2.7%',
                'duty_free' => '150',
                'fee' => '1.5 %',
            ],
            [
                'ref' => 's',
                'name' => 'S',
                'currency' => 'EUR',
                'duty' => '2.7 %',
                'duty_free' => '150.00',
                'fee' => '1.5 %',
            ],
        ];
        yield 'a need that follows the size' => [
            'needs',
            [
                'ref' => 'n',
                'role' => 'Nuts',
                'family' => 'nut',
                'purpose' => 'safety',
                'scale' => ['along' => 'x', 'as' => 'count', 'every' => '2in', 'plus' => 0],
                'weights' => ['mass' => 3],
            ],
            [
                'ref' => 'n',
                'role' => 'Nuts',
                'family' => 'nut',
                'quantity' => 1,
                'purpose' => 'safety',
                'scale' => ['along' => 'x', 'as' => 'count', 'every' => '2 in'],
                'weights' => ['mass' => 3],
            ],
        ];
        yield 'a workpiece' => [
            'workpieces',
            ['ref' => 'w', 'name' => 'Board', 'length' => '2ft', 'volume' => '60 cc', 'per_week' => 4],
            ['ref' => 'w', 'name' => 'Board', 'length' => '2 ft', 'per_week' => 4, 'volume' => '60 cm³'],
        ];
        yield 'an axis' => [
            'axes',
            [
                'ref' => 'x',
                'name' => 'X',
                'along' => 'x',
                'rail' => 'rail',
                'takes' => [['what' => 'Stops', 'length' => '12mm']],
            ],
            [
                'ref' => 'x',
                'name' => 'X',
                'along' => 'x',
                'rail' => 'rail',
                'blocks' => 1,
                'takes' => [['what' => 'Stops', 'length' => '12 mm']],
            ],
        ];
        yield 'a route' => [
            'routes',
            [
                'ref' => 'k',
                'name' => 'Kit',
                'kind' => 'kit',
                'hours' => ['wiring' => '90min'],
                'lines' => [['what' => 'Box', 'kind' => 'box', 'price' => '12', 'supplier' => 'shop']],
            ],
            [
                'ref' => 'k',
                'name' => 'Kit',
                'kind' => 'kit',
                'lines' => [
                    [
                        'what' => 'Box',
                        'kind' => 'box',
                        'pieces' => 1,
                        'price' => '12.00',
                        'supplier' => 'shop',
                        'pack' => 1,
                        'evidence' => 'assumed',
                    ],
                ],
                'hours' => ['wiring' => '90 min'],
            ],
        ];
        yield 'a decision that is open' => [
            'decisions',
            [
                'ref' => 'd',
                'question' => 'Which?',
                'about' => 'part',
                'need' => 'n',
                'opinions' => [['about' => 'a', 'says' => 'good', 'interest' => 'seller']],
            ],
            [
                'ref' => 'd',
                'question' => 'Which?',
                'about' => 'part',
                'state' => 'open',
                'need' => 'n',
                'opinions' => [['about' => 'a', 'says' => 'good', 'interest' => 'seller', 'reports' => 1]],
            ],
        ];
        yield 'a revision' => [
            'revisions',
            ['ref' => 'r', 'of' => 'kit', 'name' => 'Kit', 'revision' => 'B', 'date' => '2026-11-01'],
            [
                'ref' => 'r',
                'of' => 'kit',
                'name' => 'Kit',
                'revision' => 'B',
                'date' => '2026-11-01',
                'state' => 'in hand',
            ],
        ];
        yield 'an axis with its drive' => [
            'axes',
            [
                'ref' => 'x',
                'name' => 'X',
                'along' => 'x',
                'drive' => [
                    'motors' => ['m'],
                    'by' => 's',
                    'top_speed' => '12in/s',
                    'mass' => '20lb',
                    'closed_loop' => false,
                    'support' => 'fixed-free',
                    'measured_load' => '45%',
                ],
                'homing' => ['by' => 'switch', 'sensors' => ['h'], 'both_ends' => true],
            ],
            [
                'ref' => 'x',
                'name' => 'X',
                'along' => 'x',
                'blocks' => 1,
                'drive' => [
                    'motors' => ['m'],
                    'by' => 's',
                    'top_speed' => '12 in/s',
                    'mass' => '20 lb',
                    'measured_load' => '45 %',
                    'closed_loop' => false,
                    'support' => 'fixed-free',
                ],
                'homing' => ['by' => 'switch', 'sensors' => ['h'], 'both_ends' => true],
            ],
        ];
        yield 'a place with an air of its own' => [
            'zones',
            ['ref' => 'z', 'name' => 'Box', 'kind' => 'cabinet', 'temperature' => '105degF', 'holds' => ['a', 'b']],
            ['ref' => 'z', 'name' => 'Box', 'kind' => 'cabinet', 'temperature' => '105 °F', 'holds' => ['a', 'b']],
        ];
        yield 'a pair that must not meet' => [
            'clearances',
            [
                'ref' => 'c',
                'name' => 'C',
                'between' => [['what' => 'A', 'x' => '-5mm to 2in', 'moves' => ['x']], ['what' => 'B']],
                'least' => '2mm',
            ],
            [
                'ref' => 'c',
                'name' => 'C',
                'between' => [['what' => 'A', 'x' => '-5 mm to 2 in', 'moves' => ['x']], ['what' => 'B']],
                'least' => '2 mm',
            ],
        ];
        yield 'a temporary state' => [
            'settings',
            ['ref' => 's', 'kind' => 'temporary', 'about' => 'USB link', 'until' => 'before power', 'done' => false],
            ['ref' => 's', 'kind' => 'temporary', 'about' => 'USB link', 'until' => 'before power'],
        ];
        yield 'a lead through a chain, screened' => [
            'leads',
            [
                'ref' => 'w',
                'from' => 'a.out',
                'to' => 'b.in',
                'conductor' => ['screen' => 'both ends'],
                'chain' => 'k',
                'diameter' => '6.4mm',
            ],
            [
                'ref' => 'w',
                'from' => 'a.out',
                'to' => 'b.in',
                'conductor' => ['screen' => 'both ends'],
                'chain' => 'k',
                'diameter' => '6.4 mm',
            ],
        ];
        yield 'a power read at the wall' => [
            'scenarios',
            ['ref' => 's', 'name' => 'S', 'measured' => '236W'],
            ['ref' => 's', 'name' => 'S', 'measured' => '236 W'],
        ];
        yield 'a rate is named after its currencies' => [
            'rates',
            ['from' => 'EUR', 'to' => 'GBP', 'worth' => '0.8640', 'date' => '2026-11-01'],
            ['ref' => 'EUR-GBP', 'from' => 'EUR', 'to' => 'GBP', 'worth' => '0.864', 'date' => '2026-11-01'],
        ];
        yield 'a purchase' => [
            'purchases',
            [
                'ref' => 'b',
                'part' => 'p',
                'supplier' => 'shop',
                'paid' => '12',
                'date' => '2026-11-01',
                'received' => 0,
            ],
            [
                'ref' => 'b',
                'part' => 'p',
                'supplier' => 'shop',
                'pieces' => 1,
                'paid' => '12.00',
                'date' => '2026-11-01',
            ],
        ];
        yield 'a step' => [
            'steps',
            [
                'ref' => 's',
                'section' => 'A',
                'title' => 'T',
                'guide' => '1.5h',
                'check' => ['what' => 'bond', 'nominal' => '50mΩ', 'tolerance' => '50 mΩ'],
            ],
            [
                'ref' => 's',
                'position' => 0,
                'section' => 'A',
                'title' => 'T',
                'guide' => '1.5 h',
                'check' => ['what' => 'bond', 'nominal' => '50 mΩ', 'tolerance' => '50 mΩ'],
                'state' => 'open',
            ],
        ];
        yield 'a temperature to reach is met within a difference' => [
            'steps',
            [
                'ref' => 's',
                'section' => 'A',
                'title' => 'T',
                'check' => ['what' => 'bed', 'nominal' => '60 °C', 'tolerance' => '2 K', 'measured' => '59 °C'],
                'timings' => [['start' => 10], ['start' => 20, 'stop' => 30]],
            ],
            [
                'ref' => 's',
                'position' => 0,
                'section' => 'A',
                'title' => 'T',
                'check' => ['what' => 'bed', 'nominal' => '60 °C', 'tolerance' => '2 K', 'measured' => '59 °C'],
                'state' => 'open',
                'timings' => [['start' => 10], ['start' => 20, 'stop' => 30]],
            ],
        ];
        yield 'a fault' => [
            'faults',
            [
                'ref' => 'x',
                'what' => 'w',
                'severity' => 'defect',
                'found' => '2026-11-01',
                'cost' => '3',
                'lost' => '20min',
            ],
            [
                'ref' => 'x',
                'what' => 'w',
                'severity' => 'defect',
                'state' => 'open',
                'found' => '2026-11-01',
                'cost' => '3.00',
                'lost' => '20 min',
            ],
        ];
        yield 'a limit is named after its check' => [
            'limits',
            ['check' => 'E05', 'key' => 'holds', 'value' => '70%', 'reason' => 'hot'],
            ['ref' => 'E05-holds', 'check' => 'E05', 'key' => 'holds', 'value' => '70 %', 'reason' => 'hot'],
        ];
    }

    public function test_cents_may_stand_behind_a_comma_and_thousands_are_asked_for_again(): void
    {
        $file = static fn (string $price): array => [
            'magpie' => BuildFile::VERSION,
            'build' => ['name' => 'B', 'kind' => 'sample', 'currency' => 'EUR'],
            'parts' => [['ref' => 'p', 'family' => 'fan', 'name' => 'Fan']],
            'suppliers' => [['ref' => 's', 'name' => 'S', 'currency' => 'EUR']],
            'offers' => [['ref' => 'o', 'part' => 'p', 'supplier' => 's', 'price' => $price, 'date' => '2026-11-01']],
        ];

        self::assertSame('12.50', BuildFile::build($file('12,50'))->offers['o']->price->exactAmount());
        $this->expectExceptionMessage('amount of money');
        BuildFile::build($file('1,250'));
    }

    /**
     * @param  array<string, mixed>  $given
     * @param  array<string, mixed>  $canonical
     */
    #[DataProvider('forms')]
    public function test_an_entry_has_one_canonical_form(string $section, array $given, array $canonical): void
    {
        $form = BuildFile::sections()[$section];
        $written = $form->write($form->read(new Node($given), self::context()));

        self::assertSame($canonical, $written);
        self::assertSame(
            $written,
            $form->write($form->read(new Node($written), self::context())),
            'And reading that gives the same again.',
        );
    }

    /**
     * @return iterable<string, array{string, array<string, mixed>, string, string}>
     */
    public static function refusals(): iterable
    {
        $part = ['ref' => 'p', 'family' => 'fan', 'name' => 'P'];
        $lead = ['ref' => 'W1', 'from' => 'a.out', 'to' => 'b.power'];
        $step = ['ref' => 's', 'section' => 'A', 'title' => 'T'];
        yield 'a ref with a space' => ['parts', ['ref' => 'a b'] + $part, '/ref', 'short name'];
        yield 'a name that is a number' => ['parts', ['name' => 7] + $part, '/name', 'must be a text'];
        yield 'an endless name' => ['parts', ['name' => str_repeat('x', 201)] + $part, '/name', 'longer than 200'];
        yield 'specs that are a list' => [
            'parts',
            ['specs' => ['24 V']] + $part,
            '/specs',
            'object with named members',
        ];
        yield 'a choice outside its list' => [
            'parts',
            ['specs' => ['job' => 'juggling']] + $part,
            '/specs/job',
            'not one of hot end',
        ];
        yield 'a flag that is a word' => [
            'parts',
            ['specs' => ['speed_sense' => 'maybe']] + $part,
            '/specs/speed_sense',
            'yes-or-no',
        ];
        yield 'a port of no kind' => [
            'parts',
            ['ports' => [['name' => 'x']]] + $part,
            '/ports/0/kind',
            'no port of this name',
        ];
        yield 'a port of another kind than its family says' => [
            'parts',
            ['ports' => [['name' => 'power', 'kind' => 'source']]] + $part,
            '/ports/0/kind',
            'of kind "inlet"',
        ];
        yield 'two ports of one name' => [
            'parts',
            ['ports' => [['name' => 'x', 'kind' => 'signal'], ['name' => 'x', 'kind' => 'signal']]] + $part,
            '/ports/1/name',
            'already a port',
        ];
        yield 'an outlet fed from nowhere' => [
            'parts',
            ['ports' => [['name' => 'x', 'kind' => 'outlet', 'fed_from' => 'y']]] + $part,
            '/ports',
            'no inlet of this part',
        ];
        yield 'half a piece' => [
            'needs',
            ['ref' => 'n', 'role' => 'r', 'family' => 'fan', 'quantity' => 0.5],
            '/quantity',
            'whole number from 1',
        ];
        yield 'no pieces' => [
            'needs',
            ['ref' => 'n', 'role' => 'r', 'family' => 'fan', 'quantity' => 0],
            '/quantity',
            'whole number from 1',
        ];
        yield 'a port without a dot' => ['leads', ['from' => 'psu'] + $lead, '/from', 'write "need.port"'];
        yield 'three ends' => ['leads', $lead + ['ends' => [[], [], []]], '/ends', 'two ends'];
        yield 'wire of no thickness' => [
            'leads',
            $lead + ['conductor' => ['size' => '0 mm²']],
            '/conductor/size',
            'larger than nought',
        ];
        yield 'a length that is an area' => ['leads', $lead + ['length' => '0.75 mm²'], '/length', 'is an area'];
        yield 'a termination nobody makes' => [
            'leads',
            $lead + ['ends' => [['termination' => 'chewed']]],
            '/ends/0/termination',
            'not one of',
        ];
        yield 'a joint of one' => ['mates', ['ref' => 'm', 'kind' => 'k', 'between' => ['a']], '/between', 'two needs'];
        yield 'a screw into jelly' => [
            'mates',
            ['ref' => 'm', 'kind' => 'k', 'between' => ['a', 'b'], 'screws' => [['into' => 'jelly']]],
            '/screws/0/into',
            'not one of',
        ];
        yield 'a negative load' => [
            'scenarios',
            ['ref' => 's', 'name' => 'S', 'loads' => ['a' => '-5 %']],
            '/loads/a',
            'negative',
        ];
        yield 'shipping in words' => [
            'suppliers',
            ['ref' => 's', 'name' => 'S', 'currency' => 'EUR', 'shipping' => [['from' => '0', 'cost' => 'free']]],
            '/shipping/0/cost',
            'amount of money',
        ];
        yield 'a currency in words' => [
            'suppliers',
            ['ref' => 's', 'name' => 'S', 'currency' => 'pounds'],
            '/currency',
            'three capital letters',
        ];
        yield 'a price from nobody' => [
            'offers',
            ['ref' => 'o', 'part' => 'p', 'supplier' => 'who', 'price' => '1', 'date' => '2026-11-01'],
            '/supplier',
            'no supplier "who"',
        ];
        yield 'a price with a comma among its thousands' => [
            'offers',
            ['ref' => 'o', 'part' => 'p', 'supplier' => 'shop', 'price' => '1,500', 'date' => '2026-11-01'],
            '/price',
            'write it like',
        ];
        yield 'a worthless currency' => [
            'rates',
            ['from' => 'EUR', 'to' => 'GBP', 'worth' => '0', 'date' => '2026-11-01'],
            '/worth',
            'what one unit is worth',
        ];
        yield 'a currency against itself' => [
            'rates',
            ['from' => 'GBP', 'to' => 'GBP', 'worth' => '1', 'date' => '2026-11-01'],
            '/to',
            'another currency',
        ];
        yield 'a rate under another name' => [
            'rates',
            ['ref' => 'x', 'from' => 'EUR', 'to' => 'GBP', 'worth' => '1', 'date' => '2026-11-01'],
            '/ref',
            'EUR-GBP',
        ];
        yield 'a step after itself' => ['steps', $step + ['after' => ['s']], '/after', 'wait for itself'];
        yield 'a stop before its start' => [
            'steps',
            $step + ['timings' => [['start' => 9, 'stop' => 3]]],
            '/timings/0/stop',
            'before the start',
        ];
        yield 'a caution nobody knows' => ['steps', $step + ['cautions' => ['dragons']], '/cautions', 'not a caution'];
        yield 'half a part' => ['steps', $step + ['uses' => ['a' => 0.5]], '/uses/a', 'whole number'];
        yield 'a reading of another kind' => [
            'steps',
            $step + ['check' => ['what' => 'gap', 'nominal' => '1 mm', 'tolerance' => '1 mm', 'measured' => '3 V']],
            '/check/measured',
            'a length is wanted',
        ];
        yield 'a check of nothing' => [
            'steps',
            $step + ['check' => ['what' => 'gap', 'nominal' => 'small', 'tolerance' => '1 mm']],
            '/check/nominal',
            'no number',
        ];
        yield 'a severity nobody uses' => [
            'faults',
            ['ref' => 'x', 'what' => 'w', 'severity' => 'meh', 'found' => '2026-11-01'],
            '/severity',
            'not one of danger',
        ];
        yield 'a workpiece of no size' => [
            'workpieces',
            ['ref' => 'w', 'name' => 'W', 'length' => '0 mm'],
            '/length',
            'longer than nought',
        ];
        yield 'a workpiece in kilograms' => [
            'workpieces',
            ['ref' => 'w', 'name' => 'W', 'length' => '3 kg'],
            '/length',
            'a length is wanted',
        ];
        yield 'travel in a fourth direction' => [
            'axes',
            ['ref' => 'a', 'name' => 'A', 'along' => 'w'],
            '/along',
            'not one of x, y, z',
        ];
        yield 'a count without a spacing' => [
            'needs',
            ['ref' => 'n', 'role' => 'N', 'family' => 'nut', 'scale' => ['along' => 'x', 'as' => 'count']],
            '/scale/every',
            'is missing',
        ];
        yield 'a count at no spacing' => [
            'needs',
            [
                'ref' => 'n',
                'role' => 'N',
                'family' => 'nut',
                'scale' => ['along' => 'x', 'as' => 'count', 'every' => '0 mm'],
            ],
            '/scale/every',
            'longer than nought',
        ];
        yield 'a weight of six' => [
            'needs',
            ['ref' => 'n', 'role' => 'N', 'family' => 'nut', 'weights' => ['mass' => 6]],
            '/weights/mass',
            '0 to 5',
        ];
        yield 'a route line from nobody' => [
            'routes',
            [
                'ref' => 'k',
                'name' => 'K',
                'kind' => 'kit',
                'lines' => [['what' => 'Box', 'kind' => 'box', 'supplier' => 'who']],
            ],
            '/lines/0/supplier',
            'no supplier "who"',
        ];
        yield 'a whole build and then some' => [
            'routes',
            ['ref' => 'k', 'name' => 'K', 'kind' => 'kit', 'whole_build' => true, 'needs' => ['n']],
            '/needs',
            'names no single needs',
        ];
        yield 'hours in another trade' => [
            'routes',
            ['ref' => 'k', 'name' => 'K', 'kind' => 'kit', 'hours' => ['gardening' => '3 h']],
            '/hours/gardening',
            'not known',
        ];
        yield 'a decision without a reason' => [
            'decisions',
            ['ref' => 'd', 'question' => 'Q', 'about' => 'other', 'state' => 'made', 'choice' => 'x'],
            '/reason',
            'says why',
        ];
        yield 'a part decision about nothing' => [
            'decisions',
            ['ref' => 'd', 'question' => 'Q', 'about' => 'part'],
            '/need',
            'which need',
        ];
        yield 'a side nobody takes' => [
            'decisions',
            ['ref' => 'd', 'question' => 'Q', 'about' => 'school', 'school' => 'homing', 'choice' => 'by ear'],
            '/choice',
            'not one of switches',
        ];
        yield 'a question nobody asks' => [
            'decisions',
            ['ref' => 'd', 'question' => 'Q', 'about' => 'school', 'school' => 'colour'],
            '/school',
            'practice is divided',
        ];
        yield 'an opinion of no interest' => [
            'decisions',
            [
                'ref' => 'd',
                'question' => 'Q',
                'about' => 'other',
                'opinions' => [['about' => 'a', 'says' => 's', 'interest' => 'none']],
            ],
            '/opinions/0/interest',
            'not one of own test',
        ];
        yield 'a revision without a day' => [
            'revisions',
            ['ref' => 'r', 'of' => 'kit', 'name' => 'K', 'revision' => 'B', 'date' => 'soon'],
            '/date',
            'YYYY-MM-DD',
        ];
        yield 'a ratio of nought' => [
            'axes',
            ['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['ratio' => '0']],
            '/drive/ratio',
            'from 0.001 to 1000',
        ];
        yield 'a mass below nothing' => [
            'axes',
            ['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['mass' => '-2 kg']],
            '/drive/mass',
            'cannot be negative',
        ];
        yield 'a force below nothing' => [
            'axes',
            ['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['force' => '-2 N']],
            '/drive/force',
            'cannot be negative',
        ];
        yield 'a speed in metres' => [
            'axes',
            ['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['top_speed' => '3 m']],
            '/drive/top_speed',
            'a speed is wanted',
        ];
        yield 'more out than in' => [
            'axes',
            ['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['efficiency' => '120 %']],
            '/drive/efficiency',
            'from 1 % to 100 %',
        ];
        yield 'ends held by hope' => [
            'axes',
            ['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['support' => 'hope']],
            '/drive/support',
            'not one of fixed-free',
        ];
        yield 'homing by ear' => [
            'axes',
            ['ref' => 'x', 'name' => 'X', 'along' => 'x', 'homing' => ['by' => 'ear']],
            '/homing/by',
            'not one of switch',
        ];
        yield 'a place of no kind' => [
            'zones',
            ['ref' => 'z', 'name' => 'Z', 'kind' => 'cosy'],
            '/kind',
            'not one of cabinet',
        ];
        yield 'one thing that meets nothing' => [
            'clearances',
            ['ref' => 'c', 'name' => 'C', 'between' => [['what' => 'A']]],
            '/between',
            'between two things',
        ];
        yield 'a place in amps' => [
            'clearances',
            ['ref' => 'c', 'name' => 'C', 'between' => [['what' => 'A', 'x' => '3 A to 5 A'], ['what' => 'B']]],
            '/between/0/x',
            'a length is wanted',
        ];
        yield 'a temporary state for ever' => [
            'settings',
            ['ref' => 's', 'kind' => 'temporary', 'about' => 'USB link'],
            '/until',
            'by when it must be undone',
        ];
        yield 'a screen bonded nowhere known' => [
            'leads',
            ['ref' => 'w', 'from' => 'a.out', 'to' => 'b.in', 'conductor' => ['screen' => 'somewhere']],
            '/conductor/screen',
            'not one of none',
        ];
        yield 'a limit above everything' => [
            'limits',
            ['check' => 'E05', 'key' => 'holds', 'value' => '120 %', 'reason' => 'r'],
            '/value',
            'at most at 100 %',
        ];
        yield 'a limit without a reason' => [
            'limits',
            ['check' => 'E05', 'key' => 'holds', 'value' => '70 %'],
            '/reason',
            'is missing',
        ];
    }

    /**
     * @param  array<string, mixed>  $given
     */
    #[DataProvider('refusals')]
    public function test_what_makes_no_sense_is_refused_at_its_member(
        string $section,
        array $given,
        string $pointer,
        string $reason,
    ): void {
        try {
            BuildFile::sections()[$section]->read(new Node($given), self::context());
            self::fail('It was read.');
        } catch (CannotReadBuildFile $e) {
            self::assertSame($pointer, $e->pointer, $e->reason);
            self::assertStringContainsString($reason, $e->reason);
        }
    }

    public function test_the_plan_and_the_site_have_their_own_rules(): void
    {
        $plan = [
            'name' => 'A',
            'kind' => 'b',
            'currency' => 'GBP',
            'budget' => '100',
            'contingency' => '8%',
            'weekly' => '7h',
            'pace' => '160 %',
        ];
        self::assertSame(
            [
                'name' => 'A',
                'kind' => 'b',
                'currency' => 'GBP',
                'units' => 'metric',
                'budget' => '100.00',
                'contingency' => '8 %',
                'weekly' => '7 h',
                'pace' => '160 %',
            ],
            Header::writePlan(Header::readPlan(new Node($plan))),
        );
        self::assertSame(
            ['ambient' => '-10 °C', 'residual_current_device' => false, 'tariff' => '0.28'],
            Header::writeSite(
                Header::readSite(
                    new Node(['ambient' => '-10 degC', 'residual_current_device' => false, 'tariff' => '0.28']),
                    'GBP',
                ),
            ),
        );
        foreach (
            [
                [['pace' => '0 %'] + $plan, 'from 1 % to 10000 %'],
                [['units' => 'cubits'] + $plan, 'not one of metric'],
                [['currency' => 'gbp'] + $plan, 'three capital'],
                [['colour' => 'red'] + $plan, 'not known'],
            ] as [$given, $reason]
        ) {
            try {
                Header::readPlan(new Node($given, '/build'));
                self::fail('It was read.');
            } catch (CannotReadBuildFile $e) {
                self::assertStringContainsString($reason, $e->reason);
                self::assertStringStartsWith('/build/', $e->pointer);
            }
        }
    }

    /**
     * @return iterable<string, array{array<string, mixed>, string, string}>
     */
    public static function briefs(): iterable
    {
        yield 'longer than the room' => [
            [
                'site' => ['room' => ['length' => '4 m', 'width' => '3 m']],
                'workpieces' => [['ref' => 'w', 'name' => 'Beam', 'length' => '5 m']],
            ],
            '/workpieces/0/length',
            'Beam would be 5 m; the room ends at 4 m',
        ];
        yield 'higher than the room' => [
            [
                'site' => ['room' => ['height' => '2 m']],
                'workpieces' => [['ref' => 'w', 'name' => 'Mast', 'height' => '2.1 m']],
            ],
            '/workpieces/0/height',
            'the room ends at 2 m',
        ];
        yield 'a budget of below nothing' => [
            ['build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP', 'budget' => '-5']],
            '/build/budget',
            'not negative',
        ];
        yield 'more than a whole day\'s duty' => [['brief' => ['duty' => '120 %']], '/brief/duty', 'from 0 % to 100 %'];
        yield 'a longer week' => [['brief' => ['weekly' => '200 h']], '/brief/weekly', '168 h'];
        yield 'a trade nobody learns' => [
            ['brief' => ['experience' => ['magic' => 'some']]],
            '/brief/experience/magic',
            'no trade of a builder',
        ];
        yield 'a size of nought' => [['brief' => ['size' => ['x' => '0 mm']]], '/brief/size/x', 'longer than nought'];
        yield 'a door in amps' => [
            ['site' => ['door' => ['width' => '3 A']]],
            '/site/door/width',
            'a length is wanted',
        ];
        yield 'an axis on a fan' => [
            [
                'parts' => [['ref' => 'f', 'family' => 'fan', 'name' => 'F']],
                'needs' => [['ref' => 'f', 'role' => 'F', 'family' => 'fan']],
                'axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'rail' => 'f']],
            ],
            '/axes/0/rail',
            'is no rail',
        ];
        yield 'an axis moved by a fan' => [
            [
                'parts' => [['ref' => 'f', 'family' => 'fan', 'name' => 'F']],
                'needs' => [['ref' => 'f', 'role' => 'F', 'family' => 'fan']],
                'axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['motors' => ['f']]]],
            ],
            '/axes/0/drive/motors/0',
            '"f" is none of: stepper motor, servo motor',
        ];
        yield 'an axis on a beam that is not there' => [
            ['axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['beam' => 'gone']]]],
            '/axes/0/drive/beam',
            'no need "gone"',
        ];
        yield 'a thing in two places' => [
            [
                'needs' => [['ref' => 'f', 'role' => 'Fan', 'family' => 'fan']],
                'zones' => [
                    ['ref' => 'a', 'name' => 'A', 'kind' => 'open', 'holds' => ['f']],
                    ['ref' => 'b', 'name' => 'B', 'kind' => 'open', 'holds' => ['f']],
                ],
            ],
            '/zones/1/holds/0',
            'Fan already stands in A',
        ];
        yield 'a box that is a fan' => [
            [
                'needs' => [['ref' => 'f', 'role' => 'Fan', 'family' => 'fan']],
                'zones' => [['ref' => 'a', 'name' => 'A', 'kind' => 'cabinet', 'box' => 'f']],
            ],
            '/zones/0/box',
            'is no cabinet',
        ];
        yield 'carried by an axis that is not there' => [
            [
                'clearances' => [
                    ['ref' => 'c', 'name' => 'C', 'between' => [['what' => 'A', 'moves' => ['w']], ['what' => 'B']]],
                ],
            ],
            '/clearances/0/between/0/moves/0',
            'no axis "w"',
        ];
        yield 'a route through nothing' => [
            ['routes' => [['ref' => 'r', 'name' => 'R', 'kind' => 'mixed', 'needs' => ['gone']]]],
            '/routes/0/needs/0',
            'no need "gone"',
        ];
        yield 'a decision for a route nobody described' => [
            ['decisions' => [['ref' => 'd', 'question' => 'Q', 'about' => 'route', 'choice' => 'gone']]],
            '/decisions/0/choice',
            'no route "gone"',
        ];
    }

    /**
     * @param  array<string, mixed>  $file
     */
    #[DataProvider('briefs')]
    public function test_a_brief_that_cannot_be_is_named_at_its_field(
        array $file,
        string $pointer,
        string $reason,
    ): void {
        try {
            BuildFile::build($file + ['magpie' => 1, 'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP']]);
            self::fail('It was read.');
        } catch (CannotReadBuildFile $e) {
            self::assertSame($pointer, $e->pointer, $e->reason);
            self::assertStringContainsString($reason, $e->reason);
        }
    }
}
