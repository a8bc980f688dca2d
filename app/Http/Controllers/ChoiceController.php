<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Builds\Document;
use App\Builds\Editor;
use App\Library\Adoption;
use App\Models\Build;
use App\Models\LibraryPart;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Magpie\Core\Choice\Comparison;
use Magpie\Core\Format\Adopting;
use Magpie\Core\Machine\Build as Machine;

/** The candidates of a need. */
final class ChoiceController
{
    public function comparison(Build $build, string $need): JsonResponse
    {
        $document = Document::of($build);
        abort_if(! isset($document->machine()->needs[$need]), 404, 'This build has no such need.');

        return new JsonResponse((new Comparison($document->standing(), $need))->toArray());
    }

    /** A part of the library straight into the build, as a place of its own. */
    public function place(Request $request, Build $build): Response
    {
        $data = $request->validate([
            'library' => ['required', 'integer'],
            'role' => ['sometimes', 'nullable', 'string', 'max:200'],
            'pieces' => ['sometimes', 'integer', 'min:1', 'max:100000'],
            'key' => ['required', 'uuid'],
        ]);
        $item = LibraryPart::query()->where('workshop_id', $build->workshop_id)->findOrFail((int) $data['library']);
        $result = (new Editor($build, Access::user()))->apply(
            $data['key'],
            "{$item->name} added from the library",
            static fn (Machine $machine): array => Adopting::place(
                $machine,
                $item->read(),
                (int) ($data['pieces'] ?? 1),
                trim($data['role'] ?? '') ?: null,
            ),
        );

        return BuildController::jsonText($result->json(), 201);
    }

    public function adopt(Request $request, Build $build, string $need): Response
    {
        $data = $request->validate(['library' => ['required', 'integer'], 'key' => ['required', 'uuid']]);
        $item = LibraryPart::query()->where('workshop_id', $build->workshop_id)->findOrFail((int) $data['library']);
        $role = Document::of($build)->machine()->roleOf($need);
        // The list of candidates is taken up under the lock: whoever adopts another at the same time loses nothing.
        $result = (new Editor($build, Access::user()))->apply(
            $data['key'],
            "Take {$item->name} from the library for {$role}",
            static fn (Machine $machine): array => Adoption::changes($machine, $need, $item),
        );

        return BuildController::jsonText($result->json(), 201);
    }
}
