<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\CalendarFile;
use App\Builds\Document;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Magpie\Core\Planning\BuildDates;

/** When a build can be done, what to order by when, and what the end hangs on. */
final class DatesController
{
    public function show(Request $request, Build $build): JsonResponse
    {
        return new JsonResponse(self::of($request, $build)->toArray());
    }

    /** The same as a calendar (RFC 5545). */
    public function calendar(Request $request, Build $build): Response
    {
        return new Response((new CalendarFile($build->slug, self::of($request, $build)))->text(), 200, [
            'Content-Type' => 'text/calendar; charset=UTF-8',
            'Content-Disposition' => "attachment; filename=\"{$build->slug}.ics\"",
        ]);
    }

    private static function of(Request $request, Build $build): BuildDates
    {
        $asked = $request->validate(['seed' => ['sometimes', 'integer', 'min:0', 'max:2000000000']]);

        return new BuildDates(
            Document::of($build)->machine(),
            now()->format('Y-m-d'),
            (int) ($asked['seed'] ?? 1),
            4000,
        );
    }
}
