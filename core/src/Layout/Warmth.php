<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Thermal\HeatLimit;

/** Parts that bear only so much, and the hot ones that come near them wherever the axes stand, joined to them or not. */
final readonly class Warmth
{
    /** Lines of a sheet that say how hot the skin of a part gets. */
    private const SKIN = ['skin_temperature', 'target', 'top_temperature'];

    /** Farther than this nothing is warmed by touching, mm. */
    private const FAR = 10.0;

    /** @var array<string, list<Neighbour>> need → what is hot and near */
    public array $touching;

    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static fn (Survey $s): self => new self($s));
    }

    private function __construct(Survey $survey)
    {
        $build = $survey->build;
        $layout = Layout::of($survey);
        $hot = $bears = [];
        foreach ($layout->bodies as $body) {
            $fitted = $body->place->need === null ? null : $build->fitted($body->place->need);
            if ($fitted === null) {
                continue;
            }
            $key = self::skin($fitted);
            if ($key !== null) {
                $hot[] = [$body, $fitted->need->ref, $key];
            }
            if (HeatLimit::of($fitted) !== null) {
                $bears[] = [$body, $fitted->need->ref];
            }
        }
        $touching = [];
        foreach ($bears as [$body, $need]) {
            foreach ($hot as [$other, $of, $key]) {
                if ($of === $need) {
                    continue;
                }
                $gap = max([0.0, ...array_values(Meetings::gaps($build, $layout, $body, $other)[0])]);
                if ($gap <= self::FAR) {
                    $touching[$need][] = new Neighbour($of, $key, $gap);
                }
            }
        }
        $this->touching = $touching;
    }

    /** Whether a part warms what is near it, or bears only so much: its place counts for this. */
    public static function concerns(Fitted $fitted): bool
    {
        return self::skin($fitted) !== null || HeatLimit::of($fitted) !== null;
    }

    private static function skin(Fitted $fitted): ?string
    {
        foreach (self::SKIN as $key) {
            if ($fitted->part->spec($key)?->highest() !== null) {
                return $key;
            }
        }

        return null;
    }
}
