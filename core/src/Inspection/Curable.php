<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

/** A check that knows what may put its findings right. */
interface Curable extends Check
{
    /**
     * @return list<Cure> in the order they are tried
     */
    public function cures(): array;
}
