<?php

declare(strict_types=1);

namespace Magpie\Core\Choice;

use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Machine\Choosing\Decision;
use Magpie\Core\Machine\Choosing\DecisionAbout;
use Magpie\Core\Machine\Choosing\DecisionState;
use Magpie\Core\Machine\Part;
use Magpie\Core\Routes\RouteComparison;

/**
 * Looks at every decision of a build again: one is reopened when a fact it rests on has changed for the worse, or when a
 * cheaper candidate stands there that nobody compared then.
 */
final readonly class DecisionReview
{
    /** @var list<array{ref: string, state: string, changed: list<array{fact: string, was: string|null, is: string|null}>}> */
    private array $reviewed;

    public function __construct(private Inspection $inspection)
    {
        $this->reviewed = array_values(
            array_map(function (Decision $decision): array {
                $changed = $decision->state === DecisionState::Made ? $this->changed($decision) : [];

                return [
                    'ref' => $decision->ref,
                    'state' => $changed === [] ? $decision->state->value : 'reopened',
                    'changed' => $changed,
                ];
            }, $inspection->survey->build->decisions),
        );
    }

    /**
     * @return list<array{ref: string, state: string, changed: list<array{fact: string, was: string|null,
     *     is: string|null}>}> state: open, made or reopened
     */
    public function toArray(): array
    {
        return $this->reviewed;
    }

    /** How many wait for the builder: open ones and those reopened. */
    public function waiting(): int
    {
        return count(array_filter($this->reviewed, static fn (array $d): bool => $d['state'] !== 'made'));
    }

    /**
     * @return list<array{fact: string, was: string|null, is: string|null}>
     */
    private function changed(Decision $decision): array
    {
        $build = $this->inspection->survey->build;
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
            $part = $chosen === null ? null : $build->parts[$chosen];
            if ($decision->facts === [] || $part === null) {
                return [];
            }
            $now = Facts::ofPart($this->inspection, (string) $decision->need, $part);
            $changed = self::worse(
                $decision->facts,
                $now,
                static fn (string $fact, ?string $was, ?string $is): bool => FactChange::isWorse($fact, $was, $is, $part),
            );

            return [...$changed, ...$this->cheaper($decision, $part)];
        }

        return $decision->about === DecisionAbout::Route && $decision->facts !== [] ? $this->routes($decision) : [];
    }

    /**
     * A route is looked at again when it costs more than it did, or when another that did not is the cheaper one now.
     *
     * @return list<array{fact: string, was: string|null, is: string|null}>
     */
    private function routes(Decision $decision): array
    {
        $build = $this->inspection->survey->build;
        $now = Facts::ofRoutes((new RouteComparison($build))->ledgers);
        $own = Facts::ofRoute(isset($build->routes[$decision->choice ?? '']) ? $build->routes[$decision->choice]->name : '');
        $standing = $now[$own] ?? null;

        return self::worse(
            $decision->facts,
            $now,
            static fn (string $fact, ?string $was, ?string $is): bool => $fact === $own
                ? FactChange::costsMore($was, $is)
                : $is !== null &&
                    FactChange::costsMore($is, $standing) &&
                    ($was === null || ! FactChange::costsMore($was, $decision->facts[$own] ?? null)),
        );
    }

    /**
     * @return list<array{fact: string, was: string|null, is: string|null}>
     */
    private function cheaper(Decision $decision, Part $chosen): array
    {
        $build = $this->inspection->survey->build;
        $known = array_column($decision->rejected, 'what');
        $standing = Facts::price($build, $chosen)[0];
        $found = [];
        foreach ($build->needs[(string) $decision->need]->candidates as $ref) {
            $other = $build->parts[$ref];
            $price = Facts::price($build, $other)[0];
            if (
                $other !== $chosen &&
                ! in_array($other->name, $known, true) &&
                $price !== null &&
                ($standing === null || $price->compare($standing) < 0)
            ) {
                $found[] = ['fact' => "{$other->name}, not compared yet", 'was' => null, 'is' => (string) $price];
            }
        }

        return $found;
    }

    /**
     * @param  array<string, string>  $before
     * @param  array<string, string>  $now
     * @param  callable(string, string|null, string|null): bool  $isWorse
     * @return list<array{fact: string, was: string|null, is: string|null}>
     */
    private static function worse(array $before, array $now, callable $isWorse): array
    {
        $changed = [];
        foreach ($before + $now as $fact => $_) {
            $was = $before[$fact] ?? null;
            $is = $now[$fact] ?? null;
            if ($was !== $is && $isWorse((string) $fact, $was, $is)) {
                $changed[] = ['fact' => (string) $fact, 'was' => $was, 'is' => $is];
            }
        }

        return $changed;
    }
}
