<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;

/**
 * A browser somebody is signed in at.
 *
 * @property int $id
 * @property int $user_id
 * @property string $device  hash of what its cookie holds
 * @property string $agent
 * @property string $address
 * @property bool $stays
 * @property Carbon $seen_at
 * @property Carbon $created_at
 */
final class SignIn extends Model
{
    protected $guarded = ['id'];

    protected $casts = ['user_id' => 'integer', 'stays' => 'boolean', 'seen_at' => 'datetime'];
}
