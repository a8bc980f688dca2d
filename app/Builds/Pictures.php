<?php

declare(strict_types=1);

namespace App\Builds;

use App\Models\Build;
use App\Models\User;
use Illuminate\Support\Facades\Storage;
use Intervention\Image\Drivers\Gd\Driver;
use Intervention\Image\Exceptions\DecoderException;
use Intervention\Image\ImageManager;

/** Pictures on their way in: made small, turned upright, and drawn anew, so that nothing a camera or anybody else wrote into them stays. */
final class Pictures
{
    public const NONE = 'This file is not a picture that can be read (JPEG, PNG or WebP).';

    private const MOST_PIXELS = 40_000_000;

    private const LONGEST = 16_384;

    private const SIDE = 1600;

    /** Why these bytes are not taken; by their header, before they are unpacked: a small file may hold a picture that fills all memory. */
    public static function refusal(string $bytes): ?string
    {
        $size = @getimagesizefromstring($bytes);
        if ($size === false || ! in_array($size[2], [IMAGETYPE_JPEG, IMAGETYPE_PNG, IMAGETYPE_WEBP], true)) {
            return self::NONE;
        }

        return $size[0] < 1 ||
            $size[1] < 1 ||
            $size[0] * $size[1] > self::MOST_PIXELS ||
            max($size[0], $size[1]) > self::LONGEST
            ? "This picture is {$size[0]} × {$size[1]} pixels; at most ".
                    self::MOST_PIXELS / 1_000_000 .
                    ' million can be taken.'
            : null;
    }

    /** Whether it was kept: a header may promise a picture that is none. */
    public static function keep(Build $build, string $name, string $bytes, ?User $by): bool
    {
        try {
            $jpeg = (string) (new ImageManager(new Driver))
                ->read($bytes)
                ->scaleDown(self::SIDE, self::SIDE)
                ->toJpeg(82);
        } catch (DecoderException) {
            return false;
        }
        Storage::put("photos/{$build->id}/{$name}", $jpeg);
        $build->photos()->create(['user_id' => $by?->id, 'name' => $name, 'bytes' => strlen($jpeg)]);

        return true;
    }

    /**
     * By the name they are spoken of, the pictures a build has.
     *
     * @return callable(string): (string|null)
     */
    public static function reader(Build $build): callable
    {
        return static function (string $name) use ($build): ?string {
            $known = $build->photos()->where('name', $name)->exists();

            return $known ? Storage::get("photos/{$build->id}/{$name}") : null;
        };
    }
}
