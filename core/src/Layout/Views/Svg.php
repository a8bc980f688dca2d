<?php

declare(strict_types=1);

namespace Magpie\Core\Layout\Views;

use Magpie\Core\Inspection\Survey;
use Magpie\Core\Layout\Body;
use Magpie\Core\Layout\Box;
use Magpie\Core\Layout\Envelope;
use Magpie\Core\Layout\Layout;
use Magpie\Core\Quantity\Quantity;

/** One view of a machine as SVG, to scale in millimetres, with outer sizes, travels and a scale bar. Plain shapes, no script. */
final class Svg
{
    private const FILLS = [
        'part' => '#dfe3e6',
        'workpiece' => '#ead9bd',
        'duct' => '#cfd8dc',
        'zone' => 'none',
        'other' => '#eceff1',
    ];

    private float $left = 0.0;

    private float $top = 0.0;

    private float $text = 10.0;

    private string $out = '';

    private function __construct(private readonly Survey $survey, private readonly View $view)
    {
    }

    public static function of(Survey $survey, View $view): string
    {
        return (new self($survey, $view))->drawn();
    }

    private function drawn(): string
    {
        $layout = Layout::of($this->survey);
        if ($layout->bodies === []) {
            return '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="20mm" viewBox="0 0 120 20">'.
                '<text x="4" y="12" font-size="5" font-family="sans-serif">Nothing has a place yet.</text></svg>'.
                "\n";
        }
        [$across, $up, $away, $nearIsHigh] = $this->view->directions();
        $envelope = Envelope::of($this->survey)->box;
        $all = $layout->outline === null ? $envelope : $envelope->with($layout->outline);
        [$width, $height] = [$all->size($across), $all->size($up)];
        $this->text = max(4.0, max($width, $height) / 70);
        [$this->left, $this->top] = [$all->low[$across], $all->high[$up]];
        $bodies = array_values($layout->bodies);
        usort(
            $bodies,
            static fn (Body $a, Body $b): int => $nearIsHigh
                ? $a->box->high[$away] <=> $b->box->high[$away]
                : $b->box->low[$away] <=> $a->box->low[$away],
        );
        if ($layout->outline !== null) {
            $this->rect($layout->outline, 'fill="none" stroke="#607d8b" stroke-dasharray="'.$this->text.'"');
        }
        foreach ($bodies as $body) {
            if ($body->carried !== []) {
                $this->rect(
                    Envelope::swept($this->survey, $layout, $body),
                    'fill="none" stroke="#90a4ae" stroke-dasharray="'.$this->text / 3 .'"',
                );
            }
        }
        foreach ($bodies as $body) {
            $dash = $body->kind === 'zone' ? ' stroke-dasharray="'.$this->text / 2 .'"' : '';
            $this->rect(
                $body->box,
                'fill="'.
                    self::FILLS[$body->kind].
                    '" fill-opacity="'.
                    ($body->encloses ? '0.3' : '0.94').
                    '" stroke="#37474f"'.
                    $dash,
            );
            $this->label($body);
        }
        $this->sizes($layout->outline ?? $envelope);
        $this->bar(max($width, $height), $height);
        $margin = $this->text * 6;

        return sprintf(
            '<svg xmlns="http://www.w3.org/2000/svg" width="%1$smm" height="%2$smm" viewBox="%3$s %3$s %1$s %2$s" font-family="sans-serif" stroke-width="%4$s">'.
                "\n".
                '<title>%5$s</title>'.
                "\n".
                '%6$s</svg>'.
                "\n",
            Plain::number($width + 2 * $margin),
            Plain::number($height + 2 * $margin),
            Plain::number(-$margin),
            Plain::number($this->text / 14),
            Plain::xml($this->survey->build->plan->name.', '.lcfirst($this->view->title())),
            $this->out,
        );
    }

    /**
     * @return array{float, float, float, float} x, y, width, height on the sheet
     */
    private function on(Box $box): array
    {
        [$across, $up] = $this->view->directions();

        return [$box->low[$across] - $this->left, $this->top - $box->high[$up], $box->size($across), $box->size($up)];
    }

    private function rect(Box $box, string $style): void
    {
        [$x, $y, $w, $h] = array_map(Plain::number(...), $this->on($box));
        $this->out .= "<rect x=\"{$x}\" y=\"{$y}\" width=\"{$w}\" height=\"{$h}\" {$style}/>\n";
    }

    /** Its name where it goes in; the title tells it everywhere. */
    private function label(Body $body): void
    {
        [$x, $y, $w, $h] = $this->on($body->box);
        if (mb_strlen($body->label) * $this->text * 0.55 > $w || $h < $this->text * 1.3) {
            return;
        }
        $this->words($x + $w / 2, $y + min($h / 2 + $this->text / 3, $h - $this->text / 4), $body->label);
    }

    private function words(float $x, float $y, string $text, string $more = ''): void
    {
        $this->out .= sprintf(
            '<text x="%s" y="%s" font-size="%s" text-anchor="middle" fill="#263238"%s>%s</text>'."\n",
            Plain::number($x),
            Plain::number($y),
            Plain::number($this->text),
            $more,
            Plain::xml($text),
        );
    }

    private function sizes(Box $box): void
    {
        [$x, $y, $w, $h] = $this->on($box);
        $off = $this->text * 2;
        [$across, $up] = $this->view->directions();
        $this->line($x, $y + $h + $off, $x + $w, $y + $h + $off, true);
        $this->words($x + $w / 2, $y + $h + $off + $this->text * 1.2, self::mm($box->size($across)));
        $this->line($x - $off, $y, $x - $off, $y + $h, true);
        [$tx, $ty] = [$x - $off - $this->text * 0.5, $y + $h / 2];
        $this->words(
            $tx,
            $ty,
            self::mm($box->size($up)),
            ' transform="rotate(-90 '.Plain::number($tx).' '.Plain::number($ty).')"',
        );
    }

    private function bar(float $longest, float $height): void
    {
        $bar = 10.0 ** floor(log10(max(1.0, $longest / 3)));
        foreach ([5, 2] as $times) {
            if ($bar * $times <= $longest / 3) {
                $bar *= $times;
                break;
            }
        }
        $y = $height + $this->text * 4.4;
        $this->line(0, $y, $bar, $y, true);
        $this->words($bar / 2, $y - $this->text / 2, self::mm($bar));
    }

    private function line(float $x1, float $y1, float $x2, float $y2, bool $ticks = false): void
    {
        $line = static fn (float $a, float $b, float $c, float $d): string => sprintf(
            '<line x1="%s" y1="%s" x2="%s" y2="%s" stroke="#263238"/>'."\n",
            Plain::number($a),
            Plain::number($b),
            Plain::number($c),
            Plain::number($d),
        );
        $this->out .= $line($x1, $y1, $x2, $y2);
        $t = $this->text / 2;
        foreach ($ticks ? [[$x1, $y1], [$x2, $y2]] : [] as [$x, $y]) {
            $this->out .= $line($x - $t / 2, $y + $t / 2, $x + $t / 2, $y - $t / 2);
        }
    }

    private static function mm(float $mm): string
    {
        return Quantity::of(round($mm, 1), 'mm')->text();
    }
}
