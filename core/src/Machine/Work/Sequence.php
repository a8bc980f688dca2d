<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

/** The order in which steps can be done: by position, but never before what they wait for. */
final class Sequence
{
    /**
     * @param  array<string, Step>  $steps
     * @return list<Step>
     */
    public static function order(array $steps): array
    {
        uasort($steps, static fn (Step $a, Step $b): int => [$a->position, $a->ref] <=> [$b->position, $b->ref]);
        $ordered = [];
        $visit = static function (Step $step) use (&$visit, &$ordered, $steps): void {
            if (isset($ordered[$step->ref])) {
                return;
            }
            foreach ($step->after as $before) {
                if (isset($steps[$before])) {
                    $visit($steps[$before]);
                }
            }
            $ordered[$step->ref] = $step;
        };
        foreach ($steps as $step) {
            $visit($step);
        }

        return array_values($ordered);
    }

    /**
     * Steps a step still waits for.
     *
     * @param  array<string, Step>  $steps
     * @return list<string>
     */
    public static function waitsFor(Step $step, array $steps): array
    {
        return array_values(
            array_filter(
                $step->after,
                static fn (string $ref): bool => ($steps[$ref] ?? null)?->state === StepState::Open,
            ),
        );
    }

    /**
     * Steps that wait for each other, in order; empty when none do.
     *
     * @param  array<string, Step>  $steps
     * @return list<string>
     */
    public static function circle(array $steps): array
    {
        $state = [];
        foreach (array_keys($steps) as $ref) {
            $found = self::walk((string) $ref, $steps, $state, []);
            if ($found !== []) {
                return $found;
            }
        }

        return [];
    }

    /**
     * @param  array<string, Step>  $steps
     * @param  array<string, bool>  $state  true when known to be free of circles
     * @param  list<string>  $path
     * @return list<string>
     */
    private static function walk(string $ref, array $steps, array &$state, array $path): array
    {
        $at = array_search($ref, $path, true);
        if ($at !== false) {
            return [...array_slice($path, (int) $at), $ref];
        }
        if (isset($state[$ref]) || ! isset($steps[$ref])) {
            return [];
        }
        foreach ($steps[$ref]->after as $before) {
            $found = self::walk($before, $steps, $state, [...$path, $ref]);
            if ($found !== []) {
                return $found;
            }
        }
        $state[$ref] = true;

        return [];
    }
}
