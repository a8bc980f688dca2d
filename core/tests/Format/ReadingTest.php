<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Format;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\Reading;
use Magpie\Core\Tests\Inspection\RandomEdit;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** What is taken over from an earlier reading is what would be read, and what is refused is refused in the same words. */
final class ReadingTest extends TestCase
{
    private const EDITS = 120;

    /**
     * @return iterable<string, array{string}>
     */
    public static function demos(): iterable
    {
        yield 'linnet' => ['linnet'];
        yield 'dunlin' => ['dunlin'];
    }

    #[DataProvider('demos')]
    public function test_an_edit_is_read_as_if_all_were_read_afresh(string $demo): void
    {
        $dice = new Randomizer(new Mt19937(crc32($demo)));
        $earlier = self::demo($demo);
        $refused = 0;
        for ($i = 0; $i < self::EDITS * (int) (getenv('MAGPIE_FUZZ') ?: 1); $i++) {
            [$what, $data] = RandomEdit::of($earlier->data, $dice);
            $fresh = self::read($data, null);
            $taken = self::read($data, $earlier);
            if (is_string($fresh) || is_string($taken)) {
                self::assertSame($fresh, $taken, $what);
                $refused++;

                continue;
            }
            self::assertSame(BuildFile::write($fresh->build), BuildFile::write($taken->build), $what);
            $earlier = $taken;
        }
        self::assertGreaterThan(self::EDITS / 20, $refused);
    }

    public function test_what_has_not_changed_is_the_very_same(): void
    {
        $earlier = self::demo('linnet');
        $data = $earlier->data;
        $data['leads'][0]['length'] = '9 m';
        $build = BuildFile::reading($data, earlier: $earlier)->build;

        self::assertSame($earlier->build->parts, $build->parts);
        self::assertSame(array_slice($earlier->build->leads, 1), array_slice($build->leads, 1));
        self::assertNotSame(array_values($earlier->build->leads)[0], array_values($build->leads)[0]);
    }

    public function test_a_price_is_read_again_in_another_currency_of_its_supplier_and_not_for_a_further_one(): void
    {
        $earlier = self::demo('linnet');
        $data = $earlier->data;
        $data['suppliers'][] = ['ref' => 'further', 'name' => 'Further', 'currency' => 'GBP'];
        self::assertSame($earlier->build->offers, BuildFile::reading($data, earlier: $earlier)->build->offers);

        $at = array_search($data['offers'][0]['supplier'], array_column($data['suppliers'], 'ref'), true);
        $data['suppliers'][$at]['currency'] = 'CHF';
        $build = BuildFile::reading($data, earlier: $earlier)->build;
        self::assertSame('CHF', array_values($build->offers)[0]->price->currency);
        self::assertEquals(BuildFile::build($data)->offers, $build->offers);
    }

    /**
     * Edits of one entry that leave another, which has not changed, naming what it may not.
     *
     * @return iterable<string, array{string, int, array<string, mixed>, string}> section, place, what is put in, refusal
     */
    public static function broken(): iterable
    {
        yield 'a part goes that a need is filled with' => [
            'parts',
            0,
            [],
            '/needs/0/choice: there is no part "supply".',
        ];
        yield 'a need goes that a lead comes from' => ['needs', 0, [], '/leads/0/from: there is no need "psu".'];
        yield 'a part loses the port a lead ends at' => [
            'parts',
            1,
            ['ports' => []],
            '/leads/0/to: "Board" has no port "feed" (it has: ',
        ];
        yield 'a need is filled with what has no such port' => [
            'needs',
            1,
            ['choice' => 'bare'],
            '/leads/0/to: "Bare board" has no port "feed" (it has: ',
        ];
        yield 'a need turns into what an axis cannot be driven by' => [
            'needs',
            2,
            ['family' => 'fan'],
            '/axes/0/drive/motors/0: "motor" is none of: stepper motor, servo motor.',
        ];
        yield 'a need turns into what nothing sits in' => [
            'needs',
            4,
            ['family' => 'fan'],
            '/needs/3/sits_in: a motor_driver does not sit in a fan.',
        ];
        yield 'a step waits for one that waits for it' => [
            'steps',
            0,
            ['after' => ['b']],
            '/steps: these steps wait for each other in a circle: a → b → a.',
        ];
    }

    /**
     * @param  array<string, mixed>  $put  nothing to take it out
     */
    #[DataProvider('broken')]
    public function test_what_has_not_changed_may_be_left_naming_nothing(
        string $section,
        int $at,
        array $put,
        string $refusal,
    ): void {
        $earlier = BuildFile::reading([
            'magpie' => BuildFile::VERSION,
            'build' => ['name' => 'A', 'kind' => 'test', 'currency' => 'GBP'],
            'parts' => [
                [
                    'ref' => 'supply',
                    'family' => 'power_supply',
                    'name' => 'Supply',
                    'ports' => [['name' => 'out', 'kind' => 'source']],
                ],
                [
                    'ref' => 'board',
                    'family' => 'controller_board',
                    'name' => 'Board',
                    'ports' => [['name' => 'feed', 'kind' => 'inlet']],
                ],
                ['ref' => 'bare', 'family' => 'controller_board', 'name' => 'Bare board'],
            ],
            'needs' => [
                ['ref' => 'psu', 'role' => 'Supply', 'family' => 'power_supply', 'choice' => 'supply'],
                ['ref' => 'board', 'role' => 'Board', 'family' => 'controller_board', 'choice' => 'board'],
                ['ref' => 'motor', 'role' => 'Motor', 'family' => 'stepper_motor'],
                ['ref' => 'driver', 'role' => 'Driver', 'family' => 'motor_driver', 'sits_in' => 'host'],
                ['ref' => 'host', 'role' => 'Host', 'family' => 'controller_board'],
            ],
            'leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'board.feed']],
            'axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['motors' => ['motor']]]],
            'steps' => [
                ['ref' => 'a', 'section' => 's', 'title' => 'A'],
                ['ref' => 'b', 'section' => 's', 'title' => 'B', 'after' => ['a']],
            ],
        ]);
        $data = $earlier->data;
        if ($put === []) {
            array_splice($data[$section], $at, 1);
        } else {
            $data[$section][$at] = $put + $data[$section][$at];
        }

        $taken = self::read($data, $earlier);

        self::assertIsString($taken);
        self::assertStringStartsWith($refusal, $taken);
        self::assertSame($taken, self::read($data, null));
    }

    private static function demo(string $name): Reading
    {
        return Reading::of(BuildFile::read((string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json")));
    }

    /**
     * @param  array<string, mixed>  $data
     * @return Reading|string what was read, or why it was not
     */
    private static function read(array $data, ?Reading $earlier): Reading|string
    {
        try {
            return BuildFile::reading($data, kept: true, earlier: $earlier);
        } catch (CannotReadBuildFile $e) {
            return $e->getMessage();
        }
    }
}
