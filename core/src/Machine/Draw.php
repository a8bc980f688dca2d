<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** How the current into an inlet follows from the specs of its part. */
enum Draw: string
{
    /** A heater: R = V_r²/P_r, whatever voltage arrives. Switched, so full current whenever it is on. */
    case Resistive = 'resistive';
    /** A stated current. */
    case Current = 'current';
    /** A stated power at its rated voltage. */
    case Power = 'power';
    /** A chopper driver: stated supply current, else two thirds of the set phase current. */
    case Driver = 'driver';
    /** What its own outputs deliver, over its efficiency. */
    case Converter = 'converter';
}
