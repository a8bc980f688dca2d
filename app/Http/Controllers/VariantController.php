<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Builds\Document;
use App\Builds\Workspace;
use App\Models\Build;
use DateTimeImmutable;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Magpie\Core\Choice\VariantDiff;

/** Builds forked from one another, and two of them line by line. */
final class VariantController
{
    public function index(Build $build): JsonResponse
    {
        $related = Access::builds()
            ->where('workshop_id', $build->workshop_id)
            ->where('id', '<>', $build->id)
            ->where(
                static fn ($q) => $q
                    ->where('forked_from', $build->id)
                    ->orWhere('id', $build->forked_from ?? 0)
                    ->when(
                        $build->forked_from !== null,
                        static fn ($q) => $q->orWhere('forked_from', $build->forked_from),
                    ),
            )
            ->orderBy('name')
            ->get();

        return new JsonResponse(
            $related
                ->map(
                    static fn (Build $b): array => [
                        'id' => $b->id,
                        'name' => $b->name,
                        'relation' => $b->id === $build->forked_from ? 'origin' : 'fork',
                        'changed' => $b->updated_at?->toIso8601String(),
                    ],
                )
                ->all(),
        );
    }

    public function store(Request $request, Build $build): JsonResponse
    {
        $data = $request->validate(['name' => ['required', 'string', 'max:120']]);
        $machine = Document::of($build)->machine();
        $fork = DB::transaction(static function () use ($build, $machine, $data): Build {
            $fork = Workspace::begin(
                Access::buildingIn($build->workshop_id),
                $machine->with(['plan' => $machine->plan->named($data['name'])]),
                Access::user(),
            );
            Workspace::copyPhotos($build, $fork);
            $fork->update(['forked_from' => $build->id, 'forked_at' => $build->revision]);

            return $fork;
        });

        return new JsonResponse(['id' => $fork->id], 201);
    }

    public function show(Build $build, Build $other): JsonResponse
    {
        return new JsonResponse(
            (new VariantDiff(
                Document::of($build)->inspection(),
                Document::of($other)->inspection(),
                new DateTimeImmutable,
            ))->toArray(),
        );
    }
}
