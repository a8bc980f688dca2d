<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Magpie\Core\Electrical\Harness;
use Magpie\Core\Electrical\Netlist;
use Magpie\Core\Electrical\WiringMap;
use Magpie\Core\Inspection\Bench;

/** The wiring as it is drawn, as it is made, and as another program solves it. */
final class WiringController
{
    public function show(Build $build): JsonResponse
    {
        return new JsonResponse((new WiringMap(Document::of($build)->inspection()))->toArray());
    }

    public function harness(Build $build): JsonResponse
    {
        return new JsonResponse((new Harness(Document::of($build)->machine()))->toArray());
    }

    public function harnessCsv(Build $build): Response
    {
        $lines = (new Harness(Document::of($build)->machine()))->lines();

        return new Response(implode('', [...$lines]), 200, ['Content-Type' => 'text/csv; charset=UTF-8', 'Content-Disposition' => "attachment; filename=\"{$build->slug}-harness.csv\""]);
    }

    public function netlist(Build $build, string $scenario): Response
    {
        $circuits = (new Bench(Document::of($build)->machine()))->circuits();
        foreach ($circuits->scenarios() as $one) {
            if ($one->ref === $scenario) {
                return new Response((new Netlist($circuits))->of($one), 200, ['Content-Type' => 'text/plain; charset=UTF-8', 'Content-Disposition' => "attachment; filename=\"{$build->slug}-{$scenario}.cir\""]);
            }
        }
        abort(404, 'This build has no such scenario.');
    }
}
