<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Format;

use Eris\Generators;
use Eris\TestTrait;
use Magpie\Core\Advice\InspectionReport;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Views\PowerLedger;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\FieldKind;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Money\MoneyLedger;
use PHPUnit\Framework\TestCase;

/** Builds nobody would draw: whatever is in them, they are read, kept, judged and summed without a stumble. */
final class RandomBuildTest extends TestCase
{
    use TestTrait;

    private int $die = 1;

    public function test_any_build_survives_reading_writing_judging_and_summing(): void
    {
        $this->limitTo(60)
            ->forAll(Generators::choose(1, 1_000_000))
            ->then(function (int $seed): void {
                $this->die = $seed;
                $build = BuildFile::build($this->build(), kept: true);
                $written = BuildFile::data($build);

                self::assertSame($written, BuildFile::data(BuildFile::build($written, kept: true)), "seed {$seed}");
                $inspection = Rules::inspector()->inspect($build);
                self::assertSame(count($inspection->findings), array_sum($inspection->tally()));
                self::assertSame(
                    [],
                    array_diff_key($inspection->tally(), array_flip(['danger', 'fails', 'tight', 'unproven', 'holds'])),
                );
                foreach ($inspection->findings as $i => $finding) {
                    self::assertNotSame('', $finding->headline);
                    self::assertFalse(
                        $finding->verdict->passes() && $finding->missing !== [],
                        "seed {$seed}: {$finding->key()} passes with something missing",
                    );
                    self::assertFalse(
                        $finding->verdict->passes() &&
                            $finding->whatever === [] &&
                            ! $finding->card->informs &&
                            $finding->weakest()?->isWeakerThan($finding->card->asks) === true,
                        "seed {$seed}: {$finding->key()} passes on too little",
                    );
                    self::assertTrue(
                        $i === 0 || $inspection->findings[$i - 1]->verdict->rank() <= $finding->verdict->rank(),
                        'What matters most comes first.',
                    );
                    self::assertSame(
                        $finding->toArray(),
                        Rules::inspector()->find($build, $finding->key())?->toArray(),
                        "seed {$seed}: {$finding->key()} asked for alone says the same",
                    );
                }
                self::assertJson(InspectionReport::json($inspection));
                foreach ((new PowerLedger($inspection->survey))->toArray() as $scenario) {
                    foreach ($scenario['outputs'] as $output) {
                        if ($output['load'] !== null && $output['missing'] === []) {
                            // What an output gives is what its loads take: Kirchhoff, seen from the ledger.
                            self::assertEqualsWithDelta(
                                array_sum(array_column($output['loads'], 'amps')),
                                $output['load'],
                                0.02 + $output['load'] * 0.01,
                                "seed {$seed}: {$output['ref']}",
                            );
                        }
                    }
                }
                $money = (new MoneyLedger($build))->toArray();
                self::assertEqualsWithDelta(
                    array_sum($money['accounts']) +
                        (float) $money['spares'] +
                        (float) $money['shipping'] +
                        (float) $money['tax'] +
                        (float) $money['contingency'],
                    (float) $money['planned'],
                    0.06,
                    "seed {$seed}",
                );
            });
    }

    /**
     * @return array<string, mixed>
     */
    private function build(): array
    {
        $parts = $needs = $leads = $offers = $ports = [];
        $families = array_values(Catalogue::standard()->all());
        for ($i = 0, $count = 4 + $this->roll(14); $i < $count; $i++) {
            $family = $families[$this->roll(count($families))];
            $specs = [];
            foreach ($family->sheet() as $field) {
                if ($this->roll(10) < 7) {
                    $specs[$field->key] =
                        ['value' => $this->value($field), 'evidence' => Evidence::cases()[$this->roll(6)]->value] +
                        ($this->roll(4) === 0 ? ['confirmed' => true] : []);
                }
            }
            $parts[] = ['ref' => "p{$i}", 'family' => $family->key(), 'name' => "Part {$i}", 'specs' => $specs];
            $needs[] =
                [
                    'ref' => "n{$i}",
                    'role' => "Need {$i}",
                    'family' => $family->key(),
                    'quantity' => 1 + $this->roll(3),
                    'candidates' => ["p{$i}"],
                ] +
                ($this->roll(9) > 0 ? ['choice' => "p{$i}"] : []) +
                ($this->roll(3) === 0 ? ['spares' => '15 %'] : []);
            foreach ($family->ports() as $port) {
                $ports[] = "n{$i}.{$port->name}";
            }
            if ($this->roll(3) > 0) {
                $offers[] = [
                    'ref' => "o{$i}",
                    'part' => "p{$i}",
                    'supplier' => $this->roll(2) === 0 ? 'home' : 'abroad',
                    'price' => (string) (1 + $this->roll(5000) / 100),
                    'pack' => 1 + $this->roll(20),
                    'date' => '2026-11-01',
                ];
            }
        }
        for ($i = 0, $count = $ports === [] ? 0 : $this->roll(count($ports) * 2); $i < $count; $i++) {
            [$from, $to] = [$ports[$this->roll(count($ports))], $ports[$this->roll(count($ports))]];
            if ($from !== $to) {
                $leads[] =
                    ['ref' => "W{$i}", 'from' => $from, 'to' => $to] +
                    ($this->roll(3) > 0
                        ? [
                            'conductor' => [
                                'size' => ['18 AWG', '0.75 mm²', '2.5 mm²', '26 AWG'][$this->roll(4)],
                                'evidence' => 'datasheet',
                                'parallel' => 1 + $this->roll(2),
                            ],
                            'length' => (1 + $this->roll(30)) / 10 .' m',
                        ]
                        : []) +
                    ($this->roll(2) === 0
                        ? [
                            'route' => 'flexing',
                            'ends' => [
                                ['strain_relief' => $this->roll(2) === 0],
                                ['contacts_per_pole' => 1 + $this->roll(3)],
                            ],
                        ]
                        : []);
            }
        }

        return [
            'magpie' => 1,
            'build' => ['name' => 'Random', 'kind' => 'chaos', 'currency' => 'GBP', 'contingency' => '5 %'],
            'site' => $this->roll(3) > 0 ? ['mains_voltage' => '230 V', 'ambient' => '33 °C', 'tariff' => '0.3'] : [],
            'parts' => $parts,
            'needs' => $needs,
            'leads' => $leads,
            'offers' => $offers,
            'suppliers' => [
                [
                    'ref' => 'home',
                    'name' => 'Home',
                    'currency' => 'GBP',
                    'tax' => '20 %',
                    'shipping' => [['from' => '0', 'cost' => '5']],
                ],
                ['ref' => 'abroad', 'name' => 'Abroad', 'currency' => 'EUR'],
            ],
            'axes' => ($axes = $this->axes($needs)),
            'zones' => $this->zones($needs),
            'clearances' => $this->clearances($axes),
            'settings' => $this->settings($needs, $axes),
            'rates' => $this->roll(4) > 0 ? [['from' => 'EUR', 'to' => 'GBP', 'worth' => '0.86', 'date' => '2026-11-01']] : [],
            'scenarios' => $this->roll(2) === 0
                    ? [
                        [
                            'ref' => 's',
                            'name' => 'S',
                            'loads' => ['n0' => '100 %', 'n1' => '40 %', 'n2' => '100 %', 'n3' => '0 %'],
                            'duration' => '1 h',
                        ],
                    ]
                    : [],
        ];
    }

    /**
     * @param  list<array<string, mixed>>  $needs
     * @return list<string>
     */
    private static function of(array $needs, string ...$families): array
    {
        return array_values(
            array_column(
                array_filter($needs, static fn (array $n): bool => in_array($n['family'], $families, true)),
                'ref',
            ),
        );
    }

    /**
     * @param  list<string>  $from
     */
    private function one(array $from): ?string
    {
        return $from === [] || $this->roll(5) === 0 ? null : $from[$this->roll(count($from))];
    }

    /**
     * @param  list<array<string, mixed>>  $needs
     * @return list<array<string, mixed>>
     */
    private function axes(array $needs): array
    {
        $axes = [];
        for ($i = 0, $count = $this->roll(4); $i < $count; $i++) {
            $motor = $this->one(self::of($needs, 'stepper_motor', 'servo_motor'));
            $drive = array_filter(
                [
                    'motors' => $motor === null ? null : [$motor],
                    'by' => $this->one(self::of($needs, 'drive_screw', 'pulley')),
                    'board' => $this->one(self::of($needs, 'controller_board')),
                    'beam' => $this->one(self::of($needs, 'extrusion')),
                    'top_speed' => $this->roll(4) > 0 ? 1 + $this->roll(500).' mm/s' : null,
                    'acceleration' => $this->roll(4) > 0 ? 1 + $this->roll(9000).' mm/s²' : null,
                    'mass' => $this->roll(4) > 0 ? (1 + $this->roll(400)) / 10 .' kg' : null,
                    'force' => $this->roll(3) > 0 ? $this->roll(900).' N' : null,
                    'friction' => $this->roll(3) > 0 ? $this->roll(90).' N' : null,
                    'efficiency' => $this->roll(3) > 0 ? 10 + $this->roll(90).' %' : null,
                    'incline' => ['0 °', '90 °', '30 °', null][$this->roll(4)],
                    'ratio' => [null, '2', '0.5'][$this->roll(3)],
                    'support' => ['fixed-free', 'supported', null][$this->roll(3)],
                    'unsupported' => $this->roll(3) > 0 ? 50 + $this->roll(1500).' mm' : null,
                    'lever' => $this->roll(3) > 0 ? $this->roll(200).' mm' : null,
                    'spread' => $this->roll(3) > 0 ? 1 + $this->roll(300).' mm' : null,
                    'measured_load' => $this->roll(6) === 0 ? 1 + $this->roll(120).' %' : null,
                    'evidence' => Evidence::cases()[$this->roll(6)]->value,
                ],
                static fn (mixed $v): bool => $v !== null,
            );
            $axes[] = array_filter(
                [
                    'ref' => "a{$i}",
                    'name' => "Axis {$i}",
                    'along' => ['x', 'y', 'z'][$this->roll(3)],
                    'rail' => $this->one(self::of($needs, 'linear_rail')),
                    'blocks' => 1 + $this->roll(3),
                    'drive' => $drive,
                    'homing' => [
                        'by' => ['switch', 'sensorless', 'none'][$this->roll(3)],
                        'both_ends' => $this->roll(2) === 0,
                    ],
                ],
                static fn (mixed $v): bool => $v !== null,
            );
        }

        return $axes;
    }

    /**
     * @param  list<array<string, mixed>>  $needs
     * @return list<array<string, mixed>>
     */
    private function zones(array $needs): array
    {
        $free = array_column($needs, 'ref');
        $zones = [];
        foreach (['cabinet', 'chamber'] as $i => $kind) {
            $holds = array_splice($free, 0, $this->roll(5));
            if ($holds !== []) {
                $zones[] =
                    ['ref' => "z{$i}", 'name' => "Place {$i}", 'kind' => $kind, 'holds' => $holds] +
                    ($this->roll(3) > 0
                        ? [
                            'temperature' => 10 + $this->roll(80).' °C',
                            'evidence' => Evidence::cases()[$this->roll(6)]->value,
                        ]
                        : []);
            }
        }

        return $zones;
    }

    /**
     * @param  list<array<string, mixed>>  $axes
     * @return list<array<string, mixed>>
     */
    private function clearances(array $axes): array
    {
        $side = fn (string $what): array => ['what' => $what] +
            array_filter(['x' => $this->span(), 'y' => $this->span(), 'z' => $this->span()]) +
            ($axes === [] || $this->roll(2) === 0 ? [] : ['moves' => [$axes[$this->roll(count($axes))]['ref']]]);

        return $this->roll(2) === 0
            ? []
            : [
                [
                    'ref' => 'c',
                    'name' => 'Pair',
                    'between' => [$side('A'), $side('B')],
                    'evidence' => Evidence::cases()[$this->roll(6)]->value,
                ],
            ];
    }

    private function span(): ?string
    {
        $from = $this->roll(500) - 100;

        return $this->roll(3) === 0 ? null : "{$from} mm to ".($from + $this->roll(300)).' mm';
    }

    /**
     * @param  list<array<string, mixed>>  $needs
     * @param  list<array<string, mixed>>  $axes
     * @return list<array<string, mixed>>
     */
    private function settings(array $needs, array $axes): array
    {
        $about = [
            'firmware.runaway',
            'nonsense',
            ...array_map(static fn (array $a): string => "axis.{$a['ref']}.steps_per_mm", $axes),
            ...array_map(static fn (string $ref): string => "driver.{$ref}.current", self::of($needs, 'motor_driver')),
        ];
        $settings = [];
        foreach ($about as $i => $key) {
            if ($this->roll(2) === 0) {
                $settings[] =
                    ['ref' => "s{$i}", 'kind' => 'setting', 'about' => $key] +
                    ($this->roll(3) > 0 ? ['value' => ['present', '80', '1.5 A', 'who knows'][$this->roll(4)]] : []) +
                    ($this->roll(3) === 0 ? ['done' => true] : []);
            }
        }

        return $settings;
    }

    private function value(SpecField $field): string|bool
    {
        return match ($field->kind) {
            FieldKind::Flag => $this->roll(2) === 0,
            FieldKind::Choice => $field->choices[$this->roll(count($field->choices))],
            FieldKind::Text => 'as found',
            FieldKind::Range => 1 +
                $this->roll(100).
                " {$field->unit} to ".
                (101 + $this->roll(200)).
                " {$field->unit}",
            FieldKind::Quantity => rtrim(
                (1 + $this->roll(4000)) / [1, 10, 100, 1000][$this->roll(4)]." {$field->unit}",
            ),
        };
    }

    private function roll(int $sides): int
    {
        $this->die = ($this->die * 1103515245 + 12345) % 2147483648;

        return intdiv($this->die, 65536) % $sides;
    }
}
