<?php

declare(strict_types=1);

namespace Magpie\Core\Layout\Views;

use Magpie\Core\Inspection\Survey;
use Magpie\Core\Layout\Body;
use Magpie\Core\Layout\Layout;
use Magpie\Core\Layout\Wall;
use Magpie\Core\Machine\Build;
use Magpie\Core\Reference\Tables;

/**
 * A panel, plate or back wall with what stands on it, at 1:1: where to drill and cut, and where each part's foot comes. Holes are
 * known of motor frames and fans only; of the rest the foot is marked, to be drilled from the part itself.
 *
 * @phpstan-type Mark array{layer: string, shape: string, x: float, y: float, w: float, h: float, label: string}
 */
final readonly class Sheet
{
    /** Fans: side of the frame → spacing of the holes, their diameter, mm: common practice, no source. */
    private const FANS = [
        30 => [24.0, 3.2],
        40 => [32.0, 4.3],
        50 => [40.0, 4.3],
        60 => [50.0, 4.3],
        70 => [60.0, 4.3],
        80 => [71.5, 4.3],
        92 => [82.5, 4.3],
        120 => [105.0, 4.3],
        140 => [124.5, 4.3],
    ];

    /**
     * @param  list<Mark>  $marks  in mm from its left bottom corner; of a circle w and h are its diameter and x, y its middle
     */
    private function __construct(
        public string $place,
        public string $name,
        public float $width,
        public float $height,
        public array $marks,
    ) {
    }

    /**
     * @return list<self> one for each body something stands on that is flat, or a cabinet's back wall
     */
    public static function all(Survey $survey): array
    {
        $layout = Layout::of($survey);
        $on = [];
        foreach ($layout->bodies as $body) {
            $on[$body->stands[0] ?? ''][] = $body;
        }
        $sheets = [];
        foreach ($layout->bodies as $key => $body) {
            if (isset($on[$key]) && $body->kind !== 'workpiece') {
                $sheets[] = self::sheet($survey->build, $body, $on[$key]);
            }
        }

        return $sheets;
    }

    public static function of(Survey $survey, string $place): ?self
    {
        foreach (self::all($survey) as $sheet) {
            if ($sheet->place === $place) {
                return $sheet;
            }
        }

        return null;
    }

    /**
     * @param  list<Body>  $on
     */
    private static function sheet(Build $build, Body $host, array $on): self
    {
        $wall = Wall::of($host->box);
        [$across, $up] = [$wall->across, $wall->up];
        $marks = [];
        foreach ($on as $body) {
            $x = $body->box->low[$across] - $host->box->low[$across];
            $y = $body->box->low[$up] - $host->box->low[$up];
            [$w, $h] = [$body->box->size($across), $body->box->size($up)];
            $marks[] = self::mark('FOOT', 'rect', $x, $y, $w, $h, $body->label);
            array_push($marks, ...self::holes($build, $body, $x + $w / 2, $y + $h / 2, min($w, $h)));
        }

        return new self($host->key, $host->label, $host->box->size($across), $host->box->size($up), $marks);
    }

    /**
     * @return Mark
     */
    private static function mark(
        string $layer,
        string $shape,
        float $x,
        float $y,
        float $w,
        float $h,
        string $label = '',
    ): array {
        return compact('layer', 'shape', 'x', 'y', 'w', 'h', 'label');
    }

    /**
     * @return list<Mark>
     */
    private static function holes(Build $build, Body $body, float $x, float $y, float $face): array
    {
        $marks = [self::mark('MARK', 'cross', $x, $y, 6.0, 6.0)];
        $fitted = $body->place->need === null ? null : $build->fitted($body->place->need);
        if ($fitted === null) {
            return $marks;
        }
        $opening = $fitted->need->opening?->in('mm');
        if ($opening !== null) {
            $marks[] = self::mark('CUT', 'circle', $x, $y, $opening, $opening, "{$fitted->need->role}, opening");
        }
        /** @var array<string, array{face: float, holes: float, fastener: string, pilot: float, shaft: float}> $frames */
        $frames = Tables::named('motor_frames');
        $frame = $frames[$fitted->part->spec('frame')?->choice() ?? ''] ?? null;
        $fan = self::FANS[(int) round($fitted->part->spec('frame_size')?->nominal()?->in('mm') ?? 0.0)] ?? null;
        [$spacing, $hole, $cut] = match (true) {
            // Flat on its face only: on its side a motor has no holes there.
            $frame !== null && $face >= $frame['face'] - 1 => [
                $frame['holes'],
                preg_match('/M([\d.]+)|([\d.]+) mm/', $frame['fastener'], $m) === 1
                    ? (float) ($m[1] !== '' ? (float) $m[1] * 1.1 : $m[2])
                    : 0.0,
                $frame['pilot'],
            ],
            $fan !== null && $face >= $fan[0] => [$fan[0], $fan[1], $fan[0] + 6.0],
            default => [0.0, 0.0, 0.0],
        };
        if ($spacing > 0) {
            foreach ([[-1, -1], [1, -1], [1, 1], [-1, 1]] as [$a, $b]) {
                $marks[] = self::mark(
                    'DRILL',
                    'circle',
                    $x + ($a * $spacing) / 2,
                    $y + ($b * $spacing) / 2,
                    round($hole, 1),
                    round($hole, 1),
                );
            }
            if ($opening === null) {
                $marks[] = self::mark('CUT', 'circle', $x, $y, $cut, $cut, "{$fitted->need->role}, opening");
            }
        }

        return $marks;
    }

    /** As SVG, to be printed at its own size. */
    public function svg(): string
    {
        $colours = ['FOOT' => '#607d8b', 'MARK' => '#263238', 'DRILL' => '#b71c1c', 'CUT' => '#b71c1c'];
        $body = sprintf(
            '<rect x="0" y="0" width="%s" height="%s" fill="none" stroke="#263238"/>'."\n",
            Plain::number($this->width, 3),
            Plain::number($this->height, 3),
        );
        foreach ($this->marks as $mark) {
            $y = $this->height - $mark['y'];
            $stroke = "fill=\"none\" stroke=\"{$colours[$mark['layer']]}\"";
            $body .= match ($mark['shape']) {
                'rect' => sprintf(
                    '<rect x="%s" y="%s" width="%s" height="%s" stroke-dasharray="3" %s/>'."\n",
                    Plain::number($mark['x'], 3),
                    Plain::number($y - $mark['h'], 3),
                    Plain::number($mark['w'], 3),
                    Plain::number($mark['h'], 3),
                    $stroke,
                ),
                'circle' => sprintf(
                    '<circle cx="%s" cy="%s" r="%s" %s/>'."\n",
                    Plain::number($mark['x'], 3),
                    Plain::number($y, 3),
                    Plain::number($mark['w'] / 2, 3),
                    $stroke,
                ),
                default => sprintf(
                    '<path d="M%s %sh%sM%s %sv%s" %s/>'."\n",
                    Plain::number($mark['x'] - $mark['w'] / 2, 3),
                    Plain::number($y, 3),
                    Plain::number($mark['w'], 3),
                    Plain::number($mark['x'], 3),
                    Plain::number($y - $mark['h'] / 2, 3),
                    Plain::number($mark['h'], 3),
                    $stroke,
                ),
            };
            if ($mark['label'] !== '' && $mark['shape'] === 'rect') {
                $body .= sprintf(
                    '<text x="%s" y="%s" font-size="4" fill="#263238">%s</text>'."\n",
                    Plain::number($mark['x'] + 2, 3),
                    Plain::number($y - $mark['h'] + 5, 3),
                    Plain::xml($mark['label']),
                );
            }
        }
        $body .= sprintf(
            '<text x="0" y="%s" font-size="4" fill="#263238">%s, 1:1, %s × %s mm. Hold a rule to it: this line is 100 mm.</text>'.
                "\n".
                '<path d="M0 %sh100m0 -1v2M0 %sv2" fill="none" stroke="#263238"/>'.
                "\n",
            Plain::number($this->height + 7, 3),
            Plain::xml($this->name),
            Plain::number($this->width, 3),
            Plain::number($this->height, 3),
            Plain::number($this->height + 10, 3),
            Plain::number($this->height + 9, 3),
        );

        return sprintf(
            '<svg xmlns="http://www.w3.org/2000/svg" width="%1$smm" height="%2$smm" viewBox="-2 -2 %1$s %2$s" font-family="sans-serif" stroke-width="0.25">'.
                "\n".
                '%3$s</svg>'.
                "\n",
            Plain::number(max($this->width, 102.0) + 4, 3),
            Plain::number($this->height + 16, 3),
            $body,
        );
    }

    /** As DXF R12, in millimetres: layers OUTLINE, FOOT, MARK, DRILL, CUT. */
    public function dxf(): string
    {
        $dxf = new Dxf;
        $dxf->rectangle('OUTLINE', 0, 0, $this->width, $this->height);
        foreach ($this->marks as $mark) {
            match ($mark['shape']) {
                'rect' => $dxf->rectangle($mark['layer'], $mark['x'], $mark['y'], $mark['w'], $mark['h']),
                'circle' => $dxf->circle($mark['layer'], $mark['x'], $mark['y'], $mark['w'] / 2),
                default => $dxf->cross($mark['layer'], $mark['x'], $mark['y'], $mark['w']),
            };
            if ($mark['label'] !== '' && $mark['shape'] === 'rect') {
                $dxf->text('MARK', $mark['x'] + 2, $mark['y'] + 2, 4, $mark['label']);
            }
        }

        return $dxf->written();
    }
}
