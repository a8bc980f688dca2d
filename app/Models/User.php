<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Foundation\Auth\User as Authenticatable;
use Illuminate\Mail\Message;
use Illuminate\Support\Facades\Mail;
use Laravel\Sanctum\HasApiTokens;

/**
 * @property int $id
 * @property string $name
 * @property string $email
 * @property bool $invented
 * @property string|null $second_secret
 * @property \Illuminate\Support\Carbon|null $second_since
 * @property int $second_period
 * @property array<int, string>|null $recovery_codes  slow hashes, by their number
 * @property int $second_wrong  wrong codes on second_wrong_on
 * @property string|null $second_wrong_on
 */
final class User extends Authenticatable
{
    use HasApiTokens;

    protected $fillable = ['name', 'email', 'password', 'invented'];

    protected $attributes = ['invented' => false];

    protected $hidden = ['password', 'remember_token', 'second_secret', 'recovery_codes'];

    protected $casts = [
        'password' => 'hashed',
        'invented' => 'boolean',
        'second_secret' => 'encrypted',
        'second_since' => 'datetime',
        'second_period' => 'integer',
        'recovery_codes' => 'array',
        'second_wrong' => 'integer',
    ];

    /** @return BelongsToMany<Workshop, $this> */
    public function workshops(): BelongsToMany
    {
        return $this->belongsToMany(Workshop::class, 'memberships')->withPivot('role')->withTimestamps();
    }

    /** Invented, and served: whoever comes by uses this account, so that nobody may make it their own. */
    public function isShared(): bool
    {
        return $this->invented && config('app.demo') === true;
    }

    /** Whether this account opens anything here: those of the demo do so only where the demo is served. */
    public function mayEnter(): bool
    {
        return config('app.demo') === true || ! $this->invented;
    }

    /** @return HasMany<SignIn, $this> */
    public function signIns(): HasMany
    {
        return $this->hasMany(SignIn::class);
    }

    /** @param  string  $token */
    public function sendPasswordResetNotification($token): void
    {
        $link = config()->string('app.url').'/reset?'.http_build_query(['token' => $token, 'email' => $this->email]);
        Mail::raw(
            "Somebody asked for a new password for your account at Frugal Magpie.\n\n{$link}\n\n".
                "The link is good for an hour, and once. If it was not you, nothing has to be done.\n",
            fn (Message $letter) => $letter->to($this->email)->subject('A new password'),
        );
    }
}
