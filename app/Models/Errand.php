<?php

declare(strict_types=1);

namespace App\Models;

use App\Accounts\Access;
use App\Errands\Kind;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;

/**
 * Something that takes longer than one waits, done in the background for whoever asked.
 *
 * @property int $id
 * @property int $build_id
 * @property string $key
 * @property string $asker
 * @property Kind $kind
 * @property string|null $name
 * @property int $revision
 * @property string $state waiting, running, done, failed or stopped
 * @property array<string, mixed>|null $given
 * @property int $done
 * @property int $of
 * @property \stdClass|null $answer
 * @property string|null $trouble
 * @property int $bytes  of what was given and made
 * @property int $seconds  it took
 * @property Carbon $beat_at
 * @property Carbon $created_at
 */
final class Errand extends Model
{
    /** Seconds without a sign of life after which whoever worked at it is taken to have died. */
    private const DEAD = 240;

    /** Hours it is kept, with the files that belong to it. */
    private const KEPT = 24;

    protected $guarded = ['id'];

    protected $casts = [
        'kind' => Kind::class,
        'given' => 'array',
        'answer' => 'object',
        'revision' => 'integer',
        'done' => 'integer',
        'of' => 'integer',
        'beat_at' => 'datetime',
    ];

    protected $dateFormat = 'Y-m-d H:i:s.v';

    /** @return BelongsTo<Build, $this> */
    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }

    /** Whoever asks, as errands know them. */
    public static function asker(): string
    {
        $user = Access::user();

        return $user !== null ? "user:{$user->id}" : 'link:'.(Access::visitor()->id ?? 0);
    }

    /**
     * Those of whoever asks.
     *
     * @return Builder<self>
     */
    public static function mine(): Builder
    {
        return self::query()->where('asker', self::asker());
    }

    /** The link of a visitor who asked, while it opens: what is done for them shows no more than they see. */
    public function visit(): ?ShareLink
    {
        $link = $this->isOfVisitor() ? ShareLink::query()->find((int) substr($this->asker, strlen('link:'))) : null;

        return $link?->isOpen() === true ? $link : null;
    }

    /** What it took is written down; of what a visitor's left behind when it failed nothing is kept. */
    public function spent(int $seconds): void
    {
        if ($this->isOfVisitor() && in_array($this->refresh()->state, ['failed', 'stopped'], true)) {
            $this->dropFiles();
        }
        self::query()
            ->whereKey($this->id)
            ->update([
                'seconds' => DB::raw('seconds + '.$seconds),
                'bytes' => DB::raw('bytes + '.(Storage::exists($this->result()) ? Storage::size($this->result()) : 0)),
            ]);
    }

    public function isOfVisitor(): bool
    {
        return str_starts_with($this->asker, 'link:');
    }

    /** What came with it, and what came of it. */
    public function brought(): string
    {
        return "errands/{$this->key}.in";
    }

    public function result(): string
    {
        return "errands/{$this->key}.out";
    }

    /** One whose worker died says so, and can be tried again. */
    public function settle(): self
    {
        if ($this->state === 'running' && $this->beat_at->diffInSeconds(now(), true) > self::DEAD) {
            $this->cutOff();
        }

        return $this;
    }

    public function cutOff(): void
    {
        $this->update([
            'state' => 'failed',
            'trouble' => 'The background was stopped in the middle of it. Nothing was changed; try again.',
        ]);
        if ($this->isOfVisitor()) {
            $this->dropFiles();
        }
    }

    public function dropFiles(): void
    {
        Storage::delete([$this->brought(), $this->result()]);
    }

    /** Old ones go, with their files. */
    public static function forgetOld(): void
    {
        foreach (self::query()->where('updated_at', '<', now()->subHours(self::KEPT))->get() as $old) {
            $old->dropFiles();
            $old->delete();
        }
    }

    /**
     * @return array<string, mixed>
     */
    public function told(): array
    {
        return [
            'key' => $this->key,
            'kind' => $this->kind->value,
            'name' => $this->name,
            'state' => $this->state,
            'revision' => $this->revision,
            'done' => $this->done,
            'of' => $this->of,
            'at' => $this->created_at->toIso8601String(),
            'answer' => $this->answer,
            'file' => $this->state === 'done' && $this->kind->makesFile(),
            'trouble' => $this->trouble,
        ];
    }
}
