<?php

declare(strict_types=1);

namespace Magpie\Core\Choice;

use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\RevisionState;
use Magpie\Core\Money\Exchange;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Routes\RouteLedger;

/**
 * The facts a decision rests on, as short texts by name, so that a later look can say which of them changed: price,
 * wait, verdicts and the values the checks read; of a route what it costs at the door.
 */
final class Facts
{
    /**
     * @param  Inspection  $inspection  of the build with this part chosen
     * @return array<string, string>
     */
    public static function ofPart(Inspection $inspection, string $need, Part $part): array
    {
        $build = $inspection->survey->build;
        $facts = [];
        [$best, $days] = self::price($build, $part);
        $facts['Price'] = $best === null ? 'none' : (string) $best;
        $facts['Wait'] = $days === null ? 'not known' : "{$days} days";
        $read = [];
        $own = array_filter(
            $inspection->findings,
            static fn (Finding $f): bool => in_array($need, $f->subject->needs, true),
        );
        foreach ($own as $finding) {
            $facts[
                "{$finding->card->id} {$finding->card->title}, {$finding->subject->label}"
            ] = $finding->verdict->label();
            foreach ($finding->inputs as $input) {
                $read[$input->where] = true;
            }
        }
        foreach ($part->specs as $key => $spec) {
            if (isset($read["parts/{$part->ref}/specs/{$key}"])) {
                $facts[$part->family->field($key)->label ?? $key] = mb_substr(
                    "{$spec->printed()}, {$spec->evidence->label()}",
                    0,
                    400,
                );
            }
        }
        foreach ($build->revisions as $revision) {
            if ($revision->part === $part->ref && $revision->state !== RevisionState::Superseded) {
                $facts["Revision of {$revision->name}"] = "{$revision->revision}, {$revision->state->value}";
            }
        }
        ksort($facts);

        return $facts;
    }

    /**
     * The least it is offered for, in the build's currency, and the wait of who offers it so.
     *
     * @return array{Money|null, int|null}
     */
    public static function price(Build $build, Part $part): array
    {
        $exchange = new Exchange($build->rates, $build->plan->currency);
        $best = $days = null;
        foreach ($build->offers as $offer) {
            $cost = $offer->part === $part->ref ? $exchange->convert($offer->price) : null;
            if ($cost !== null && ($best === null || $cost->compare($best) < 0)) {
                [$best, $days] = [$cost, $build->suppliers[$offer->supplier]->leadDays];
            }
        }

        return [$best, $days];
    }

    /** The name of the fact that says what a route costs. */
    public static function ofRoute(string $name): string
    {
        return "{$name}, at the door";
    }

    /**
     * @param  iterable<RouteLedger>  $ledgers
     * @return array<string, string>
     */
    public static function ofRoutes(iterable $ledgers): array
    {
        $facts = [];
        foreach ($ledgers as $ledger) {
            $facts[self::ofRoute($ledger->route->name)] = (string) $ledger->landed;
        }
        ksort($facts);

        return $facts;
    }
}
