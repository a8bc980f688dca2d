<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Upload;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\ValidationException;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Simulation\SimulatedLog;
use Magpie\Core\Tuning\CannotTune;
use Magpie\Core\Tuning\Following;
use Magpie\Core\Tuning\HeaterLog;
use Magpie\Core\Tuning\Log;
use Magpie\Core\Tuning\Loop;
use Magpie\Core\Tuning\Note;
use Magpie\Core\Tuning\Resonances;
use Magpie\Core\Tuning\Sound;

/** Logs and sounds of a machine, worked into what to set. Nothing of them is kept but what the builder stores as a reading. */
final class TuneController
{
    /** The note of a plucked belt, from a sound or as it was heard, and the tension that belongs to it. */
    public function note(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate(
            [
                'sound' => ['required_without:frequency', 'file', 'max:'.Upload::LARGEST],
                'frequency' => ['nullable', 'string', 'max:40'],
                'span' => ['required', 'string', 'max:40'],
                'mass' => ['required', 'string', 'max:40'],
                'tension' => ['nullable', 'string', 'max:40'],
            ],
            ['sound.required_without' => 'Neither a sound nor a note is given.'],
        );
        $span = self::quantity('span', $asked['span'], Dimension::Length)->in('m');
        $mass = self::perMetre($asked['mass']);
        if ($span <= 0) {
            throw ValidationException::withMessages(['span' => 'must be more than nothing.']);
        }
        $heard = null;
        if (($asked['frequency'] ?? '') !== '' && $asked['frequency'] !== null) {
            $frequency = self::quantity('frequency', (string) $asked['frequency'], Dimension::Frequency)->in('Hz');
        } else {
            $heard = self::tuned('sound', static function () use ($request): Note {
                $sound = Sound::read((string) file_get_contents(Upload::of($request, 'sound')->getPathname()));

                return Note::heard($sound->samples, $sound->rate);
            });
            $frequency = $heard->frequency;
        }
        $tension = Note::tension($frequency, $span, $mass);
        $wanted =
            ($asked['tension'] ?? '') === '' || $asked['tension'] === null
                ? null
                : self::quantity('tension', (string) $asked['tension'], Dimension::Force)->in('N');

        return new JsonResponse([
            'frequency' => round($frequency, 2),
            'clearness' => $heard === null ? null : round($heard->clearness, 3),
            'doubt' => $heard?->doubt(),
            'says' => $heard?->says(),
            'tension' => round($tension, 2),
            'wanted' => $wanted === null ? null : round(Note::of($wanted, $span, $mass), 2),
            'off' => $wanted === null || $wanted <= 0 ? null : round($tension / $wanted - 1, 4),
        ]);
    }

    /** Resonances of a log of acceleration, with the filter that suits each. */
    public function spectrum(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate([
            'log' => ['required', 'file', 'max:'.Upload::LARGEST],
            'accepted' => ['nullable', 'numeric', 'between:0.01,2'],
        ]);

        return new JsonResponse(
            self::tuned(
                'log',
                static fn (): array => (new Resonances(
                    self::log($request),
                    (float) ($asked['accepted'] ?? 0.15),
                ))->toArray(),
            ),
        );
    }

    /** A heater's log worked into gains, with the overshoot each gives. */
    public function loop(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate([
            'log' => ['required', 'file', 'max:'.Upload::LARGEST],
            'step' => ['nullable', 'numeric', 'between:-100,100'],
            'target' => ['nullable', 'numeric', 'between:0,600'],
        ]);

        return new JsonResponse(
            self::tuned('log', static function () use ($request, $asked): array {
                $log = self::log($request);
                $target = isset($asked['target']) ? (float) $asked['target'] : null;

                $heater = HeaterLog::of($log, isset($asked['step']) ? (float) $asked['step'] : null);
                $found = Loop::of($heater)->toArray($target);

                return ['says' => [...$heater->says, ...$found['says']], 'taken' => $heater->taken] + $found;
            }),
        );
    }

    /** How far an axis lags behind what it was told. */
    public function following(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate([
            'log' => ['required', 'file', 'max:'.Upload::LARGEST],
            'limit' => ['nullable', 'numeric', 'min:0'],
        ]);

        return new JsonResponse(
            self::tuned('log', static function () use ($request, $asked): array {
                $log = self::log($request);
                $rows = [];
                foreach ($log->signals as $name => $error) {
                    $found = Following::of($log->time, $error, isset($asked['limit']) ? (float) $asked['limit'] : null);
                    $rows[] = ['signal' => (string) $name] + $found->toArray();
                }

                return ['signals' => $rows];
            }),
        );
    }

    /** A log or sound of a simulated instrument, as the file it would give. */
    public function simulated(Build $build, string $what): Response
    {
        abort_unless($build->workshop?->demo === true, 403, 'Logs are simulated in the demo only.');
        $log = new SimulatedLog(crc32($build->slug));
        [$type, $body] = match ($what) {
            'acceleration' => ['text/csv', $log->acceleration()],
            'heating' => ['text/csv', $log->heating()],
            'following' => ['text/csv', $log->following()],
            'note' => ['audio/wav', $log->note()],
            default => abort(404, 'There is no such instrument.'),
        };

        return new Response($body, 200, ['Content-Type' => $type]);
    }

    private static function log(Request $request): Log
    {
        return Log::read(Upload::lines($request, 'log'));
    }

    /**
     * @template T
     *
     * @param  callable(): T  $work
     * @return T
     */
    private static function tuned(string $field, callable $work): mixed
    {
        try {
            return $work();
        } catch (CannotTune $e) {
            throw ValidationException::withMessages([$field => ucfirst($e->getMessage())]);
        }
    }

    private static function quantity(string $field, string $text, Dimension $dimension): Quantity
    {
        try {
            return Quantity::parse($text, $dimension);
        } catch (CannotReadQuantity $e) {
            throw ValidationException::withMessages([$field => $e->getMessage()]);
        }
    }

    /** Mass of one metre in kg, written "8.4 g/m". */
    private static function perMetre(string $text): float
    {
        $mass = self::quantity('mass', (string) preg_replace('~\s*/\s*m\s*$~u', '', $text), Dimension::Mass)->in('kg');

        return $mass > 0 ? $mass : throw ValidationException::withMessages(['mass' => 'must be more than nothing.']);
    }
}
