<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Claim;
use Magpie\Core\Machine\SettingKind;
use Magpie\Core\Machine\Work\StepState;
use Magpie\Core\Printing\Recipe;
use Magpie\Core\Work\Gate;

/**
 * Everything of a build that is not as it is meant to stay, with what releases it: faults, steps passed or left out, what is
 * temporary, half made, accepted, claimed, short, or not chosen yet. An item goes by itself when what releases it is there.
 *
 * @phpstan-type Item array{kind: string, what: string, release: string, section: string, ref: string}
 */
final class OpenItems
{
    /**
     * @return list<Item> what can hurt first
     */
    public static function of(Build $build): array
    {
        $items = [];
        foreach ([...self::work($build), ...self::made($build), ...self::bought($build)] as $item) {
            $items[] = array_combine(['kind', 'what', 'release', 'section', 'ref'], $item);
        }
        usort($items, static fn (array $a, array $b): int => ($b['kind'] === 'danger') <=> ($a['kind'] === 'danger'));

        return $items;
    }

    /**
     * @return iterable<array{string, string, string, string, string}> kind, what, what releases it, section, ref
     */
    private static function work(Build $build): iterable
    {
        foreach ($build->faults as $fault) {
            if ($fault->isOpen()) {
                yield [
                    $fault->forbidsPower() ? 'danger' : 'fault',
                    $fault->what,
                    $fault->forbidsPower() ? 'fixed, and how: before that nothing is powered' : 'fixed or closed',
                    'faults',
                    $fault->ref,
                ];
            }
        }
        $here = Gate::here($build);
        foreach ($build->steps as $step) {
            if ($step->state === StepState::Skipped) {
                yield ['left out', $step->title, 'done, or deleted', 'steps', $step->ref];
            }
            // What was done before it was kept, or lost its ground since, is as open as what was waved through.
            $closed = $step->state === StepState::Done ? Gate::closed($build, $step, $here) : [];
            if ($closed !== []) {
                yield [
                    $step->waived === null ? 'not proven' : 'waived',
                    $step->waived === null ? $step->title : "{$step->title}: {$step->waived}",
                    implode('; ', array_map(static fn (Gate $g): string => $g->says, $closed)),
                    'steps',
                    $step->ref,
                ];
            }
        }
        foreach ($build->accepted as $one) {
            yield [
                'accepted',
                "{$one->finding}: {$one->why} ({$one->who})",
                $one->until === null ? 'its inputs change' : "{$one->until}, or its inputs change",
                'accepted',
                $one->ref,
            ];
        }
    }

    /**
     * @return iterable<array{string, string, string, string, string}>
     */
    private static function made(Build $build): iterable
    {
        foreach ($build->settings as $setting) {
            if ($setting->kind === SettingKind::Temporary && ! $setting->done) {
                yield ['temporary', $setting->about, $setting->until ?? 'taken out again', 'settings', $setting->ref];
            }
        }
        foreach ($build->leads as $lead) {
            $made = count(array_filter($lead->ends, static fn ($end): bool => $end->made));
            if (! $lead->made && $made > 0) {
                yield [
                    'half made',
                    "{$lead->ref}: {$build->roleOf($lead->from->need)} to {$build->roleOf($lead->to->need)}",
                    'both its ends are on: before that its branch is not powered',
                    'leads',
                    $lead->ref,
                ];
            }
        }
        foreach ($build->prints as $run) {
            $recipe = Recipe::of($build->parts[$run->part])->byRecipe;
            $weighed = $run->mass?->in('g');
            if ($run->made() > 0 && $recipe !== null && $weighed !== null && Recipe::isThin($weighed, $recipe)) {
                yield [
                    'thin',
                    $build->parts[$run->part]->name.", printed {$run->date}",
                    'printed again',
                    'prints',
                    $run->ref,
                ];
            }
        }
        foreach ($build->needs as $need) {
            if ($build->fitted($need->ref) === null) {
                yield ['not chosen', $need->role, 'a part is chosen', 'needs', $need->ref];
            }
        }
    }

    /**
     * @return iterable<array{string, string, string, string, string}>
     */
    private static function bought(Build $build): iterable
    {
        foreach ($build->purchases as $purchase) {
            $name = $build->parts[$purchase->part]->name;
            if ($purchase->claim === Claim::Open || $purchase->claim === Claim::Sent) {
                yield ['claimed', $name, 'settled, or refused', 'purchases', $purchase->ref];
            } elseif ($purchase->received > 0 && $purchase->onTheWay() > 0) {
                yield [
                    'short',
                    "{$name}: {$purchase->received} of {$purchase->pieces}",
                    'the rest is here',
                    'purchases',
                    $purchase->ref,
                ];
            }
            if ($purchase->received > $purchase->accepted + $purchase->returned + $purchase->moved + $purchase->sold) {
                yield ['not looked at', $name, 'looked at, and good or sent back', 'purchases', $purchase->ref];
            }
        }
    }
}
