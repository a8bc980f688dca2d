<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use Magpie\Core\Inspection\Survey;

/**
 * The room a lead sweeps that moves with an axis and lies in no chain, and what stands in it. It is shown and not judged: a loop
 * tied up well passes by what is in that room, one that is not catches on it, and nothing of that is in the model.
 */
final class Sweeps
{
    /** Room of the loop of one lead over the whole travel; null where it does not hang loose, or waits. */
    public static function room(Survey $survey, Way $way): ?Box
    {
        if ($way->loose === [] || $way->points === []) {
            return null;
        }
        $layout = Layout::of($survey);
        [$first] = $way->points;
        $room = new Box($first, $first);
        foreach ($way->points as $point) {
            $room = $room->with(new Box($point, $point));
        }
        foreach ($way->loose as $axis) {
            $half = ($layout->travel[$axis] ?? 0.0) / 2;
            $d = Layout::index($survey->build->axes[$axis]->along);
            // The way is that of the middle of the travel.
            $room = $room->reaching($d, true, $half)->reaching($d, false, $half);
        }

        return $room;
    }

    /**
     * @return list<string> what its loop passes over the travel, but for what its ends are on
     */
    public static function passed(Survey $survey, Way $way): array
    {
        $room = self::room($survey, $way);
        if ($room === null) {
            return [];
        }
        $layout = Layout::of($survey);
        $lead = $survey->build->leads[$way->lead];
        $own = [];
        foreach ([$lead->from->need, $lead->to->need] as $need) {
            foreach ($layout->ofNeed($survey->build, $need) as $body) {
                array_push($own, $body->place->ref, ...$body->stands);
            }
        }
        $passed = [];
        foreach ($layout->bodies as $body) {
            if (
                $body->solid &&
                ! in_array($body->place->ref, $own, true) &&
                $room->overlaps(Envelope::swept($survey, $layout, $body))
            ) {
                $passed[$body->label] = true;
            }
        }

        return array_map(strval(...), array_keys($passed));
    }
}
