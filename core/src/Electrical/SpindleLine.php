<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;

/** The lead between a spindle drive and its spindle, whichever way it was drawn. */
final class SpindleLine
{
    /** The spindle on a drive. */
    public static function spindleOf(Topology $topology, string $drive): ?Fitted
    {
        foreach (self::at($topology, "{$drive}.motor") as $lead) {
            $far = $lead->from->need === $drive ? $lead->to : $lead->from;
            foreach ($topology->build()->beyond($far, $lead->ref) as $end) {
                $fitted = $topology->build()->fitted($end->need);
                if ($fitted?->part->can(Ability::Spins) === true) {
                    return $fitted;
                }
            }
        }

        return null;
    }

    /** The drive behind a spindle's port, "need.port". */
    public static function driveOf(Topology $topology, string $port): ?Fitted
    {
        foreach (self::at($topology, $port) as $lead) {
            $far = $lead->from->text() === $port ? $lead->to : $lead->from;
            foreach ($topology->build()->beyond($far, $lead->ref) as $end) {
                $fitted = $end->port === 'motor' ? $topology->build()->fitted($end->need) : null;
                if ($fitted?->part->can(Ability::SetsSpeed) === true) {
                    return $fitted;
                }
            }
        }

        return null;
    }

    /**
     * @return list<Lead>
     */
    private static function at(Topology $topology, string $port): array
    {
        return [...$topology->leadsFrom($port), ...$topology->leadsTo($port)];
    }
}
