<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Books\Archive;
use App\Builds\Document;
use App\Builds\Pictures;
use App\Builds\Workspace;
use App\Http\Upload;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\ValidationException;
use Magpie\Core\Book\Book;
use Magpie\Core\Book\Template;
use Magpie\Core\Format\BuildFile;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** The build book: to read, on paper, and as an archive that reads back whole. */
final class BookController
{
    public function show(Build $build): JsonResponse
    {
        $book = self::book($build);

        return new JsonResponse(['passport' => $book->passport(), 'chapters' => $book->chapters()]);
    }

    /** The build as a zip: the build file, its tables as CSV, its pictures. One that cannot be read is kept as it is. */
    public function archive(Build $build): BinaryFileResponse
    {
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
        $build = Workspace::begin($workshop, BuildFile::read($json), Access::user());
        foreach (Archive::photos($path) as $name => $bytes) {
            // Only what is a picture, and under the name it is spoken of.
            if (Pictures::refusal($bytes) === null && ! $build->photos()->where('name', $name)->exists()) {
                Pictures::keep($build, $name, $bytes, Access::user());
            }
        }

        return new JsonResponse(['id' => $build->id], 201);
    }
}
