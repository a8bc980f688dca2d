<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * One act of a builder: what history lists and undo takes back.
 *
 * @property int $id
 * @property int $build_id
 * @property int|null $user_id
 * @property int $revision
 * @property string $key
 * @property string|null $content  hash of what was asked
 * @property string $label
 * @property string $state  done, undone, or dropped (undone, then overtaken by another edit)
 */
final class Edit extends Model
{
    public $timestamps = false;

    protected $guarded = ['id'];

    protected $casts = ['made_at' => 'datetime', 'revision' => 'integer'];

    /** @return HasMany<Change, $this> */
    public function changes(): HasMany
    {
        return $this->hasMany(Change::class)->orderBy('id');
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
