<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Electrical\PortAllocation;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** Another channel of the same kind that nothing hangs on. */
final readonly class FreeChannel implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $need = $finding->subject->ref;
        $ports = PortAllocation::of($at->survey);
        $taken = array_flip($ports->found);
        foreach ($at->build->leads as $lead) {
            foreach ($lead->to->need === $need ? $ports->channels : [] as $channel) {
                if (
                    $channel->use === 'fan' &&
                    $channel->stated &&
                    $channel->free() &&
                    ! isset($taken[$channel->ref()])
                ) {
                    yield Remedy::setting(
                        "{$at->build->roleOf($need)} on {$channel->port}",
                        'leads',
                        $lead->ref,
                        ['from'],
                        $channel->ref(),
                    );
                }
            }
        }
    }
}
