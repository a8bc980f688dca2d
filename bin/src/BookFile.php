<?php

declare(strict_types=1);

namespace Magpie\Bin;

use App\Books\Pdf;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Book\Book;

/** The build book of a build file, from the shell: a PDF, or its chapters as JSON. */
final class BookFile
{
    private const VERSION = 1;

    private const USAGE = 'usage: bin/magpie book FILE --out BOOK.pdf | --format json';

    /**
     * 0 when it was written, 2 when the file cannot be read or the book not written.
     *
     * @param  list<string>  $arguments
     */
    public function run(array $arguments): int
    {
        [$file, $options] = FromFile::arguments($arguments, ['out', 'format'], self::USAGE);
        $format = $options['format'] ?? 'text';
        if (($format === 'text') !== isset($options['out']) || ! in_array($format, ['text', 'json'], true)) {
            throw new Failure(self::USAGE, 2);
        }
        $build = FromFile::read($file, $format, 'magpie_book', self::VERSION);
        $book = new Book(Rules::inspector()->inspect($build), time());
        if ($format === 'json') {
            FromFile::print([
                'magpie_book' => self::VERSION,
                'passport' => $book->passport(),
                'chapters' => $book->chapters(),
            ]);

            return 0;
        }
        $out = $options['out'] ?? '';
        if (@file_put_contents($out, Pdf::of($book, static fn (): null => null)) === false) {
            throw new Failure("{$out} cannot be written.", 2);
        }
        echo "{$out}: the build book of {$build->plan->name}, without pictures: they lie with the application.\n";

        return 0;
    }
}
