<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

/** The side of a cabinet that parts are mounted on: across its thinnest direction; its back, where that is not told by its shape. */
final readonly class Wall
{
    private function __construct(public int $across, public int $up, public int $away)
    {
    }

    public static function of(Box $box): self
    {
        $away = 1;
        foreach ([0, 2] as $d) {
            $away = $box->size($d) < $box->size($away) - 1e-9 ? $d : $away;
        }
        [$across, $up] = [[1, 2], [0, 2], [0, 1]][$away];

        return new self($across, $up, $away);
    }

    /** Parts lie against the back or the right; in what lies flat, on its bottom. */
    public function isLow(): bool
    {
        return $this->away === 2;
    }
}
