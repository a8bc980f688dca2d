<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Accounts\EventKind;
use App\Accounts\EventLog;
use App\Books\Archive;
use App\Builds\Document;
use App\Builds\Pictures;
use App\Builds\Workspace;
use App\Errands\CarryOut;
use App\Errands\Kind;
use App\Http\Upload;
use App\Models\Build;
use App\Models\Errand;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use Magpie\Core\Book\Book;
use Magpie\Core\Book\Template;
use Magpie\Core\Format\BuildFile;
use RuntimeException;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** The build book: to read, on paper, and as an archive that reads back whole. */
final class BookController
{
    /** Pictures of one archive. */
    private const MOST_PICTURES = 300;

    public function show(Build $build): JsonResponse
    {
        $book = self::book($build);

        return new JsonResponse(['passport' => $book->passport(), 'chapters' => $book->chapters()]);
    }

    /** The build as a zip: the build file, its tables as CSV, its pictures. One that cannot be read is kept as it is. */
    public function archive(Build $build): BinaryFileResponse
    {
        EventLog::ofWorkshop(EventKind::Exported, $build->workshop_id, 'with its pictures', build: $build);
        $document = Document::of($build);
        $file = Archive::of(
            "{$build->slug}.magpie.json",
            $document->file(),
            $document->trouble() === null ? self::book($build) : null,
            $build->photos()->orderBy('id')->pluck('name')->all(),
            Pictures::reader($build),
        );

        return (new BinaryFileResponse($file, 200, [
            'Content-Type' => 'application/zip',
            'Content-Disposition' => "attachment; filename=\"{$build->slug}.magpie.zip\"",
        ]))->deleteFileAfterSend();
    }

    /** The next of its kind: a new build that begins with what is not this machine's own. */
    public function template(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate(['name' => ['required', 'string', 'max:120']]);
        $next = Template::of(Document::of($build)->machine(), $asked['name']);

        return new JsonResponse(
            ['id' => Workspace::begin(Access::buildingIn($build->workshop_id), $next, Access::user())->id],
            201,
        );
    }

    private static function book(Build $build): Book
    {
        return new Book(Document::of($build)->inspection(), now()->getTimestamp());
    }

    /** A build from an archive: its build file, and the pictures that lie beside it. */
    public function restore(Request $request): JsonResponse
    {
        $asked = $request->validate(
            ['workshop' => ['required', 'integer'], 'archive' => ['required', 'file', 'max:'.Upload::LARGEST]],
            ['archive.max' => 'The archive is larger than 60 MB.'],
        );
        $workshop = Access::buildingIn((int) $asked['workshop']);
        $path = Upload::of($request, 'archive')->getPathname();
        $json =
            Archive::json($path) ??
            throw ValidationException::withMessages([
                'archive' => 'This is no archive of a build: there is no build file in it that can be read.',
            ]);
        $pictures = Archive::pictures($path);
        abort_if(
            $pictures > self::MOST_PICTURES,
            422,
            "There are {$pictures} pictures in it; an archive brings ".self::MOST_PICTURES.' at most. Nothing was stored.',
        );
        $build = Workspace::begin($workshop, BuildFile::read($json), Access::user());
        EventLog::ofWorkshop(EventKind::ArchiveRead, $workshop->id, $build->name, build: $build);
        if ($pictures > 0) {
            $this->keepPictures($build, $path, $pictures);
        }

        return new JsonResponse(['id' => $build->id, 'pictures' => $pictures], 201);
    }

    /** Each is drawn anew, which nobody waits for. */
    private function keepPictures(Build $build, string $path, int $pictures): void
    {
        $errand = new Errand([
            'key' => (string) Str::uuid(),
            'build_id' => $build->id,
            'asker' => Errand::asker(),
            'kind' => Kind::Pictures,
            'name' => 'Pictures of the archive',
            'revision' => $build->revision,
            'state' => 'waiting',
            'given' => ['pictures' => $pictures, 'by' => Access::user()?->id],
            'beat_at' => now(),
        ]);
        Storage::put($errand->brought(), fopen($path, 'rb') ?: throw new RuntimeException('The archive is gone.'));
        $errand->save();
        CarryOut::dispatch($errand->id);
    }
}
