<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Commissioning;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Commissioning\Ladder;
use Magpie\Core\Commissioning\Rung;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Machine\Build;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Simulation\SimulatedInstrument;
use PHPUnit\Framework\TestCase;

/** The whole way up on a machine that is sound, and on the same with faults planted in it. */
final class LadderTest extends TestCase
{
    /**
     * @return array<string, mixed>
     */
    private static function plover(): array
    {
        $data = BuildFile::data(BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/plover.json')));
        foreach (['readings', 'rungs', 'attempts', 'tests', 'jobs', 'rounds', 'alignments'] as $section) {
            $data[$section] = [];
        }

        return $data;
    }

    private static function ladder(Build $build): Ladder
    {
        $inspection = Rules::inspector()->inspect($build);

        return new Ladder($inspection->survey, $inspection->open());
    }

    /**
     * @param  array<string, mixed>  $data
     * @return array<string, Rung>
     */
    private static function rungs(array $data): array
    {
        $rungs = [];
        foreach (self::ladder(BuildFile::build($data))->rungs as $rung) {
            $rungs[$rung->key] = $rung;
        }

        return $rungs;
    }

    /**
     * Does everything a rung asks for, with simulated instruments; what it cannot do itself it passes with a reason.
     *
     * @param  array<string, mixed>  $data
     * @param  array<string, float>  $faults
     * @return array{array<string, mixed>, Rung|null} the record, and the rung it got stuck at
     */
    private static function climb(array $data, array $faults = []): array
    {
        $instrument = new SimulatedInstrument(7, $faults);
        $records = [];
        for ($turn = 0; $turn < 60; $turn++) {
            $rung = self::ladder(BuildFile::build($data))->next();
            if ($rung === null || $rung->state === Rung::OUT) {
                return [$data, $rung];
            }
            $ticks = array_map(static fn ($look): string => $look->key, $rung->looks);
            $records[$rung->key] = ['ref' => $rung->key, 'ticks' => $ticks];
            foreach ($rung->readings as $shown) {
                $expected = $shown['expected'];
                $right =
                    $expected->what->value === 'bond' ? Quantity::of(0.04, 'Ω') : $expected->nominal ?? $expected->low;
                if ($shown['reading'] === null && $right !== null) {
                    $data['readings'][] = array_filter(
                        [
                            'ref' => 'R'.count($data['readings']),
                            'what' => $expected->what->value,
                            'value' => $instrument->read($expected->key(), $expected->what, $right)->text(),
                            'need' => $expected->onAxis ? null : $expected->where,
                            'axis' => $expected->onAxis ? $expected->where : null,
                            'port' => $expected->port,
                            'scenario' => $expected->scenario,
                            'accuracy' => '0.001 '.$right->unit->symbol,
                            'simulated' => true,
                        ],
                        static fn (mixed $v): bool => $v !== null,
                    );
                }
            }
            if ($rung->gates !== []) {
                $records[$rung->key] += ['override' => 'looked at, and let be', 'over' => $rung->gates];
            }
            $data['rungs'] = array_values($records);
        }

        return [$data, self::ladder(BuildFile::build($data))->next()];
    }

    public function test_a_sound_machine_climbs_to_its_sign_off_and_no_reading_is_out(): void
    {
        [$data, $stuck] = self::climb(self::plover());
        self::assertNull($stuck, (string) $stuck?->key);
        $states = array_unique(array_map(static fn (Rung $r): string => $r->state, self::rungs($data)));
        self::assertEqualsCanonicalizing([Rung::PASSED, Rung::WAIVED], $states);
        $verdicts = array_count_values(
            array_map(
                static fn ($f): string => $f->verdict->value,
                array_filter(
                    Rules::inspector()->inspect(BuildFile::build($data))->findings,
                    static fn ($f): bool => $f->card->id === 'C01',
                ),
            ),
        );
        self::assertArrayNotHasKey('fails', $verdicts);
        self::assertArrayNotHasKey('danger', $verdicts);
    }

    public function test_three_planted_faults_are_found_each_at_its_rung_with_what_it_points_to(): void
    {
        $faults = ['phase_resistance/motor-x' => 2.0, 'bond/psu' => 60.0];
        [$data, $stuck] = self::climb(self::plover(), $faults);
        self::assertSame('unpowered', $stuck?->key);
        $points = [];
        foreach ($stuck->readings as $shown) {
            $points[$shown['expected']->key()] = $shown['points'][0] ?? null;
        }
        self::assertStringContainsString('two coils in series', (string) $points['phase_resistance/motor-x']);
        self::assertStringContainsString('Paint', (string) $points['bond/psu']);
        self::assertNull($points['phase_resistance/motor-y']);

        [, $stuck] = self::climb(self::plover(), ['output_voltage/psu' => 1.08]);
        self::assertSame('supply-psu', $stuck?->key);
        self::assertStringContainsString('trimmer is turned up', implode(' ', $stuck->readings[0]['points']));
        $bond = Rules::inspector()->find(BuildFile::build($data), 'C01/bond/psu');
        self::assertSame('danger', $bond?->verdict->value);
    }

    public function test_no_power_with_an_open_danger_or_half_a_lead_and_it_opens_again_by_itself(): void
    {
        [$data] = self::climb(self::plover());
        self::assertTrue(self::rungs($data)['supply-psu']->isPassed());
        $hurt = $data;
        $hurt['faults'][] = [
            'ref' => 'X9',
            'what' => 'Bare strand at the inlet',
            'severity' => 'danger',
            'state' => 'open',
            'found' => '2026-11-01',
        ];
        $rungs = self::rungs($hurt);
        self::assertTrue($rungs['unpowered']->isPassed());
        self::assertSame(Rung::CLOSED, $rungs['supply-psu']->state);
        self::assertContains('open danger: Bare strand at the inlet', $rungs['supply-psu']->gates);
        self::assertSame(Rung::CLOSED, $rungs['sign-off']->state);
        $hurt['faults'][count($hurt['faults']) - 1] =
            ['state' => 'fixed', 'fix' => 'a ferrule on it'] + $hurt['faults'][count($hurt['faults']) - 1];
        self::assertTrue(self::rungs($hurt)['sign-off']->isPassed());
    }

    public function test_a_reason_covers_what_kept_it_then_and_nothing_that_comes_later(): void
    {
        [$data] = self::climb(self::plover());
        self::assertSame(Rung::WAIVED, self::rungs($data)['stops']->state);
        $data['faults'][] = [
            'ref' => 'X9',
            'what' => 'Smoke',
            'severity' => 'danger',
            'state' => 'open',
            'found' => '2026-11-01',
        ];
        foreach ($data['rungs'] as $i => $record) {
            // Everything before it is passed with a reason that names the new danger as well.
            $data['rungs'][$i] =
                $record['ref'] === 'stops'
                    ? $record
                    : ['override' => 'x', 'over' => [...$record['over'] ?? [], 'open danger: Smoke']] + $record;
        }
        $rungs = self::rungs($data);
        self::assertSame(Rung::WAIVED, $rungs['supply-psu']->state);
        self::assertSame(
            Rung::PASSED,
            self::rungs(['faults' => self::plover()['faults']] + $data)['supply-psu']->state,
        );
        $again = self::plover();
        $again['rungs'] = [
            ['ref' => 'dry', 'override' => 'in a hurry', 'over' => ['2 leads are not ticked as made: W1, W2']],
        ];
        self::assertSame(Rung::OPEN, self::rungs($again)['dry']->state);
    }

    public function test_another_part_in_its_place_is_looked_at_and_measured_again(): void
    {
        [$data] = self::climb(self::plover());
        $data['parts'][] =
            ['ref' => 'psu-b', 'name' => 'Another 24 V supply'] +
            array_column($data['parts'], null, 'ref')[array_column($data['needs'], 'choice', 'ref')['psu']];
        $was = array_column($data['needs'], 'choice', 'ref')['psu'];
        foreach ($data['readings'] as $i => $reading) {
            $data['readings'][$i] = ($reading['need'] ?? null) === 'psu' ? ['part' => $was] + $reading : $reading;
        }
        self::assertTrue(self::rungs($data)['supply-psu']->isPassed());
        foreach ($data['needs'] as $i => $need) {
            $data['needs'][$i] =
                $need['ref'] === 'psu' ? ['choice' => 'psu-b', 'candidates' => ['psu-b']] + $need : $need;
        }
        $rungs = self::rungs($data);
        self::assertFalse($rungs['unpowered']->isPassed());
        self::assertContains('Earth bond of 24 V supply: not read', $rungs['unpowered']->left());
        self::assertFalse($rungs['supply-psu']->looks[0]->done);
        self::assertFalse($rungs['board-board']->isPassed());
    }

    public function test_taking_readings_away_one_by_one_never_opens_a_rung(): void
    {
        [$data] = self::climb(self::plover(), ['phase_resistance/motor-x' => 2.0]);
        $count = static fn (array $d): int => count(
            array_filter(self::rungs($d), static fn (Rung $r): bool => $r->isPassed()),
        );
        $passed = $count($data);
        foreach (array_keys($data['readings']) as $i) {
            foreach (['gone', 'struck'] as $how) {
                $less = $data;
                if ($how === 'gone') {
                    unset($less['readings'][$i]);
                    $less['readings'] = array_values($less['readings']);
                } else {
                    $less['readings'][$i]['struck'] = 'wrong lead';
                }
                self::assertLessThanOrEqual($passed, $count($less), "{$data['readings'][$i]['what']} {$how}");
            }
        }
    }

    public function test_a_no_start_with_the_stops_not_looked_at_is_no_fault_yet(): void
    {
        $data = self::plover();
        $attempt = ['ref' => 'P1', 'at' => 1000, 'breaker' => 'held', 'stops' => 'not looked at', 'started' => false];
        $data['attempts'] = [$attempt];
        self::assertCount(1, self::ladder(BuildFile::build($data))->unexplained());
        $data['attempts'][] = ['ref' => 'P2', 'at' => 2000, 'stops' => 'released'] + $attempt;
        self::assertSame([], self::ladder(BuildFile::build($data))->unexplained());
    }
}
