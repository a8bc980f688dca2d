<?php

declare(strict_types=1);

namespace Magpie\Core\Scope;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Need;
use Magpie\Core\Machine\Scale;
use Magpie\Core\Machine\ScaleKind;
use Magpie\Core\Quantity\Quantity;

/** What quantities written for one size of the machine become at another: counts along a length, and lengths to cut. */
final readonly class Scaling
{
    public function __construct(private Build $build)
    {
    }

    /**
     * @return list<array{need: string, role: string, along: string, as: string, written: int, counted: int|null,
     *     wanted: int|null, cut_written: string|null, cut_wanted: string|null, missing: list<string>}>
     */
    public function toArray(): array
    {
        $rows = [];
        foreach ($this->build->needs as $need) {
            if ($need->scale !== null) {
                $rows[] = $this->row($need, $need->scale);
            }
        }

        return $rows;
    }

    /**
     * @return array{need: string, role: string, along: string, as: string, written: int, counted: int|null,
     *     wanted: int|null, cut_written: string|null, cut_wanted: string|null, missing: list<string>}
     */
    private function row(Need $need, Scale $scale): array
    {
        $kit = $this->build->brief->kitSize[$scale->along->value] ?? null;
        $own = (new Envelope($this->build))->workArea($scale->along->value);
        $missing = [
            ...$kit === null ? ["size along {$scale->along->value} the list was written for"] : [],
            ...$own === null ? ["size along {$scale->along->value} that is built"] : [],
        ];
        $counts = $scale->kind === ScaleKind::Count;

        return [
            'need' => $need->ref,
            'role' => $need->role,
            'along' => $scale->along->value,
            'as' => $scale->kind->value,
            'written' => $need->quantity,
            'counted' => $counts && $kit !== null ? self::pieces($scale, $kit) : null,
            'wanted' => $counts && $own !== null ? self::pieces($scale, $own) : null,
            'cut_written' => $counts ? null : self::cut($scale, $kit),
            'cut_wanted' => $counts ? null : self::cut($scale, $own),
            'missing' => $missing,
        ];
    }

    /** One at the start and one each so far, the last short stretch included; and what every size needs. */
    public static function pieces(Scale $scale, Quantity $length): int
    {
        return $scale->plus +
            1 +
            ($scale->every === null ? 0 : (int) ceil($length->over($scale->every)->in('') - 1e-9));
    }

    private static function cut(Scale $scale, ?Quantity $length): ?string
    {
        return $length === null ? null : (string) $length->plus($scale->longer ?? Quantity::of(0, 'mm'))->to('mm');
    }
}
