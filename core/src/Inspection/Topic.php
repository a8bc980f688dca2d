<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

/** What a check's findings are about, by which a page picks those that belong on it. */
enum Topic: string
{
    case Axes = 'axes';
    case Cabinets = 'cabinets';
    case Channels = 'channels';
    case ChannelUse = 'channel use';
    case Conductors = 'conductors';
    case Contacts = 'contacts';
    case Joints = 'joints';
    case Layout = 'layout';
    case Place = 'place';
    case Scope = 'scope';
    case Stops = 'stops';
}
