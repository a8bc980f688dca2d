<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Quantity\Quantity;
use PHPUnit\Framework\TestCase;

/** What may be so much more or less is judged no better than at either end of that. */
final class ToleranceTest extends TestCase
{
    private const OFF = [0.1, 0.4, 0.8];

    /**
     * What a heater gives is said at its rated voltage, which is no size of its own. Currents are worked at the voltage a supply
     * is named for; what it may hold beside that is for these to judge.
     */
    private const FIXED = ['rated_voltage' => [], 'output_voltage' => ['E04', 'E06', 'E11']];

    /** What is taken as it is named, whatever its tolerance, and why; by check, or check and value. */
    private const NOMINAL = [
        'C01' => 'a reading is held against what is expected, within a band of its own',
        'E21' => 'settings are what they are',
        'E11 relay.coil_voltage' => 'a rating: the band about it is the check',
        'E10 pulley.pitch' => 'a size of its kind',
        'E10 pulley.teeth' => 'a whole number',
        'E10 stepper_motor.step_angle' => 'a size of its kind',
        'E12 controller_board.driver_slots' => 'a whole number',
        'E13 fuse.rated_current' => 'fuses go by their names',
        'E22 spindle.poles' => 'a whole number',
        'E23' => 'rows and lanes are laid out by nominal sizes',
        'M02-drawn' => 'drawn by nominal sizes',
        'M03' => 'an estimate from nominal sizes, with a reserve of its own',
        'M04 pulley.pitch' => 'a size of its kind',
        'M04 pulley.teeth' => 'a whole number',
        'M05 drive_screw.lead' => 'a size of its kind',
        'M06' => 'sizes that go together by their names',
        'M08 cutter.shank' => 'sizes that go together by their names',
        'M09 coupling.bore_a' => 'sizes that go together by their names',
        'M09 stepper_motor.shaft_diameter' => 'sizes that go together by their names',
        'M10' => 'screws go by their names',
        'M11' => 'drawn by nominal sizes',
        'M11-place' => 'drawn by nominal sizes',
        'M13-recipe printed_part.top_bottom_layers' => 'a whole number',
        'M14-batch' => 'the volume of a file is what it is',
        'M14-weight' => 'the volume of a file is what it is',
    ];

    /** @var list<string> what is judged better than at one of its ends */
    private array $better = [];

    public function test_a_tolerance_is_judged_at_its_worse_end(): void
    {
        $builds = ['plover' => BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/plover.json'))];
        foreach (Rules::all() as $check) {
            $builds[$check->card()->id] = $check->examples()->holding();
        }
        $looked = 0;
        foreach ($builds as $name => $build) {
            $standing = Standing::of(Rules::inspector(), $build);
            foreach ($build->parts as $part) {
                foreach (self::quantities($part) as [$spec, $value, $port]) {
                    foreach (self::OFF as $off) {
                        $looked += $this->look($standing, $part, $spec, $value, $port, $off, (string) $name);
                    }
                }
            }
        }
        self::assertSame([], $this->better);
        self::assertGreaterThan(5_000, $looked);
    }

    private function look(
        Standing $standing,
        Part $part,
        Spec $spec,
        Quantity $value,
        ?string $port,
        float $off,
        string $name,
    ): int {
        $unit = $value->unit->symbol;
        $at = static fn (float $by): Spec => $spec->at(Quantity::of($value->in($unit) * $by, $unit));
        $tolerant = new Spec($spec->key, $value, $spec->evidence, tolerance: Quantity::ratio($off));
        [$it, $low, $high] = array_map(
            static fn (Spec $as): array => self::verdicts($standing, $part->reading($as, $port)),
            [$tolerant, $at(1 - $off), $at(1 + $off)],
        );
        $looked = 0;
        foreach ($it as $key => $verdict) {
            [$check] = explode('/', $key);
            $of = "{$check} {$part->family->key()}.{$spec->key}";
            if (
                ! in_array($check, self::FIXED[$spec->key] ?? [$check], true) ||
                isset(self::NOMINAL[$check]) ||
                isset(self::NOMINAL[$of]) ||
                ! isset($low[$key], $high[$key])
            ) {
                continue;
            }
            $looked++;
            $worse = min($low[$key]->rank(), $high[$key]->rank());
            if ($worse <= Verdict::Tight->rank() && $verdict->rank() > $worse) {
                $this->better[] = "{$of} ± {$off} of {$name}: {$key} {$verdict->value}, though {$low[$key]->value} and {$high[$key]->value} at its ends";
            }
        }

        return $looked;
    }

    /**
     * @return array<string, Verdict> of the findings that are there whatever a value is, by key
     */
    private static function verdicts(Standing $standing, Part $part): array
    {
        $build = $standing->build();
        $findings =
            $standing->trial(
                $build->with(['parts' => array_replace($build->parts, [$part->ref => $part])]),
                array_keys($standing->findings()),
            ) + $standing->findings();

        return array_map(static fn (Finding $f): Verdict => $f->otherwise ?? $f->verdict, array_filter($findings));
    }

    /**
     * @return iterable<array{Spec, Quantity, string|null}> the value, and the port it is said of
     */
    private static function quantities(Part $part): iterable
    {
        foreach (
            [null => $part->specs, ...array_map(static fn ($p): array => $p->specs, $part->ports)] as $port => $specs
        ) {
            foreach ($specs as $spec) {
                if ($spec->value instanceof Quantity && $spec->tolerance === null) {
                    yield [$spec, $spec->value, $port === '' ? null : (string) $port];
                }
            }
        }
    }
}
