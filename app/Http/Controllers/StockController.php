<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Accounts\Role;
use App\Builds\CannotEdit;
use App\Builds\Document;
use App\Builds\Editor;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Magpie\Core\Buying\Stock;
use Magpie\Core\Machine\Build as Machine;

/** What other builds of the workshop have over, and taking it. */
final class StockController
{
    /** Builds of a workshop that are looked through, those changed last first. */
    private const MOST = 40;

    public function index(Build $build): JsonResponse
    {
        $others = [];
        $rows = Access::builds()
            ->where('workshop_id', $build->workshop_id)
            ->whereKeyNot($build->id)
            // A variant has the same pieces as what it was drawn from: they are not there twice.
            ->whereNull('forked_from')
            ->orderByDesc('updated_at')
            ->limit(self::MOST)
            ->get();
        foreach ($rows as $other) {
            $document = Document::of($other);
            if ($other->id !== $build->forked_from && $document->trouble() === null) {
                $others[$other->id] = $document->machine();
            }
        }

        return new JsonResponse(Stock::spare(Document::of($build)->machine(), $others));
    }

    /** Pieces go from one build to another: both are changed, or neither. */
    public function take(Request $request, Build $build): Response
    {
        $asked = $request->validate([
            'key' => ['required', 'uuid'],
            'part' => ['required', 'string', 'max:64'],
            'from' => ['required', 'integer'],
            'there' => ['required', 'string', 'max:64'],
            'pieces' => ['required', 'integer', 'min:1', 'max:1000000'],
        ]);
        $other = Access::builds()
            ->where('workshop_id', $build->workshop_id)
            ->whereKeyNot($build->id)
            ->findOrFail((int) $asked['from']);
        abort_unless(
            Access::inBuild($other)?->mayWhat(Role::Builder) === true,
            403,
            "You may read {$other->name}, not take pieces from it.",
        );
        if (
            ! Stock::isSame(
                Document::of($build)->machine()->part($asked['part']),
                Document::of($other)->machine()->part($asked['there']),
            )
        ) {
            throw CannotEdit::at('/there', 'these are not the same part.');
        }
        $user = Access::user();
        $pieces = (int) $asked['pieces'];
        $give = static fn () => (new Editor($other, $user))->apply(
            $asked['key'],
            "{$pieces} pieces go to {$build->name}",
            static fn (Machine $machine): array => Stock::giving($machine, $asked['there'], $pieces) ??
                throw CannotEdit::at('/pieces', "{$other->name} has not so many over any more."),
        );
        $take = static fn () => (new Editor($build, $user))->apply(
            $asked['key'],
            "{$pieces} pieces from {$other->name}",
            static fn (Machine $machine): array => Stock::taking($machine, $asked['part'], $pieces) ??
                throw CannotEdit::at('/pieces', "{$build->name} does not want so many any more."),
        );
        $result = DB::transaction(static function () use ($build, $other, $give, $take) {
            // Always the older build first, so that two who take from each other do not wait for one another.
            if ($other->id < $build->id) {
                $give();

                return $take();
            }
            $taken = $take();
            $give();

            return $taken;
        }, 4);

        return BuildController::jsonText($result->json(), 201);
    }
}
