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
     * @param  int|null  $now  Unix seconds; without it nothing is said of what still sets
     * @return list<Item> what can hurt first
     */
    public static function of(Build $build, ?int $now = null): array
    {
        $items = [];
        $all = [
            ...self::work($build),
            ...self::said($build),
            ...$now === null ? [] : self::setting($build, $now),
            ...self::made($build),
            ...self::bought($build),
        ];
        foreach ($all as $item) {
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
            foreach ($step->state === StepState::Done ? $step->guesses : [] as $guess) {
                if ($guess->settled === null) {
                    yield [
                        'guessed',
                        $guess->what,
                        $guess->settledBy === null
                            ? 'said what it turned out to be'
                            : "“{$build->steps[$guess->settledBy]->title}” shows it",
                        'steps',
                        $step->ref,
                    ];
                }
            }
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
     * What is asked, not read, and not sent back yet.
     *
     * @return iterable<array{string, string, string, string, string}>
     */
    private static function said(Build $build): iterable
    {
        foreach ($build->questions as $question) {
            if ($question->isOpen()) {
                yield [
                    'asked',
                    "{$question->asks} ({$question->of}, {$question->asked})",
                    'answered',
                    'questions',
                    $question->ref,
                ];
            }
        }
        foreach ($build->documents as $document) {
            if ($document->read === null) {
                yield ['not read', $document->title, 'read through', 'documents', $document->ref];
            }
            $unsent = $document->unsent();
            if ($unsent > 0) {
                yield [
                    'to send back',
                    $unsent === 1
                        ? "a correction to {$document->title}"
                        : "{$unsent} corrections to {$document->title}",
                    'sent to whoever wrote it',
                    'documents',
                    $document->ref,
                ];
            }
        }
    }

    /**
     * @return iterable<array{string, string, string, string, string}>
     */
    private static function setting(Build $build, int $now): iterable
    {
        foreach ($build->steps as $step) {
            $hours = Gate::hoursToSet($step, $now);
            if ($hours > 0) {
                yield ['sets', $step->title, sprintf('another %.1f h have gone', $hours), 'steps', $step->ref];
            }
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
            if (Gate::isHalf($lead)) {
                yield [
                    'half made',
                    $build->leadInWords($lead),
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
            if ($purchase->unseen() > 0) {
                yield ['not looked at', $name, 'looked at, and good or sent back', 'purchases', $purchase->ref];
            }
        }
    }
}
