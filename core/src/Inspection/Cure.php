<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Machine\Build;

/** One kind of thing that may put a finding right. It proposes; the search inspects the whole build with each. */
interface Cure
{
    /**
     * @return list<string> families of the library it takes parts from
     */
    public function families(Finding $finding, Build $build): array;

    /**
     * @return iterable<Remedy>
     */
    public function remedies(Finding $finding, Repair $at): iterable;
}
