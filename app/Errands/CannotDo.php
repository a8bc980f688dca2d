<?php

declare(strict_types=1);

namespace App\Errands;

use RuntimeException;

/** An errand that cannot be done with what was given, and why. */
final class CannotDo extends RuntimeException
{
}
