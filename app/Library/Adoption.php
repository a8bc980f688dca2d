<?php

declare(strict_types=1);

namespace App\Library;

use App\Builds\CannotEdit;
use App\Models\LibraryPart;
use Magpie\Core\Format\Adopting;
use Magpie\Core\Format\Changes;
use Magpie\Core\Machine\Build;

/**
 * The edit that takes a part of the library into a build as a candidate for a need.
 *
 * @phpstan-import-type Change from Changes
 */
final class Adoption
{
    /**
     * @return list<Change> changes, see docs/api/openapi.json
     *
     * @throws CannotEdit
     */
    public static function changes(Build $build, string $need, LibraryPart $item): array
    {
        $held = $build->needs[$need] ?? throw CannotEdit::at("/needs/{$need}", "there is no need \"{$need}\".");
        $entry = $item->read();
        if ($held->family !== $entry->part->family->key()) {
            throw CannotEdit::at(
                "/needs/{$need}/candidates",
                "\"{$entry->part->name}\" is a {$entry->part->family->title()}; this need asks for another family ({$held->family}).",
            );
        }
        [$ref, $changes] = Adopting::changes($build, $entry);
        if (in_array($ref, $held->candidates, true)) {
            throw CannotEdit::at(
                "/needs/{$need}/candidates",
                "\"{$entry->part->name}\" is a candidate for it already.",
            );
        }

        return [
            ...$changes,
            [
                'section' => 'needs',
                'ref' => $need,
                'set' => [
                    [
                        'path' => ['candidates'],
                        'was' => $held->candidates === [] ? null : $held->candidates,
                        'to' => [...$held->candidates, $ref],
                    ],
                ],
            ],
        ];
    }
}
