<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

/**
 * Something kept on a survey that is worked out when it is made and hands out results alone, nothing of the build: it
 * stands until one of the very cells it read has changed.
 */
interface Settled
{
}
