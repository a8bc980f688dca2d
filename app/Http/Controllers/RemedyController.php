<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use App\Models\LibraryPart;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Remedies\CheapestSet;
use Magpie\Core\Remedies\RemedySearch;

/** What would put findings right. Nothing is changed here: a remedy is applied as any edit is. */
final class RemedyController
{
    /** The cheapest fixes for a finding, each tried on the whole build with the workshop's library at hand. */
    public function show(Build $build, string $key): JsonResponse
    {
        $document = Document::of($build);
        $standing = $document->standing();
        $finding = $standing->findings()[$key] ?? abort(404, 'This build has no such finding any more.');
        $shelf = LibraryPart::query()
            ->where('workshop_id', $build->workshop_id)
            ->whereIn('family', RemedySearch::families(Rules::inspector(), $document->machine(), $finding))
            ->orderBy('id')
            ->limit(500)
            ->get();

        return new JsonResponse((new RemedySearch($standing, LibraryPart::readable($shelf)))->for($finding));
    }

    /** The cheapest set out of remedies that were found for single findings. */
    public function together(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate([
            'keys' => ['required', 'array', 'min:1', 'max:60'],
            'keys.*' => ['string', 'max:200'],
            'offers' => ['required', 'array', 'max:400'],
            'offers.*.says' => ['required', 'string', 'max:400'],
            'offers.*.cost' => ['required', 'numeric'],
            'offers.*.buys' => ['required', 'boolean'],
            'offers.*.cured' => ['required', 'array', 'max:400'],
            'offers.*.cured.*' => ['string', 'max:200'],
            'offers.*.changes' => ['required', 'array', 'max:60'],
        ]);
        $offers = array_map(
            static fn (array $o): array => [
                'says' => $o['says'],
                'changes' => array_values($o['changes']),
                'cured' => array_values($o['cured']),
                'cost' => (float) $o['cost'],
                'buys' => (bool) $o['buys'],
            ],
            array_values($asked['offers']),
        );

        return new JsonResponse(
            (new CheapestSet(Document::of($build)->standing()))->of(array_values($asked['keys']), $offers),
        );
    }
}
