<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Survey;

/** How much power stands behind a finding: what the source that feeds its parts can give. */
final class PowerBehind
{
    /** The wall gives more than any supply in a machine. */
    private const MAINS = 1e5;

    /** In watts; 0 where nothing feeds what it is about. */
    public static function of(Survey $survey, Finding $finding): float
    {
        $circuits = Circuits::of($survey);
        $topology = $circuits->topology;
        $leads = $finding->subject->kind === 'lead' ? [$finding->subject->ref] : $finding->leads;
        $nodes = [];
        foreach ($leads as $lead) {
            if ($topology->carries($lead)) {
                $nodes[] = $topology->nearEnd($lead);
            }
        }
        foreach ($nodes === [] ? $finding->subject->needs : [] as $need) {
            array_push($nodes, ...$topology->nodesOf($need));
        }
        $most = 0.0;
        foreach ($nodes as $node) {
            foreach ($topology->sourcesOf($node) as $source) {
                [$fitted, $port] = $topology->at($source);
                $rated = $fitted->part->portSpec($port, 'rated_current')?->nominal()?->in('A') ?? 0.0;
                $volts = $circuits->heldBy($source)?->in('V') ?? 0.0;
                $most = max($most, $port->mains ? self::MAINS : $rated * $volts);
            }
        }

        return $most;
    }
}
