<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use RuntimeException;

/** Why parts cannot be arranged for one, and the way out. */
final class CannotArrange extends RuntimeException
{
}
