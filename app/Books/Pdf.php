<?php

declare(strict_types=1);

namespace App\Books;

use Dompdf\Dompdf;
use Dompdf\Options;
use Magpie\Core\Book\Book;
use Magpie\Core\Book\Page;

/** A build book on paper. */
final class Pdf
{
    /**
     * @param  callable(string): (string|null)  $photo  name → the bytes of the JPEG, where it is there
     * @param  string|null  $address  where the build is found, for its code
     */
    public static function of(Book $book, callable $photo, ?string $address = null): string
    {
        $options = new Options;
        // Nothing is fetched, and nothing but what is handed in is read.
        $options->setIsRemoteEnabled(false);
        $options->setIsPhpEnabled(false);
        $options->setIsJavascriptEnabled(false);
        $options->setTempDir(sys_get_temp_dir());
        $options->setFontCache(sys_get_temp_dir());
        $options->setDefaultPaperSize('a4');
        $pdf = new Dompdf($options);
        $pdf->loadHtml(
            Page::of(
                $book,
                static function (string $name) use ($photo): ?string {
                    $bytes = $photo($name);

                    return $bytes === null ? null : 'data:image/jpeg;base64,'.base64_encode($bytes);
                },
                $address === null ? null : self::code($address),
            ),
            'UTF-8',
        );
        $pdf->render();

        return (string) $pdf->output();
    }

    /** A picture of an address, by Debian's qrencode; null where that is not there. */
    public static function code(string $address): ?string
    {
        $process = @proc_open(
            ['qrencode', '-t', 'PNG', '-s', '6', '-m', '2', '-o', '-', $address],
            [['file', '/dev/null', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
        );
        if (! is_resource($process)) {
            return null;
        }
        $png = (string) stream_get_contents($pipes[1]);

        return proc_close($process) === 0 && $png !== '' ? 'data:image/png;base64,'.base64_encode($png) : null;
    }
}
