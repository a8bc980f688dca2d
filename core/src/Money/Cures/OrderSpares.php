<?php

declare(strict_types=1);

namespace Magpie\Core\Money\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** A tenth more than is needed. */
final readonly class OrderSpares implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        yield Remedy::setting(
            'Order a tenth more than is needed',
            'needs',
            $finding->subject->ref,
            ['spares'],
            '10 %',
            true,
        );
    }
}
