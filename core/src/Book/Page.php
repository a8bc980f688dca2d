<?php

declare(strict_types=1);

namespace Magpie\Core\Book;

/** A book as one page of HTML, for paper: no script, no address of another server. */
final class Page
{
    private const LOOK = '@page { margin: 18mm 16mm; } body { font-family: DejaVu Sans, sans-serif; font-size: 9pt; color: #1b1e1f; }
h1 { font-size: 26pt; margin: 0 0 2mm; } h2 { font-size: 14pt; margin: 8mm 0 2mm; page-break-after: avoid; }
table { width: 100%; border-collapse: collapse; margin: 2mm 0 4mm; } th { text-align: left; font-size: 8pt; border-bottom: 0.4mm solid #1b1e1f; padding: 1mm; }
td { vertical-align: top; border-bottom: 0.1mm solid #b8b4a8; padding: 1mm; font-size: 8pt; } .quiet { color: #5b6163; }
.passport { page-break-after: always; } .passport td { font-size: 10pt; } .signed { margin: 8mm 0; padding: 4mm; border: 0.6mm solid #0d6570; font-size: 12pt; }
img.photo { max-width: 80mm; max-height: 60mm; margin: 1mm; } img.code { width: 32mm; } img.drawing { max-width: 165mm; max-height: 110mm; } tr { page-break-inside: avoid; }';

    /**
     * @param  callable(string): (string|null)  $photo  name → the picture as a data address, where it is there
     * @param  string|null  $code  a picture of the address, as a data address
     */
    public static function of(Book $book, callable $photo, ?string $code = null): string
    {
        $passport = $book->passport();
        $html =
            '<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><title>'.
            self::text($passport['name']).
            '</title><style>'.
            self::LOOK.
            '</style></head><body><div class="passport"><h1>'.
            self::text($passport['name']).
            '</h1><p class="quiet">'.
            self::text($passport['kind']).
            '</p><table>';
        foreach ($passport['facts'] as [$what, $is]) {
            $html .= '<tr><td class="quiet">'.self::text($what).'</td><td>'.self::text($is).'</td></tr>';
        }
        $html .=
            '</table><div class="signed">'.
            ($passport['signed'] === null
                ? 'Not signed off, or something has changed since it was.'
                : 'Signed off: '.self::text($passport['signed'])).
            '</div>'.
            ($code === null ? '' : '<img class="code" src="'.$code.'" alt="Address of this build">').
            '<p class="quiet">A record and a planning aid, not a permit: local code and a licensed electrician decide. What is not in it was not noted.</p></div>';
        foreach ($book->chapters() as $chapter) {
            $html .= self::chapter($book, $chapter, $photo);
        }

        return $html.'</body></html>';
    }

    /**
     * @param  array{title: string, says: list<string>, tables: list<array{head: list<string>, rows: list<list<string>>}>,
     *     photos: list<array{name: string, says: string}>, drawings: list<array{view: string, title: string}>}  $chapter
     * @param  callable(string): (string|null)  $photo
     */
    private static function chapter(Book $book, array $chapter, callable $photo): string
    {
        $html = '<h2>'.self::text($chapter['title']).'</h2>';
        foreach ($chapter['says'] as $says) {
            $html .= '<p>'.self::text($says).'</p>';
        }
        if ($chapter['says'] === [] && $chapter['tables'] === []) {
            $html .= '<p class="quiet">Nothing is noted.</p>';
        }
        foreach ($chapter['drawings'] as $drawing) {
            $html .=
                '<p class="quiet">'.
                self::text($drawing['title']).
                '</p><img class="drawing" src="data:image/svg+xml;base64,'.
                base64_encode(self::forPaper($book->drawing($drawing['view']))).
                '" alt="'.
                self::text($drawing['title']).
                '">';
        }
        foreach ($chapter['tables'] as $table) {
            $html .= '<table><thead><tr>';
            foreach ($table['head'] as $head) {
                $html .= '<th>'.self::text($head).'</th>';
            }
            $html .= '</tr></thead><tbody>';
            foreach ($table['rows'] as $row) {
                $html .= '<tr>';
                foreach ($row as $cell) {
                    $html .= '<td>'.self::text($cell).'</td>';
                }
                $html .= '</tr>';
            }
            $html .= '</tbody></table>';
        }
        foreach ($chapter['photos'] as $one) {
            $data = $photo($one['name']);
            $html .=
                $data === null ? '' : '<img class="photo" src="'.$data.'" alt="'.self::text($one['says']).'">';
        }

        return $html;
    }

    /** What lays out a page takes the sizes of a drawing as they stand, with no unit. */
    private static function forPaper(string $svg): string
    {
        return preg_replace('/(width|height)="([\d.]+)mm"/', '$1="$2"', $svg, 2) ?? $svg;
    }

    private static function text(string $text): string
    {
        return htmlspecialchars($text, ENT_QUOTES | ENT_SUBSTITUTE | ENT_HTML5, 'UTF-8');
    }
}
