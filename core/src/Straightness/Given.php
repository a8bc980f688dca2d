<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;

/** Readings of an alignment as they were typed, read as figures. Lengths in mm, angles in degrees. */
final readonly class Given
{
    /** A division of a dial indicator: common practice, no source. */
    public const DIVISION = 0.01;

    /** Figures in one row. */
    private const MOST = 2000;

    /**
     * @param  array<string, string>  $texts  by name
     */
    public function __construct(private array $texts)
    {
    }

    public function has(string $key): bool
    {
        return trim($this->texts[$key] ?? '') !== '';
    }

    /**
     * @throws CannotAlign
     */
    public function one(string $key, Dimension $dimension = Dimension::Length): float
    {
        $row = $this->row($key, 1, $dimension);
        if (count($row) !== 1) {
            throw new CannotAlign($key, 'is one figure with its unit, not a row of them.');
        }

        return $row[0];
    }

    /**
     * @throws CannotAlign
     */
    public function positive(string $key, Dimension $dimension = Dimension::Length): float
    {
        $value = $this->one($key, $dimension);

        return $value > 0 ? $value : throw new CannotAlign($key, 'must be more than nothing.');
    }

    /**
     * @throws CannotAlign
     */
    public function oneOr(string $key, float $otherwise, Dimension $dimension = Dimension::Length): float
    {
        return $this->has($key) ? $this->one($key, $dimension) : $otherwise;
    }

    /**
     * @return non-empty-list<float>
     *
     * @throws CannotAlign
     */
    public function row(string $key, int $least = 2, Dimension $dimension = Dimension::Length): array
    {
        $text = trim($this->texts[$key] ?? '');
        if ($text === '') {
            throw new CannotAlign($key, 'is missing.');
        }
        $unit = preg_match('/[\p{L}°µ"\'′″%\/²]+\s*$/u', $text, $m) === 1 ? trim($m[0]) : '';
        $figures = trim(mb_substr($text, 0, mb_strlen($text) - mb_strlen($m[0] ?? '')));
        if ($unit === '' && $dimension !== Dimension::Ratio) {
            throw new CannotAlign($key, 'has no unit: write it once, at the end, such as "0.00 0.02 0.05 mm".');
        }
        $row = [];
        foreach (preg_split('/[\s;]+|,\s+/u', $figures, -1, PREG_SPLIT_NO_EMPTY) ?: [] as $figure) {
            $row[] = self::figure($key, strtr($figure, ['−' => '-']), $unit, $dimension);
            if (count($row) > self::MOST) {
                throw new CannotAlign($key, 'has more than '.self::MOST.' figures.');
            }
        }
        if (count($row) < $least || $row === []) {
            throw new CannotAlign($key, "needs at least {$least} figures; there are ".count($row).'.');
        }

        return $row;
    }

    private static function figure(string $key, string $figure, string $unit, Dimension $dimension): float
    {
        try {
            $value = Quantity::parse("{$figure} {$unit}", $dimension);
        } catch (CannotReadQuantity $e) {
            throw new CannotAlign($key, "\"{$figure} {$unit}\": ".lcfirst($e->getMessage()));
        }
        $read = $value->in(
            match ($dimension) {
                Dimension::Angle => '°',
                Dimension::Frequency => 'Hz',
                Dimension::Length => 'mm',
                Dimension::Mass => 'g',
                Dimension::Ratio => '',
                Dimension::Temperature => '°C',
                Dimension::Time => 's',
                default => $unit,
            },
        );

        return is_finite($read) && abs($read) < 1e9
            ? $read
            : throw new CannotAlign($key, "\"{$figure} {$unit}\" is no size of a machine.");
    }

    /**
     * Rows that belong together, as many figures in each.
     *
     * @param  list<string>  $keys
     * @return list<non-empty-list<float>>
     *
     * @throws CannotAlign
     */
    public function rows(array $keys, int $least): array
    {
        $rows = array_map(fn (string $key): array => $this->row($key, $least), $keys);
        foreach ($rows as $i => $row) {
            if (count($row) !== count($rows[0])) {
                throw new CannotAlign(
                    $keys[$i],
                    'has '.count($row)." figures, where {$keys[0]} has ".count($rows[0]).'.',
                );
            }
        }

        return $rows;
    }

    /** How far an instrument may be off, either way. */
    public function accuracy(): float
    {
        return abs($this->oneOr('accuracy', self::DIVISION));
    }
}
