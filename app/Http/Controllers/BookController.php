<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Books\Archive;
use App\Books\Pdf;
use App\Builds\Document;
use App\Builds\Workspace;
use App\Http\Upload;
use App\Models\Build;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
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

    public function pdf(Build $build): Response
    {
        $pdf = Pdf::of(self::book($build), self::photo($build), url("/builds/{$build->id}/run/book"));

        return new Response($pdf, 200, [
            'Content-Type' => 'application/pdf',
            'Content-Disposition' => 'attachment; filename="'.(Str::slug($build->name) ?: 'build').'-book.pdf"',
        ]);
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
            self::photo($build),
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
        $workshop = $build->workshop ?? abort(404, 'This build belongs to no workshop.');

        return new JsonResponse(
            ['id' => Workspace::add($workshop, Template::of(Document::of($build)->machine(), $asked['name']))->id],
            201,
        );
    }

    private static function book(Build $build): Book
    {
        return new Book(Document::of($build)->inspection(), now()->getTimestamp());
    }

    /**
     * @return callable(string): (string|null)
     */
    private static function photo(Build $build): callable
    {
        return static function (string $name) use ($build): ?string {
            $known = $build->photos()->where('name', $name)->exists();

            return $known ? Storage::get("photos/{$build->id}/{$name}") : null;
        };
    }

    /** A build from an archive: its build file, and the pictures that lie beside it. */
    public function restore(Request $request): JsonResponse
    {
        /** @var User $user */
        $user = $request->user();
        $asked = $request->validate(
            ['workshop' => ['required', 'integer'], 'archive' => ['required', 'file', 'max:'.Upload::LARGEST]],
            ['archive.max' => 'The archive is larger than 60 MB.'],
        );
        $workshop = Workshop::query()
            ->whereIn('id', $user->workshops()->pluck('workshops.id'))
            ->findOrFail((int) $asked['workshop']);
        $path = Upload::of($request, 'archive')->getPathname();
        $json =
            Archive::json($path) ??
            throw ValidationException::withMessages([
                'archive' => 'This is no archive of a build: there is no build file in it that can be read.',
            ]);
        $build = Workspace::add($workshop, BuildFile::read($json));
        foreach (Archive::photos($path) as $name => $bytes) {
            // Only what is a picture, and under the name it is spoken of.
            $size = @getimagesizefromstring($bytes);
            if ($size !== false && $size[2] === IMAGETYPE_JPEG && ! $build->photos()->where('name', $name)->exists()) {
                Storage::put("photos/{$build->id}/{$name}", $bytes);
                $build->photos()->create(['user_id' => $user->id, 'name' => $name, 'bytes' => strlen($bytes)]);
            }
        }

        return new JsonResponse(['id' => $build->id], 201);
    }
}
