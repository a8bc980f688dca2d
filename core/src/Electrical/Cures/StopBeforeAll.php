<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Stops;
use Magpie\Core\Format\Adopting;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Quantity\Quantity;

/** A stop between a supply and all it feeds, where a machine has none: each of its leads begins at the stop then. */
final readonly class StopBeforeAll implements Cure
{
    /** Stops of the library tried. */
    private const TRIED = 6;

    public function families(Finding $finding, Build $build): array
    {
        return ['stop_button'];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        if ($finding->subject->ref !== 'stops' || Stops::of($at->survey)->buttons() !== []) {
            return;
        }
        $need = Adopting::free('main-stop', $at->build->needs);
        $feed = Adopting::free('W-main-stop', $at->build->leads);
        foreach (Circuits::of($at->survey)->topology->listed() as $source) {
            $from = "{$source[0]}.{$source[2]->name}";
            $leads = Circuits::of($at->survey)->topology->leadsFrom($from);
            foreach ($leads === [] ? [] : array_slice($at->shelf('stop_button'), 0, self::TRIED) as $entry) {
                yield new Remedy(
                    "{$entry->part->name} behind {$source[1]}",
                    [
                        ...Adopting::need($at->build, $entry, $need, 'Main stop', ['purpose' => 'safety']),
                        [
                            'section' => 'leads',
                            'create' => ['ref' => $feed, 'from' => $from, 'to' => "{$need}.in"] + self::like($leads),
                        ],
                        ...array_map(
                            static fn (Lead $l): array => Remedy::set('leads', $l->ref, ['from'], "{$need}.out"),
                            $leads,
                        ),
                    ],
                    true,
                );
            }
        }
    }

    /**
     * A lead that carries what all of these do: as thick as the thickest, and as the drawing says no more, short.
     *
     * @param  list<Lead>  $leads
     * @return array<string, mixed>
     */
    private static function like(array $leads): array
    {
        $thickest = null;
        foreach ($leads as $lead) {
            $size = $lead->conductor->size;
            $thickest =
                $size === null || ($thickest !== null && Quantity::max($thickest, $size) === $thickest)
                    ? $thickest
                    : $size;
        }

        return $thickest === null
            ? []
            : [
                'conductor' => ['size' => $thickest->text(), 'evidence' => 'assumed'],
                'length' => '0.5 m',
                'route' => 'fixed',
            ];
    }
}
