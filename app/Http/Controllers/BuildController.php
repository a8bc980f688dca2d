<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Accounts\EventKind;
use App\Accounts\EventLog;
use App\Builds\Document;
use App\Builds\Judging;
use App\Builds\Listing;
use App\Builds\Starters;
use App\Builds\Workspace;
use App\Models\Build;
use App\Models\Workshop;
use App\Resident\Client;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\ValidationException;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\PartsList\PartsListExport;
use Symfony\Component\HttpFoundation\StreamedResponse;

final class BuildController
{
    /** The builds of each workshop with what was judged of them last: nothing is read or judged for a list. */
    public function index(): JsonResponse
    {
        $builds = Listing::of(Access::builds(), Access::user()?->id);
        $roles = Access::workshopRoles();
        // Those one is of, empty or not; and those one sees a build of.
        $workshops = Workshop::query()
            ->whereIn('id', array_keys($roles + $builds))
            ->orderBy('name')
            ->get();

        return new JsonResponse(
            $workshops
                ->map(
                    static fn (Workshop $w): array => [
                        'id' => $w->id,
                        'name' => $w->name,
                        'role' => $roles[$w->id] ?? null,
                        'builds' => $builds[$w->id] ?? [],
                    ],
                )
                ->all(),
        );
    }

    /** A new build: from a build file, or empty with a name. */
    public function store(Request $request): JsonResponse
    {
        $data = $request->validate(
            [
                'workshop' => ['required', 'integer'],
                'file' => ['sometimes', 'string', 'max:20000000'],
                'name' => ['required_without:file', 'string', 'max:120'],
                'kind' => ['required_without:file', 'string', 'max:60'],
                'currency' => ['required_without:file', 'string', 'regex:/^[A-Z]{3}$/'],
                'starter' => ['sometimes', 'nullable', 'string', 'max:64'],
            ],
            ['currency.regex' => 'A currency is three capital letters, such as GBP.'],
        );
        $workshop = Access::buildingIn((int) $data['workshop']);
        $machine = isset($data['file'])
            ? BuildFile::read($data['file'])
            : BuildFile::build(
                self::begun($data) ?? [
                    'magpie' => BuildFile::VERSION,
                    'build' => [
                        'name' => $data['name'],
                        'kind' => $data['kind'],
                        'currency' => $data['currency'],
                        'stage' => 'planned',
                    ],
                ],
            );

        return new JsonResponse(['id' => Workspace::begin($workshop, $machine, Access::user())->id], 201);
    }

    /** What a build may begin with. */
    public function starters(): JsonResponse
    {
        return new JsonResponse(Starters::all());
    }

    /**
     * @param  array{name: string, kind: string, currency: string, starter?: string|null, ...}  $data
     * @return array<string, mixed>|null null for an empty one
     */
    private static function begun(array $data): ?array
    {
        $starter = $data['starter'] ?? null;

        return $starter === null
            ? null
            : Starters::begun($starter, $data['name'], $data['kind'], $data['currency']) ??
                    throw ValidationException::withMessages(['starter' => 'There is no such starter.']);
    }

    public function show(Build $build): Response
    {
        $document = Document::of($build);
        $judging = Judging::of($build, $document);
        if (! $document->isLarge() && Access::visitor() === null) {
            Client::prime($build->id, $build->revision, $document->text());
        }

        return self::jsonText(
            '{"id":'.
                $build->id.
                ',"workshop":'.
                $build->workshop_id.
                ',"demo":'.
                json_encode($build->workshop?->demo === true).
                ',"role":'.
                json_encode(Access::inBuild($build)).
                ',"revision":'.
                $build->revision.
                ',"document":'.
                $document->text().
                $judging->json().
                '}',
        );
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
        EventLog::ofWorkshop(EventKind::Exported, $build->workshop_id, 'as a file', build: $build);

        return new Response(Document::of($build)->file(), 200, [
            'Content-Type' => 'application/json',
            'Content-Disposition' => "attachment; filename=\"{$build->slug}.magpie.json\"",
        ]);
    }

    public function partsList(Build $build): StreamedResponse
    {
        $machine = Document::of($build)->machine();

        return new StreamedResponse(
            static function () use ($machine): void {
                foreach (PartsListExport::lines($machine) as $line) {
                    echo $line;
                }
            },
            200,
            [
                'Content-Type' => 'text/csv; charset=UTF-8',
                'Content-Disposition' => "attachment; filename=\"{$build->slug}-parts.csv\"",
            ],
        );
    }

    public static function jsonText(string $json, int $status = 200): Response
    {
        return new Response($json, $status, ['Content-Type' => 'application/json']);
    }
}
