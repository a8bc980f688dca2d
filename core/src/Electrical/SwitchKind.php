<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;

/** With what a relay, module or button opens and closes its way through; relays and modules word it differently. */
enum SwitchKind
{
    /** Two pieces of metal: they open either kind of current, and nothing goes through them when they are open. */
    case Contacts;

    /** Opens only when the current goes through zero. */
    case AlternatingSolidState;

    case DirectSolidState;

    case Transistor;

    /** Null where its sheet does not say. */
    public static function of(Inquiry $inquiry, Fitted $fitted): ?self
    {
        return $fitted->part->can(Ability::Stops) ? self::Contacts : self::named($inquiry->tryChoice($fitted, 'kind'));
    }

    /** Of what a sheet calls its kind. */
    public static function named(?string $kind): ?self
    {
        return match ($kind) {
            'mechanical', 'contactor', 'safety', 'relay' => self::Contacts,
            'AC solid-state', 'solid state, AC' => self::AlternatingSolidState,
            'DC solid-state', 'solid state, DC' => self::DirectSolidState,
            'transistor' => self::Transistor,
            default => null,
        };
    }
}
