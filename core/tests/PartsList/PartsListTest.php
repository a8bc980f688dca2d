<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\PartsList;

use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Spec;
use Magpie\Core\PartsList\FamilyGuess;
use Magpie\Core\PartsList\Mapping;
use Magpie\Core\PartsList\PartsListExport;
use Magpie\Core\PartsList\ReadRow;
use Magpie\Core\PartsList\RowReader;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PartsListTest extends TestCase
{
    private const HEADINGS = [
        'Item',
        'Qty',
        'Voltage',
        'Current (A)',
        'Power',
        'Torque',
        'Size',
        'Length',
        'Unit price',
    ];

    /**
     * @param  list<string>  $cells
     */
    private static function read(array $cells): ReadRow
    {
        return (new RowReader(Mapping::guess(self::HEADINGS, 'GBP'), Catalogue::standard()))->read(2, $cells);
    }

    public function test_headings_are_guessed_with_the_unit_in_their_brackets(): void
    {
        $mapping = Mapping::guess(self::HEADINGS, 'GBP');

        self::assertSame(
            [
                0 => 'name',
                1 => 'quantity',
                2 => 'spec:voltage',
                3 => 'spec:current',
                4 => 'spec:power',
                5 => 'spec:torque',
                6 => 'spec:size',
                7 => 'spec:length',
                8 => 'price',
            ],
            $mapping->targets,
        );
        self::assertSame([3 => 'A'], $mapping->units);
    }

    /**
     * @return iterable<string, array{list<string>, string, string, array<string, string>}>
     */
    public static function lines(): iterable
    {
        yield 'a supply' => [
            ['24 V power supply', '1', '24V', '14.6', '350 W', '', '', '', '£38.50'],
            'good',
            'power_supply',
            ['output_voltage' => '24 V', 'rated_current' => '14.6 A', 'rated_power' => '350 W'],
        ];
        yield 'a motor in ounce-inches' => [
            ['Stepper, 57 mm frame', '4 pcs', '', '2.8', '', '283 oz-in', '', '', '23,50 €'],
            'good',
            'stepper_motor',
            ['rated_current' => '2.8 A', 'holding_torque' => '283 oz in'],
        ];
        yield 'wire by gauge' => [
            ['Hook-up wire', '1', '', '', '', '', '18 AWG', '', ''],
            'good',
            'wire',
            ['size' => '18 AWG'],
        ];
        yield 'cable by area and inches' => [
            ['Motor cable', '3', '', '', '', '', '0.75 mm²', '12 in', ''],
            'good',
            'wire',
            ['size' => '0.75 mm²', 'length' => '12 in'],
        ];
        yield 'watts for amps' => [
            ['Bed supply', '1', '12 V', '', '30 W', '', '', '', ''],
            'doubted',
            'power_supply',
            ['output_voltage' => '12 V', 'rated_power' => '30 W'],
        ];
        yield 'a cell that cannot be read' => [
            ['Board fan', '1', 'twenty-four', '0.2', '', '', '', '', ''],
            'partly',
            'fan',
            ['rated_current' => '0.2 A'],
        ];
        yield 'a cell of the wrong dimension' => [
            ['Heater cartridge', '1', '24 V', '', '40 A', '', '', '', ''],
            'partly',
            'heater',
            ['rated_voltage' => '24 V'],
        ];
        yield 'a spec its sheet has not' => [
            ['Coupling', '1', '24 V', '', '', '', '', '', ''],
            'partly',
            'coupling',
            [],
        ];
    }

    /**
     * @return iterable<string, array{string, string, bool}>
     */
    public static function names(): iterable
    {
        yield 'what it is stands last' => ['Spindle inverter 2.2 kW', 'spindle_drive', true];
        yield 'what it is for stands aside' => ['Stepper motor driver for the spindle', 'motor_driver', true];
        yield 'after a comma' => ['Fan, for the cabinet', 'fan', true];
        yield 'a cable of a motor' => ['Motor cables', 'wire', true];
        yield 'a board of a relay may be either' => ['Relay board', 'controller_board', false];
        yield 'more follows the word' => ['Heater with thermistor', 'heater', true];
        yield 'two kinds and neither last' => ['Motor pulley GT-like 20T', 'pulley', false];
        yield 'only what it is for' => ['Thing for the fan', 'fan', false];
        yield 'no part of a word' => ['Fanless light', 'lamp', true];
    }

    #[DataProvider('names')]
    public function test_a_name_tells_the_kind_and_whether_that_is_sure(string $name, string $family, bool $sure): void
    {
        $guess = FamilyGuess::of($name);

        self::assertSame([$family, $sure], [$guess?->family->key(), $guess?->sure]);
    }

    public function test_what_the_library_has_under_the_name_fills_in_what_the_line_leaves_out(): void
    {
        $catalogue = Catalogue::standard();
        $fan = $catalogue->find('fan');
        self::assertNotNull($fan);
        $kept = new Part('lib-fan', $fan, 'Quiet one', [
            'rated_voltage' => new Spec('rated_voltage', Quantity::of(24, 'V'), Evidence::Datasheet),
            'rated_current' => new Spec('rated_current', Quantity::of(0.1, 'A'), Evidence::Datasheet),
        ]);
        $shelf = static fn (string $name): ?Part => strtolower($name) === 'quiet one' ? $kept : null;
        $reader = new RowReader(new Mapping([0 => 'name', 1 => 'spec:current']), $catalogue, $shelf);

        $row = $reader->read(2, ['Quiet One', '0.2 A']);
        self::assertSame(['lib-fan', true, 'good'], [$row->library, $row->sure, $row->state()]);
        self::assertSame("0.2\u{a0}A", $row->part?->specs['rated_current']->printed());
        self::assertSame(Evidence::Listing, $row->part->specs['rated_current']->evidence);
        self::assertSame("24\u{a0}V", $row->part->specs['rated_voltage']->printed());
        self::assertSame(Evidence::Datasheet, $row->part->specs['rated_voltage']->evidence);

        // A kind the builder said for this line goes before the library's, and then its sheet is of no use.
        $said = new Mapping([0 => 'name'], families: [2 => 'heater']);
        $row = (new RowReader($said, $catalogue, $shelf))->read(2, ['Quiet one']);
        self::assertSame(['heater', null, []], [$row->part?->family->key(), $row->library, $row->part?->specs]);
    }

    public function test_headings_are_found_below_a_title(): void
    {
        self::assertSame(
            3,
            Mapping::headerAmong([
                1 => ['Basket of 3 May', '', ''],
                2 => ['', '', ''],
                3 => ['Item', 'Qty', 'Price'],
                4 => ['Fan', '2', '3.20'],
            ]),
        );
        self::assertSame(1, Mapping::headerAmong([1 => ['A', 'B'], 2 => ['x', 'y']]));
    }

    /**
     * @param  list<string>  $cells
     * @param  array<string, string>  $specs
     */
    #[DataProvider('lines')]
    public function test_a_line_is_understood_and_keeps_what_can_be_kept(
        array $cells,
        string $state,
        string $family,
        array $specs,
    ): void {
        $row = self::read($cells);

        self::assertSame($state, $row->state(), json_encode($row->problems) ?: '');
        self::assertSame($family, $row->part?->family->key());
        self::assertSame(
            $specs,
            array_map(
                static fn ($s): string => $s->value instanceof \Magpie\Core\Quantity\Quantity
                    ? $s->value->text()
                    : (string) $s->value,
                $row->part->specs,
            ),
        );
    }

    public function test_a_doubt_says_what_may_have_been_meant(): void
    {
        $doubt = self::read(['Bed supply', '1', '12 V', '', '30 W', '', '', '', ''])->doubts[0];

        self::assertStringContainsString("was 30\u{a0}A meant (360\u{a0}W at 12\u{a0}V)?", $doubt->question);
        self::assertSame(['rated_current' => '30 A', 'rated_power' => '360 W'], $doubt->suggestion);
    }

    public function test_a_line_that_cannot_be_taken_says_why(): void
    {
        foreach (
            [
                [['', '1'], 'no name'],
                [['Mystery bag', '1'], 'what kind of part'],
                [['Idler', 'lots'], 'not a whole number'],
                [['Idler', '0'], 'not a whole number'],
                [['Fan', '-3'], 'not a whole number'],
            ] as [$cells, $reason]
        ) {
            $row = self::read($cells);
            self::assertSame('refused', $row->state());
            self::assertStringContainsString($reason, $row->problems[0]['reason']);
        }
    }

    public function test_no_line_however_wild_stumbles_the_reader(): void
    {
        $pieces = [
            'Fan',
            'stepper motor',
            '24 V',
            '30 W',
            '18 AWG',
            '=1+1',
            "it's",
            '"',
            ';',
            '',
            '12,5',
            '£',
            '-3',
            '1e9',
            'yes',
            "\u{1F600}",
            '283 oz-in',
            str_repeat('x', 300),
            'NaN',
            '0',
            '99999999999',
        ];
        $seed = 7;
        $states = [];
        for ($i = 0; $i < 1500; $i++) {
            $cells = [];
            foreach (self::HEADINGS as $_) {
                $seed = ($seed * 1103515245 + 12345) % 2147483648;
                $cells[] = $pieces[intdiv($seed, 65536) % count($pieces)];
            }
            $row = self::read($cells);
            $states[$row->state()] = ($states[$row->state()] ?? 0) + 1;
            self::assertSame($row->part === null, $row->state() === 'refused');
            self::assertTrue($row->state() === 'good' || $row->problems !== [] || $row->doubts !== []);
            if ($row->part !== null) {
                // What was taken can be written to a build file and read again.
                $form = BuildFile::sections()['parts'];
                self::assertSame(
                    $form->write($row->part),
                    $form->write(
                        $form->read(
                            new \Magpie\Core\Format\Node($form->write($row->part)),
                            new \Magpie\Core\Format\Context(Catalogue::standard(), 'GBP'),
                        ),
                    ),
                );
            }
        }
        self::assertSame(
            ['partly', 'refused'],
            array_values(array_intersect(['partly', 'refused'], array_keys($states))),
        );
    }

    public function test_prices_carry_their_currency_in_every_spelling(): void
    {
        $price = static fn (string $text): ?string => ($offer = self::read(['Fan', '1', '', '', '', '', '', '', $text])
            ->offer) === null
            ? null
            : "{$offer['currency']} {$offer['price']}";

        self::assertSame(
            ['GBP 38.50', 'EUR 23.50', 'USD 1200', 'EUR 4.9', 'GBP 7', null],
            array_map($price, ['£38.50', '23,50 €', '$1,200', 'EUR 4.9', '7', 'cheap']),
        );
    }

    public function test_what_is_exported_is_understood_again_without_loss(): void
    {
        $build = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/dunlin.json'));
        $lines = iterator_to_array(PartsListExport::lines($build), false);
        $parse = static fn (string $line): array => str_getcsv(rtrim($line, "\r\n"), ',', '"', '');
        $reader = new RowReader(Mapping::guess($parse($lines[0]), 'GBP'), Catalogue::standard());
        $seen = 0;
        foreach (array_slice($lines, 1) as $i => $line) {
            $row = $reader->read($i + 2, $parse($line));
            $fitted = $build->fitted((string) $row->need['ref']);
            self::assertNotNull($fitted, $line);
            self::assertSame([], $row->problems, $line);
            self::assertSame(
                array_keys($fitted->part->specs),
                array_values(array_intersect(array_keys($fitted->part->specs), array_keys($row->part->specs ?? []))),
                $line,
            );
            self::assertSame($fitted->need->quantity, $row->need['quantity']);
            $seen++;
        }
        self::assertSame(count(iterator_to_array($build->allFitted())), $seen);
    }

    public function test_a_formula_leaves_as_text_and_comes_back_as_it_was(): void
    {
        $build = (new SampleBuild([
            'parts' => [['ref' => 'p', 'family' => 'fan', 'name' => '=HYPERLINK("x"),"fan"', 'notes' => "@cmd\nline"]],
            'needs' => [['ref' => 'p', 'role' => '+1 fan', 'family' => 'fan', 'choice' => 'p', 'candidates' => ['p']]],
        ]))->build;
        $csv = implode('', iterator_to_array(PartsListExport::lines($build), false));

        self::assertStringContainsString('"\'=HYPERLINK(""x""),""fan"""', $csv);
        self::assertStringContainsString("'+1 fan", $csv);
        self::assertDoesNotMatchRegularExpression('/(^|,)"?[=+@]/m', $csv);
        [$headings, $cells] = array_map(static fn (string $line): array => str_getcsv($line, ',', '"', ''), [
            strtok($csv, "\r\n") ?: '',
            substr($csv, strpos($csv, "\r\n") + 2),
        ]);
        self::assertSame(
            '=HYPERLINK("x"),"fan"',
            (new RowReader(Mapping::guess($headings, 'GBP'), Catalogue::standard()))->read(2, $cells)->part?->name,
        );
    }
}
