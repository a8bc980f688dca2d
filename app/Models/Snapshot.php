<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property int $build_id
 * @property int $revision
 * @property string $document
 * @property string $inspection
 */
final class Snapshot extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'build_id';

    protected $guarded = [];

    protected $casts = ['revision' => 'integer', 'build_id' => 'integer'];
}
