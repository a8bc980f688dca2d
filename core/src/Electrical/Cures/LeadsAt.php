<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Lead;

/** The leads a finding names, or those on the way to its port. */
final class LeadsAt
{
    /**
     * @return list<Lead>
     */
    public static function of(Finding $finding, Repair $at): array
    {
        $lead = $at->build->leads[$finding->subject->ref] ?? null;
        if ($finding->subject->kind === 'lead' && $lead !== null) {
            return [$lead];
        }
        if ($finding->leads !== []) {
            return array_values(array_intersect_key($at->build->leads, array_fill_keys($finding->leads, true)));
        }
        $topology = Circuits::of($at->survey)->topology;
        $node = $finding->subject->kind === 'port' ? $topology->node($finding->subject->ref) : null;

        return $node === null
            ? []
            : array_values(array_filter(array_map($topology->leadOf(...), $topology->wayBack($node))));
    }
}
