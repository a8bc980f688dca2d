<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use Magpie\Core\Inspection\Survey;

/** The room all bodies take together over the whole travel of every axis. */
final readonly class Envelope
{
    /**
     * @param  array{array{Body, Body}, array{Body, Body}, array{Body, Body}}  $by  which body reaches farthest, low and high
     * @param  list<string>  $unknown  axes of which the travel is not known
     */
    private function __construct(public Box $box, public array $by, public array $unknown)
    {
    }

    /** Only of a layout that has bodies. */
    public static function of(Survey $survey): self
    {
        $layout = Layout::of($survey);
        $low = [INF, INF, INF];
        $high = [-INF, -INF, -INF];
        $first = array_values($layout->bodies)[0];
        $by = [[$first, $first], [$first, $first], [$first, $first]];
        $unknown = [];
        foreach ($layout->bodies as $body) {
            $swept = self::swept($survey, $layout, $body);
            foreach ($body->carried as $axis) {
                if ($layout->travel[$axis] === null) {
                    $unknown[$axis] = $axis;
                }
            }
            foreach ([0, 1, 2] as $d) {
                if ($swept->low[$d] < $low[$d]) {
                    [$low[$d], $by[$d][0]] = [$swept->low[$d], $body];
                }
                if ($swept->high[$d] > $high[$d]) {
                    [$high[$d], $by[$d][1]] = [$swept->high[$d], $body];
                }
            }
        }

        return new self(
            new Box([$low[0], $low[1], $low[2]], [$high[0], $high[1], $high[2]]),
            $by,
            array_values($unknown),
        );
    }

    /** Where a body may be, over the whole travel of what carries it. */
    public static function swept(Survey $survey, Layout $layout, Body $body): Box
    {
        $box = $body->box;
        foreach ($body->carried as $axis) {
            $d = Layout::index($survey->build->axes[$axis]->along);
            $box = $box->reaching($d, false, $layout->travel[$axis] ?? 0.0);
        }

        return $box;
    }
}
