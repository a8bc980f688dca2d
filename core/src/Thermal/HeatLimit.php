<?php

declare(strict_types=1);

namespace Magpie\Core\Thermal;

use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Tables;

/** The air a part bears: what its sheet says, or what is usual for its kind. */
final class HeatLimit
{
    /** Air that electronics bear when their sheet says nothing: common practice, no source. */
    private const ELECTRONICS = 50;

    /** Kelvin below its glass transition at which a print holds, and at which it is tight: common practice, no source. */
    public const HOLDS = 20;

    public const TIGHT = 10;

    /** What a print is worth at so many kelvin below its glass transition. */
    public static function ofPrint(Quantity $clear): Verdict
    {
        return match (true) {
            $clear->isBelow(Quantity::of(self::TIGHT, 'K')) => Verdict::Fails,
            $clear->isBelow(Quantity::of(self::HOLDS, 'K')) => Verdict::Tight,
            default => Verdict::Holds,
        };
    }

    public static function keyOf(Fitted $fitted): ?string
    {
        return $fitted->part->family->heatLimit();
    }

    /** Null when nothing is known of it, or nothing is usual. */
    public static function of(Fitted $fitted): ?Quantity
    {
        $key = self::keyOf($fitted);

        return match (true) {
            $fitted->part->can(Ability::Printed) => self::glass($fitted)
                ?->minus(Quantity::of(self::HOLDS, 'K'))
                ->to('°C'),
            $key !== null && $fitted->part->spec($key) !== null => $fitted->part->spec($key)->lowest(),
            $fitted->part->can(Ability::Electronic) => Quantity::of(self::ELECTRONICS, '°C'),
            default => null,
        };
    }

    /** Glass transition of a print: its own, or the usual one of its plastic. */
    public static function glass(Fitted $fitted): ?Quantity
    {
        /** @var array<string, int> $table */
        $table = Tables::named('plastics');
        $own = $fitted->part->spec('glass_transition')?->lowest();
        $material = $fitted->part->spec('material')?->choice() ?? '';

        return $own ?? (isset($table[$material]) ? Quantity::of($table[$material], '°C') : null);
    }
}
