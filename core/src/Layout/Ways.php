<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Placing\Duct;
use Magpie\Core\Machine\PortKind;

/**
 * The ways of all leads: square to the directions of the machine from body to body, through channels where there are any, and
 * through a chain for each axis that moves one end against the other. A way outside of a channel counts as four of one within, so
 * that leads lie in channels wherever that is not far round. Slack and ends: common practice, no source.
 */
final class Ways
{
    /** How many millimetres in a channel are worth one outside. */
    public const OUTSIDE = 4.0;

    /** Share of the way on top, for bends and for pulling it again. */
    private const SLACK = 0.05;

    /** Both ends together, mm: stripped, crimped, dressed, and once more. */
    private const ENDS = 150.0;

    /** @var array<string, Way> by lead */
    public readonly array $all;

    /** @var array<string, Segment> the middle of each channel, by place */
    private array $segments = [];

    /** @var array<string, Body> axis → the chain that takes up its movement */
    private array $chains = [];

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
        foreach ($this->layout->bodies as $key => $body) {
            if ($body->place->duct !== null) {
                $this->segments[$key] = Segment::through($body->box);
            }
            foreach ($body->place->spans as $axis) {
                $this->chains[$axis] ??= $body;
            }
        }
        $all = [];
        foreach ($this->layout->bodies === [] ? [] : $this->build->leads as $ref => $lead) {
            $all[(string) $ref] = $this->way($lead);
        }
        $this->all = $all;
    }

    private function way(Lead $lead): Way
    {
        $from = $this->layout->ofNeed($this->build, $lead->from->need);
        $to = $this->layout->ofNeed($this->build, $lead->to->need);
        foreach ([[$lead->from->need, $from], [$lead->to->need, $to]] as [$need, $bodies]) {
            if ($bodies === []) {
                return new Way($lead->ref, waits: "{$this->build->roleOf($need)} has no place");
            }
        }
        // Of several pieces, the one that is farthest wants the longest lead.
        $ways = [];
        foreach ($from as $a) {
            foreach ($to as $b) {
                $ways[] = $this->between($lead, $a, $b);
            }
        }
        usort($ways, static fn (Way $p, Way $q): int => ($q->length() ?? INF) <=> ($p->length() ?? INF));

        return $ways[0];
    }

    private function between(Lead $lead, Body $a, Body $b): Way
    {
        $moved = [...array_diff($b->carried, $a->carried), ...array_diff($a->carried, $b->carried)];
        $chains = $loose = [];
        foreach ($moved as $axis) {
            $chain = $this->chains[$axis] ?? null;
            if ($chain === null) {
                $loose[] = $axis;
            } else {
                $chains[$chain->key] = $chain;
            }
        }
        // From what stands still to what is carried most: chains in the order in which they ride on each other.
        [$still, $carried] = count($a->carried) <= count($b->carried) ? [$a, $b] : [$b, $a];
        uasort($chains, static fn (Body $p, Body $q): int => count($p->carried) <=> count($q->carried));
        // Stretch by stretch: to each chain, through it, and on to the next.
        $parts = $points = $inDuct = [];
        [$at, $before] = [$this->midway($still), $still->label];
        foreach ([...array_values($chains), $carried] as $next) {
            $run = $this->run($at, $this->midway($next), $lead);
            if ($run->outside > 0) {
                $parts[] = ['what' => "{$before} to {$next->label}", 'mm' => $run->outside];
            }
            foreach ($run->inside as $key => $mm) {
                $parts[] = ['what' => "in {$this->layout->bodies[$key]->label}", 'mm' => $mm];
                $inDuct[$key] = ($inDuct[$key] ?? 0.0) + $mm;
            }
            array_push($points, ...$run->points);
            if (isset($chains[$next->key])) {
                $length = $this->chainLength($next);
                if ($length === null) {
                    return new Way(
                        $lead->ref,
                        waits: "the length of {$next->label} is not known, nor what it follows from",
                    );
                }
                $parts[] = ['what' => "through {$next->label}", 'mm' => $length];
            }
            [$at, $before] = [$this->midway($next), $next->label];
        }
        foreach ($loose as $axis) {
            $travel = $this->layout->travel[$axis] ?? null;
            if ($travel === null) {
                return new Way(
                    $lead->ref,
                    waits: "the travel of {$this->build->axes[$axis]->name} is not known",
                    loose: $loose,
                );
            }
            $parts[] = ['what' => "loop for {$this->build->axes[$axis]->name}", 'mm' => $travel / 2];
        }
        $spare = [
            ['what' => 'bends and slack', 'mm' => array_sum(array_column($parts, 'mm')) * self::SLACK],
            ['what' => 'both ends', 'mm' => self::ENDS],
        ];
        // Any channel could have been the shorter way.
        $places = [$a->place->ref, $b->place->ref];
        foreach ([...array_keys($chains), ...array_keys($this->segments)] as $key) {
            $places[] = $this->layout->bodies[$key]->place->ref;
        }
        $axes = [...$a->carried, ...$b->carried];
        foreach ($chains as $chain) {
            array_push($axes, ...$chain->place->spans, ...$chain->carried);
        }

        return new Way(
            $lead->ref,
            $parts,
            $spare,
            $points,
            array_map(strval(...), array_keys($inDuct)),
            $inDuct,
            array_map(strval(...), array_keys($chains)),
            null,
            $loose,
            array_values(array_unique($places)),
            array_values(array_unique($axes)),
        );
    }

    /** Where a body is with every axis in the middle of its travel. */
    private function midway(Body $body): Box
    {
        $by = [0.0, 0.0, 0.0];
        foreach ($body->carried as $axis) {
            $by[Layout::index($this->build->axes[$axis]->along)] += ($this->layout->travel[$axis] ?? 0.0) / 2;
        }

        return $body->box->moved([$by[0], $by[1], $by[2]]);
    }

    /** The chain as it is; where nobody says, half the travel and half a turn of its bend, fixed in the middle: common practice, no source. */
    private function chainLength(Body $chain): ?float
    {
        $part = $chain->place->need === null ? null : $this->build->fitted($chain->place->need)?->part;
        $own = $part?->can(Ability::LeadsMove) === true ? $part->spec('length')?->nominal()?->in('mm') : null;
        $travel = array_map(fn (string $axis): ?float => $this->layout->travel[$axis] ?? null, $chain->place->spans);
        $radius = $part?->spec('bend_radius')?->nominal()?->in('mm');
        if ($own !== null || $radius === null || in_array(null, $travel, true)) {
            return $own;
        }

        return max([0.0, ...$travel]) / 2 + M_PI * $radius;
    }

    /** Whether a lead carries signals that mains beside it disturb. */
    public static function isSignal(Build $build, Lead $lead): bool
    {
        foreach ([$lead->from, $lead->to] as $end) {
            if ($build->port($end)?->kind === PortKind::Signal) {
                return true;
            }
        }

        return false;
    }

    /** The cheapest way from box to box, straight or through channels. */
    private function run(Box $from, Box $to, Lead $lead): Run
    {
        $segments = [];
        $mains = $this->build->isMains($lead);
        foreach ($this->segments as $key => $segment) {
            $duct = $this->layout->bodies[$key]->place->duct;
            if ($duct === Duct::Any || ($duct === Duct::Mains) === $mains) {
                $segments[$key] = $segment;
            }
        }
        $start = $from->nearest($to->centre());
        $end = $to->nearest($start);

        return Router::through($segments, self::OUTSIDE)->route($from->nearest($end), $end);
    }
}
