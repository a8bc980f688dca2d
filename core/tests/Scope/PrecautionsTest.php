<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Scope;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Site;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What the work gives off, and what has to be at hand. */
final class PrecautionsTest extends TestCase
{
    /**
     * @return iterable<string, array{string, string|null, Verdict}>
     */
    public static function air(): iterable
    {
        yield 'ASA with nothing' => ['ASA', 'none', Verdict::Fails];
        yield 'ASA by a window' => ['ASA', 'window', Verdict::Tight];
        yield 'ASA drawn off' => ['ASA', 'extraction outside', Verdict::Holds];
        yield 'nylon, nothing said' => ['PA', null, Verdict::Unproven];
        yield 'an arc by a window' => ['', 'window', Verdict::Danger];
        yield 'an arc drawn off' => ['', 'extraction outside', Verdict::Holds];
    }

    #[DataProvider('air')]
    public function test_fumes_ask_for_air(string $material, ?string $air, Verdict $verdict): void
    {
        $sample = new SampleBuild(
            Examples::file($material === '' ? [] : [Examples::part('reel', 'filament', ['material' => $material])], [
                'site' => $air === null ? [] : ['ventilation' => $air],
                'brief' => $material === '' ? ['process' => 'plasma'] : [],
            ]),
        );

        $this->assertSame($verdict, $sample->finding('M02-air/air')->verdict);
    }

    public function test_what_gives_nothing_off_is_not_asked_about(): void
    {
        $this->expectExceptionMessage('no finding');
        (new SampleBuild(Examples::file([Examples::part('reel', 'filament', ['material' => 'PLA'])])))->finding(
            'M02-air/air',
        );
    }

    public function test_the_machine_s_own_parts_count(): void
    {
        $sample = new SampleBuild(Examples::file([Examples::part('corner', 'printed_part', ['material' => 'ABS'])]));

        $this->assertSame(Verdict::Unproven, $sample->finding('M02-air/air')->verdict);
    }

    public function test_each_precaution_that_is_asked_for_counts(): void
    {
        $bed = Examples::part('bed', 'heater', ['rated_power' => '100 W']);
        $spindle = Examples::part('spindle', 'spindle', []);
        $said = static fn (array $ready): SampleBuild => new SampleBuild(
            Examples::file([$bed, $spindle], ['site' => ['ready' => $ready]]),
        );
        $all = array_map(static fn (): bool => true, Site::PRECAUTIONS);
        foreach (
            ['heat' => ['smoke_alarm', 'extinguisher'], 'spindle' => ['eyes_and_ears', 'dust_extraction']] as $of => $asked
        ) {
            $this->assertSame(Verdict::Holds, $said($all)->finding("M02-ready/{$of}")->verdict);
            foreach ($asked as $one) {
                $this->assertSame(
                    Verdict::Fails,
                    $said([$one => false] + $all)->finding("M02-ready/{$of}")->verdict,
                    $one,
                );
                $this->assertSame(
                    ["site/ready/{$one}"],
                    array_values($said(array_diff_key($all, [$one => 1]))->finding("M02-ready/{$of}")->wanted),
                );
            }
        }
    }

    public function test_what_is_at_hand_is_kept_in_the_file(): void
    {
        $build = BuildFile::read(
            BuildFile::write((new SampleBuild(['site' => ['ready' => ['shade' => true, 'screen' => false]]]))->build),
        );

        $this->assertSame(['shade' => true, 'screen' => false], $build->site->ready);
        $this->expectExceptionMessage('/site/ready/helmet');
        new SampleBuild(['site' => ['ready' => ['helmet' => true]]]);
    }

    /**
     * @return iterable<string, array{array<string, string|bool>, array<string, mixed>|null, Verdict}>
     */
    public static function prints(): iterable
    {
        $chamber = static fn (string $air): array => [
            'ref' => 'c',
            'name' => 'Chamber',
            'kind' => 'chamber',
            'temperature' => $air,
            'evidence' => 'measured',
        ];
        yield 'cold enough' => [['nozzle_temperature' => '230 °C'], null, Verdict::Holds];
        yield 'near the lining' => [['nozzle_temperature' => '235 °C'], null, Verdict::Tight];
        yield 'above the lining' => [['nozzle_temperature' => '255 °C'], null, Verdict::Fails];
        yield 'layers too high' => [['layer_height' => '0.33 mm'], null, Verdict::Fails];
        yield 'layers of four fifths' => [
            ['layer_height' => '0.32 mm', 'line_width' => '0.45 mm'],
            null,
            Verdict::Holds,
        ];
        yield 'a line thinner than the nozzle' => [['line_width' => '0.39 mm'], null, Verdict::Tight];
        yield 'a line too wide' => [['line_width' => '0.61 mm'], null, Verdict::Tight];
        yield 'a door to shut, and none there' => [['door' => 'shut'], null, Verdict::Fails];
        yield 'a door to shut' => [
            ['door' => 'shut', 'chamber_temperature' => '50 °C'],
            $chamber('55 °C'),
            Verdict::Holds,
        ];
        yield 'too cool around it' => [['chamber_temperature' => '70 °C'], $chamber('55 °C'), Verdict::Tight];
        yield 'in the open' => [['chamber_temperature' => '45 °C'], null, Verdict::Tight];
        yield 'air of the room will do' => [['chamber_temperature' => '25 °C'], null, Verdict::Holds];
    }

    /**
     * @param  array<string, string|bool>  $reel
     * @param  array<string, mixed>|null  $zone
     */
    #[DataProvider('prints')]
    public function test_a_material_asks_for_a_nozzle_and_air(array $reel, ?array $zone, Verdict $verdict): void
    {
        $sample = new SampleBuild(
            Examples::file(
                [
                    Examples::part('hot', 'hot_end', [
                        'lined' => true,
                        'lining_limit' => '240 °C',
                        'nozzle' => '0.4 mm',
                    ]),
                    Examples::part('reel', 'filament', $reel + ['nozzle_temperature' => '220 °C']),
                ],
                $zone === null ? [] : ['zones' => [$zone]],
            ),
        );

        $this->assertSame($verdict, $sample->finding('M13-print/reel')->verdict);
    }
}
