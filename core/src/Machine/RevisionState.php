<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** How far a revision has come. */
enum RevisionState: string
{
    use Worded;

    case Announced = 'announced';
    case Ordered = 'ordered';
    case InHand = 'in hand';
    case Superseded = 'superseded';
}
