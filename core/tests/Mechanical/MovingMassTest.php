<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Mechanical;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Inspection\WorkingStep;
use Magpie\Core\Machine\BodyMaterial;
use Magpie\Core\Machine\TurningBody;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Motion\DriveLoad;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\TestCase;

/** What moves with an axis and what turns with it, said part by part. */
final class MovingMassTest extends TestCase
{
    public function test_the_mass_is_the_sum_of_what_is_carried_each_as_often_as_it_is_there(): void
    {
        $this->assertEqualsWithDelta(2.6, self::mass(self::axis(['carries' => ['plate', 'motor']]))->in('kg'), 1e-9);
        $this->assertEqualsWithDelta(
            5.0,
            self::mass(self::axis(['mass' => '5 kg', 'carries' => ['plate']]))->in('kg'),
            1e-9,
        );
        // Said to be less than what is known to hang on it.
        $this->assertEqualsWithDelta(
            2.6,
            self::mass(self::axis(['mass' => '2 kg', 'carries' => ['plate', 'motor']]))->in('kg'),
            1e-9,
        );
    }

    public function test_the_sum_is_worked_out_once_in_what_rests_on_it(): void
    {
        $sample = self::axis([
            'carries' => ['plate', 'motor'],
            'acceleration' => '1 m/s²',
            'top_speed' => '50 mm/s',
            'friction' => '5 N',
            'efficiency' => '90 %',
            'incline' => '0 °',
            'force' => '0 N',
        ]);
        [$inquiry, $motion] = self::asked($sample);
        DriveLoad::of($inquiry, $motion, false);
        $told = $inquiry->conclude(Verdict::Holds, 'It moves.')->working;

        $this->assertCount(
            1,
            array_filter($told, static fn (WorkingStep $step): bool => str_starts_with($step->label, 'Moving mass')),
        );
    }

    public function test_a_mass_that_is_not_known_is_asked_for(): void
    {
        $finding = self::axis(['carries' => ['plate', 'bare'], 'acceleration' => '1 m/s²'])->finding('M04/x');

        $this->assertSame(Verdict::Unproven, $finding->verdict);
        $this->assertContains('parts/bare/specs/mass', $finding->wanted);
    }

    /** J = ½·m·(r_o² + r_i²): a steel disc of 54 mm and 30 mm, 0.539 kg and 1.966 kg cm², worked by hand. */
    public function test_turning_bodies_count_by_the_square_of_their_ratio(): void
    {
        $disc = new TurningBody(
            'Pulley',
            Quantity::of(54, 'mm'),
            null,
            Quantity::of(30, 'mm'),
            BodyMaterial::Steel,
            Quantity::ratio(2),
        );
        $this->assertEqualsWithDelta(0.5393, $disc->mass()->in('kg'), 1e-4);
        $this->assertEqualsWithDelta(1.966, $disc->inertia()->in('kg cm²'), 1e-3);
        $this->assertEqualsWithDelta(4 * 1.966, $disc->felt()->in('kg cm²'), 4e-3);
        $tube = new TurningBody(
            'Tube',
            Quantity::of(54, 'mm'),
            Quantity::of(27, 'mm'),
            Quantity::of(30, 'mm'),
            BodyMaterial::Steel,
        );
        $this->assertEqualsWithDelta(1.966 * (1 - 0.5 ** 4), $tube->inertia()->in('kg cm²'), 1e-3);

        $with = self::axis([
            'mass' => '1 kg',
            'turning' => [
                ['name' => 'Pulley', 'outer' => '54 mm', 'length' => '30 mm', 'material' => 'steel', 'ratio' => '2'],
            ],
        ]);
        $without = self::axis(['mass' => '1 kg']);
        $this->assertEqualsWithDelta(
            $disc->felt()->in('kg cm²'),
            self::inertia($with)->in('kg cm²') - self::inertia($without)->in('kg cm²'),
            1e-6,
        );
    }

    public function test_all_of_it_is_kept_in_the_file_and_bad_words_are_refused(): void
    {
        $build = self::axis([
            'carries' => ['plate'],
            'turning' => [
                ['name' => 'Hub', 'outer' => '20 mm', 'bore' => '8 mm', 'length' => '25 mm', 'material' => 'brass'],
            ],
            'end_play' => '15 µm',
            'turning_torque' => '0.06 N m',
            'shock' => '1.5',
        ])->build;
        $this->assertEquals($build->axes, BuildFile::read(BuildFile::write($build))->axes);
        foreach (
            [
                ['carries' => ['nobody']],
                [
                    'turning' => [
                        [
                            'name' => 'Hub',
                            'outer' => '8 mm',
                            'bore' => '8 mm',
                            'length' => '1 mm',
                            'material' => 'brass',
                        ],
                    ],
                ],
                ['shock' => '0.5'],
            ] as $drive
        ) {
            try {
                self::axis($drive);
                $this->fail((string) json_encode($drive));
            } catch (\Magpie\Core\Format\CannotReadBuildFile $e) {
                $this->assertStringContainsString('/axes/0/drive/'.array_key_first($drive), $e->getMessage());
            }
        }
    }

    public function test_play_at_the_end_of_a_screw_counts_once_somebody_has_measured_it(): void
    {
        $of = static function (?string $evidence, string $play = '20 µm'): Finding {
            [$screw, $need] = Examples::part('screw', 'drive_screw', ['kind' => 'ball screw', 'backlash' => '30 µm']);
            $screw['specs'] += $evidence === null ? [] : ['end_play' => ['value' => $play, 'evidence' => $evidence]];

            return (new SampleBuild(
                Examples::file(
                    [[$screw, $need]],
                    [
                        'brief' => ['accuracy' => '0.06 mm'],
                        'axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['by' => 'screw']]],
                    ],
                ),
            ))->finding('M16/x');
        };

        $this->assertSame(Verdict::Fails, $of('measured', '31 µm')->verdict, '30 and 31 of 60.');
        $this->assertSame([], $of('measured')->missing);
        $this->assertStringStartsWith("0.05\u{a0}mm is lost", $of('measured')->headline);
        foreach ([null, 'datasheet'] as $evidence) {
            $this->assertStringStartsWith('axial play', $of($evidence)->missing[0] ?? '');
        }
    }

    public function test_what_was_measured_of_one_axis_is_no_other_s(): void
    {
        $file = self::file(['end_play' => '10 µm', 'turning_torque' => '0.02 N m', 'motors' => ['motor']]);
        $file['brief'] = ['accuracy' => '0.05 mm'];
        $file['axes'][] = ['ref' => 'y', 'name' => 'Y', 'along' => 'y'] + $file['axes'][0];
        unset($file['axes'][1]['drive']['end_play'], $file['axes'][1]['drive']['turning_torque']);
        $sample = new SampleBuild($file);

        $this->assertSame(Verdict::Holds, $sample->finding('M05-preload/x')->verdict);
        $this->assertSame(Verdict::Unproven, $sample->finding('M05-preload/y')->verdict);
        $this->assertContains('axes/y/drive/end_play', $sample->finding('M05-preload/y')->wanted);
    }

    public function test_backlash_and_play_add_up_against_the_accuracy(): void
    {
        foreach (
            [
                ['10 µm', '10 µm', Verdict::Holds],
                ['20 µm', '20 µm', Verdict::Tight],
                ['30 µm', '30 µm', Verdict::Fails],
                ['20 µm', null, Verdict::Unproven],
                ['80 µm', null, Verdict::Fails],
            ] as [$backlash, $play, $verdict]
        ) {
            $file = self::file($play === null ? [] : ['end_play' => $play]);
            $file['brief'] = ['accuracy' => '0.05 mm'];
            $file['parts'][0]['specs'] += Examples::sheet(['backlash' => $backlash]);

            $this->assertSame($verdict, (new SampleBuild($file))->finding('M16/x')->verdict, "{$backlash} {$play}");
        }
    }

    private static function mass(SampleBuild $sample): Quantity
    {
        [$inquiry, $motion] = self::asked($sample);

        return $motion->mass($inquiry);
    }

    private static function inertia(SampleBuild $sample): Quantity
    {
        return DriveLoad::inertia(...self::asked($sample))[0];
    }

    /**
     * @return array{Inquiry, AxisMotion}
     */
    private static function asked(SampleBuild $sample): array
    {
        $survey = new Survey($sample->build);
        $axis = $sample->build->axes['x'];

        return [Inquiry::forFigures($survey, Subject::ofAxis($axis)), AxisMotion::of($survey, $axis)];
    }

    /**
     * @param  array<string, mixed>  $drive
     */
    private static function axis(array $drive): SampleBuild
    {
        return new SampleBuild(self::file($drive));
    }

    /**
     * @param  array<string, mixed>  $drive
     * @return array<string, mixed>
     */
    private static function file(array $drive): array
    {
        $motor = Examples::part('motor', 'stepper_motor', ['mass' => '0.7 kg', 'holding_torque' => '1 N m']);
        $motor[1]['quantity'] = 2;

        return Examples::file(
            [
                Examples::part('screw', 'drive_screw', ['kind' => 'ball screw', 'lead' => '5 mm']),
                Examples::part('plate', 'spindle', ['mass' => '1.2 kg']),
                Examples::part('bare', 'spindle', []),
                $motor,
            ],
            [
                'axes' => [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'drive' => ['by' => 'screw', 'motors' => ['motor'], 'evidence' => 'measured', ...$drive],
                    ],
                ],
            ],
        );
    }
}
