<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

/** The middle of a channel: a line along one direction. */
final readonly class Segment
{
    /**
     * @param  array{float, float, float}  $from
     */
    private function __construct(public array $from, public int $along, public float $to)
    {
    }

    /** Through the middle of a box, along its longest side. */
    public static function through(Box $box): self
    {
        $along = 0;
        foreach ([1, 2] as $d) {
            $along = $box->size($d) > $box->size($along) ? $d : $along;
        }
        $from = $box->centre();
        $from[$along] = $box->low[$along];

        return new self([$from[0], $from[1], $from[2]], $along, $box->high[$along]);
    }

    /**
     * The point of it that is nearest to another; square to the directions, that is nearest along its own.
     *
     * @param  array{float, float, float}  $point
     * @return array{float, float, float}
     */
    public function nearest(array $point): array
    {
        $at = $this->from;
        $at[$this->along] = max($this->from[$this->along], min($this->to, $point[$this->along]));

        return [$at[0], $at[1], $at[2]];
    }

    /**
     * The points at which it comes nearest to another: where neither can come nearer by going along.
     *
     * @return list<array{float, float, float}>
     */
    public function nearestTo(self $other): array
    {
        if ($this->along !== $other->along) {
            return [$this->nearest($other->nearest($this->nearest($other->from)))];
        }
        // Side by side, any point between will do: both ends of what they share.
        $low = max($this->from[$this->along], $other->from[$other->along]);
        $high = min($this->to, $other->to);
        $one = $two = $this->from;
        $one[$this->along] = max($this->from[$this->along], min($this->to, $low));
        $two[$this->along] = max($this->from[$this->along], min($this->to, $high));

        return [[$one[0], $one[1], $one[2]], [$two[0], $two[1], $two[2]]];
    }
}
