<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

/** Where a document speaks of a step. */
final readonly class Passage
{
    /**
     * @param  string|null  $pages  "12-14, without the box on 13"
     * @param  bool  $superseded  the pages are passed over: another document has replaced them
     */
    public function __construct(public string $step, public ?string $pages = null, public bool $superseded = false)
    {
    }
}
