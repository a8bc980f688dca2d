<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

use RuntimeException;

/** A log or a sound nothing can be worked from, and why. */
final class CannotTune extends RuntimeException
{
}
