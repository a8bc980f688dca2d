<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * @property int $id
 * @property string $name
 * @property string $slug
 * @property bool $demo
 * @property bool $requires_second  nobody without a second factor comes in
 */
final class Workshop extends Model
{
    protected $fillable = ['name', 'slug', 'demo', 'requires_second'];

    protected $casts = ['demo' => 'boolean', 'requires_second' => 'boolean'];

    /** @return BelongsToMany<User, $this> */
    public function members(): BelongsToMany
    {
        return $this->belongsToMany(User::class, 'memberships')->withPivot('role')->withTimestamps();
    }

    /** @return HasMany<LibraryPart, $this> */
    public function library(): HasMany
    {
        return $this->hasMany(LibraryPart::class);
    }

    /** @return HasMany<Build, $this> */
    public function builds(): HasMany
    {
        return $this->hasMany(Build::class);
    }
}
