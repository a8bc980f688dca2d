<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property int $build_id
 * @property int|null $user_id
 * @property string $key
 * @property string $file_name
 * @property int $rows
 * @property string $state
 * @property array<string, mixed>|null $mapping
 * @property string|null $trouble why what was confirmed could not be stored
 * @property int $stored
 * @property int $skipped
 */
final class Import extends Model
{
    protected $guarded = ['id'];

    protected $casts = ['mapping' => 'array', 'rows' => 'integer', 'stored' => 'integer', 'skipped' => 'integer'];

    /** @return BelongsTo<Build, $this> */
    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }
}
