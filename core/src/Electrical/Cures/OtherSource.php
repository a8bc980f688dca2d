<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\PortKind;

/** The lead from another source that holds what its load wants. */
final readonly class OtherSource implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        foreach (LeadsAt::of($finding, $at) as $lead) {
            $topology = Circuits::of($at->survey)->topology;
            foreach ($topology->each() as [$fitted, $port]) {
                $ref = "{$fitted->need->ref}.{$port->name}";
                if (
                    $port->kind === PortKind::Source &&
                    ! $port->mains &&
                    $ref !== $lead->from->text() &&
                    $fitted->need->ref !== $lead->to->need
                ) {
                    yield Remedy::setting(
                        "{$lead->ref} from {$fitted->need->role} instead of {$at->build->roleOf($lead->from->need)}",
                        'leads',
                        $lead->ref,
                        ['from'],
                        $ref,
                    );
                }
            }
        }
    }
}
