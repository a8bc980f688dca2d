<?php

declare(strict_types=1);

namespace Magpie\Core\Layout\Views;

use Magpie\Core\Format\CsvLine;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Layout\Layout;

/** Where everything sits, as a list: low corner and size of each body in mm, with every axis at nought. */
final class Positions
{
    public static function csv(Survey $survey): string
    {
        $csv = CsvLine::of([
            'place',
            'what',
            'need',
            'x mm',
            'y mm',
            'z mm',
            'along x mm',
            'along y mm',
            'along z mm',
            'on',
            'carried by',
            'rests on',
        ]);
        foreach (Layout::of($survey)->bodies as $body) {
            $numbers = [];
            foreach ([0, 1, 2] as $d) {
                $numbers[$d] = Plain::number($body->box->low[$d]);
                $numbers[$d + 3] = Plain::number($body->box->size($d));
            }
            ksort($numbers);
            // A number below nought is a number, and no formula.
            $csv .=
                rtrim(CsvLine::of([$body->key, $body->label, $body->place->need ?? '']), "\r\n").
                ','.
                implode(',', $numbers).
                ','.
                CsvLine::of([
                    $body->stands[0] ?? '',
                    implode(' ', $body->carried),
                    $body->place->evidence?->label() ?? 'decided',
                ]);
        }

        return $csv;
    }
}
