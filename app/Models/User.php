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

    /** One of the demo's invented people: in no workshop but demos. */
    public function isOfDemo(): bool
    {
        return $this->workshops()->where('demo', true)->exists() &&
            $this->workshops()->where('demo', false)->doesntExist();
    }

    /** Whether this account opens anything here: those of the demo do so only where the demo is served. */
    public function mayEnter(): bool
    {
        return config('app.demo') === true || ! $this->isOfDemo();
    }

    public function isMemberOf(int $workshop): bool
    {
        return $this->workshops()->whereKey($workshop)->exists();
    }
}
