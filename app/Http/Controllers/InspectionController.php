<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Builds\Judging;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Views\PowerLedger;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Simulation\BenchMeter;

final class InspectionController
{
    public function overview(Build $build): Response
    {
        return BuildController::jsonText('{"revision":'.$build->revision.Judging::of($build)->json().'}');
    }

    /** One finding with its working. */
    public function finding(Build $build, string $key): JsonResponse
    {
        $finding =
            Rules::inspector()->find(Document::of($build)->machine(), $key) ??
            abort(404, 'This build has no such finding any more.');

        return new JsonResponse($finding->toArray());
    }

    public function power(Build $build): JsonResponse
    {
        return new JsonResponse((new PowerLedger(Document::of($build)->survey()))->toArray());
    }

    public function money(Build $build): JsonResponse
    {
        return new JsonResponse((new MoneyLedger(Document::of($build)->machine()))->toArray());
    }

    /** A reading off the simulated bench instrument, for trying a step without one. */
    public function reading(Build $build, string $step): JsonResponse
    {
        // A made-up reading in the record of a real machine would be one for ever.
        abort_unless($build->workshop?->demo === true, 403, 'Readings are simulated in the demo only.');
        $found = Document::of($build)->machine()->steps[$step] ?? abort(404, 'There is no such step.');
        $check = $found->check ?? abort(404, 'This step has nothing to measure.');

        return new JsonResponse([
            'value' => (new BenchMeter(crc32("{$build->slug}/{$step}")))->read($check)->text(),
            'simulated' => true,
        ]);
    }
}
