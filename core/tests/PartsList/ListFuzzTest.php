<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\PartsList;

use DateTimeImmutable;
use Magpie\Core\Advice\Overview;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\Sections\Needs;
use Magpie\Core\Format\Sections\Parts;
use Magpie\Core\Machine\Need;
use Magpie\Core\Machine\Part;
use Magpie\Core\PartsList\Mapping;
use Magpie\Core\PartsList\RowReader;
use Magpie\Core\PartsList\Targets;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;
use PHPUnit\Framework\TestCase;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/** Parts lists nobody would write: whatever is taken of them makes a build that can be read, judged and summed. */
final class ListFuzzTest extends TestCase
{
    private const CELLS = [
        '',
        '1',
        '2',
        '3',
        '0',
        '608',
        '24',
        '007',
        '-1',
        '-10 %',
        '15 %',
        '1e3',
        '1000000000',
        '5000000',
        '200000',
        '99999999999999999999',
        '24 V',
        '24V',
        '0 V',
        '1E400 V',
        '0 mm',
        '12 in',
        '1/0 in',
        'NaN',
        'INF',
        'yes',
        'fan',
        'bearing',
        'screw',
        'power supply',
        'controller board',
        'stepper motor',
        'wire',
        'Fan 40',
        "a\0b",
        "x\ty",
        "\u{202e}",
        '=1+1',
        "'=1+1",
        'ß',
        '£3.20',
        '3,20',
        '1.234,56',
        'GBP',
        'gbp',
        'a.b',
        '---',
        '___',
        'A'.'a',
    ];

    public function test_whatever_is_taken_of_a_list_makes_a_sound_build(): void
    {
        $dice = new Randomizer(new Xoshiro256StarStar(608));
        $headings = array_keys(Targets::all());
        $wanted = (int) (getenv('MAGPIE_FUZZ') ?: 1_500);
        $taken = $refused = 0;
        for ($list = 0; $list < $wanted; $list++) {
            $columns = $dice->getInt(2, 9);
            $targets = ['name'];
            for ($i = 1; $i < $columns; $i++) {
                $targets[] = $headings[$dice->getInt(0, count($headings) - 1)];
            }
            $families = [
                null,
                'fan',
                'screw',
                'bearing',
                'controller_board',
                'drive_screw',
                'filament',
                'heater',
                'stepper_motor',
            ];
            $reader = new RowReader(
                new Mapping($targets, family: $families[$dice->getInt(0, count($families) - 1)]),
                Catalogue::standard(),
            );
            $parts = $needs = $used = [];
            for ($line = 1, $lines = $dice->getInt(1, 4); $line <= $lines; $line++) {
                $row = $reader->read(
                    $line,
                    array_map(static fn (): string => self::CELLS[$dice->getInt(0, count(self::CELLS) - 1)], $targets),
                );
                $row->part === null ? $refused++ : $taken++;
                if ($row->part === null || $row->need === null) {
                    self::assertNotSame([], $row->problems, 'Refused without a word.');

                    continue;
                }
                for ($ref = $row->part->ref, $n = 2; isset($used[$ref]); $n++) {
                    $ref = "{$row->part->ref}-{$n}";
                }
                $used[$ref] = true;
                $parts[] = (new Parts)->write(
                    new Part($ref, $row->part->family, $row->part->name, $row->part->specs, [], $row->part->notes),
                );
                $spares =
                    $row->need['spares'] === null ? null : Quantity::parse($row->need['spares'], Dimension::Ratio);
                $needs[] = (new Needs)->write(
                    new Need(
                        $ref,
                        $row->need['role'],
                        $row->part->family->key(),
                        $row->need['quantity'],
                        [$ref],
                        $ref,
                        null,
                        $spares,
                        $row->need['owned'],
                    ),
                );
                self::assertTrue($row->offer === null || ($row->offer['pack'] >= 1 && $row->offer['pack'] <= 100_000));
            }
            $build = BuildFile::build([
                'magpie' => 1,
                'build' => ['name' => 'List', 'kind' => 'router', 'currency' => 'GBP'],
                'parts' => $parts,
                'needs' => $needs,
            ]);
            self::assertSame(count($needs), count($build->needs));
            foreach (array_keys($build->needs) as $ref) {
                self::assertIsString($ref);
            }
            $inspection = Rules::inspector()->inspect($build);
            foreach ($inspection->findings as $finding) {
                self::assertNull(
                    $finding->trouble,
                    (string) json_encode([$targets, $parts], JSON_PARTIAL_OUTPUT_ON_ERROR),
                );
            }
            self::assertJson(
                json_encode(
                    (new Overview($inspection, new DateTimeImmutable('2026-11-27')))->toArray(),
                    JSON_THROW_ON_ERROR,
                ),
            );
        }
        self::assertGreaterThan($list / 4, $taken, 'Some lines are taken, or this tests nothing.');
        self::assertGreaterThan(0, $refused);
    }
}
