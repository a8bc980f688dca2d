<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Format;

use DateTimeImmutable;
use Magpie\Core\Advice\Overview;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Machine\Build;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/**
 * The demo builds with single values put wrong. Whatever stands in a file, it is refused at its place or judged to the
 * end in finite numbers. MAGPIE_FUZZ sets how many; a long run is 100,000.
 */
final class FuzzTest extends TestCase
{
    /** What has broken programs before, beside the plausible. */
    private const NASTY = [
        '',
        ' ',
        '0',
        '0 mm',
        '0 V',
        '0 A',
        '0 °',
        '0 mm²',
        '0 mm⁴',
        '0 kg',
        '0 h',
        '0 %',
        '1e-30 h',
        '1e15 m',
        '-1 mm',
        '1E400 AWG',
        '-40 AWG',
        '1E300 V',
        '1e-300 V',
        '99999999999 %',
        '-10 %',
        '300 °C',
        '-273.15 °C',
        '-300 °C',
        '1e14 W',
        '1e-14 A',
        '0/0 in',
        '1/0 in',
        'NaN',
        'INF',
        '12',
        '12 furlongs',
        "2026-01-01\0",
        "a\0b",
        '608',
        '007',
        '-5',
        '𝄞',
        "\u{202e}abc",
        'x.y',
        '608.608',
        '=1+1',
        null,
        true,
        false,
        0,
        1,
        -1,
        608,
        1_000_000_000,
        PHP_INT_MAX,
        1.5,
        1e308,
        [],
        [[]],
        ['1' => 'x'],
        ['0' => 'x'],
        [0 => 'a', 1 => 'b'],
        ['ref' => '608'],
    ];

    private Randomizer $dice;

    public function test_any_value_anywhere_is_refused_at_its_place_or_judged_to_the_end(): void
    {
        $this->dice = new Randomizer(new Xoshiro256StarStar(20_261_127));
        $demos = array_map(self::demo(...), ['linnet', 'dunlin']);
        $wanted = (int) (getenv('MAGPIE_FUZZ') ?: 500);
        $tried = $read = 0;
        while ($tried < $wanted) {
            $data = $demos[$tried % 2];
            $where = $this->spoil($data);
            $tried++;
            foreach ([false, true] as $kept) {
                try {
                    $build = BuildFile::build($data, $kept);
                } catch (CannotReadBuildFile $e) {
                    self::assertNotSame('', $e->reason);

                    continue;
                }
                $read++;
                self::assertSound($build, $where, $kept);
            }
        }
        self::assertGreaterThan($tried / 20, $read, 'Some of what was put wrong is still read, or this tests nothing.');
    }

    /**
     * @param  list<string|int>  $path
     */
    #[DataProvider('foundBefore')]
    public function test_what_was_found_stays_found(string $demo, array $path, mixed $value, ?string $reason): void
    {
        $data = self::demo($demo);
        $place = &$data;
        foreach ($path as $key) {
            $place = &$place[$key];
        }
        $place = $value;
        unset($place);
        $refused = null;
        try {
            self::assertSound(BuildFile::build($data), implode('/', $path), false);
        } catch (CannotReadBuildFile $e) {
            $refused = "{$e->pointer}: {$e->reason}";
        }
        if ($reason === null) {
            self::assertNull($refused);
        } else {
            self::assertStringContainsString($reason, (string) $refused);
        }
        try {
            self::assertSound(BuildFile::build($data, kept: true), implode('/', $path), true);
        } catch (CannotReadBuildFile $e) {
            self::assertNotNull($reason, $e->reason);
        }
    }

    /**
     * @return iterable<string, array{string, list<string|int>, mixed, string|null}>
     */
    public static function foundBefore(): iterable
    {
        $of = static fn (string $demo, string $section, string $ref): int => (int) array_search(
            $ref,
            array_column(self::demo($demo)[$section], 'ref'),
            true,
        );
        $partOf = static function (string $demo, string $family): int {
            foreach (self::demo($demo)['parts'] as $i => $part) {
                if ($part['family'] === $family) {
                    return $i;
                }
            }

            return -1;
        };
        $spec = static fn (string $demo, string $family, string $key): array => [
            'parts',
            $partOf($demo, $family),
            'specs',
            $key,
        ];
        yield 'a screw that leads nowhere' => [
            'linnet',
            $spec('linnet', 'drive_screw', 'lead'),
            '0 mm',
            'cannot be nought',
        ];
        yield 'filament of no thickness' => [
            'dunlin',
            $spec('dunlin', 'filament', 'diameter'),
            '0 mm',
            'cannot be nought',
        ];
        yield 'a beam that is no beam' => [
            'linnet',
            $spec('linnet', 'extrusion', 'second_moment'),
            '0 mm⁴',
            'cannot be nought',
        ];
        yield 'a motor that makes no step' => [
            'linnet',
            $spec('linnet', 'stepper_motor', 'step_angle'),
            '0 °',
            'cannot be nought',
        ];
        yield 'a heater of no width' => [
            'dunlin',
            $spec('dunlin', 'heater', 'heated_width'),
            '0 mm',
            'cannot be nought',
        ];
        yield 'a supply that counts a billion fans' => [
            'dunlin',
            $spec('dunlin', 'controller_board', 'fan_outputs'),
            '1000000000',
            'from 0 to 240',
        ];
        yield 'mains of nothing' => ['linnet', ['site', 'mains_voltage'], '0 V', 'from 12 V to 1000 V'];
        yield 'no hour in a lifetime' => ['linnet', ['build', 'weekly'], '1e-30 h', 'of anything that is built'];
        yield 'a second a week' => ['linnet', ['build', 'weekly'], '1 s', 'from 1 min to 168 h'];
        yield 'a lead to the next star' => ['linnet', ['leads', 0, 'length'], '1e15 m', '/leads/0/length'];
        yield 'a gauge past all numbers' => [
            'linnet',
            ['leads', 0, 'conductor', 'size'],
            '1E400 AWG',
            '/leads/0/conductor/size',
        ];
        yield 'a day with a hidden end' => ['linnet', ['offers', 0, 'date'], "2026-01-01\0", 'control character'];
        yield 'a spec that is a number' => ['linnet', ['parts', 0, 'specs', '1'], '3 V', 'no such spec'];
        yield 'a load that is a number' => ['linnet', ['scenarios', 0, 'loads', '608'], '10 %', 'no need "n608"'];
        yield 'fewer than no spares' => ['linnet', ['needs', 0, 'spares'], '-10 %', 'negative'];
        yield 'more than the world owns' => ['linnet', ['needs', 0, 'owned'], 5_000_000, 'from 0 to 1000000'];
        yield 'more pieces than a column holds' => [
            'dunlin',
            ['steps', 0, 'uses'],
            ['n' => PHP_INT_MAX],
            'from 1 to 1000000',
        ];
    }

    public function test_a_name_of_digits_stays_a_name(): void
    {
        $build = BuildFile::build([
            'magpie' => 1,
            'build' => ['name' => 'Digits', 'kind' => 'router', 'currency' => 'GBP'],
            'parts' => [
                ['ref' => '608', 'family' => 'bearing', 'name' => '608'],
                [
                    'ref' => '24',
                    'family' => 'power_supply',
                    'name' => 'Supply',
                    'ports' => [['name' => '1', 'kind' => 'outlet']],
                ],
            ],
            'needs' => [
                [
                    'ref' => '608',
                    'role' => 'Bearings',
                    'family' => 'bearing',
                    'quantity' => 4,
                    'candidates' => ['608'],
                    'choice' => '608',
                ],
                [
                    'ref' => '24',
                    'role' => 'Supply',
                    'family' => 'power_supply',
                    'candidates' => ['24'],
                    'choice' => '24',
                ],
                ['ref' => '007', 'role' => 'Fan', 'family' => 'fan'],
            ],
            'leads' => [['ref' => '1', 'from' => '24.1', 'to' => '007.power']],
            'scenarios' => [['ref' => '1', 'name' => 'One', 'loads' => ['24' => '100 %']]],
            'decisions' => [
                ['ref' => '1', 'question' => 'Which?', 'about' => 'part', 'need' => '608', 'facts' => ['1' => 'b']],
            ],
        ]);

        self::assertSound($build, 'digits', false);
        self::assertSame(
            ['n608', 'n24', '007'],
            array_keys($build->needs),
            'What PHP would take for a number gets a letter before it.',
        );
        self::assertSame('n24.n1', $build->leads['n1']->from->text());
        self::assertSame('n608', $build->needs['n608']->choice);
        self::assertSame(BuildFile::data($build), BuildFile::data(BuildFile::build(BuildFile::data($build))));
    }

    private static function assertSound(Build $build, string $where, bool $kept): void
    {
        $inspection = Rules::inspector()->inspect($build);
        foreach ($inspection->findings as $finding) {
            // What is new never gets as far as an undone judgement; what was kept may, and then it is said.
            self::assertTrue($kept || $finding->trouble === null, "{$where}: {$finding->trouble}");
            self::assertFalse($finding->trouble !== null && $finding->verdict->passes());
        }
        $overview = json_encode(
            (new Overview($inspection, new DateTimeImmutable('2026-11-27')))->toArray(),
            JSON_THROW_ON_ERROR,
        );
        self::assertJson($overview);
        self::assertJson((string) json_encode(BuildFile::data($build), JSON_THROW_ON_ERROR));
    }

    /**
     * Puts one value somewhere wrong.
     *
     * @param  array<mixed>  $data
     * @return string where, and what
     */
    private function spoil(array &$data): string
    {
        $value = self::NASTY[$this->dice->getInt(0, count(self::NASTY) - 1)];
        $place = &$data;
        $where = '';
        while (true) {
            $keys = array_keys($place);
            $key = $keys[$this->dice->getInt(0, count($keys) - 1)];
            if ($key === 'magpie') {
                continue;
            }
            $where .= "/{$key}";
            $place = &$place[$key];
            if (! is_array($place) || $place === [] || $this->dice->getInt(1, 12) === 1) {
                $place = $value;

                return $where.' = '.json_encode($value, JSON_PARTIAL_OUTPUT_ON_ERROR);
            }
        }
    }

    /**
     * @return array<string, mixed>
     */
    private static function demo(string $name): array
    {
        return json_decode(
            (string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json"),
            true,
            64,
            JSON_THROW_ON_ERROR,
        );
    }
}
