<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Conductors;

/** The next sizes up, or a second conductor beside the first. */
final readonly class LargerConductor implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $leads = LeadsAt::of($finding, $at);
        if ($finding->subject->kind !== 'lead' && count($leads) > 1) {
            yield from $this->all($leads);
        }
        foreach ($leads as $lead) {
            $size = $lead->conductor->size;
            if ($size === null) {
                continue;
            }
            $larger = array_values(
                array_filter(
                    self::ladder($lead),
                    static fn (string $s): bool => Quantity::parse($s, Dimension::Area)->exceeds($size),
                ),
            );
            foreach (array_slice($larger, 0, 4) as $next) {
                yield Remedy::setting(
                    "{$next} for {$lead->ref}, instead of {$size}",
                    'leads',
                    $lead->ref,
                    ['conductor', 'size'],
                    $next,
                    true,
                );
            }
            yield Remedy::setting(
                "A second conductor in parallel for {$lead->ref}, joined at both ends",
                'leads',
                $lead->ref,
                ['conductor', 'parallel'],
                $lead->conductor->parallel + 1,
                true,
            );
        }
    }

    /**
     * All of them in one size, where all are thinner.
     *
     * @param  non-empty-list<Lead>  $leads
     * @return iterable<Remedy>
     */
    private function all(array $leads): iterable
    {
        foreach (self::ladder($leads[0]) as $size) {
            $thin = array_filter(
                $leads,
                static fn (Lead $l): bool => $l->conductor->size?->isBelow(Quantity::parse($size, Dimension::Area)) ===
                    true,
            );
            if (count($thin) < count($leads)) {
                continue;
            }
            $refs = array_map(static fn (Lead $l): string => $l->ref, $leads);
            yield new Remedy(
                "{$size} for ".implode(', ', $refs),
                array_map(
                    static fn (string $ref): array => Remedy::set('leads', $ref, ['conductor', 'size'], $size),
                    $refs,
                ),
                true,
            );
        }
    }

    /**
     * The sizes its wire is sold in.
     *
     * @return list<string> the thinnest first
     */
    private static function ladder(Lead $lead): array
    {
        return str_ends_with($lead->conductor->size?->text() ?? '', 'AWG') ? Conductors::gauges() : Conductors::sections();
    }
}
