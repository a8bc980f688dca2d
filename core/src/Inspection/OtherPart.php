<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Format\Adopting;
use Magpie\Core\Library\Entry;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Part;

/** Other candidates of the needs a finding is about, and parts of the library that are most alike. */
final readonly class OtherPart implements Cure
{
    /** Parts of the library tried for one need, the most alike first. */
    private const TRIED = 10;

    /** What a part of another kind does not do. */
    private const SAME = [
        'place',
        'job',
        'kind',
        'series',
        'frame',
        'thread',
        'head',
        'material',
        'output',
        'number',
        'pitch',
        'teeth',
        'lead',
        'nozzle',
        'process',
    ];

    /** Sizes that should stay about as they are. */
    private const NEAR = [
        'rated_power',
        'length',
        'diameter',
        'heated_width',
        'heated_depth',
        'frame_size',
        'bore',
        'output_voltage',
    ];

    public function families(Finding $finding, Build $build): array
    {
        return array_values(
            array_unique(
                array_filter(
                    array_map(static fn (string $n): string => $build->need($n)->family ?? '', $finding->subject->needs),
                ),
            ),
        );
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        foreach ($finding->subject->needs as $ref) {
            $need = $at->build->needs[$ref] ?? null;
            $now = $at->build->fitted($ref);
            if ($need === null || $now === null || $now->part->can(Ability::BoughtAsItIs)) {
                continue;
            }
            foreach (array_diff($need->candidates, [$need->choice]) as $candidate) {
                yield Remedy::setting(
                    "{$at->build->parts[$candidate]->name} for {$need->role}",
                    'needs',
                    $ref,
                    ['choice'],
                    $candidate,
                    true,
                );
            }
            $alike = array_filter(
                $at->shelf($need->family),
                fn (Entry $e): bool => self::serves($now->part, $e->part) &&
                    ! in_array(Adopting::changes($at->build, $e)[0], $need->candidates, true),
            );
            usort(
                $alike,
                static fn (Entry $a, Entry $b): int => self::distance($now->part, $a->part) <=>
                    self::distance($now->part, $b->part),
            );
            foreach (array_slice($alike, 0, self::TRIED) as $entry) {
                [$part, $changes] = Adopting::changes($at->build, $entry);
                yield new Remedy(
                    "{$entry->part->name} for {$need->role}",
                    [
                        ...$changes,
                        [
                            'section' => 'needs',
                            'ref' => $ref,
                            'set' => [
                                ['path' => ['candidates'], 'to' => [...$need->candidates, $part]],
                                ['path' => ['choice'], 'to' => $part],
                            ],
                        ],
                    ],
                    true,
                );
            }
        }
    }

    /** Whether one part can do what another is there for: of the same kind, and in nothing that counts much less. */
    private static function serves(Part $now, Part $other): bool
    {
        foreach ($now->specs as $key => $spec) {
            $its = $other->spec($key);
            [$was, $is] = [$spec->nominal(), $its?->nominal()];
            $less = $was !== null && $is !== null && $is->isBelow($was->times(0.9));
            if (
                (in_array($key, self::SAME, true) && $its !== null && $spec->value !== $its->value) ||
                ($less && ($now->family->field($key)->better ?? null) === 'more') ||
                (in_array($key, self::NEAR, true) &&
                    ($less || ($was !== null && $is?->exceeds($was->times(1.5)) === true)))
            ) {
                return false;
            }
        }

        return true;
    }

    /** How unlike two parts of a family are: unlike choices, and sizes by the ratio of one to the other. */
    private static function distance(Part $one, Part $other): float
    {
        $far = 0.0;
        foreach ($one->specs as $key => $spec) {
            $its = $other->spec($key);
            [$a, $b] = [$spec->nominal(), $its?->nominal()];
            $far += match (true) {
                $its === null => 0.3,
                $a !== null && $b !== null && $a->isPositive() && $b->isPositive() => min(
                    2.0,
                    abs(log($b->over($a)->in(''))),
                ),
                $spec->value === $its->value => 0.0,
                default => 1.0,
            };
        }

        return $far;
    }
}
