<?php

declare(strict_types=1);

namespace Magpie\Core\Printing;

use RuntimeException;

/** A file of triangles that is cut off, empty, or none at all; the message says which and where. */
final class CannotReadMesh extends RuntimeException
{
}
