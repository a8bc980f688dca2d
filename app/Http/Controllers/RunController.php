<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\ValidationException;
use Magpie\Core\Commissioning\Expectations;
use Magpie\Core\Commissioning\Ladder;
use Magpie\Core\Machine\Running\Alignment;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Simulation\SimulatedInstrument;
use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\CannotAlign;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Methods;

/** From the first power to years of use. */
final class RunController
{
    /** The rungs of the power-up, with what keeps each closed. */
    public function ladder(Build $build): JsonResponse
    {
        $inspection = Document::of($build)->inspection();

        return new JsonResponse((new Ladder($inspection->survey, $inspection->open()))->toArray());
    }

    /** What a simulated instrument reads where something is expected. */
    public function simulated(Build $build, string $key): JsonResponse
    {
        // A made-up reading in the record of a real machine would be one for ever.
        abort_unless($build->workshop?->demo === true, 403, 'Readings are simulated in the demo only.');
        $expected =
            Expectations::of(Document::of($build)->survey())->all()[$key] ?? abort(404, 'Nothing is expected there.');
        $right =
            $expected->what->value === 'bond'
                ? Quantity::of(0.04, 'Ω')
                : $expected->nominal ?? ($expected->low ?? abort(404, 'Nobody knows what should be there.'));
        $instrument = new SimulatedInstrument(crc32($build->slug));
        $value = $instrument->read($key, $expected->what, $right);

        return new JsonResponse([
            'value' => $value->text(),
            'instrument' => SimulatedInstrument::name($expected->what),
            'accuracy' => Quantity::of(
                round(
                    max(0.001, abs($value->in($value->unit->symbol)) * SimulatedInstrument::accuracy($expected->what)),
                    4,
                ),
                $value->unit->symbol,
            )->text(),
        ]);
    }

    /** The alignments that can be worked, and what those of this build come to. */
    public function alignments(Build $build): JsonResponse
    {
        return new JsonResponse([
            'methods' => array_values(
                array_map(
                    static fn (Method $method): array => [
                        'key' => $method->key(),
                        'title' => $method->title(),
                        'group' => Methods::group($method->key()),
                        'about' => $method->about(),
                        'asks' => array_map(static fn (Ask $ask): array => $ask->toArray(), $method->asks()),
                    ],
                    Methods::all(),
                ),
            ),
            'done' => array_values(array_map(self::outcome(...), Document::of($build)->machine()->alignments)),
        ]);
    }

    /**
     * @return array{ref: string, outcome: array<string, mixed>|null, trouble: string|null}
     */
    private static function outcome(Alignment $alignment): array
    {
        try {
            $outcome = Methods::work($alignment->kind, $alignment->given);

            return ['ref' => $alignment->ref, 'outcome' => $outcome->toArray(), 'trouble' => null];
        } catch (CannotAlign $e) {
            return ['ref' => $alignment->ref, 'outcome' => null, 'trouble' => "{$e->field}: {$e->getMessage()}"];
        }
    }

    /** What some readings come to, before they are kept. */
    public function tryAlignment(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate([
            'kind' => ['required', 'string', 'max:40'],
            'given' => ['present', 'array', 'max:20'],
            'given.*' => ['nullable', 'string', 'max:4000'],
        ]);
        try {
            return new JsonResponse(
                Methods::work(
                    $asked['kind'],
                    array_filter($asked['given'], static fn (mixed $text): bool => is_string($text) && $text !== ''),
                )->toArray(),
            );
        } catch (CannotAlign $e) {
            throw ValidationException::withMessages([
                $e->field === 'kind' ? 'kind' : "given.{$e->field}" => $e->getMessage(),
            ]);
        }
    }

    /** Readings of an alignment by a simulated instrument. */
    public function simulatedGiven(Build $build, string $kind): JsonResponse
    {
        abort_unless($build->workshop?->demo === true, 403, 'Readings are simulated in the demo only.');
        $method = Methods::all()[$kind] ?? abort(404, 'There is no such alignment.');

        return new JsonResponse(['given' => (object) (new SimulatedInstrument(crc32($build->slug)))->given($method)]);
    }
}
