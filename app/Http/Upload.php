<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;
use Illuminate\Validation\ValidationException;

/** A file that came with a request, under the name of its field. */
final class Upload
{
    /** Kilobytes of the largest that is taken. */
    public const LARGEST = 61440;

    /** @throws ValidationException where the field holds none, or several */
    public static function of(Request $request, string $field): UploadedFile
    {
        $file = $request->file($field);

        return $file instanceof UploadedFile
            ? $file
            : throw ValidationException::withMessages([$field => 'is not one file.']);
    }

    /**
     * Its lines, read as they are asked for.
     *
     * @return iterable<string>
     */
    public static function lines(Request $request, string $field): iterable
    {
        $stream = fopen(self::of($request, $field)->getPathname(), 'rb');
        while ($stream !== false && ($line = fgets($stream, 65536)) !== false) {
            yield $line;
        }
    }
}
