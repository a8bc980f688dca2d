<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Facades\DB;
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

    protected static function booted(): void
    {
        self::saved(static fn (self $part) => self::keepFigures([$part]));
    }

    /**
     * Puts down what the sheets of these parts say in figures, for the search, in place of what stood there.
     *
     * @param  iterable<self>  $parts
     */
    public static function keepFigures(iterable $parts): void
    {
        $ids = [];
        $rows = [];
        foreach ($parts as $part) {
            $ids[] = $part->id;
            foreach (self::readable([$part]) as $entry) {
                foreach ($entry->figures() as $figure) {
                    $rows[] = self::figure($part->id, $figure->spec, $figure->dimension->value, $figure->low, $figure->high);
                }
                $price = $entry->latestOffer()?->price;
                if ($price !== null) {
                    // To sort by only: no search asks for a price, since it would have to know the currency.
                    $amount = (float) $price->exactAmount();
                    $rows[] = self::figure($part->id, 'price', 'money', $amount, $amount);
                }
            }
        }
        DB::table('library_figures')->whereIn('library_part_id', $ids)->delete();
        foreach (array_chunk($rows, 1000) as $chunk) {
            DB::table('library_figures')->insert($chunk);
        }
    }

    /**
     * @return array<string, int|string|float>
     */
    private static function figure(int $part, string $spec, string $dimension, float $low, float $high): array
    {
        return [
            'library_part_id' => $part,
            'spec' => $spec,
            'dimension' => $dimension,
            'low' => $low,
            'high' => $high,
        ];
    }

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
