<?php

declare(strict_types=1);

namespace App\Errands;

use App\Models\Errand;
use Illuminate\Support\Facades\DB;

/** How far an errand is: told twice a second to whoever looks, who may stop it. */
final class Progress
{
    private const EVERY = 0.5;

    private float $last = 0.0;

    public function __construct(private readonly Errand $errand)
    {
    }

    /** @throws Stopped */
    public function at(int $done, int $of): void
    {
        if (microtime(true) - $this->last < self::EVERY) {
            return;
        }
        $this->last = microtime(true);
        $goesOn = DB::table('errands')
            ->where(['id' => $this->errand->id, 'state' => 'running'])
            ->update(['done' => $done, 'of' => $of, 'beat_at' => now()->format('Y-m-d H:i:s.v')]);
        if ($goesOn === 0) {
            throw new Stopped;
        }
    }

    /**
     * The pieces of a file, telling how much of it was read.
     *
     * @param  positive-int  $size
     * @return iterable<string>
     *
     * @throws Stopped
     */
    public function pieces(string $path, int $size): iterable
    {
        $of = (int) filesize($path);
        $stream = fopen($path, 'rb');
        for ($read = 0; $stream !== false && ! feof($stream);) {
            $piece = (string) fread($stream, $size);
            $read += strlen($piece);
            $this->at($read, $of);
            yield $piece;
        }
    }

    /**
     * The lines of a file, likewise.
     *
     * @return iterable<string>
     *
     * @throws Stopped
     */
    public function lines(string $path): iterable
    {
        $of = (int) filesize($path);
        $stream = fopen($path, 'rb');
        $read = 0;
        for ($n = 0; $stream !== false && ($line = fgets($stream, 65536)) !== false; $n++) {
            $read += strlen($line);
            if ($n % 1000 === 0) {
                $this->at($read, $of);
            }
            yield $line;
        }
    }
}
