<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Magpie\Core\Advice\MeasureFirst;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Rules\ContactLoad;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Machine\Build;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\TestCase;

final class MeasureFirstTest extends TestCase
{
    /**
     * A printed clamp 25 K below where ASA softens, and a rail with travel to spare.
     *
     * @param  array<string, mixed>  $temperature
     */
    private function build(array $temperature): Build
    {
        $file = Examples::file(
            [
                Examples::part('clamp', 'printed_part', ['material' => 'ASA']),
                Examples::part('rail', 'linear_rail', ['length' => '800 mm', 'block_length' => '58 mm']),
            ],
            [
                'axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'rail' => 'rail']],
                'workpieces' => [
                    ['ref' => 'w', 'name' => 'Board', 'length' => '300 mm', 'width' => '90 mm', 'height' => '9 mm'],
                ],
            ],
        );
        $file['parts'][0]['specs']['service_temperature'] = $temperature;

        return (new SampleBuild($file))->build;
    }

    /**
     * @return array<string, array<string, mixed>>
     */
    private function rows(Build $build): array
    {
        return array_column((new MeasureFirst(Standing::of(Rules::inspector(), $build)))->toArray(), null, 'where');
    }

    public function test_a_value_that_could_turn_a_verdict_comes_with_both_ends_and_a_way_to_measure_it(): void
    {
        $rows = $this->rows($this->build(['value' => '78 °C', 'evidence' => 'listing']));
        $row = $rows['parts/clamp/specs/service_temperature'];

        self::assertSame(["68\u{a0}°C", "88\u{a0}°C"], [$row['low'], $row['high']]);
        self::assertSame(
            ['M13/clamp', 'holds', 'tight'],
            [$row['flips'][0]['key'], $row['flips'][0]['from'], $row['flips'][0]['to']],
            'A listing may be 10 K off: 88 °C is too close to 100 °C.',
        );
        self::assertSame(['thermocouple', 'listing', 'clamp'], [$row['instrument'], $row['evidence'], $row['part']]);
        self::assertNotSame('', $row['method']);
        self::assertArrayNotHasKey(
            'parts/rail/specs/length',
            $rows,
            'Half the travel is to spare: no error of a datasheet turns that.',
        );
    }

    public function test_a_measured_value_is_not_asked_for_again(): void
    {
        self::assertArrayNotHasKey(
            'parts/clamp/specs/service_temperature',
            $this->rows($this->build(['value' => '75 °C', 'evidence' => 'measured'])),
        );
    }

    public function test_a_pass_on_a_sellers_word_is_settled_by_measuring(): void
    {
        // 6 A on a contact listed for 10 A: a fifth less would do, a third less would not.
        $file = ContactLoad::bedOn(2);
        $file['parts'][2]['specs']['contact_rating']['evidence'] = 'listing';
        $row = $this->rows((new SampleBuild($file))->build)['parts/plug/specs/contact_rating'];

        self::assertContains(
            [
                'key' => 'E02/W1',
                'title' => 'Contact load',
                'subject' => 'W1: psu to bed',
                'from' => 'unproven',
                'to' => 'holds',
                'with' => 0,
            ],
            $row['flips'],
        );
    }

    public function test_what_is_missing_is_told_where_to_write_it(): void
    {
        $file = Examples::file(
            [Examples::part('rail', 'linear_rail', ['length' => '800 mm'])],
            [
                'axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'rail' => 'rail', 'blocks' => 2]],
                'site' => ['door' => ['width' => '700 mm', 'height' => '1900 mm']],
            ],
        );
        $rows = $this->rows((new SampleBuild($file))->build);

        self::assertSame(
            ['rail', 'block_length', 'callipers', null],
            [
                $rows['parts/rail/specs/block_length']['part'],
                $rows['parts/rail/specs/block_length']['key'],
                $rows['parts/rail/specs/block_length']['instrument'],
                $rows['parts/rail/specs/block_length']['flips'][0]['to'],
            ],
        );
        self::assertArrayHasKey('brief/outline/length', $rows);
    }

    public function test_writing_what_was_measured_changes_the_verdict_it_was_ranked_for(): void
    {
        $build = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/linnet.json'));
        $rows = array_values(
            array_filter(
                $this->rows($build),
                static fn (array $r): bool => array_filter(
                    $r['flips'],
                    static fn (array $f): bool => $f['from'] === 'unproven' && $f['to'] === 'holds' && $f['with'] === 0,
                ) !== [],
            ),
        );
        self::assertNotSame([], $rows);
        foreach (array_slice($rows, 0, 5) as $row) {
            $data = BuildFile::data($build);
            [, $part, , $key] = explode('/', $row['where']);
            foreach ($data['parts'] as $i => $entry) {
                if ($entry['ref'] === $part) {
                    $data['parts'][$i]['specs'][$key]['evidence'] = 'measured';
                }
            }
            $after = BuildFile::build($data);
            foreach ($row['flips'] as $flip) {
                if ($flip['from'] === 'unproven' && $flip['with'] === 0) {
                    self::assertSame(
                        $flip['to'],
                        Rules::inspector()->find($after, $flip['key'])?->verdict->value,
                        "{$row['where']}: {$flip['key']}",
                    );
                }
            }
        }
    }

    public function test_weights_rank_and_every_row_says_what_it_could_do(): void
    {
        foreach (['linnet', 'dunlin'] as $name) {
            $rows = array_values(
                $this->rows(BuildFile::read((string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json"))),
            );
            foreach ($rows as $i => $row) {
                self::assertNotSame([], $row['flips'], $row['where']);
                self::assertTrue($i === 0 || $rows[$i - 1]['weight'] >= $row['weight']);
            }
        }
    }
}
