<?php

declare(strict_types=1);

namespace Mensura\Network\Suspects;

/** How the parameter of a cause enters the equations. */
enum Form
{
    /** Added to recorded values. */
    case Value;

    /** In proportion to recorded values, parts per million. */
    case Scale;

    /** Added to the three components of a vector. */
    case Components;

    /** Added to a height measured at the from end (antenna) of a vector, or at its to end. */
    case AntennaFrom;
    case AntennaTo;

    /** Added to target or instrument heights. */
    case TargetHeight;
    case InstrumentHeight;

    /** Added to the plan position of the instrument. */
    case Centring;

    /** Added to given coordinates of a mark. */
    case Control;
}
