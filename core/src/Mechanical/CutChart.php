<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical;

use Magpie\Core\Motion\CannotReadCurve;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;

/** How fast a torch cuts which sheet, as its maker's chart has it, and how wide. */
final readonly class CutChart
{
    /**
     * @param  list<array{float, float, float|null}>  $rows  mm of sheet, mm/s of feed, mm of kerf; by rising thickness
     */
    private function __construct(private array $rows)
    {
    }

    /**
     * Rows such as "1.5 mm 4000 mm/min 1.2 mm; 3 mm 2000 mm/min".
     *
     * @throws CannotReadCurve naming the row that cannot be read
     */
    public static function read(string $text): self
    {
        $rows = [];
        foreach (
            array_filter(array_map(trim(...), explode(';', $text)), static fn (string $p): bool => $p !== '') as $row
        ) {
            $number = '[\d.,\/]+\s*';
            if (preg_match("/^({$number}(?:mm|in))\s+({$number}\S+)(?:\s+({$number}(?:mm|in)))?$/u", $row, $m) !== 1) {
                throw CannotReadCurve::at(
                    $row,
                    'a thickness and a feed with their units are wanted, and perhaps a kerf',
                );
            }
            try {
                $rows[] = [
                    Quantity::parse($m[1], Dimension::Length)->in('mm'),
                    Quantity::parse($m[2], Dimension::Speed)->in('mm/s'),
                    isset($m[3]) ? Quantity::parse($m[3], Dimension::Length)->in('mm') : null,
                ];
            } catch (CannotReadQuantity $e) {
                throw CannotReadCurve::at($row, $e->getMessage());
            }
        }
        sort($rows);

        return $rows === [] ? throw CannotReadCurve::at($text, 'at least one row is wanted') : new self($rows);
    }

    /** Feed for a sheet, between two rows by a straight line; null beyond the chart. */
    public function feed(Quantity $sheet): ?Quantity
    {
        $feed = $this->between($sheet->in('mm'), 1);

        return $feed === null ? null : Quantity::of($feed, 'mm/s')->to('mm/min');
    }

    /** Width of the cut; null where the chart does not say. */
    public function kerf(Quantity $sheet): ?Quantity
    {
        $kerf = $this->between($sheet->in('mm'), 2);

        return $kerf === null ? null : Quantity::of($kerf, 'mm');
    }

    public function thickest(): Quantity
    {
        return Quantity::of($this->rows[count($this->rows) - 1][0], 'mm');
    }

    private function between(float $at, int $column): ?float
    {
        $before = null;
        foreach ($this->rows as $row) {
            if (abs($row[0] - $at) < 1e-9) {
                return $row[$column];
            }
            if ($row[0] > $at) {
                $one = $before[$column] ?? null;

                return $before === null || $one === null || $row[$column] === null
                    ? null
                    : $one + (($row[$column] - $one) * ($at - $before[0])) / ($row[0] - $before[0]);
            }
            $before = $row;
        }

        return null;
    }
}
