<?php

declare(strict_types=1);

namespace App\Errands;

use App\Books\Pdf;
use App\Builds\Document;
use App\Builds\Pictures;
use App\Models\Build;
use App\Models\Errand;
use Illuminate\Support\Facades\Storage;
use Magpie\Core\Book\Book;

/** The build book on paper. */
final class PrintBook implements Work
{
    public function rules(Build $build): array
    {
        return [];
    }

    public function do(Errand $errand, Build $build, string $brought, Progress $progress): ?array
    {
        $document = Document::of($build);
        $trouble = $document->trouble();
        if ($trouble !== null) {
            throw new CannotDo("The build cannot be read ({$trouble['pointer']}: {$trouble['reason']}).");
        }
        $book = new Book($document->inspection($progress->at(...)), now()->getTimestamp());
        $pdf = Pdf::of($book, Pictures::reader($build), url("/builds/{$build->id}/run/book"));
        Storage::put($errand->result(), $pdf);

        return null;
    }
}
