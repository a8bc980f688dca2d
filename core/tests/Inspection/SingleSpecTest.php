<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Quantity\Quantity;
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
     * @return iterable<string, array{Build, int}> the build, and which part of its specs is tried
     */
    public static function samples(): iterable
    {
        foreach (Rules::inspector()->checks as $check) {
            yield "{$check->card()->id} holding" => [$check->examples()->holding(), 1];
        }
        // Of the whole machines every so manieth spec; MAGPIE_FUZZ tries all of them.
        foreach (['linnet', 'dunlin'] as $name) {
            yield $name => [
                BuildFile::read((string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json")),
                getenv('MAGPIE_FUZZ') === false ? 7 : 1,
            ];
        }
    }

    #[DataProvider('samples')]
    public function test_what_turns_a_pass_is_among_its_inputs_and_weakened_it_proves_nothing(
        Build $build,
        int $every,
    ): void {
        $data = BuildFile::data($build);
        $trials = new Trials($data);
        $before = array_filter($trials->findings(), static fn (Finding $f): bool => $f->verdict->passes());
        $count = 0;
        $silent = [];
        foreach ($build->parts as $part) {
            foreach ($part->specs as $key => $spec) {
                if ($count++ % $every !== 0) {
                    continue;
                }
                $index = array_search($part->ref, array_column($data['parts'], 'ref'), true);
                $turned = [];
                foreach (self::otherValues($spec) as $value) {
                    $changed = $data;
                    $changed['parts'][$index]['specs'][$key]['value'] = $value;
                    try {
                        $after = $trials->findings($changed);
                    } catch (CannotReadBuildFile) {
                        continue;
                    }
                    foreach ($before as $finding) {
                        $now = $after[$finding->key()] ?? null;
                        if ($now !== null && $now->verdict !== $finding->verdict && $now->missing === []) {
                            $turned[$finding->key()][$value] = $now->verdict->value;
                        }
                    }
                }
                if ($turned === []) {
                    continue;
                }
                $weaker = $data;
                $weaker['parts'][$index]['specs'][$key]['evidence'] = 'assumed';
                $weakened = $trials->findings($weaker);
                foreach ($turned as $finding => $how) {
                    if (
                        ! in_array(
                            "parts/{$part->ref}/specs/{$key}",
                            array_map(static fn ($i): string => $i->where, $before[$finding]->inputs),
                            true,
                        )
                    ) {
                        $silent[] =
                            "{$finding} turns with {$part->ref}.{$key} (".
                            implode(', ', $how).
                            ') and does not say that it rests on it';
                    }
                    $now = $weakened[$finding] ?? null;
                    if (
                        $now?->verdict->passes() === true &&
                        ! self::allows($now, "parts/{$part->ref}/specs/{$key}", $how)
                    ) {
                        $silent[] = "{$finding} passes on an assumed {$part->ref}.{$key}";
                    }
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
     * @return list<string|bool>
     */
    private static function otherValues(Spec $spec): array
    {
        if ($spec->flag() !== null) {
            return [! $spec->flag()];
        }
        $value = $spec->nominal();

        return $value === null
            ? []
            : array_map(static fn (float $by): string => $value->times($by)->text(), [0.5, 2.0, 0.1, 10.0]);
    }
}
