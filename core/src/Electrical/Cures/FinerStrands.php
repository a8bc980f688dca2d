<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Stranding;

/** Conductors that stand being bent. */
final readonly class FinerStrands implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        foreach (LeadsAt::of($finding, $at) as $lead) {
            if ($lead->conductor->stranding !== Stranding::Fine) {
                yield Remedy::setting(
                    "Fine-stranded conductors for {$lead->ref}",
                    'leads',
                    $lead->ref,
                    ['conductor', 'stranding'],
                    'fine',
                    true,
                );
            }
        }
    }
}
