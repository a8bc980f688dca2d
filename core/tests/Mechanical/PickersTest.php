<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Mechanical;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Library\Entry;
use Magpie\Core\Mechanical\Cutting;
use Magpie\Core\Mechanical\Views\BeltLoop;
use Magpie\Core\Mechanical\Views\CouplingPicker;
use Magpie\Core\Mechanical\Views\JointLedger;
use Magpie\Core\Motion\SampleAxis;
use Magpie\Core\Motion\Views\MotionLedger;
use Magpie\Core\Motion\Views\MotorPicker;
use Magpie\Core\Motion\Views\TurningParts;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Materials;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PickersTest extends TestCase
{
    /**
     * @return list<Entry>
     */
    private static function shelf(string $family): array
    {
        $all = array_map(
            LibraryFile::read(...),
            json_decode((string) file_get_contents(dirname(__DIR__, 2).'/reference/starter-library.json'), true),
        );

        return array_values(array_filter($all, static fn (Entry $e): bool => $e->part->family->key() === $family));
    }

    /**
     * @return iterable<string, array{float, int, int, float}>
     */
    public static function pulleys(): iterable
    {
        yield 'equal' => [2.0, 20, 20, 300.0];
        yield 'a reduction' => [2.0, 20, 60, 150.0];
        yield 'a steep one, close together' => [3.0, 16, 72, 75.0];
        yield 'the other way round' => [5.0, 40, 15, 220.0];
    }

    #[DataProvider('pulleys')]
    public function test_a_belt_is_as_long_as_the_way_around_its_pulleys(
        float $pitch,
        int $one,
        int $other,
        float $centre,
    ): void {
        $loop = BeltLoop::of($pitch, $one, $other, $centre);
        self::assertNotNull($loop);
        self::assertSame(0.0, fmod($loop['length'], $pitch), 'Whole teeth.');
        // The way itself, by geometry: two tangents and the two arcs they leave, no formula of catalogues.
        [$r, $s] = [(max($one, $other) * $pitch) / (2 * M_PI), (min($one, $other) * $pitch) / (2 * M_PI)];
        $slope = asin(($r - $s) / $loop['centre']);
        $way = 2 * $loop['centre'] * cos($slope) + $r * (M_PI + 2 * $slope) + $s * (M_PI - 2 * $slope);

        self::assertEqualsWithDelta(
            $loop['length'],
            $way,
            (0.002 * $loop['length']) / 2,
            'The catalogue formula is good to a thousandth here.',
        );
        self::assertEqualsWithDelta((min($one, $other) * (M_PI - 2 * $slope)) / (2 * M_PI), $loop['mesh'], 0.06);
        self::assertLessThan($pitch, abs($loop['centre'] - $centre), 'Less than a tooth away from what was asked.');
    }

    public function test_pulleys_that_overlap_or_hold_too_few_teeth_are_refused(): void
    {
        self::assertNull(BeltLoop::of(2, 60, 60, 38.0));
        self::assertNull(BeltLoop::of(2, 5, 20, 100.0));
        self::assertNotNull(BeltLoop::of(2, 60, 60, 38.5));
    }

    public function test_the_note_of_a_belt_by_the_handbook(): void
    {
        // M06: 9.1 N at 110 Hz over 150 mm of 8.4 g/m.
        self::assertEqualsWithDelta(110, BeltLoop::note(9.1, 8.4, 150), 0.6);
        self::assertEqualsWithDelta(
            2.0,
            BeltLoop::note(4 * 9.1, 8.4, 150) / BeltLoop::note(9.1, 8.4, 150),
            1e-9,
            'Four times the tension, an octave up.',
        );
    }

    public function test_a_hollow_shaft_resists_more_than_a_solid_one_of_its_mass(): void
    {
        $hollow = TurningParts::of([['outer' => 40.0, 'bore' => 30.0, 'length' => 100.0, 'material' => 'steel']]);
        $mass = $hollow['mass']->in('kg');
        $solid = 0.5 * $mass * ($mass / (7850 * M_PI * 0.1));

        // PM-04: ½m(r_o² + r_i²) against ½mr² of a solid bar of equal mass.
        self::assertEqualsWithDelta(0.5 * $mass * (0.02 ** 2 + 0.015 ** 2), $hollow['inertia']->in('kg m²'), 1e-9);
        self::assertGreaterThan(3 * $solid, $hollow['inertia']->in('kg m²'));
        // Summed from a thousand thin rings, the same.
        $rings = 0.0;
        for ($i = 0; $i < 1000; $i++) {
            $r = 0.015 + (($i + 0.5) * 0.005) / 1000;
            $rings += 7850 * 2 * M_PI * $r * (0.005 / 1000) * 0.1 * $r ** 2;
        }
        self::assertEqualsWithDelta($rings, $hollow['inertia']->in('kg m²'), $rings * 1e-5);
        $two = TurningParts::of([
            ['outer' => 40.0, 'bore' => 30.0, 'length' => 100.0, 'material' => 'steel'],
            ['outer' => 20.0, 'bore' => 0.0, 'length' => 50.0, 'material' => 'aluminium'],
        ]);
        self::assertEqualsWithDelta($two['inertia']->in('kg cm²'), array_sum($two['parts']), 1e-4);
    }

    public function test_a_coupling_for_two_shafts_takes_both_whichever_way_round(): void
    {
        $shelf = self::shelf('coupling');
        $there = CouplingPicker::of($shelf, 6.35, 10, 0.5);
        self::assertNotSame([], $there);
        self::assertSame($there, CouplingPicker::of($shelf, 10, 6.35, 0.5));
        self::assertSame([], CouplingPicker::of($shelf, 6.1, 9.7, 0.5), 'A bore fits or it does not.');
        foreach (CouplingPicker::of($shelf, 6.35, 10, 1000) as $one) {
            self::assertNotTrue($one['enough']);
        }
        self::assertTrue($there[0]['enough'], 'Those with enough torque come first.');
    }

    public function test_motors_that_do_come_first_and_the_lightest_of_them_before_the_rest(): void
    {
        $build = (new SampleBuild(SampleAxis::file(['mass' => '3 kg', 'top_speed' => '150 mm/s'])))->build;
        $shelf = self::shelf('stepper_motor');
        $ranked = (new MotorPicker(Standing::of(Rules::inspector(), $build), $build->axes['x']))->rank($shelf);
        $does = array_column($ranked['motors'], 'does');

        self::assertContains(true, $does);
        self::assertContains(false, $does);
        self::assertSame(
            $does,
            [...array_filter($does), ...array_filter($does, static fn (bool $one): bool => ! $one)],
            'No one that fails before one that does.',
        );
        $masses = array_column(array_filter($ranked['motors'], static fn (array $m): bool => $m['does']), 'mass');
        $sorted = $masses;
        sort($sorted);
        self::assertSame($sorted, $masses);
        foreach ($ranked['motors'] as $motor) {
            self::assertLessThanOrEqual(2.0, $motor['set'], 'Never more than the driver gives.');
            self::assertSame($motor['does'], $motor['says'] === null);
        }
        // One model for a question: what does, does by the checks of the machine it is put in.
        $data = BuildFile::data($build);
        foreach ($ranked['motors'] as $motor) {
            $entry = array_values(
                array_filter($shelf, static fn (Entry $e): bool => $e->part->ref === $motor['ref']),
            )[0];
            $with = $data;
            foreach ($with['parts'] as $i => $part) {
                $specs = LibraryFile::write($entry)['part']['specs'];
                $with['parts'][$i]['specs'] = match ($part['ref']) {
                    'motor' => $specs,
                    'drv' => ['set_current' => ['value' => "{$motor['set']} A", 'evidence' => 'datasheet']] +
                        $part['specs'],
                    default => $part['specs'],
                };
            }
            $found = (new SampleBuild($with))->finding('M03/x');
            $fails = ($found->otherwise ?? $found->verdict)->rank() < Verdict::Tight->rank();
            self::assertTrue(! $motor['does'] || ! $fails, "{$motor['name']} does, and M03 says: {$found->headline}");
        }
    }

    /**
     * One factor for the check, the ledger and the picker: the builder's own, and a servo's loop closed unless the axis
     * says otherwise.
     */
    public function test_the_torque_wanted_is_the_same_wherever_it_is_asked(): void
    {
        $file = SampleAxis::file(
            [],
            ['limits' => [['check' => 'M03', 'key' => 'open', 'value' => '100 %', 'reason' => 'measured']]],
        );
        $wanted = static function (array $file): array {
            $sample = new SampleBuild($file);
            $survey = new Survey($sample->build);

            return [
                (new MotorPicker(Standing::of(Rules::inspector(), $sample->build), $sample->build->axes['x']))->rank(
                    [],
                )['wanted'],
                (new MotionLedger($survey))->toArray()[0]['wanted'],
                $sample->finding('M03/x')->limit,
            ];
        };

        self::assertSame([1.0, 1.0, '100 % of the torque asked'], self::plain($wanted($file)));
        $file['axes'][0]['drive']['closed_loop'] = true;
        self::assertSame([1.3, 1.3, '130 % of the torque asked'], self::plain($wanted($file)));
        [$part, $need] = Examples::part('motor', 'servo_motor', [
            'rated_torque' => '1 N m',
            'peak_torque' => '3 N m',
            'rated_speed' => '3000 rpm',
            'rotor_inertia' => '300 g cm²',
        ]);
        $file['parts'] = [
            ...array_filter($file['parts'], static fn (array $one): bool => $one['ref'] !== 'motor'),
            $part,
        ];
        $file['needs'] = [
            ...array_filter($file['needs'], static fn (array $one): bool => $one['ref'] !== 'motor'),
            $need,
        ];
        unset($file['axes'][0]['drive']['closed_loop']);
        $file['leads'] = [];
        self::assertSame([1.3, 1.3], array_slice($wanted($file), 0, 2), 'A servo.');
    }

    /**
     * @param  list<float|string|null>  $all
     * @return list<float|string|null> with plain spaces
     */
    private static function plain(array $all): array
    {
        return array_map(
            static fn (float|string|null $one): float|string|null => is_string($one)
                ? (string) preg_replace('/\s/u', ' ', $one)
                : $one,
            $all,
        );
    }

    public function test_a_picker_without_what_it_needs_names_it(): void
    {
        $file = SampleAxis::file();
        unset($file['axes'][0]['drive']['mass']);
        $build = (new SampleBuild($file))->build;
        $picker = new MotorPicker(Standing::of(Rules::inspector(), $build), $build->axes['x']);
        $ranked = $picker->rank(self::shelf('stepper_motor'));

        self::assertSame([], $ranked['motors']);
        self::assertContains('moving mass of X', $ranked['missing']);
    }

    public function test_the_ledger_of_motion_agrees_with_the_checks_and_says_what_caps_the_speed(): void
    {
        $build = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/linnet.json'));
        $ledger = array_column((new MotionLedger(new Survey($build)))->toArray(), null, 'ref');

        foreach (['x', 'y', 'z'] as $ref) {
            $axis = $ledger[$ref];
            self::assertSame([], $axis['missing'], $ref);
            self::assertEqualsWithDelta(
                $axis['usable'],
                $axis['stack'][0]['length'] - array_sum(array_column(array_slice($axis['stack'], 1), 'length')),
                0.01,
                'What is left is what the takers leave.',
            );
            foreach ($axis['phases'] as $phase) {
                self::assertGreaterThanOrEqual(0, $phase['torque']);
                self::assertNotNull($phase['has']);
            }
        }
        self::assertSame('torque of the motor', $ledger['x']['caps']['by']);
        self::assertLessThan(300, $ledger['x']['caps']['speed'], 'X stalls at 300 mm/s, so less is its cap.');
        self::assertSame(320.0, $ledger['y']['steps_per_mm']);
        // At the cap the torque there is is twice what accelerating asks: that is what the cap means.
        $data = BuildFile::data($build);
        $data['axes'][0]['drive']['top_speed'] = floor($ledger['x']['caps']['speed']).' mm/s';
        $slow = BuildFile::build($data);
        self::assertNotSame('fails', Rules::inspector()->find($slow, 'M03/x')?->verdict->value);
    }

    public function test_every_joint_has_its_length_torque_and_key_and_every_bag_adds_up(): void
    {
        $build = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/linnet.json'));
        $ledger = (new JointLedger(Rules::inspector()->inspect($build)))->toArray();
        $joints = array_column($ledger['joints'], null, 'mate');

        self::assertCount(
            array_sum(array_map(static fn ($m): int => max(1, count($m->screws)), $build->mates)),
            $ledger['joints'],
        );
        // M6 into aluminium: 7 of the 10.5 N·m that ISO 898-1 class 8.8 gives into steel; a key of 5 (ISO 4762); a hole
        // of 6.6 (ISO 273).
        self::assertEqualsWithDelta(0.7 * 10.49, $joints['bb']['torque'], 0.01);
        self::assertSame(
            [5.0, 6.6, 20, 'M6'],
            [$joints['bb']['tool'], $joints['bb']['hole'], $joints['bb']['suggested'], $joints['bb']['thread']],
        );
        self::assertNull($joints['sx']['thread'], 'A shaft in a coupling has no screw of its own.');
        $bags = array_column($ledger['bags'], null, 'need');
        foreach ($bags as $bag) {
            self::assertSame($bag['planned'] - $bag['used'], $bag['left']);
            self::assertTrue(
                $bag['packs'] === null || $bag['order'] <= $bag['packs'] * $bag['pack'],
                'Packs cover the order.',
            );
            self::assertTrue(
                $bag['packs'] === null || ($bag['packs'] - 1) * $bag['pack'] < max(1, $bag['order']),
                'And no pack too many.',
            );
        }
        self::assertSame(50, $bags['s-m4-12']['used'], '16 on the beam, 30 on the frame, 4 in the cover.');
    }

    public function test_cutting_power_grows_with_the_removal_and_names_what_it_does_not_know(): void
    {
        $one = Cutting::power(Quantity::of(100, 'mm³/s'), 'aluminium')?->in('W');
        self::assertEqualsWithDelta(
            2 * (float) $one,
            Cutting::power(Quantity::of(200, 'mm³/s'), 'aluminium')?->in('W'),
            1e-9,
        );
        self::assertNull(Cutting::power(Quantity::of(100, 'mm³/s'), 'granite'));
        $sorted = Materials::cuttingEnergies();
        self::assertLessThan($sorted['aluminium'], $sorted['hardwood']);
        self::assertLessThan($sorted['steel'], $sorted['aluminium']);
    }
}
