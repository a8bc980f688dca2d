<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use RuntimeException;

/** Leaves a check's judgement early: an input it cannot do without is not there. The Inquiry knows which. */
final class InputMissing extends RuntimeException
{
}
