<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Cache;
use Magpie\Core\Advice\MeasureFirst;
use Magpie\Core\Choice\Facts;
use Magpie\Core\Routes\RouteComparison;
use Magpie\Core\Routes\TrueCost;
use Magpie\Core\Scope\BriefFigures;
use Magpie\Core\Scope\Envelope;
use Magpie\Core\Scope\Scaling;

/** What follows from a brief and from the routes of a build. */
final class ScopeController
{
    public function show(Build $build): JsonResponse
    {
        $machine = Document::of($build)->machine();
        $area = array_map(static fn (string $along): ?string => (new Envelope($machine))->workArea($along)?->text(), [
            'x' => 'x',
            'y' => 'y',
            'z' => 'z',
        ]);

        return new JsonResponse([
            'figures' => (new BriefFigures($machine))->toArray(),
            'scaling' => (new Scaling($machine))->toArray(),
            'work_area' => $area,
        ]);
    }

    public function routes(Build $build): JsonResponse
    {
        $comparison = new RouteComparison(Document::of($build)->machine());

        return new JsonResponse($comparison->toArray() + ['facts' => (object) Facts::ofRoutes($comparison->ledgers)]);
    }

    public function trueCost(Build $build): JsonResponse
    {
        return new JsonResponse((new TrueCost(Document::of($build)->machine()))->toArray());
    }

    /** Judging every value at both ends takes a while on a large build; the answer of a revision is kept. */
    public function measureFirst(Build $build): JsonResponse
    {
        return new JsonResponse(
            Cache::remember(
                "measure-first/{$build->id}/{$build->revision}",
                3600,
                static fn (): array => (new MeasureFirst(Document::of($build)->standing()))->toArray(),
            ),
        );
    }
}
