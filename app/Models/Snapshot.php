<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property int $build_id
 * @property int $revision
 * @property string $document
 * @property string $inspection  JSON text; empty before it was ever judged
 * @property int $judged  the revision the inspection is of
 * @property string $day  the day it was judged
 * @property string|null $summary  JSON text: what a list shows of it
 */
final class Snapshot extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'build_id';

    protected $guarded = [];

    protected $casts = ['revision' => 'integer', 'judged' => 'integer', 'build_id' => 'integer'];
}
