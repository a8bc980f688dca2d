<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** What the builder wants more: the machine, or the building of it. */
enum Wish: string
{
    use Worded;

    case Tool = 'tool';
    case Project = 'project';
}
