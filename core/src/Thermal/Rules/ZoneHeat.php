<?php

declare(strict_types=1);

namespace Magpie\Core\Thermal\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Thermal\HeatLimit;

/** T04: what stands in warm air, and whether it bears it. */
final class ZoneHeat implements Check
{
    public function card(): Card
    {
        return new Card(
            'T04',
            'Warm place',
            'Does everything that stands in this place bear its air?',
            Trade::Thermal,
            'Limits from the sheets; 50 °C for electronics and 20 K below the glass transition for prints: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->zones as $zone) {
            if ($zone->holds !== []) {
                yield new Subject('zone', $zone->ref, $zone->name, $zone->holds);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $zone = $inquiry->build->zones[$inquiry->subject->ref];
        $air = $inquiry->given(
            "hottest air in {$zone->name}",
            'T',
            $zone->temperature,
            $zone->evidence,
            "zones/{$zone->ref}/temperature",
        );
        $worst = Verdict::Holds;
        $says = [];
        $margin = null;
        foreach ($zone->holds as $ref) {
            $fitted = $inquiry->build->fitted($ref);
            $limit = $fitted === null ? null : $this->limit($inquiry, $fitted);
            if ($fitted === null || $limit === null) {
                continue;
            }
            $left = $limit->minus($air)->to('K');
            $margin = $margin === null ? $left : Quantity::min($margin, $left);
            $verdict = match (true) {
                $fitted->part->can(Ability::Printed) => HeatLimit::ofPrint(
                    $left->plus(Quantity::of(HeatLimit::HOLDS, 'K')),
                ),
                ! $left->isBelow(Quantity::of(0, 'K')) => Verdict::Holds,
                $fitted->part->can(Ability::Supplies) => Verdict::Tight,
                default => Verdict::Fails,
            };
            $inquiry->remark("{$fitted->need->role} bears {$limit}: {$left} left.");
            if ($verdict !== Verdict::Holds) {
                $says[] = $fitted->part->can(Ability::Supplies)
                    ? "{$fitted->need->role} gives less above {$limit}"
                    : "{$fitted->need->role} bears {$limit}";
            }
            $worst = Verdict::worst($worst, $verdict);
        }
        $margin ?? $inquiry->lack("something in {$zone->name} whose limit is known");
        $inquiry->work('Least that is left', 'ΔT = min(T_limit − T)', ['T' => $air], $margin, 'K');

        return $inquiry->conclude(
            $worst,
            "{$air} in {$zone->name}".
                ($says === []
                    ? ": all that is known bears it, with {$margin} to spare."
                    : ': '.implode('; ', $says).'. Move it out, or cool the place.'),
            null,
            'the limit of each',
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $air): array => Examples::file(
            [Examples::part('corner', 'printed_part', ['material' => 'PLA'])],
            [
                'zones' => [
                    [
                        'ref' => 'chamber',
                        'name' => 'Chamber',
                        'kind' => 'chamber',
                        'temperature' => $air,
                        'evidence' => 'measured',
                        'holds' => ['corner'],
                    ],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('55 °C'), static fn (): array => $file('32 °C'), Verdict::Fails);
    }

    /** Air a part bears, with what it rests on; null when nothing is known of it. */
    private function limit(Inquiry $inquiry, Fitted $fitted): ?Quantity
    {
        if ($fitted->part->can(Ability::Printed)) {
            $inquiry->tryChoice($fitted, 'material') ??
                $inquiry->miss("material of {$fitted->need->role}", "parts/{$fitted->part->ref}/specs/material");
            $inquiry->tryRead($fitted, 'glass_transition', 'T_g', Bound::Lowest);
        }
        $key = HeatLimit::keyOf($fitted);
        $limit = HeatLimit::of($fitted);
        if (
            $key !== null &&
            $inquiry->tryRead($fitted, $key, 'T_'.$fitted->need->ref, Bound::Lowest) === null &&
            $limit === null
        ) {
            $inquiry->miss("highest air of {$fitted->need->role}", "parts/{$fitted->part->ref}/specs/{$key}");
        }

        return $limit;
    }
}
