<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Placing\Reach;

/** Room before the sides of bodies, and what stands in it wherever the axes are driven. */
final class Reaches
{
    private readonly Build $build;

    private readonly Layout $layout;

    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static fn (Survey $s): self => new self($s));
    }

    private function __construct(Survey $survey)
    {
        $this->build = $survey->build;
        $this->layout = Layout::of($survey);
    }

    /** The room one of them wants. */
    public static function room(Body $body, Reach $reach): Box
    {
        $d = Layout::index($reach->side->along());
        $low = $reach->side->isLow();
        $grown = $body->box->reaching($d, $low, $reach->depth->in('mm'));
        [$from, $to] = [$grown->low, $grown->high];
        $low ? ($to[$d] = $body->box->low[$d]) : ($from[$d] = $body->box->high[$d]);

        return new Box([$from[0], $from[1], $from[2]], [$to[0], $to[1], $to[2]]);
    }

    /**
     * @return list<array{Reach, non-empty-list<Body>}> what is not free, and what stands there
     */
    public function blocked(Body $body): array
    {
        $blocked = [];
        foreach ($body->place->reach as $reach) {
            $room = self::room($body, $reach);
            $others = [];
            foreach ($this->layout->bodies as $other) {
                if (
                    $other->solid &&
                    $other->place->ref !== $body->place->ref &&
                    ! in_array($other->place->ref, $body->stands, true) &&
                    ! in_array($body->place->ref, $other->stands, true) &&
                    $this->isAlwaysIn($room, $body, $other)
                ) {
                    $others[] = $other;
                }
            }
            if ($others !== []) {
                $blocked[] = [$reach, $others];
            }
        }

        return $blocked;
    }

    /** Whether no position of the axes takes another body out of the room before this one. */
    private function isAlwaysIn(Box $room, Body $body, Body $other): bool
    {
        $slides = Meetings::slides($this->build, $this->layout, $body, $other);
        foreach ([0, 1, 2] as $d) {
            // Boxes that overlap at both ends of a movement overlap all along it.
            foreach ($slides[$d] as $by) {
                if (
                    max($room->low[$d] + $by - $other->box->high[$d], $other->box->low[$d] - $room->high[$d] - $by) >=
                    -Meetings::TOUCH
                ) {
                    return false;
                }
            }
        }

        return true;
    }
}
