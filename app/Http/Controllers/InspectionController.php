<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use App\Models\LibraryPart;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Magpie\Core\Electrical\PowerLedger;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Inspection\Bench;
use Magpie\Core\Inspection\Inspector;
use Magpie\Core\Library\Entry;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Remedies\Proposals;
use Magpie\Core\Remedies\RemedySearch;
use Magpie\Core\Simulation\BenchMeter;

final class InspectionController
{
    public function overview(Build $build): Response
    {
        return BuildController::jsonText('{"revision":'.$build->revision.',"overview":'.Document::overview($build).'}');
    }

    /** One finding with its working. */
    public function finding(Build $build, string $key): JsonResponse
    {
        $finding = Inspector::standard()->find(Document::of($build)->machine(), $key) ?? abort(404, 'This build has no such finding any more.');

        return new JsonResponse($finding->toArray());
    }

    /** The cheapest fixes for a finding, each tried on the whole build with the workshop's library at hand. */
    public function remedies(Build $build, string $key): JsonResponse
    {
        $document = Document::of($build);
        $inspection = $document->inspection();
        foreach ($inspection->findings as $finding) {
            if ($finding->key() === $key) {
                $shelf = LibraryPart::query()->where('workshop_id', $build->workshop_id)->whereIn('family', Proposals::families($document->machine(), $finding))->orderBy('id')->limit(500)->get();

                return new JsonResponse((new RemedySearch(Inspector::standard(), $inspection, array_values($shelf->map(static fn (LibraryPart $p): Entry => LibraryFile::read($p->entry))->all())))->for($finding));
            }
        }
        abort(404, 'This build has no such finding any more.');
    }

    public function power(Build $build): JsonResponse
    {
        return new JsonResponse((new PowerLedger(new Bench(Document::of($build)->machine())))->toArray());
    }

    public function money(Build $build): JsonResponse
    {
        return new JsonResponse((new MoneyLedger(Document::of($build)->machine()))->toArray());
    }

    /** A reading off the simulated bench instrument, for trying a step without one. */
    public function reading(Build $build, string $step): JsonResponse
    {
        $found = Document::of($build)->machine()->steps[$step] ?? abort(404, 'There is no such step.');
        $check = $found->check ?? abort(404, 'This step has nothing to measure.');

        return new JsonResponse(['value' => (new BenchMeter(crc32("{$build->slug}/{$step}")))->read($check)->text(), 'simulated' => true]);
    }
}
