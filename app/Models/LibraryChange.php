<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property string $ref
 * @property array<string, mixed>|null $before
 * @property array<string, mixed>|null $after
 */
final class LibraryChange extends Model
{
    public $timestamps = false;

    protected $guarded = ['id'];

    protected $casts = ['before' => 'array', 'after' => 'array', 'undone' => 'boolean'];
}
