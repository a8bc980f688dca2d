<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Build;

/**
 * Which bodies come near each other over the whole travel of every axis. An axis that carries both moves neither against the
 * other; the rest move freely of each other, each along its own direction, so the answer is exact for boxes.
 */
final class Meetings
{
    /** Touching is not meeting, mm. */
    public const TOUCH = 0.01;

    /** What is nearer than this is looked at more closely, mm. */
    public const NEAR = 50.0;

    /** @var list<Meeting> each pair once */
    public array $all = [];

    /** @var array<string, array<string, true>> need → needs it is joined to */
    private array $joined = [];

    private readonly Build $build;

    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static fn (Survey $s): self => new self($s));
    }

    private function __construct(Survey $survey)
    {
        $this->build = $survey->build;
        $layout = Layout::of($survey);
        foreach ($this->build->mates as $mate) {
            foreach ($mate->between as $one) {
                foreach ($mate->between as $other) {
                    $this->joined[$one][$other] = true;
                }
            }
        }
        $solid = array_values(array_filter($layout->bodies, static fn (Body $b): bool => $b->solid));
        // Where each may be at all: most pairs never come near, and need no closer look.
        $swept = [];
        foreach ($solid as $i => $body) {
            $swept[$i] = $this->swept($layout, $body);
        }
        foreach ($solid as $i => $one) {
            for ($j = $i + 1; $j < count($solid); $j++) {
                $other = $solid[$j];
                $reach = max(self::NEAR, self::wanted($one, $other));
                if ($swept[$i]->gap($swept[$j]) >= $reach || $this->belong($one, $other)) {
                    continue;
                }
                $meeting = $this->meet($layout, $one, $other);
                if ($meeting->gap === null || $meeting->gap < $reach) {
                    $this->all[] = $meeting;
                }
            }
        }
    }

    /** Where a body may be over all of its travel; anywhere along an axis of which that is not known. */
    private function swept(Layout $layout, Body $body): Box
    {
        $box = $body->box;
        foreach ($body->carried as $ref) {
            $box = $box->reaching(Layout::index($this->build->axes[$ref]->along), false, $layout->travel[$ref] ?? 1e9);
        }

        return $box;
    }

    /** Room two bodies want between them: what the one that wants more says, mm. */
    public static function wanted(Body $one, Body $other): float
    {
        return max($one->place->free?->in('mm') ?? 0.0, $other->place->free?->in('mm') ?? 0.0);
    }

    /** Whether they are meant to touch: one stands on the other, both are joined, or somebody says so. */
    private function belong(Body $one, Body $other): bool
    {
        foreach ([[$one, $other], [$other, $one]] as [$a, $b]) {
            if (
                ($a->stands[0] ?? null) === $b->place->ref ||
                ($b->encloses && in_array($b->place->ref, $a->stands, true)) ||
                in_array($b->place->ref, $a->place->meets, true)
            ) {
                return true;
            }
        }

        return $one->place->need !== null &&
            $other->place->need !== null &&
            $one->place->need !== $other->place->need &&
            isset($this->joined[$one->place->need][$other->place->need]);
    }

    /**
     * How far one body can be moved against another, along each direction, mm.
     *
     * @return array{array{float, float}, array{float, float}, array{float, float}, list<string>} and axes nobody knows the travel of
     */
    public static function slides(Build $build, Layout $layout, Body $one, Body $other): array
    {
        $back = $ahead = [0.0, 0.0, 0.0];
        $unknown = [];
        foreach ([[$one, $other, true], [$other, $one, false]] as [$a, $b, $isOne]) {
            foreach (array_diff($a->carried, $b->carried) as $ref) {
                $d = Layout::index($build->axes[$ref]->along);
                $travel = $layout->travel[$ref] ?? null;
                if ($travel === null) {
                    $unknown[] = $ref;
                }
                // What carries the other moves this one the other way round.
                $isOne ? ($ahead[$d] += $travel ?? 0.0) : ($back[$d] -= $travel ?? 0.0);
            }
        }

        return [[$back[0], $ahead[0]], [$back[1], $ahead[1]], [$back[2], $ahead[2]], $unknown];
    }

    /**
     * How near two bodies come along each direction, mm; below nought where they overlap. A direction along which one of them may
     * be anywhere, since nobody knows the travel, is left out: only another can keep them apart.
     *
     * @return array{array<string, float>, list<string>} and axes nobody knows the travel of
     */
    public static function gaps(Build $build, Layout $layout, Body $one, Body $other): array
    {
        $slides = self::slides($build, $layout, $one, $other);
        $open = array_map(static fn (string $ref): string => $build->axes[$ref]->along->value, $slides[3]);
        $gaps = [];
        foreach ([0, 1, 2] as $d) {
            $along = Along::words()[$d];
            if (! in_array($along, $open, true)) {
                // The middles as near as the movement lets them come, less half of both.
                $apart = $one->box->middle($d) - $other->box->middle($d);
                $gaps[$along] =
                    abs($apart + max($slides[$d][0], min($slides[$d][1], -$apart))) -
                    ($one->box->size($d) + $other->box->size($d)) / 2;
            }
        }

        return [$gaps, $slides[3]];
    }

    private function meet(Layout $layout, Body $one, Body $other): Meeting
    {
        [$gaps, $unknown] = self::gaps($this->build, $layout, $one, $other);
        $gap = max(-INF, ...array_values($gaps));
        $overlaps = $gap < -self::TOUCH;
        if ($unknown !== []) {
            return new Meeting($one, $other, $overlaps ? null : $gap, [], $unknown, $gaps);
        }

        return new Meeting($one, $other, $gap, $overlaps ? $this->where($layout, $one, $other) : [], [], $gaps);
    }

    /**
     * @return array<string, array{float, float}> axis → from where to where it stands when they meet
     */
    private function where(Layout $layout, Body $one, Body $other): array
    {
        $where = [];
        foreach ([[$one, $other], [$other, $one]] as [$a, $b]) {
            foreach (array_diff($a->carried, $b->carried) as $ref) {
                $d = Layout::index($this->build->axes[$ref]->along);
                $travel = $layout->travel[$ref] ?? 0.0;
                $from = max(0.0, $b->box->low[$d] - $a->box->high[$d]);
                $to = min($travel, $b->box->high[$d] - $a->box->low[$d]);
                $where[$ref] = [min($from, $travel), max($to, 0.0)];
            }
        }

        return $where;
    }
}
