<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Foundation\Auth\User as Authenticatable;
use Laravel\Sanctum\HasApiTokens;

/**
 * @property int $id
 * @property string $name
 * @property string $email
 */
final class User extends Authenticatable
{
    use HasApiTokens;

    protected $fillable = ['name', 'email', 'password'];

    protected $hidden = ['password', 'remember_token'];

    protected $casts = ['password' => 'hashed'];

    /** @return BelongsToMany<Workshop, $this> */
    public function workshops(): BelongsToMany
    {
        return $this->belongsToMany(Workshop::class, 'memberships')->withPivot('role')->withTimestamps();
    }

    public function isMemberOf(int $workshop): bool
    {
        return $this->workshops()->whereKey($workshop)->exists();
    }
}
