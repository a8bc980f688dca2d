<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Illuminate\Validation\ValidationException;
use Magpie\Core\Layout\Arrangement;
use Magpie\Core\Layout\Arranger;
use Magpie\Core\Layout\CannotArrange;
use Magpie\Core\Layout\Views\Gltf;
use Magpie\Core\Layout\Views\Picture;
use Magpie\Core\Layout\Views\Positions;
use Magpie\Core\Layout\Views\Sheet;
use Magpie\Core\Layout\Views\Svg;
use Magpie\Core\Layout\Views\View;

/** Where everything sits, to look at, to arrange and to take away. */
final class PictureController
{
    public function show(Build $build): JsonResponse
    {
        return new JsonResponse((new Picture(Document::of($build)->survey()))->toArray());
    }

    /** Proposals for what stands in a cabinet or zone; nothing is kept. */
    public function arrangements(Build $build, string $place): JsonResponse
    {
        try {
            $arranger = new Arranger(Document::of($build)->survey(), $place);
        } catch (CannotArrange $e) {
            throw ValidationException::withMessages(['place' => $e->getMessage()]);
        }

        return new JsonResponse([
            'proposals' => array_map(static fn (Arrangement $a): array => $a->toArray(), $arranger->proposals()),
            'wall' => $arranger->wall(),
            'without' => $arranger->without,
        ]);
    }

    public function view(Build $build, string $view): Response
    {
        return self::file(
            $build,
            Svg::of(Document::of($build)->survey(), View::tryFrom($view) ?? abort(404)),
            "{$view}.svg",
            'image/svg+xml',
        );
    }

    public function gltf(Build $build): Response
    {
        return self::file(
            $build,
            json_encode(Gltf::of(Document::of($build)->survey()), JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES),
            'machine.gltf',
            'model/gltf+json',
        );
    }

    public function positions(Build $build): Response
    {
        return self::file(
            $build,
            Positions::csv(Document::of($build)->survey()),
            'positions.csv',
            'text/csv; charset=UTF-8',
        );
    }

    /** A panel or back wall at 1:1, as SVG or DXF. */
    public function sheet(Build $build, string $place, string $format): Response
    {
        $sheet =
            Sheet::of(Document::of($build)->survey(), $place) ??
            abort(404, 'Nothing stands on that, so there is nothing to drill.');

        return $format === 'dxf'
            ? self::file($build, $sheet->dxf(), "{$place}.dxf", 'image/vnd.dxf')
            : self::file($build, $sheet->svg(), "{$place}.svg", 'image/svg+xml');
    }

    private static function file(Build $build, string $content, string $name, string $type): Response
    {
        return new Response($content, 200, [
            'Content-Type' => $type,
            'Content-Disposition' => "attachment; filename=\"{$build->slug}-{$name}\"",
        ]);
    }
}
