<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Library\Entry;

/**
 * @property int $id
 * @property int $workshop_id
 * @property string $ref
 * @property string $family
 * @property string $name
 * @property string $words
 * @property bool $example
 * @property int $version
 * @property array<string, mixed> $entry
 */
final class LibraryPart extends Model
{
    public $timestamps = false;

    protected $guarded = ['id'];

    protected $casts = ['example' => 'boolean', 'version' => 'integer', 'entry' => 'array', 'workshop_id' => 'integer'];

    /**
     * The entry as the core knows it.
     *
     * @throws CannotReadBuildFile
     */
    public function read(): Entry
    {
        return LibraryFile::read($this->entry, kept: true);
    }

    /**
     * Of some parts those that can be read: one that cannot hides no other.
     *
     * @param  iterable<self>  $parts
     * @return list<Entry>
     */
    public static function readable(iterable $parts): array
    {
        $entries = [];
        foreach ($parts as $part) {
            try {
                $entries[] = $part->read();
            } catch (CannotReadBuildFile $e) {
                report($e);
            }
        }

        return $entries;
    }
}
