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
use Magpie\Core\Machine\Lead;

/** A switching module takes the load of a board's output, and the board only signals it. */
final readonly class SwitchingModuleBetween implements Cure
{
    /** Modules of the library tried. */
    private const TRIED = 10;

    public function families(Finding $finding, Build $build): array
    {
        return ['switching_module'];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $port = $finding->subject->ref;
        [$board] = explode('.', $port);
        if ($at->build->fitted($board)?->part->can(Ability::HasChannels) !== true) {
            // Only a board can leave a load to a module and signal it.
            return;
        }
        $leads = array_values(array_filter($at->build->leads, static fn (Lead $l): bool => $l->from->text() === $port));
        $feed =
            array_values(
                array_filter($at->build->leads, static fn (Lead $l): bool => $l->to->text() === "{$board}.power"),
            )[0] ?? null;
        if (count($leads) !== 1 || $feed === null) {
            return;
        }
        $need = Adopting::free("sw-{$leads[0]->to->need}", $at->build->needs);
        $lead = Adopting::free("W-{$need}", $at->build->leads);
        foreach (array_slice($at->shelf('switching_module'), 0, self::TRIED) as $entry) {
            yield new Remedy(
                "{$entry->part->name} between {$at->build->roleOf($board)} and {$at->build->roleOf(
                    $leads[0]->to->need,
                )}",
                [
                    ...Adopting::need(
                        $at->build,
                        $entry,
                        $need,
                        "Switch of {$at->build->roleOf($leads[0]->to->need)}",
                        ['purpose' => 'safety'],
                    ),
                    Remedy::set('leads', $leads[0]->ref, ['from'], "{$need}.out"),
                    [
                        'section' => 'leads',
                        'create' => array_filter([
                            'ref' => $lead,
                            'from' => $feed->from->text(),
                            'to' => "{$need}.in",
                            'conductor' => array_filter([
                                'size' => $leads[0]->conductor->size?->text(),
                                'evidence' => $leads[0]->conductor->evidence?->value,
                                'stranding' => $leads[0]->conductor->stranding?->value,
                            ]),
                            'length' => $feed->length?->text(),
                            'route' => 'fixed',
                            'protection' => $feed->protection,
                            'ends' => [['termination' => 'ferrule'], ['termination' => 'ferrule']],
                        ]),
                    ],
                ],
                true,
            );
        }
    }
}
