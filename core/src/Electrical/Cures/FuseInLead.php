<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Format\Adopting;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Library\Entry;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Lead;

/** A lead behind another fuse: one that is there, or a new one. */
final readonly class FuseInLead implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return ['fuse'];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        foreach (LeadsAt::of($finding, $at) as $lead) {
            foreach ($at->build->fittedThat(Ability::Protects) as $ref => $fuse) {
                if ($ref !== $lead->protection) {
                    yield Remedy::setting(
                        "{$lead->ref} behind {$fuse->need->role}, {$fuse->part->name}",
                        'leads',
                        $lead->ref,
                        ['protection'],
                        $ref,
                    );
                }
            }
            $need = Adopting::free("F-{$lead->ref}", $at->build->needs);
            foreach (self::bySize($at) as $entry) {
                yield new Remedy(
                    "{$entry->part->name} in {$lead->ref}, at {$at->build->roleOf($lead->from->need)}",
                    [
                        ...Adopting::need($at->build, $entry, $need, "Fuse in {$lead->ref}", [
                            'spares' => '100 %',
                            'purpose' => 'safety',
                        ]),
                        Remedy::set('leads', $lead->ref, ['protection'], $need),
                    ],
                    true,
                );
            }
        }
    }

    /**
     * @return list<Entry> fuses of the shelf, the smallest first
     */
    public static function bySize(Repair $at): array
    {
        $fuses = $at->shelf('fuse');
        usort(
            $fuses,
            static fn (Entry $a, Entry $b): int => ($a->part->spec('rated_current')?->nominal()?->in('A') ?? 0) <=>
                ($b->part->spec('rated_current')?->nominal()?->in('A') ?? 0),
        );

        return $fuses;
    }
}
