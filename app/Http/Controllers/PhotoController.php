<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Builds\Pictures;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/** Pictures of faults, steps and arrivals. */
final class PhotoController
{
    public function store(Request $request, Build $build): JsonResponse
    {
        $request->validate(
            ['photo' => ['required', 'file', 'max:15360'], 'name' => ['nullable', 'regex:/^[0-9a-f-]{36}\.jpg$/']],
            [
                'photo.max' => 'The picture is larger than 15 MB.',
                'name.regex' => 'The picture is to be called by a number nobody else has, such as those of RFC 9562, and “.jpg”.',
            ],
        );
        // Sent before, and the answer was lost: it is here.
        $name = $request->string('name')->toString() ?: Str::uuid().'.jpg';
        if ($build->photos()->where('name', $name)->exists()) {
            return new JsonResponse(['name' => $name], 201);
        }
        /** @var UploadedFile $file */
        $file = $request->file('photo');
        $bytes = (string) file_get_contents($file->getPathname());
        $why = Pictures::refusal($bytes);
        if ($why !== null || ! Pictures::keep($build, $name, $bytes, Access::user())) {
            throw ValidationException::withMessages(['photo' => $why ?? Pictures::NONE]);
        }

        return new JsonResponse(['name' => $name], 201);
    }

    public function show(Build $build, string $name): Response
    {
        $photo = $build->photos()->where('name', $name)->firstOrFail();

        return new Response((string) Storage::get("photos/{$build->id}/{$photo->name}"), 200, [
            'Content-Type' => 'image/jpeg',
            'Cache-Control' => 'private, max-age=86400',
            'X-Content-Type-Options' => 'nosniff',
        ]);
    }
}
