<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property int $edit_id
 * @property string $section
 * @property string $ref
 * @property int|null $row
 * @property array<string, mixed>|null $before
 * @property array<string, mixed>|null $after
 */
final class Change extends Model
{
    public $timestamps = false;

    protected $guarded = ['id'];

    protected $casts = ['before' => 'array', 'after' => 'array', 'row' => 'integer'];
}
