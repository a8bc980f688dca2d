<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Builds\Editor;
use App\Http\Changes;
use App\Models\Build;
use App\Models\Edit;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

final class EditController
{
    public function store(Request $request, Build $build): Response
    {
        $data = $request->validate(['key' => ['required', 'uuid'], 'label' => ['required', 'string', 'max:200']]);
        $changes = Changes::read($request->json('changes'));

        return BuildController::jsonText(
            $this->editor($request, $build)->apply($data['key'], $data['label'], $changes)->json(),
        );
    }

    public function undo(Request $request, Build $build): Response
    {
        return $this->reverted($request, $build, false);
    }

    public function redo(Request $request, Build $build): Response
    {
        return $this->reverted($request, $build, true);
    }

    public function history(Build $build): JsonResponse
    {
        $edits = $build->edits()->with('user')->orderByDesc('id')->limit(200)->get();

        return new JsonResponse(
            $edits
                ->map(
                    static fn (Edit $e): array => [
                        'id' => $e->id,
                        'label' => $e->label,
                        'state' => $e->state,
                        'by' => $e->user->name ?? 'someone who left',
                        'at' => $e->made_at->toIso8601String(),
                        'revision' => $e->revision,
                    ],
                )
                ->all(),
        );
    }

    /** One edit with what it changed, before and after. */
    public function show(Build $build, int $edit): JsonResponse
    {
        $found = $build->edits()->findOrFail($edit);

        return new JsonResponse(
            $found
                ->changes()
                ->limit(200)
                ->get()
                ->map->only(['section', 'ref', 'before', 'after'])
                ->all(),
        );
    }

    private function reverted(Request $request, Build $build, bool $redo): Response
    {
        $result =
            $this->editor($request, $build)->revert($redo) ??
            abort(409, $redo ? 'There is nothing to redo.' : 'There is nothing of yours to undo.');

        return BuildController::jsonText($result->json());
    }

    private function editor(Request $request, Build $build): Editor
    {
        $seen = $request->input('seen');

        return new Editor($build, Access::user(), is_int($seen) ? $seen : null);
    }
}
