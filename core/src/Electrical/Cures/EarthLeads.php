<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Format\Adopting;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\PortKind;

/** Earth leads to all that stands on the mains and lacks one. */
final readonly class EarthLeads implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $inlet = $finding->subject->ref;
        $changes = [];
        $taken = $at->build->leads;
        foreach ($at->build->allFitted() as $ref => $fitted) {
            $mains = array_filter(
                $fitted->part->ports,
                static fn ($p): bool => $p->mains && $p->kind === PortKind::Inlet,
            );
            $earthed = array_filter(
                $at->build->leads,
                static fn (Lead $l): bool => in_array("{$ref}.earth", [$l->from->text(), $l->to->text()], true),
            );
            if ($ref !== $inlet && $mains !== [] && isset($fitted->part->ports['earth']) && $earthed === []) {
                $line =
                    array_values(
                        array_filter(
                            $at->build->leads,
                            static fn (Lead $l): bool => $l->to->need === $ref && $l->from->need === $inlet,
                        ),
                    )[0] ?? null;
                $lead = Adopting::free('W-earth', $taken);
                $taken[$lead] = true;
                $changes[] = [
                    'section' => 'leads',
                    'create' => [
                        'ref' => $lead,
                        'from' => "{$inlet}.earth",
                        'to' => "{$ref}.earth",
                        'conductor' => [
                            'size' => $line?->conductor->size?->text() ?? '1 mm²',
                            'evidence' => 'assumed',
                            'stranding' => 'fine',
                        ],
                        'route' => 'fixed',
                        'ends' => [['termination' => 'ring'], ['termination' => 'ring']],
                    ],
                ];
            }
        }
        if ($changes !== []) {
            yield new Remedy(
                count($changes) === 1
                    ? 'An earth lead to what lacks one, as large as its line'
                    : 'Earth leads to all that lack one, as large as their lines',
                $changes,
                true,
            );
        }
    }
}
