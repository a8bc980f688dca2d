<?php

declare(strict_types=1);

namespace App\Models;

use App\Accounts\Revoked;
use App\Accounts\Role;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * The address by which one person becomes one of a workshop, or of one build of it. Only a hash of it is kept.
 *
 * @property int $id
 * @property int $workshop_id
 * @property int|null $build_id
 * @property Role $role
 * @property string $token
 * @property string|null $for
 * @property Carbon $expires_at
 * @property Carbon|null $accepted_at
 * @property Carbon|null $created_at
 */
final class Invitation extends Model
{
    protected $guarded = ['id'];

    protected $casts = [
        'workshop_id' => 'integer',
        'build_id' => 'integer',
        'role' => Role::class,
        'expires_at' => 'datetime',
        'accepted_at' => 'datetime',
    ];

    /** @return BelongsTo<Workshop, $this> */
    public function workshop(): BelongsTo
    {
        return $this->belongsTo(Workshop::class);
    }

    /** @return BelongsTo<Build, $this> */
    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }

    /** @return BelongsTo<User, $this> */
    public function maker(): BelongsTo
    {
        return $this->belongsTo(User::class, 'made_by');
    }

    /** In the list of events. */
    public function says(): string
    {
        return $this->for === null ? $this->role->value : "{$this->role->value}, {$this->for}";
    }

    /** Whether whoever made it might make it today: it lives no longer than that right. */
    public function isBacked(): bool
    {
        return Revoked::stillMay($this->maker, $this->workshop_id);
    }
}
