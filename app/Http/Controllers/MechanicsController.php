<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use App\Models\LibraryPart;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\ValidationException;
use Magpie\Core\Machine\BodyMaterial;
use Magpie\Core\Mechanical\Cutting;
use Magpie\Core\Mechanical\Views\BeltLoop;
use Magpie\Core\Mechanical\Views\CouplingPicker;
use Magpie\Core\Mechanical\Views\JointLedger;
use Magpie\Core\Motion\Views\MotionLedger;
use Magpie\Core\Motion\Views\MotorPicker;
use Magpie\Core\Motion\Views\TurningParts;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Materials;
use Magpie\Core\Thermal\Views\HeatLedger;

/** How it moves, what holds it together, where it gets warm; and what to pick for it. */
final class MechanicsController
{
    public function motion(Build $build): JsonResponse
    {
        return new JsonResponse((new MotionLedger(Document::of($build)->inspection()->survey))->toArray());
    }

    /** Motors of the workshop's library tried on one axis. */
    public function motors(Build $build, string $axis): JsonResponse
    {
        $standing = Document::of($build)->standing();
        $held = $standing->build()->axes[$axis] ?? abort(404, 'There is no such axis.');
        $shelf = LibraryPart::query()
            ->where('workshop_id', $build->workshop_id)
            ->where('family', 'stepper_motor')
            ->orderBy('id')
            ->limit(1000)
            ->get();

        $ranked = (new MotorPicker($standing, $held))->rank(LibraryPart::readable($shelf));
        $ids = $shelf->pluck('id', 'ref');

        return new JsonResponse(
            [
                'motors' => array_map(
                    static fn (array $m): array => $m + ['library' => $ids[$m['ref']]],
                    $ranked['motors'],
                ),
            ] + $ranked,
        );
    }

    public function joints(Build $build): JsonResponse
    {
        return new JsonResponse((new JointLedger(Document::of($build)->inspection()))->toArray());
    }

    public function heat(Build $build): JsonResponse
    {
        return new JsonResponse((new HeatLedger(Document::of($build)->inspection()))->toArray());
    }

    /** A belt to whole teeth; it needs no build. */
    public function belt(Request $request): JsonResponse
    {
        $asked = $request->validate([
            'pitch' => ['required', 'numeric', 'between:0.5,20'],
            'one' => ['required', 'integer', 'between:6,400'],
            'other' => ['required', 'integer', 'between:6,400'],
            'centre' => ['required', 'numeric', 'between:1,10000'],
        ]);
        $loop = BeltLoop::of(
            (float) $asked['pitch'],
            (int) $asked['one'],
            (int) $asked['other'],
            (float) $asked['centre'],
        );

        return new JsonResponse(
            $loop ??
                throw ValidationException::withMessages([
                    'centre' => 'At this distance the two pulleys overlap; take the shafts further apart.',
                ]),
        );
    }

    /** Inertia of shafts, pulleys and nuts, segment by segment. */
    public function turning(Request $request): JsonResponse
    {
        $asked = $request->validate([
            'segments' => ['required', 'array', 'min:1', 'max:20'],
            'segments.*.outer' => ['required', 'numeric', 'between:0.5,1000'],
            'segments.*.bore' => ['required', 'numeric', 'min:0', 'lt:segments.*.outer'],
            'segments.*.length' => ['required', 'numeric', 'between:0.1,5000'],
            'segments.*.material' => ['required', 'string', 'in:'.implode(',', BodyMaterial::words())],
        ]);
        $found = TurningParts::of(
            array_values(
                array_map(
                    static fn (array $s): array => [
                        'outer' => (float) $s['outer'],
                        'bore' => (float) $s['bore'],
                        'length' => (float) $s['length'],
                        'material' => $s['material'],
                    ],
                    $asked['segments'],
                ),
            ),
        );

        return new JsonResponse([
            'inertia' => round($found['inertia']->in('kg cm²'), 5),
            'mass' => round($found['mass']->in('kg'), 4),
            'parts' => $found['parts'],
        ]);
    }

    /** Couplings of the library for two shafts. */
    public function couplings(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate([
            'one' => ['required', 'numeric', 'between:1,100'],
            'other' => ['required', 'numeric', 'between:1,100'],
            'torque' => ['nullable', 'numeric', 'between:0,1000'],
        ]);
        $shelf = LibraryPart::query()
            ->where('workshop_id', $build->workshop_id)
            ->where('family', 'coupling')
            ->orderBy('id')
            ->limit(500)
            ->get();

        return new JsonResponse(
            CouplingPicker::of(
                LibraryPart::readable($shelf),
                (float) $asked['one'],
                (float) $asked['other'],
                (float) ($asked['torque'] ?? 0),
            ),
        );
    }

    /** Feed, power and rim speed of a cut. */
    public function cutting(Request $request): JsonResponse
    {
        $asked = $request->validate([
            'diameter' => ['required', 'numeric', 'between:0.1,300'],
            'flutes' => ['required', 'integer', 'between:1,60'],
            'speed' => ['required', 'numeric', 'between:10,100000'],
            'chip' => ['required', 'numeric', 'between:0.001,2'],
            'step_over' => ['required', 'numeric', 'between:1,100'],
            'depth' => ['required', 'numeric', 'between:0.01,100'],
            'material' => ['required', 'string', 'in:'.implode(',', array_keys(Materials::cuttingEnergies()))],
        ]);

        return new JsonResponse(
            Cutting::figures(
                diameter: Quantity::of((float) $asked['diameter'], 'mm'),
                flutes: (int) $asked['flutes'],
                speed: Quantity::of((float) $asked['speed'], 'rpm'),
                chip: Quantity::of((float) $asked['chip'], 'mm'),
                stepOver: Quantity::ratio((float) $asked['step_over'] / 100),
                depth: Quantity::of((float) $asked['depth'], 'mm'),
                material: $asked['material'],
            ),
        );
    }
}
