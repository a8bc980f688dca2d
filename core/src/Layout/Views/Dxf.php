<?php

declare(strict_types=1);

namespace Magpie\Core\Layout\Views;

/** A drawing in the words of DXF release 12 (AC1009, from memory): lines, circles and text on layers, in millimetres. */
final class Dxf
{
    /** @var array<string, true> */
    private array $layers = [];

    private string $entities = '';

    public function line(string $layer, float $x1, float $y1, float $x2, float $y2): void
    {
        $this->entity('LINE', $layer, [10 => $x1, 20 => $y1, 30 => 0.0, 11 => $x2, 21 => $y2, 31 => 0.0]);
    }

    public function rectangle(string $layer, float $x, float $y, float $w, float $h): void
    {
        $corners = [[$x, $y], [$x + $w, $y], [$x + $w, $y + $h], [$x, $y + $h], [$x, $y]];
        for ($i = 0; $i < 4; $i++) {
            $this->line($layer, ...[...$corners[$i], ...$corners[$i + 1]]);
        }
    }

    public function cross(string $layer, float $x, float $y, float $size): void
    {
        $this->line($layer, $x - $size / 2, $y, $x + $size / 2, $y);
        $this->line($layer, $x, $y - $size / 2, $x, $y + $size / 2);
    }

    public function circle(string $layer, float $x, float $y, float $radius): void
    {
        $this->entity('CIRCLE', $layer, [10 => $x, 20 => $y, 30 => 0.0, 40 => $radius]);
    }

    public function text(string $layer, float $x, float $y, float $height, string $text): void
    {
        // One line, and no letter the release does not know.
        $plain = preg_replace('/[^\x20-\x7e]/', '?', (string) iconv('UTF-8', 'ASCII//TRANSLIT', $text)) ?? '';
        $this->entity('TEXT', $layer, [10 => $x, 20 => $y, 30 => 0.0, 40 => $height, 1 => mb_substr($plain, 0, 200)]);
    }

    /**
     * @param  array<int, float|string>  $groups
     */
    private function entity(string $kind, string $layer, array $groups): void
    {
        $this->layers[$layer] = true;
        $this->entities .= self::group(0, $kind).self::group(8, $layer);
        foreach ($groups as $code => $value) {
            $this->entities .= self::group($code, $value);
        }
    }

    private static function group(int $code, float|int|string $value): string
    {
        return sprintf("%3d\r\n", $code).(is_float($value) ? sprintf('%.4F', $value) : $value)."\r\n";
    }

    public function written(): string
    {
        $layers = '';
        foreach (array_keys($this->layers) as $name) {
            $layers .=
                self::group(0, 'LAYER').
                self::group(2, $name).
                self::group(70, 0).
                self::group(62, $name === 'DRILL' || $name === 'CUT' ? 1 : 7).
                self::group(6, 'CONTINUOUS');
        }

        return self::group(0, 'SECTION').
            self::group(2, 'HEADER').
            self::group(9, '$ACADVER').
            self::group(1, 'AC1009').
            self::group(0, 'ENDSEC').
            self::group(0, 'SECTION').
            self::group(2, 'TABLES').
            self::group(0, 'TABLE').
            self::group(2, 'LTYPE').
            self::group(70, 1).
            self::group(0, 'LTYPE').
            self::group(2, 'CONTINUOUS').
            self::group(70, 0).
            self::group(3, 'Solid').
            self::group(72, 65).
            self::group(73, 0).
            self::group(40, 0.0).
            self::group(0, 'ENDTAB').
            self::group(0, 'TABLE').
            self::group(2, 'LAYER').
            self::group(70, count($this->layers)).
            $layers.
            self::group(0, 'ENDTAB').
            self::group(0, 'ENDSEC').
            self::group(0, 'SECTION').
            self::group(2, 'ENTITIES').
            $this->entities.
            self::group(0, 'ENDSEC').
            self::group(0, 'EOF');
    }
}
