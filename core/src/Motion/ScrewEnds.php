<?php

declare(strict_types=1);

namespace Magpie\Core\Motion;

use Magpie\Core\Machine\ScrewSupport;
use Magpie\Core\Quantity\Quantity;

/**
 * Constants of a screw by how its ends are held: whirling f·10⁷·d/L² rpm and buckling f·10⁴·d⁴/L² N in mm, as
 * ball-screw
 * catalogues print them (from memory), 80 % of the speed and half the load of Euler taken as allowed.
 */
final class ScrewEnds
{
    /**
     * @return array{float, float} whirling, buckling
     */
    public static function of(ScrewSupport $support): array
    {
        return match ($support) {
            ScrewSupport::FixedFree => [3.4, 1.2],
            ScrewSupport::Supported => [9.7, 5.0],
            ScrewSupport::FixedSupported => [15.1, 10.0],
            ScrewSupport::FixedFixed => [21.9, 20.0],
        };
    }

    /** Speed a screw may turn at before it whirls. */
    public static function whirl(ScrewSupport $support, Quantity $root, Quantity $length): Quantity
    {
        return Quantity::of((self::of($support)[0] * 1e7 * $root->in('mm')) / $length->in('mm') ** 2, 'rpm');
    }
}
