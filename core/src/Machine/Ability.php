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

    /** Has a plug of its own for the wall: whatever is pressed on the machine, it stays live. */
    case HasOwnPlug = 'has its own plug';

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

    /** Takes what its sheet says whenever it is on, not less for having little to do. */
    case Steady = 'steady';

    /** Small, and lost, stripped or blown. */
    case GetsLost = 'gets lost';

    /** Plain steel rusts. */
    case Rusts = 'rusts';

    /** Other parts stand inside it. */
    case Encloses = 'encloses';

    /** Takes up the movement of the leads that lie in it. */
    case LeadsMove = 'leads move in it';

    /** Gets hot to heat something else. */
    case Heats = 'heats';

    /** Melts what is printed. */
    case Melts = 'melts';

    /** Says how hot it is by its resistance. */
    case SensesHeat = 'senses heat';

    /** Moves air. */
    case Blows = 'blows';

    /** Takes the heat of something that stands on it. */
    case TakesHeat = 'takes heat';

    /** What prints are made of. */
    case Feedstock = 'feedstock';

    /** Made by a printer, of a plastic that gets soft. */
    case Printed = 'printed';

    /** Prints stand on it while they are made. */
    case CarriesPrints = 'carries prints';

    /** Turns a cutter. */
    case Spins = 'spins';

    /** Cuts what it is driven into. */
    case Cuts = 'cuts';

    /** Sets the speed of a spindle. */
    case SetsSpeed = 'sets speed';

    /** Burns an arc. */
    case Arcs = 'arcs';

    /** Makes compressed air. */
    case Compresses = 'compresses';

    /** Moves by steps of phases that a driver feeds, and knows nothing of where it is. */
    case Steps = 'steps';

    /** Feeds the phases of motors. */
    case FeedsPhases = 'feeds phases';

    /** Commands the machine: what is told and read hangs on its channels. */
    case Commands = 'commands';

    /** Makes the low voltage of the machine out of the mains. */
    case Supplies = 'supplies';

    /** Where the mains come in. */
    case TakesMains = 'takes mains';

    /** Opens by itself when too much goes through it. */
    case Protects = 'protects';

    /** Opens or closes when its coil is fed. */
    case HasCoil = 'has a coil';

    /** Passes a signal on and keeps both sides apart. */
    case Isolates = 'isolates';

    /** Its thread turns into travel. */
    case HasLead = 'has a lead';

    /** Its teeth turn into travel by a belt. */
    case CarriesBelt = 'carries a belt';

    /** Lies on the teeth of pulleys and pulls. */
    case RunsOnTeeth = 'runs on teeth';

    /** Joins two shafts into one. */
    case JoinsShafts = 'joins shafts';

    /** Leads what moves along a straight line. */
    case Guides = 'guides';

    /** Draws a joint together by its thread. */
    case Screws = 'screws';

    /** Closes something in; other parts are let into it. */
    case Covers = 'covers';

    /** Is used to build the machine and does not go into it. */
    case StaysInShop = 'stays in the shop';

    /** Opens what runs through it under load, up to a voltage. */
    case Interrupts = 'interrupts';

    /** Disturbs signals that run near its power leads. */
    case Disturbs = 'disturbs';

    /** Is or was melted plastic, whose fumes somebody breathes. */
    case OfPlastic = 'of plastic';

    /** Goes into leads: wire, ends, housings, what joins and protects them. */
    case MakesLeads = 'makes leads';

    /** Has the thread a screw goes into. */
    case TakesScrew = 'takes a screw';

    /** Holds a joint together: screws, and what they go into. */
    case Fastens = 'fastens';

    /** Nothing else of its family is proposed in its place. */
    case BoughtAsItIs = 'bought as it is';

    /** Rolls or slides on grease, and wants some again. */
    case Rolls = 'rolls';

    /** Sits on the head, beside the tool. */
    case OnHead = 'on the head';

    /** A member of the frame with slots along it, into which nuts slide from its ends. */
    case Slotted = 'slotted';

    /** No part of the machine, or goes on at the end of a lead. */
    case NotFitted = 'not fitted';

    /** Is melted into a hole of a print. */
    case MeltedIn = 'melted in';
}
