<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Machine;

use DateTimeImmutable;
use Magpie\Core\Advice\Overview;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Machine\Doubts;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\FieldKind;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\PortSheet;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class CatalogueTest extends TestCase
{
    /**
     * @return iterable<string, array{Family}>
     */
    public static function families(): iterable
    {
        foreach (Catalogue::standard()->all() as $key => $family) {
            yield $key => [$family];
        }
    }

    #[DataProvider('families')]
    public function test_a_familys_sheet_and_ports_are_sound(Family $family): void
    {
        $keys = array_map(static fn ($f): string => $f->key, $family->sheet());
        self::assertSame($keys, array_values(array_unique($keys)), 'A key twice on one sheet.');
        foreach ($family->sheet() as $field) {
            self::assertMatchesRegularExpression('/^[a-z][a-z0-9_]*$/', $field->key);
            self::assertSame(
                $field->kind === FieldKind::Quantity || $field->kind === FieldKind::Range,
                $field->dimension !== null,
                $field->key,
            );
            self::assertSame($field->kind === FieldKind::Choice, $field->choices !== [], $field->key);
            if ($field->dimension !== null) {
                // Its own unit measures it, and what is plausible can be asked about.
                $one = Quantity::of(1, $field->unit);
                self::assertTrue($one->unit->measures($field->dimension), "{$field->key} is shown in {$field->unit}.");
                $field->doubt($one);
            }
        }
        $inlets = array_map(
            static fn ($p): string => $p->name,
            array_filter($family->ports(), static fn ($p): bool => $p->kind === PortKind::Inlet),
        );
        foreach ($family->ports() as $port) {
            self::assertTrue(
                $port->fedFrom === null || in_array($port->fedFrom, $inlets, true),
                "{$port->name} is fed from nothing.",
            );
            self::assertSame(
                $port->kind === PortKind::Outlet,
                $port->fedFrom !== null,
                "{$port->name}: an outlet passes on, nothing else does.",
            );
            foreach ($port->lends as $portKey => $own) {
                self::assertNotNull(PortSheet::field($portKey), "{$portKey} is no spec of a port.");
                self::assertContains($own, $keys, "{$port->name} borrows {$own}, which its sheet has not.");
            }
        }
    }

    #[DataProvider('families')]
    public function test_an_empty_part_of_any_family_passes_nothing(Family $family): void
    {
        $build = (new SampleBuild(Examples::file([Examples::part('x', $family->key(), [])])))->build;
        $findings = Rules::inspector()->inspect($build)->findings;
        foreach (array_filter($findings, static fn ($f): bool => $f->card->trade !== Trade::Supply) as $finding) {
            self::assertFalse($finding->verdict->passes(), "{$finding->key()}: {$finding->headline}");
            self::assertNotSame([], [...$finding->missing, ...$finding->whatever], $finding->key());
        }
        $this->addToAssertionCount(1);
    }

    public function test_evidence_has_an_order(): void
    {
        $order = Evidence::cases();
        for ($i = 1; $i < count($order); $i++) {
            self::assertTrue($order[$i]->isWeakerThan($order[$i - 1]));
        }
        self::assertSame(
            Evidence::Listing,
            Evidence::weakest(Evidence::Measured, Evidence::Listing, Evidence::Datasheet),
        );
    }

    /**
     * @return iterable<string, array{string, array<string, string>, string|null}>
     */
    public static function sizes(): iterable
    {
        yield 'a usual supply' => [
            'power_supply',
            ['output_voltage' => '24 V', 'rated_current' => '14.6 A', 'rated_power' => '350 W'],
            null,
        ];
        yield 'thirty watts that are amps' => [
            'power_supply',
            ['output_voltage' => '12 V', 'rated_power' => '30 W'],
            '360 W at 12 V',
        ];
        yield 'thirty watts beside thirty amps' => [
            'power_supply',
            ['output_voltage' => '12 V', 'rated_power' => '30 W', 'rated_current' => '30 A'],
            '360 W is meant',
        ];
        yield 'an honest small supply' => [
            'power_supply',
            ['output_voltage' => '5 V', 'rated_power' => '25 W', 'rated_current' => '5 A'],
            null,
        ];
        yield 'a hot end in kilowatts' => ['heater', ['rated_power' => '60 kW'], 'unusually large'];
        yield 'a motor in amps, not milliamps' => ['stepper_motor', ['rated_current' => '1500 A'], 'unusually large'];
        yield 'a screw in metres' => ['screw', ['length' => '16 m'], 'unusually large'];
        yield 'a wire in square metres' => ['wire', ['size' => '0.75 m²'], 'unusually large'];
        yield 'a fan in microamps' => ['fan', ['rated_current' => '20 µA'], 'unusually small'];
    }

    /**
     * @param  array<string, string>  $specs
     */
    #[DataProvider('sizes')]
    public function test_unlikely_sizes_are_asked_about(string $family, array $specs, ?string $question): void
    {
        $part = BuildFile::sections()['parts']->read(
            new Node(['ref' => 'p', 'family' => $family, 'name' => 'P', 'specs' => $specs]),
            new Context(Catalogue::standard(), 'GBP'),
        );
        self::assertInstanceOf(Part::class, $part);
        $doubts = Doubts::about($part);

        self::assertCount($question === null ? 0 : 1, $doubts);
        if ($question !== null) {
            self::assertStringContainsString($question, str_replace("\u{a0}", ' ', $doubts[0]->question));
        }
    }

    public function test_the_overview_counts_what_waits_in_each_stage(): void
    {
        $file = Examples::file(
            [
                Examples::part('fan', 'fan', ['rated_current' => '0.1 A']),
                Examples::part('psu', 'power_supply', ['rated_power' => '30 W', 'output_voltage' => '12 V']),
            ],
            [
                'steps' => [
                    ['ref' => 'a', 'section' => 's', 'title' => 'A'],
                    ['ref' => 'b', 'section' => 's', 'title' => 'B', 'after' => ['a']],
                ],
                'faults' => [['ref' => 'x', 'what' => 'w', 'severity' => 'defect', 'found' => '2026-11-01']],
            ],
        );
        $file['needs'][] = ['ref' => 'later', 'role' => 'Spindle', 'family' => 'spindle'];
        $overview = (new Overview(
            Rules::inspector()->inspect((new SampleBuild($file))->build),
            new DateTimeImmutable('2026-11-25'),
        ))->toArray();

        self::assertSame(
            ['scope' => 3, 'choose' => 2, 'prove' => $overview['tally']['unproven'], 'buy' => 3, 'build' => 2],
            $overview['waiting'],
            'Three figures of the brief lack something; one undecided and one question; three without a price; one ready step and one fault.',
        );
        self::assertSame(
            [
                ['ref' => 'a', 'waits_for' => [], 'verdict' => null, 'gates' => []],
                [
                    'ref' => 'b',
                    'waits_for' => ['a'],
                    'verdict' => null,
                    'gates' => [['kind' => 'step', 'says' => '“A” comes first', 'ref' => 'a']],
                ],
            ],
            $overview['steps'],
        );
        self::assertFalse($overview['power_forbidden']);
    }
}
