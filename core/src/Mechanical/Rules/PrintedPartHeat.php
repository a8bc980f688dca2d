<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Mechanical\Cures\OtherPlastic;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Tables;
use Magpie\Core\Thermal\HeatLimit;

/** M13: does a printed part stay stiff where it is. */
final class PrintedPartHeat implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M13',
            'Printed part in the heat',
            'Does this plastic stay stiff at the temperature it meets?',
            Trade::Mechanical,
            'Glass transitions and the 20 K and 10 K distances are common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Printed) as $ref => $fitted) {
            yield new Subject('need', $ref, $fitted->need->role, [$ref]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $part = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $material = $inquiry->tryChoice($part, 'material') ?? $inquiry->lack("material of {$part->need->role}");
        $service = $this->warmest($inquiry, $part);
        $glass =
            $inquiry->tryRead($part, 'glass_transition', 'T_g', Bound::Lowest) ?? $this->usual($inquiry, $material);
        $clear = $inquiry->work(
            'Distance to where it softens',
            'ΔT = T_g − T_s',
            ['T_g' => $glass, 'T_s' => $service],
            $glass->minus($service),
            'K',
        );
        $verdict = HeatLimit::ofPrint($clear);
        $says =
            "{$material} softens at {$glass}; here it meets {$service}, ".
            ($clear->isBelow(Quantity::of(0, 'K')) ? 'above that.' : "{$clear} below that.").
            ($verdict === Verdict::Fails ? ' It sags and creeps.' : '');

        return $inquiry->conclude(
            $verdict,
            $says,
            // Of the distance it should keep at the least: what is over or short of that.
            $clear->isBelow(Quantity::of(HeatLimit::TIGHT, 'K'))
                ? $clear->over(Quantity::of(HeatLimit::TIGHT, 'K'))->minus(Quantity::ratio(1))->to('%')
                : $inquiry->margin(Quantity::of(HeatLimit::TIGHT, 'K'), $clear),
            '20 K below its glass transition holds, less than 10 K fails',
        );
    }

    /** What it meets in service, and never less than the air of the place it stands in. */
    private function warmest(Inquiry $inquiry, Fitted $part): Quantity
    {
        $service = $inquiry->read($part, 'service_temperature', 'T_s', Bound::Highest);
        $zone = $inquiry->build->zoneOf($part->need->ref);
        if ($zone?->temperature === null || ! $zone->temperature->exceeds($service)) {
            return $service;
        }

        return $inquiry->given(
            "hottest air in {$zone->name}",
            'T_z',
            $zone->temperature,
            $zone->evidence,
            "zones/{$zone->ref}/temperature",
        );
    }

    public function cures(): array
    {
        return [new OtherPlastic];
    }

    public function examples(): Examples
    {
        $in = static fn (string $material): array => Examples::file([
            Examples::part('clamp', 'printed_part', ['material' => $material, 'service_temperature' => '65 °C']),
        ]);

        return new Examples(static fn (): array => $in('PLA'), static fn (): array => $in('ASA'), Verdict::Fails);
    }

    private function usual(Inquiry $inquiry, string $material): Quantity
    {
        /** @var array<string, int> $table */
        $table = Tables::named('plastics');
        if (! isset($table[$material])) {
            $inquiry->lack("glass transition of this {$material}");
        }

        return $inquiry->given(
            "glass transition of {$material}",
            'T_g',
            Quantity::of($table[$material], '°C'),
            Evidence::Standard,
            'reference/plastics',
        );
    }
}
