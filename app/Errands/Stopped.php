<?php

declare(strict_types=1);

namespace App\Errands;

use RuntimeException;

/** Whoever asked for an errand wants it no more. */
final class Stopped extends RuntimeException
{
}
