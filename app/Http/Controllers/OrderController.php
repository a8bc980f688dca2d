<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Magpie\Core\Buying\Arrivals;
use Magpie\Core\Buying\Claims;
use Magpie\Core\Buying\Frontier;
use Magpie\Core\Buying\OrderReport;
use Magpie\Core\Buying\SplitLimits;
use Magpie\Core\Quantity\Money;

/** What to order of a build, where, what else it could cost, and what came. */
final class OrderController
{
    public function order(Request $request, Build $build): JsonResponse
    {
        $read = Document::of($build)->machine();

        return new JsonResponse(
            (new OrderReport($read, self::limits($request, 4.0, $read->plan->currency)))->toArray(),
        );
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

    /** What is to be claimed of suppliers. */
    public function claims(Build $build): JsonResponse
    {
        return new JsonResponse((new Claims(Document::of($build)->machine()))->toArray());
    }

    private static function limits(Request $request, float $seconds, ?string $currency = null): SplitLimits
    {
        $asked = $request->validate([
            'days' => ['sometimes', 'integer', 'min:0', 'max:1000'],
            'most' => ['sometimes', 'integer', 'min:1', 'max:100'],
            'ceiling' => ['sometimes', 'regex:/^\d{1,9}(\.\d{1,2})?$/'],
            'without' => ['sometimes', 'string', 'max:2000'],
        ]);
        $without = array_values(array_filter(explode(',', (string) ($asked['without'] ?? ''))));

        return new SplitLimits(
            isset($asked['days']) ? (int) $asked['days'] : null,
            isset($asked['most']) ? (int) $asked['most'] : null,
            $without,
            $seconds,
            $currency !== null && isset($asked['ceiling']) ? Money::of((string) $asked['ceiling'], $currency) : null,
        );
    }
}
