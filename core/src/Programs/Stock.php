<?php

declare(strict_types=1);

namespace Magpie\Core\Programs;

use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Workpiece;

/** What a program cuts, held against the piece it is cut from: what is left around it, and how far it goes below. */
final readonly class Stock
{
    /** A cut right through goes this far into a spoilboard, mm: common practice, no source. */
    private const THROUGH = 1.0;

    /**
     * @param  bool  $zeroOnTop  the program's zero lies on the top of the piece, not on what the piece lies on
     */
    public function __construct(private Workpiece $piece, private bool $zeroOnTop = true)
    {
    }

    /**
     * Paths are those of the middle of the cutter: half of its diameter comes on top on each side.
     *
     * @param  array<string, array{float, float}>  $cutting  bounds of what is cut, mm, by X, Y, Z
     * @return array{list<array{axis: string, size: float|null, cut: float, left: float|null}>, list<Trouble>}
     */
    public function against(array $cutting): array
    {
        $sizes = [
            'X' => $this->piece->length?->in('mm'),
            'Y' => $this->piece->width?->in('mm'),
            'Z' => $this->piece->height?->in('mm'),
        ];
        $rows = $troubles = [];
        foreach (array_intersect_key($sizes, $cutting) as $axis => $size) {
            [$low, $high] = $cutting[$axis];
            $cut = match (true) {
                $axis !== 'Z' => $high - $low,
                $this->zeroOnTop => max(0.0, -$low),
                default => max(0.0, ($size ?? 0.0) - $low),
            };
            $left = $size === null ? null : $size - $cut;
            $rows[] = [
                'axis' => $axis,
                'size' => $size === null ? null : round($size, 3),
                'cut' => round($cut, 3),
                'left' => $left === null ? null : round($left, 3),
            ];
            if ($left === null) {
                $troubles[] = new Trouble(Verdict::Unproven, "How large {$this->piece->name} is along {$axis} is not known.");
            } elseif ($axis === 'Z' && $left < -1e-6) {
                $troubles[] = new Trouble(
                    -$left > self::THROUGH + 1e-6 ? Verdict::Fails : Verdict::Tight,
                    sprintf(
                        'It cuts %.2f mm deep, %.2f below %s: into what it lies on.',
                        $cut,
                        -$left,
                        $this->piece->name,
                    ),
                );
            } elseif ($left < -1e-6) {
                $troubles[] = new Trouble(
                    Verdict::Tight,
                    sprintf('Along %s it cuts %.1f mm beyond %s.', $axis, -$left, $this->piece->name),
                );
            }
        }

        return [$rows, $troubles];
    }
}
