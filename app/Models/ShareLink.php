<?php

declare(strict_types=1);

namespace App\Models;

use App\Accounts\Revoked;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * The address that shows one build to whoever has it. Only a hash of it is kept.
 *
 * @property int $id
 * @property int $build_id
 * @property string $token
 * @property string $label
 * @property bool $money  whether prices are shown by it
 * @property Carbon $expires_at
 * @property Carbon|null $opened_at
 */
final class ShareLink extends Model
{
    protected $guarded = ['id'];

    protected $casts = [
        'build_id' => 'integer',
        'money' => 'boolean',
        'expires_at' => 'datetime',
        'opened_at' => 'datetime',
    ];

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

    public function isOpen(): bool
    {
        return $this->expires_at->isFuture() && $this->isBacked();
    }

    /** Whether whoever made it might make it today: it lives no longer than that right. */
    public function isBacked(): bool
    {
        $build = $this->build()->first();

        return $build !== null && Revoked::stillMay($this->maker()->first(), $build);
    }
}
