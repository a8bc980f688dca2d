<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

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
}
