<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property string $name
 * @property int $build_id
 */
final class Photo extends Model
{
    protected $guarded = ['id'];
}
