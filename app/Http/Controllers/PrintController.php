<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Magpie\Core\Planning\PrintReport;

/** What is printed, when and on which printer. */
final class PrintController
{
    public function queue(Build $build): JsonResponse
    {
        return new JsonResponse((new PrintReport(Document::of($build)->machine(), now()->format('Y-m-d')))->toArray());
    }
}
