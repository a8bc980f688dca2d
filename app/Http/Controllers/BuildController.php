<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Builds\Workspace;
use App\Models\Build;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\PartsList\PartsListExport;
use Symfony\Component\HttpFoundation\StreamedResponse;

final class BuildController
{
    public function index(Request $request): JsonResponse
    {
        /** @var User $user */
        $user = $request->user();
        $workshops = $user->workshops()->with(['builds' => fn ($q) => $q->orderBy('name')])->orderBy('name')->get();

        return new JsonResponse($workshops->map(static fn (Workshop $w): array => [
            'id' => $w->id,
            'name' => $w->name,
            'builds' => $w->builds->map(static function (Build $b): array {
                $overview = json_decode(Document::overview($b), true, 64, JSON_THROW_ON_ERROR);

                return ['id' => $b->id, 'name' => $b->name, 'kind' => $b->kind, 'purpose' => $b->getAttribute('purpose'), 'changed' => $b->updated_at?->toIso8601String()]
                    + array_intersect_key($overview, array_flip(['tally', 'money', 'supply', 'forecast', 'power_forbidden', 'open_faults']));
            })->all(),
        ])->all());
    }

    /** A new build: from a build file, or empty with a name. */
    public function store(Request $request): JsonResponse
    {
        /** @var User $user */
        $user = $request->user();
        $data = $request->validate([
            'workshop' => ['required', 'integer'],
            'file' => ['sometimes', 'string', 'max:20000000'],
            'name' => ['required_without:file', 'string', 'max:120'],
            'kind' => ['required_without:file', 'string', 'max:60'],
            'currency' => ['required_without:file', 'string', 'regex:/^[A-Z]{3}$/'],
        ], ['currency.regex' => 'A currency is three capital letters, such as GBP.']);
        $workshop = Workshop::query()->whereIn('id', $user->workshops()->pluck('workshops.id'))->findOrFail((int) $data['workshop']);
        $machine = isset($data['file'])
            ? BuildFile::read($data['file'])
            : BuildFile::build(['magpie' => BuildFile::VERSION, 'build' => ['name' => $data['name'], 'kind' => $data['kind'], 'currency' => $data['currency']]]);

        return new JsonResponse(['id' => Workspace::add($workshop, $machine)->id], 201);
    }

    public function show(Build $build): Response
    {
        $overview = Document::overview($build);

        return self::jsonText('{"id":'.$build->id.',"workshop":'.$build->workshop_id.',"revision":'.$build->revision.',"document":'.Document::json(Document::of($build)->data).',"overview":'.$overview.'}');
    }

    public function destroy(Build $build): Response
    {
        Workspace::remove($build);

        return new Response(status: 204);
    }

    public function revision(Build $build): JsonResponse
    {
        return new JsonResponse(['revision' => $build->revision]);
    }

    public function file(Build $build): Response
    {
        return new Response(BuildFile::write(Document::of($build)->machine()), 200, [
            'Content-Type' => 'application/json', 'Content-Disposition' => "attachment; filename=\"{$build->slug}.magpie.json\"",
        ]);
    }

    public function partsList(Build $build): StreamedResponse
    {
        $machine = Document::of($build)->machine();

        return new StreamedResponse(static function () use ($machine): void {
            foreach (PartsListExport::lines($machine) as $line) {
                echo $line;
            }
        }, 200, ['Content-Type' => 'text/csv; charset=UTF-8', 'Content-Disposition' => "attachment; filename=\"{$build->slug}-parts.csv\""]);
    }

    public static function jsonText(string $json, int $status = 200): Response
    {
        return new Response($json, $status, ['Content-Type' => 'application/json']);
    }
}
