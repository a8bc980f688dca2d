<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** What a screw takes hold of. */
enum ThreadIn: string
{
    use Worded;

    case Nut = 'nut';
    case Tapped = 'tapped';
    case Insert = 'insert';
    case SlotNut = 'slot_nut';
}
