<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Format\Adopting;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** Another cable chain. */
final readonly class OtherChain implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return ['cable_chain'];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $ref = $finding->subject->ref;
        $now = $at->build->fitted($ref);
        if ($now === null) {
            return;
        }
        foreach ($at->shelf('cable_chain') as $entry) {
            [$part, $changes] = Adopting::changes($at->build, $entry);
            yield new Remedy(
                "{$entry->part->name} for {$now->need->role}",
                [
                    ...$changes,
                    [
                        'section' => 'needs',
                        'ref' => $ref,
                        'set' => [
                            ['path' => ['candidates'], 'to' => [...$now->need->candidates, $part]],
                            ['path' => ['choice'], 'to' => $part],
                        ],
                    ],
                ],
                true,
            );
        }
    }
}
