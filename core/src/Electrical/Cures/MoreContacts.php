<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Lead;

/** More contacts side by side at one end of a lead, or at both. */
final readonly class MoreContacts implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        foreach (LeadsAt::of($finding, $at) as $lead) {
            foreach ([[0], [1], [0, 1]] as $sides) {
                foreach ([2, 3, 4] as $count) {
                    $more = array_values(
                        array_filter(
                            $sides,
                            static fn (int $side): bool => ($lead->ends[$side]->contactsPerPole ?? 1) < $count &&
                                $lead->ends[$side]->contact !== null,
                        ),
                    );
                    if (count($more) === count($sides)) {
                        $where = implode(
                            ' and ',
                            array_map(
                                static fn (int $side): string => $at->build->roleOf(
                                    $side === 0 ? $lead->from->need : $lead->to->need,
                                ),
                                $sides,
                            ),
                        );
                        yield new Remedy(
                            "{$count} contacts per pole at {$where}, for {$lead->ref}",
                            array_map(
                                static fn (int $side): array => Remedy::set(
                                    'leads',
                                    $lead->ref,
                                    ['ends', $side, 'contacts_per_pole'],
                                    $count,
                                ),
                                $sides,
                            ),
                            true,
                        );
                    }
                }
            }
        }
    }
}
