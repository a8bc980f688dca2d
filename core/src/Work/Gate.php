<?php

declare(strict_types=1);

namespace Magpie\Core\Work;

use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Purchase;
use Magpie\Core\Machine\Buying\PurchaseState;
use Magpie\Core\Machine\Work\Sequence;
use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;

/**
 * What keeps a step from being done: a step before it that is not, a reading that was never taken or is out of its limits,
 * pieces that are not here, an open fault that can hurt. Of a part nobody has noted anything of, nothing is known: that
 * keeps no step, and is for the builder to see.
 */
final readonly class Gate
{
    /**
     * @param  string  $kind  step, reading, part or fault
     * @param  string|null  $ref  of the step, need or fault it waits for
     */
    private function __construct(public string $kind, public string $says, public ?string $ref)
    {
    }

    /**
     * @param  array<string, int>|null  $here  as here() gives it, where many steps are asked one after another
     * @return list<self> empty when it may be done
     */
    public static function closed(Build $build, Step $step, ?array $here = null): array
    {
        return [
            ...self::steps($build, $step),
            ...self::reading($step),
            ...self::parts($build, $step, $step->uses === [] ? [] : $here ?? self::here($build)),
            ...self::faults($build, $step),
        ];
    }

    /**
     * @return array{kind: string, says: string, ref: string|null}
     */
    public function toArray(): array
    {
        return ['kind' => $this->kind, 'says' => $this->says, 'ref' => $this->ref];
    }

    /**
     * @return list<self>
     */
    private static function steps(Build $build, Step $step): array
    {
        return array_map(
            static fn (string $ref): self => new self('step', "“{$build->steps[$ref]->title}” comes first", $ref),
            Sequence::waitsFor($step, $build->steps),
        );
    }

    /**
     * @return list<self>
     */
    private static function reading(Step $step): array
    {
        $check = $step->check;

        return match (true) {
            $check === null => [],
            $check->measured === null => [new self('reading', "{$check->what} was not measured", null)],
            Reading::verdict($check) === Verdict::Fails => [
                new self(
                    'reading',
                    "{$check->what}: {$check->measured} is out of {$check->nominal} ± {$check->tolerance}",
                    null,
                ),
            ],
            default => [],
        };
    }

    /**
     * @param  array<string, int>  $here
     * @return list<self>
     */
    private static function parts(Build $build, Step $step, array $here): array
    {
        $gates = [];
        foreach ($step->uses as $need => $pieces) {
            $fitted = $build->fitted((string) $need);
            $there = $fitted === null ? null : $here[$fitted->part->ref] ?? null;
            // What went in at this very step was there for it.
            $there = $there === null || $step->state !== StepState::Done ? $there : $there + $pieces;
            if ($fitted !== null && $there !== null && $there < $pieces) {
                $gates[] = new self(
                    'part',
                    $there <= 0
                        ? "{$fitted->need->role} is not here"
                        : "{$fitted->need->role}: {$there} of {$pieces} are here",
                    (string) $need,
                );
            }
        }

        return $gates;
    }

    /**
     * @return array<string, int> pieces in the workshop of each part of which anything is noted, less those that went in
     *     at steps that are done
     */
    public static function here(Build $build): array
    {
        $here = [];
        foreach ($build->needs as $need) {
            if ($need->choice !== null && $need->owned > 0) {
                $here[$need->choice] = ($here[$need->choice] ?? 0) + $need->owned;
            }
        }
        foreach ($build->purchases as $purchase) {
            if (self::counts($purchase)) {
                $here[$purchase->part] = ($here[$purchase->part] ?? 0) + $purchase->here();
            }
        }
        foreach ($build->prints as $run) {
            if (! $run->fit) {
                $here[$run->part] = ($here[$run->part] ?? 0) + $run->made();
            }
        }

        foreach ($build->steps as $step) {
            foreach ($step->state === StepState::Done ? $step->uses : [] as $need => $pieces) {
                $part = $build->fitted((string) $need)?->part->ref;
                if ($part !== null && isset($here[$part])) {
                    $here[$part] -= $pieces;
                }
            }
        }

        return $here;
    }

    private static function counts(Purchase $purchase): bool
    {
        return $purchase->state === PurchaseState::Ordered ||
            $purchase->state === PurchaseState::Shipped ||
            $purchase->received > 0;
    }

    /**
     * @return list<self>
     */
    private static function faults(Build $build, Step $step): array
    {
        $gates = [];
        foreach ($build->faults as $fault) {
            $concerns = $fault->step === $step->ref || isset($step->uses[$fault->need ?? '']);
            if ($concerns && $fault->forbidsPower()) {
                $gates[] = new self('fault', "open danger: {$fault->what}", $fault->ref);
            }
        }

        return $gates;
    }
}
