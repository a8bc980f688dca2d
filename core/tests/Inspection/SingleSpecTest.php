<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Input;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\PortSheet;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Tests\Proving\Machines;
use Magpie\Core\Tests\Trials;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * Evidence cannot be passed by: each spec of each sample is changed alone and weakened alone. Whatever turns a pass is
 * among what the check says it rests on, and to weaken it makes the pass unproven.
 */
final class SingleSpecTest extends TestCase
{
    /**
     * @return iterable<string, array{Build, int, int}> the build, and which of its specs are tried: every so manieth, from where
     */
    public static function samples(): iterable
    {
        foreach (Rules::inspector()->checks as $check) {
            yield "{$check->card()->id} holding" => [$check->examples()->holding(), 1, 0];
        }
        // Machines are of the same families: what one passes over another tries. MAGPIE_FUZZ tries all of all of them.
        $every = getenv('MAGPIE_FUZZ') === false ? 3 : 1;
        foreach (array_values(Machines::all()) as $i => $machine) {
            $build = $machine()->build();
            yield $build->plan->kind." {$i}" => [$build, $every, $i % $every];
        }
        foreach (['linnet', 'dunlin', 'plover'] as $name) {
            yield $name => [
                BuildFile::read((string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json")),
                $every,
                0,
            ];
        }
    }

    #[DataProvider('samples')]
    public function test_what_turns_a_pass_is_among_its_inputs_and_weakened_it_proves_nothing(
        Build $build,
        int $every,
        int $from,
    ): void {
        $data = BuildFile::data($build);
        $trials = new Trials($data);
        $before = array_filter($trials->findings(), static fn (Finding $f): bool => $f->verdict->passes());
        $silent = [];
        foreach (self::specs($build) as $i => [$path, $spec, $field]) {
            if ($i % $every !== $from) {
                continue;
            }
            $where = implode('/', $path[0]);
            $turned = [];
            foreach (self::otherValues($spec, $field) as $value) {
                try {
                    $after = $trials->findings(self::with($data, [...$path[1], 'value'], $value));
                } catch (CannotReadBuildFile) {
                    continue;
                }
                foreach ($before as $finding) {
                    $now = $after[$finding->key()] ?? null;
                    // Another load that draws down the supply may make it easier for this one: that takes no pass away.
                    if ($now !== null && $now->verdict->rank() < $finding->verdict->rank() && $now->missing === []) {
                        $turned[$finding->key()][(string) $value] = $now->verdict->value;
                    }
                }
            }
            $weakened = $turned === [] ? [] : $trials->findings(self::with($data, [...$path[1], 'evidence'], 'assumed'));
            foreach ($turned as $finding => $how) {
                $rests = array_map(static fn (Input $i): string => $i->where, $before[$finding]->inputs);
                if (! in_array($where, $rests, true)) {
                    $silent[] = "{$finding} turns with {$where} (".implode(', ', $how).') and does not say that it rests on it';
                }
                $now = $weakened[$finding] ?? null;
                if ($now?->verdict->passes() === true && ! self::allows($now, $where, $how)) {
                    $silent[] = "{$finding} passes on an assumed {$where}";
                }
            }
        }
        self::assertSame([], $silent);
    }

    /**
     * Whether it says for what values it passes, and none of those that turn it is among them.
     *
     * @param  array<string, string>  $turned  value → verdict
     */
    private static function allows(Finding $finding, string $where, array $turned): bool
    {
        foreach ($finding->whatever as $said) {
            if ($said['where'] === $where) {
                foreach (array_keys($turned) as $value) {
                    $turning = Quantity::parse((string) $value, $said['from']->unit->dimension);
                    if (! $turning->isBelow($said['from']) && ! $turning->exceeds($said['to'])) {
                        return false;
                    }
                }

                return true;
            }
        }

        return $finding->card->informs;
    }

    /**
     * @return list<array{array{list<string>, list<string|int>}, Spec, SpecField|null}> where it is said of, and where it is in the data
     */
    private static function specs(Build $build): array
    {
        $all = [];
        foreach (array_values($build->parts) as $i => $part) {
            foreach ($part->specs as $key => $spec) {
                $all[] = [
                    [['parts', $part->ref, 'specs', $key], ['parts', $i, 'specs', $key]],
                    $spec,
                    $part->family->field($key),
                ];
            }
            foreach (array_values($part->ownPorts) as $j => $port) {
                foreach ($port->specs as $key => $spec) {
                    $all[] = [
                        [['parts', $part->ref, 'ports', $port->name, 'specs', $key], ['parts', $i, 'ports', $j, 'specs', $key]],
                        $spec,
                        PortSheet::field($key),
                    ];
                }
            }
        }

        return $all;
    }

    /**
     * @param  array<mixed>  $data
     * @param  list<string|int>  $path
     * @return array<mixed>
     */
    private static function with(array $data, array $path, mixed $value): array
    {
        $key = array_shift($path);
        $data[$key] = $path === [] ? $value : self::with($data[$key], $path, $value);

        return $data;
    }

    /**
     * @return list<string|bool>
     */
    private static function otherValues(Spec $spec, ?SpecField $field): array
    {
        if ($spec->flag() !== null) {
            return [! $spec->flag()];
        }
        if ($field !== null && $field->choices !== []) {
            return array_values(array_diff($field->choices, [$spec->choice()]));
        }
        $value = $spec->nominal();

        return $value === null
            ? ['another']
            : array_map(static fn (float $by): string => $value->times($by)->text(), [0.5, 2.0, 0.1, 10.0]);
    }
}
