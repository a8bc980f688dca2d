<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** What parts of a family can do or bear, by which checks ask for them instead of by the family's name. */
enum Ability: string
{
    /** A load that can hurt when it is live: heat, motion, a spindle, an arc. */
    case Hurts = 'hurts';

    /** Opens its way through when a person presses it. */
    case Stops = 'stops';

    /** Opens or closes its way through at the command of something else. */
    case Switches = 'switches';

    /** Has channels that loads and sensors hang on. */
    case HasChannels = 'has channels';

    /** Says something on its signal port. */
    case Speaks = 'speaks';

    /** Turns mains or one voltage into another. */
    case Converts = 'converts';

    /** All it takes becomes heat where it stands. */
    case WarmsByAllItTakes = 'warms by all it takes';

    /** Electronics, which bear the air electronics bear when their sheet says nothing. */
    case Electronic = 'electronic';

    /** Turns a shaft at the command of a driver. */
    case Drives = 'drives';

    /** Its limit is the maker's word: it is asked for, not measured. */
    case RatedByMaker = 'rated by its maker';

    /** Joins the leads that end on it: a plug and its socket, a terminal, a splice. */
    case Joins = 'joins';

    /** Takes more than it is rated for when it is stalled or overloaded, for as long as that lasts. */
    case Overloads = 'overloads';

    /** Small, and lost, stripped or blown. */
    case GetsLost = 'gets lost';

    /** Plain steel rusts. */
    case Rusts = 'rusts';
}
