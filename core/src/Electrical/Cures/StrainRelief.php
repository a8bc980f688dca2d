<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** Both ends held, so that the joint carries no pull. */
final readonly class StrainRelief implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        foreach (LeadsAt::of($finding, $at) as $lead) {
            $loose = array_keys(array_filter($lead->ends, static fn ($e): bool => $e->strainRelief === false));
            if ($loose !== []) {
                yield new Remedy(
                    "Strain relief at both ends of {$lead->ref}",
                    array_map(
                        static fn (int $side): array => Remedy::set(
                            'leads',
                            $lead->ref,
                            ['ends', $side, 'strain_relief'],
                            true,
                        ),
                        $loose,
                    ),
                    false,
                );
            }
        }
    }
}
