<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Magpie\Core\Planning\Derivation;
use Magpie\Core\Planning\Evening;
use Magpie\Core\Planning\OpenItems;
use Magpie\Core\Planning\WayBack;

/** The steps that follow from a model, what of them fits into an evening, the way back to a part, and what is still open. */
final class WorkController
{
    /** The steps that follow from the model. */
    public function derived(Build $build): JsonResponse
    {
        $derived = (new Derivation(Document::of($build)->machine()))->toArray();
        // An empty map is an object on the wire, not a list.
        $derived['short'] = (object) $derived['short'];
        foreach ($derived['steps'] as $i => $step) {
            $derived['steps'][$i]['uses'] = (object) $step['uses'];
        }

        return new JsonResponse($derived);
    }

    /** What fits into so many hours. */
    public function evening(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate(['hours' => ['required', 'numeric', 'min:0.1', 'max:24']]);
        $evening = new Evening(Document::of($build)->machine(), (float) $asked['hours'], now()->toDateTimeImmutable());

        return new JsonResponse($evening->toArray());
    }

    /** What comes off to reach a part. */
    public function wayBack(Build $build, string $need): JsonResponse
    {
        $machine = Document::of($build)->machine();
        abort_if(! isset($machine->needs[$need]), 404, 'This build has no such need.');

        return new JsonResponse((new WayBack($machine, $need))->toArray());
    }

    /** What is not as it is meant to stay. */
    public function open(Build $build): JsonResponse
    {
        return new JsonResponse(OpenItems::of(Document::of($build)->machine()));
    }
}
