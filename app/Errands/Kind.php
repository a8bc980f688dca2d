<?php

declare(strict_types=1);

namespace App\Errands;

/** What is done in the background for whoever asks. */
enum Kind: string
{
    case Book = 'book';
    case Mesh = 'mesh';
    case Program = 'program';
    case Pictures = 'pictures';

    public function work(): Work
    {
        return match ($this) {
            self::Book => new PrintBook,
            self::Mesh => new ReadMesh,
            self::Program => new CheckProgram,
            self::Pictures => new KeepPictures,
        };
    }

    /** Begun by something else that was asked for, never by itself. */
    public function isInner(): bool
    {
        return $this === self::Pictures;
    }

    /** The file that is given with it; its name is that of the kind. */
    public function wantsFile(): bool
    {
        return $this !== self::Book;
    }

    public function makesFile(): bool
    {
        return $this === self::Book;
    }
}
