<?php

declare(strict_types=1);

namespace Magpie\Core\Layout\Views;

use Magpie\Core\Machine\Worded;

/** From where a machine is drawn. */
enum View: string
{
    use Worded;

    case Plan = 'plan';
    case Front = 'front';
    case Side = 'side';

    /**
     * @return array{int, int, int, bool} which direction runs to the right, which up, which away; and whether what is nearer has the
     *     larger number
     */
    public function directions(): array
    {
        return match ($this) {
            self::Plan => [0, 1, 2, true],
            self::Front => [0, 2, 1, false],
            // From the right.
            self::Side => [1, 2, 0, true],
        };
    }

    public function title(): string
    {
        return match ($this) {
            self::Plan => 'Plan, from above',
            self::Front => 'From the front',
            self::Side => 'From the right',
        };
    }
}
