<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Termination;

/** Ferrules where bare or tinned strands sit under a screw. */
final readonly class Ferrules implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        foreach (LeadsAt::of($finding, $at) as $lead) {
            $bare = array_keys(
                array_filter(
                    $lead->ends,
                    static fn ($e): bool => in_array($e->termination, [Termination::Bare, Termination::Tinned], true),
                ),
            );
            if ($bare !== []) {
                yield new Remedy(
                    "Ferrules on {$lead->ref}",
                    array_map(
                        static fn (int $side): array => Remedy::set(
                            'leads',
                            $lead->ref,
                            ['ends', $side, 'termination'],
                            'ferrule',
                        ),
                        $bare,
                    ),
                    true,
                );
            }
        }
    }
}
