<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Builds\Document;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\ValidationException;
use Magpie\Core\Machine\Build as Machine;
use Magpie\Core\Planning\BagLedger;
use Magpie\Core\Planning\Derivation;
use Magpie\Core\Planning\DocumentReport;
use Magpie\Core\Planning\Evening;
use Magpie\Core\Planning\FaultCase;
use Magpie\Core\Planning\LookAhead;
use Magpie\Core\Planning\OpenItems;
use Magpie\Core\Planning\Renewal;
use Magpie\Core\Planning\WayBack;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Work\Hours;
use Magpie\Core\Work\Learning;

/** The steps that follow from a model, what of them fits into an evening, the way back to a part, and what is still open. */
final class WorkController
{
    /** Builds of a workshop that are looked through for what was learnt. */
    private const BUILDS = 20;

    /** The steps that follow from the model. */
    public function derived(Build $build): JsonResponse
    {
        $machine = Document::of($build)->machine();
        $steps = new Derivation($machine);
        $derived = $steps->toArray() + ['renewal' => (new Renewal($machine, $steps))->toArray()];
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
        return new JsonResponse(OpenItems::of(Document::of($build)->machine(), now()->getTimestamp()));
    }

    /** What is written about the build, what of it holds, and what it says for another size. */
    public function documents(Build $build): JsonResponse
    {
        return new JsonResponse((new DocumentReport(Document::of($build)->machine()))->toArray());
    }

    /** What each bag should hold. */
    public function bags(Build $build): JsonResponse
    {
        return new JsonResponse((new BagLedger(Document::of($build)->machine()))->toArray());
    }

    /** Which screw of the list a screw in hand may be. */
    public function inHand(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate([
            'length' => ['required', 'string', 'max:40'],
            'thread' => ['nullable', 'string', 'max:40'],
            'head' => ['nullable', 'string', 'max:40'],
        ]);
        $ledger = new BagLedger(Document::of($build)->machine());
        foreach (['length' => $asked['length'], 'thread' => $asked['thread'] ?? ''] as $field => $text) {
            try {
                BagLedger::millimetres($text);
            } catch (CannotReadQuantity $e) {
                throw ValidationException::withMessages([$field => $e->getMessage()]);
            }
        }

        return new JsonResponse($ledger->inHand($asked['length'], $asked['thread'] ?? '', $asked['head'] ?? ''));
    }

    /** What each step closes in, and what it costs to have missed something. */
    public function lookAhead(Build $build): JsonResponse
    {
        return new JsonResponse((new LookAhead(Document::of($build)->machine()))->toArray());
    }

    /** A fault looked into. */
    public function fault(Request $request, Build $build, string $fault): JsonResponse
    {
        $machine = Document::of($build)->machine();
        abort_if(! isset($machine->faults[$fault]), 404, 'This build has no such fault.');
        $asked = $request->validate(['offset' => ['nullable', 'integer', 'min:-840', 'max:840']]);

        return new JsonResponse((new FaultCase($machine, $fault, (int) ($asked['offset'] ?? 0)))->toArray());
    }

    /** Where the hours went, and what was learnt from build to build of a workshop. */
    public function hours(Build $build): JsonResponse
    {
        $machine = Document::of($build)->machine();
        $hours = (new Hours($machine->steps, now()->getTimestamp()))->toArray();
        $hours['people'] = (object) $hours['people'];

        return new JsonResponse($hours + ['learnt' => $this->learnt($build, $machine)]);
    }

    /**
     * Other builds of the workshop that have done the same steps, with what a second one took beside a first.
     *
     * @return list<array{build: int, name: string, is_first: bool, steps: int, first: float, second: float, rate: float, third: float}>
     */
    private function learnt(Build $build, Machine $machine): array
    {
        $rows = [];
        $others = Access::builds()
            ->where('workshop_id', $build->workshop_id)
            ->whereKeyNot($build->id)
            ->orderByDesc('updated_at')
            ->limit(self::BUILDS)
            ->get();
        foreach ($others as $other) {
            $document = Document::of($other);
            if ($document->trouble() !== null) {
                continue;
            }
            $theirs = $document->machine()->steps;
            // The first is the one somebody began to work at first.
            $isFirst = Hours::begun($theirs) <= Hours::begun($machine->steps);
            $learnt = $isFirst
                ? Learning::between($theirs, $machine->steps)
                : Learning::between($machine->steps, $theirs);
            if ($learnt !== null) {
                $rows[] = ['build' => $other->id, 'name' => $other->name, 'is_first' => $isFirst] + $learnt->toArray();
            }
        }

        return $rows;
    }
}
