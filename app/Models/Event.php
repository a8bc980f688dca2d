<?php

declare(strict_types=1);

namespace App\Models;

use App\Accounts\EventKind;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * Something that happened at the doors of accounts, workshops and builds.
 *
 * @property int $id
 * @property EventKind $kind
 * @property int|null $user_id  who did it
 * @property int|null $about_id  to whom, where that is somebody else
 * @property int|null $workshop_id  none where it is of an account alone
 * @property string|null $build
 * @property string|null $detail
 * @property string|null $address
 * @property bool $notice
 * @property Carbon|null $read_at
 * @property Carbon $at
 */
final class Event extends Model
{
    public $timestamps = false;

    protected $guarded = ['id'];

    protected $casts = [
        'kind' => EventKind::class,
        'notice' => 'boolean',
        'read_at' => 'datetime',
        'at' => 'datetime',
    ];

    protected $dateFormat = 'Y-m-d H:i:s.v';

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return BelongsTo<User, $this> */
    public function about(): BelongsTo
    {
        return $this->belongsTo(User::class, 'about_id');
    }
}
