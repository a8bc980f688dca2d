<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Magpie\Core\Buying\Arrivals;
use Magpie\Core\Buying\Frontier;
use Magpie\Core\Buying\OrderReport;
use Magpie\Core\Buying\SplitLimits;

/** What to order of a build, where, what else it could cost, and what came. */
final class OrderController
{
    public function order(Request $request, Build $build): JsonResponse
    {
        $read = Document::of($build)->machine();

        return new JsonResponse((new OrderReport($read, self::limits($request, 4.0)))->toArray());
    }

    /** What each day earlier costs, and one supplier less. */
    public function frontier(Request $request, Build $build): JsonResponse
    {
        $read = Document::of($build)->machine();

        return new JsonResponse((new Frontier($read, self::limits($request, 1.0)))->toArray());
    }

    /** What came, and how it is tried. */
    public function arrivals(Build $build): JsonResponse
    {
        return new JsonResponse((new Arrivals(Document::of($build)->machine()))->toArray());
    }

    private static function limits(Request $request, float $seconds): SplitLimits
    {
        $asked = $request->validate([
            'days' => ['sometimes', 'integer', 'min:0', 'max:1000'],
            'most' => ['sometimes', 'integer', 'min:1', 'max:100'],
            'without' => ['sometimes', 'string', 'max:2000'],
        ]);
        $without = array_values(array_filter(explode(',', (string) ($asked['without'] ?? ''))));

        return new SplitLimits(
            isset($asked['days']) ? (int) $asked['days'] : null,
            isset($asked['most']) ? (int) $asked['most'] : null,
            $without,
            $seconds,
        );
    }
}
