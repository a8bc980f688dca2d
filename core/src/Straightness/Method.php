<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness;

/** One way to work an alignment from readings. */
interface Method
{
    public function key(): string;

    public function title(): string;

    /** What it answers, and where the rule comes from. */
    public function about(): string;

    /**
     * @return list<Ask>
     */
    public function asks(): array;

    /**
     * @throws CannotAlign
     */
    public function work(Given $given): Outcome;
}
