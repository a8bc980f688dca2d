<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasOne;

/**
 * @property int $id
 * @property int $workshop_id
 * @property string $slug
 * @property int $revision
 * @property string $name
 * @property string $kind
 * @property string $currency
 * @property int|null $forked_from
 */
final class Build extends Model
{
    protected $guarded = ['id'];

    protected $casts = ['revision' => 'integer', 'workshop_id' => 'integer'];

    /** @return BelongsTo<Workshop, $this> */
    public function workshop(): BelongsTo
    {
        return $this->belongsTo(Workshop::class);
    }

    /** @return HasMany<Edit, $this> */
    public function edits(): HasMany
    {
        return $this->hasMany(Edit::class);
    }

    /** @return HasOne<Snapshot, $this> */
    public function snapshot(): HasOne
    {
        return $this->hasOne(Snapshot::class);
    }

    /** @return HasMany<Photo, $this> */
    public function photos(): HasMany
    {
        return $this->hasMany(Photo::class);
    }

    /** @return HasMany<Import, $this> */
    public function imports(): HasMany
    {
        return $this->hasMany(Import::class);
    }
}
