<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

/** Which of several documents is followed at a step. */
final class Papers
{
    /**
     * Of the documents that speak of a step, those that no other of them prevails over.
     *
     * @param  array<string, Document>  $documents
     * @return list<Document> more than one where nobody has said which prevails
     */
    public static function prevailing(array $documents, string $step): array
    {
        $speak = array_filter($documents, static fn (Document $d): bool => $d->at($step) !== null);

        return array_values(
            array_filter(
                $speak,
                static fn (Document $d): bool => array_filter(
                    $speak,
                    static fn (Document $other): bool => self::isOver($documents, $other, $d->ref),
                ) === [],
            ),
        );
    }

    /**
     * Documents that prevail over one another in a circle, so that none does.
     *
     * @param  array<string, Document>  $documents
     * @return list<string> their refs; empty when there is none
     */
    public static function circle(array $documents): array
    {
        foreach ($documents as $ref => $document) {
            if (self::isOver($documents, $document, $ref)) {
                return array_keys(
                    array_filter(
                        $documents,
                        static fn (Document $d): bool => self::isOver($documents, $d, $ref) &&
                            self::isOver($documents, $document, $d->ref),
                    ),
                );
            }
        }

        return [];
    }

    /**
     * Whether one prevails over another, by its own word or through others.
     *
     * @param  array<string, Document>  $documents
     * @param  array<string, true>  $been
     */
    private static function isOver(array $documents, Document $one, string $other, array $been = []): bool
    {
        foreach ($one->over as $below) {
            if (
                $below === $other ||
                (! isset($been[$below]) &&
                    isset($documents[$below]) &&
                    self::isOver($documents, $documents[$below], $other, $been + [$below => true]))
            ) {
                return true;
            }
        }

        return false;
    }
}
