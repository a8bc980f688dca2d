<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Build;
use App\Models\User;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use Intervention\Image\Drivers\Gd\Driver;
use Intervention\Image\Exceptions\DecoderException;
use Intervention\Image\ImageManager;

/** Pictures of faults: made small, turned upright and stripped of what the camera wrote into them. */
final class PhotoController
{
    private const NONE = 'This file is not a picture that can be read (JPEG, PNG or WebP).';

    private const MOST_PIXELS = 40_000_000;

    private const LONGEST = 16_384;

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
        $size = @getimagesize($file->getPathname());
        if ($size === false || ! in_array($size[2], [IMAGETYPE_JPEG, IMAGETYPE_PNG, IMAGETYPE_WEBP], true)) {
            throw ValidationException::withMessages(['photo' => self::NONE]);
        }
        // By its header, before it is unpacked: a small file may hold a picture that fills all memory.
        if (
            $size[0] < 1 ||
            $size[1] < 1 ||
            $size[0] * $size[1] > self::MOST_PIXELS ||
            max($size[0], $size[1]) > self::LONGEST
        ) {
            throw ValidationException::withMessages([
                'photo' => "This picture is {$size[0]} × {$size[1]} pixels; at most ".
                    self::MOST_PIXELS / 1_000_000 .
                    ' million can be taken.',
            ]);
        }
        try {
            $jpeg = (string) (new ImageManager(new Driver))
                ->read($file->getPathname())
                ->scaleDown(1600, 1600)
                ->toJpeg(82);
        } catch (DecoderException) {
            throw ValidationException::withMessages(['photo' => self::NONE]);
        }
        Storage::put("photos/{$build->id}/{$name}", $jpeg);
        $user = $request->user();
        $build->photos()->create([
            'user_id' => $user instanceof User ? $user->id : null,
            'name' => $name,
            'bytes' => strlen($jpeg),
        ]);

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
