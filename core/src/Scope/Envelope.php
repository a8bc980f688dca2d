<?php

declare(strict_types=1);

namespace Magpie\Core\Scope;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Workpiece;
use Magpie\Core\Quantity\Quantity;

/**
 * The smallest travel that takes every workpiece of the brief with its margins: on both sides along and across, on one
 * side above. The longer side of a piece lies along the longer side of the machine.
 */
final readonly class Envelope
{
    /** Free travel beyond a piece, each side, where the brief names none. Common practice, no source. */
    public Quantity $margin;

    /** @var array<string, Quantity|null> by x, y, z */
    public array $sizes;

    /** @var array<string, Workpiece|null> the piece that decides each */
    public array $deciding;

    public function __construct(private Build $build)
    {
        $this->margin = $build->brief->margin ?? Quantity::of(10, 'mm');
        $size = $build->brief->size;
        $turned = $size['x'] !== null && $size['y'] !== null && $size['y']->exceeds($size['x']);
        $largest = $deciding = ['x' => null, 'y' => null, 'z' => null];
        foreach ($build->workpieces as $piece) {
            $sides = array_values(array_filter([$piece->length, $piece->width]));
            $long = $sides === [] ? null : Quantity::max(...$sides);
            $short = count($sides) < 2 ? null : Quantity::min(...$sides);
            foreach (
                ['x' => $turned ? $short : $long, 'y' => $turned ? $long : $short, 'z' => $piece->height] as $along => $side
            ) {
                if ($side !== null && ($largest[$along] === null || $side->exceeds($largest[$along]))) {
                    [$largest[$along], $deciding[$along]] = [$side, $piece];
                }
            }
        }
        $this->sizes = [
            'x' => $largest['x']?->plus($this->margin->times(2)),
            'y' => $largest['y']?->plus($this->margin->times(2)),
            'z' => $largest['z']?->plus($this->margin),
        ];
        $this->deciding = $deciding;
    }

    /** Work area in one direction: as settled in the brief, else what the workpieces ask for. */
    public function workArea(string $along): ?Quantity
    {
        return $this->build->brief->size[$along] ?? ($this->sizes[$along] ?? null);
    }
}
