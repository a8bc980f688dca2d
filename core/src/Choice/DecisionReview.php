<?php

declare(strict_types=1);

namespace Magpie\Core\Choice;

use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Machine\Choosing\Decision;
use Magpie\Core\Machine\Choosing\DecisionAbout;
use Magpie\Core\Machine\Choosing\DecisionState;
use Magpie\Core\Routes\RouteComparison;

/** Looks at every decision of a build again: one whose facts have changed since it was made is reopened. */
final readonly class DecisionReview
{
    public function __construct(private Inspection $inspection)
    {
    }

    /**
     * @return list<array{ref: string, state: string, changed: list<array{fact: string, was: string|null,
     *     is: string|null}>}> state: open, made or reopened
     */
    public function toArray(): array
    {
        return array_values(
            array_map(function (Decision $decision): array {
                $changed = $decision->state === DecisionState::Made ? $this->changed($decision) : [];

                return [
                    'ref' => $decision->ref,
                    'state' => $changed === [] ? $decision->state->value : 'reopened',
                    'changed' => $changed,
                ];
            }, $this->inspection->survey->build->decisions),
        );
    }

    /** How many wait for the builder: open ones and those reopened. */
    public function waiting(): int
    {
        return count(array_filter($this->toArray(), static fn (array $d): bool => $d['state'] !== 'made'));
    }

    /**
     * @return list<array{fact: string, was: string|null, is: string|null}>
     */
    private function changed(Decision $decision): array
    {
        $build = $this->inspection->survey->build;
        $changed = [];
        $now = $decision->facts;
        if ($decision->about === DecisionAbout::Part) {
            $chosen = $build->needs[$decision->need ?? '']->choice ?? null;
            if ($chosen !== $decision->choice) {
                return [
                    [
                        'fact' => 'Part that is chosen',
                        'was' => $build->part($decision->choice ?? '')->name ?? $decision->choice,
                        'is' => $build->part($chosen ?? '')->name ?? $chosen,
                    ],
                ];
            }
            $now =
                $decision->facts === [] || $chosen === null
                    ? []
                    : Facts::ofPart($this->inspection, (string) $decision->need, $build->parts[$chosen]);
        } elseif ($decision->about === DecisionAbout::Route) {
            $now = $decision->facts === [] ? [] : Facts::ofRoutes((new RouteComparison($build))->ledgers);
        }
        foreach ($decision->facts + $now as $fact => $_) {
            $was = $decision->facts[$fact] ?? null;
            $is = $now[$fact] ?? null;
            if ($was !== $is) {
                $changed[] = ['fact' => (string) $fact, 'was' => $was, 'is' => $is];
            }
        }

        return $changed;
    }
}
