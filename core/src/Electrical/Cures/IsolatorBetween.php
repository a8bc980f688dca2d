<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Format\Adopting;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;

/** An isolating stage in a signal line: what speaks ends on it, and it speaks on. */
final readonly class IsolatorBetween implements Cure
{
    /** Stages of the library tried. */
    private const TRIED = 6;

    public function families(Finding $finding, Build $build): array
    {
        return ['isolator'];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $lead = $at->build->leads[$finding->subject->ref] ?? null;
        if ($lead === null || $at->build->fitted($lead->to->need)?->part->can(Ability::Isolates) === true) {
            return;
        }
        $need = Adopting::free("iso-{$lead->from->need}", $at->build->needs);
        $onward = Adopting::free("W-{$need}", $at->build->leads);
        foreach (array_slice($at->shelf('isolator'), 0, self::TRIED) as $entry) {
            yield new Remedy(
                "{$entry->part->name} between {$at->build->roleOf($lead->from->need)} and {$at->build->roleOf(
                    $lead->to->need,
                )}",
                [
                    ...Adopting::need(
                        $at->build,
                        $entry,
                        $need,
                        "Isolating stage of {$at->build->roleOf($lead->from->need)}",
                        ['purpose' => 'safety'],
                    ),
                    Remedy::set('leads', $lead->ref, ['to'], "{$need}.in"),
                    [
                        'section' => 'leads',
                        'create' => array_filter([
                            'ref' => $onward,
                            'from' => "{$need}.signal",
                            'to' => $lead->to->text(),
                            'conductor' => array_filter([
                                'size' => $lead->conductor->size?->text(),
                                'evidence' => $lead->conductor->evidence?->value,
                            ]),
                            'route' => 'fixed',
                        ]),
                    ],
                ],
                true,
            );
        }
    }
}
