<?php

declare(strict_types=1);

namespace App\Imports;

use App\Models\Build;
use App\Models\LibraryPart;
use Magpie\Core\Machine\Part;

/** The parts of a workshop's library by the name that lists give them. */
final class Shelf
{
    /** @var array<string, int> name in small letters → row */
    private array $rows = [];

    /** @var array<int, Part|null> */
    private array $read = [];

    public function __construct(Build $build)
    {
        $parts = LibraryPart::query()->where('workshop_id', $build->workshop_id)->orderByDesc('id');
        foreach ($parts->pluck('name', 'id') as $id => $name) {
            // Of two of one name the elder.
            $this->rows[self::plain((string) $name)] = (int) $id;
        }
    }

    public function named(string $name): ?Part
    {
        $id = $this->rows[self::plain($name)] ?? null;

        return $id === null ? null : ($this->read[$id] ??= $this->part($id));
    }

    private function part(int $id): ?Part
    {
        $kept = LibraryPart::query()->find($id);

        return $kept === null ? null : (LibraryPart::readable([$kept])[0] ?? null)?->part;
    }

    private static function plain(string $name): string
    {
        return trim((string) preg_replace('/\s+/u', ' ', mb_strtolower($name)));
    }
}
