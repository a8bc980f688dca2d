<?php

declare(strict_types=1);

namespace Magpie\Core\Work;

use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Work\StepCheck;

/** What was measured at a step, judged against what it should be. */
final class Reading
{
    /** Within four fifths of the tolerance holds, within it is tight, outside fails, unmeasured is unproven. */
    public static function verdict(StepCheck $check): Verdict
    {
        $off = $check->deviation();

        return match (true) {
            $off === null => Verdict::Unproven,
            $off->exceeds($check->tolerance) => Verdict::Fails,
            $off->exceeds($check->tolerance->times(0.8)) => Verdict::Tight,
            default => Verdict::Holds,
        };
    }
}
