<?php

declare(strict_types=1);

namespace App\Errands;

use App\Accounts\Access;
use App\Models\Errand;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\Storage;
use Throwable;

/** Does an errand, once. What comes of it, good or bad, is told at the errand. */
final class CarryOut implements ShouldQueue
{
    use Queueable;

    public int $tries = 1;

    /** Seconds. */
    public int $timeout = 900;

    public function __construct(private readonly int $errand)
    {
    }

    public function handle(): void
    {
        // One that was stopped while it waited, or that a second worker was handed, is left.
        $claimed = Errand::query()
            ->whereKey($this->errand)
            ->where('state', 'waiting')
            ->update(['state' => 'running', 'beat_at' => now()->format('Y-m-d H:i:s.v')]);
        $errand = Errand::query()->with('build')->find($this->errand);
        if ($claimed === 0 || $errand === null || $errand->build === null) {
            return;
        }
        $begun = hrtime(true);
        try {
            $answer = Access::asVisitor(
                $errand->isOfVisitor() ? $errand->visit() ?? throw new CannotDo('The link it was asked by opens nothing any more.') : null,
                static fn (): ?array => $errand->kind
                    ->work()
                    ->do($errand, $errand->build, Storage::path($errand->brought()), new Progress($errand)),
            );
            $this->end($errand, ['state' => 'done', 'answer' => $answer]);
            Storage::delete($errand->brought());
        } catch (Stopped) {
            Storage::delete($errand->result());
        } catch (CannotDo $e) {
            $this->end($errand, ['state' => 'failed', 'trouble' => mb_substr($e->getMessage(), 0, 500)]);
        } catch (Throwable $e) {
            report($e);
            $this->end($errand, [
                'state' => 'failed',
                'trouble' => 'Something went wrong with it; what it was is in the log.',
            ]);
        } finally {
            $errand->spent((int) ceil((hrtime(true) - $begun) / 1e9));
        }
    }

    /** The worker ran out of time, or found it left behind by one that died. */
    public function failed(?Throwable $e): void
    {
        $errand = Errand::query()->find($this->errand);
        if ($errand?->state === 'running') {
            $errand->cutOff();
        }
    }

    /**
     * @param  array<string, mixed>  $with
     */
    private function end(Errand $errand, array $with): void
    {
        // What was stopped meanwhile stays stopped.
        if ($errand->refresh()->state === 'running') {
            $errand->update($with);
        }
    }
}
