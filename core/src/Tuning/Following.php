<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

use Magpie\Core\Straightness\Fit;

/** How far an axis lags behind what it was told: its worst, where it settles, and whether it creeps up (RU-10). */
final readonly class Following
{
    /**
     * @param  float  $worst  unit of the log
     * @param  float  $rest  mean of the last tenth
     * @param  float  $trend  of its size, unit of the log for a minute
     * @param  int  $beyond  samples beyond the limit
     */
    private function __construct(
        public float $worst,
        public float $at,
        public float $rest,
        public float $trend,
        public float $rms,
        public int $beyond,
    ) {
    }

    /**
     * @param  list<float>  $time
     * @param  list<float>  $error
     *
     * @throws CannotTune
     */
    public static function of(array $time, array $error, ?float $limit = null): self
    {
        $n = count($error);
        if ($n < 20) {
            throw new CannotTune("there are {$n} rows; it needs 20 at least.");
        }
        $sizes = array_map(abs(...), $error);
        $worst = (int) array_search(max($sizes), $sizes, true);
        $tail = max(2, intdiv($n, 10));
        // The trend is that of the worst of each fiftieth, so that standing still does not hide it.
        $block = max(1, intdiv($n, 50));
        $x = $y = [];
        for ($i = 0; $i + $block <= $n; $i += $block) {
            $x[] = $time[$i];
            $y[] = max([0.0, ...array_slice($sizes, $i, $block)]);
        }
        [$slope] = $x === [] || $y === [] ? [0.0] : Fit::line($x, $y);

        return new self(
            $error[$worst],
            $time[$worst],
            array_sum(array_slice($error, -$tail)) / $tail,
            $slope * 60,
            sqrt(array_sum(array_map(static fn (float $e): float => $e ** 2, $error)) / $n),
            $limit === null ? 0 : count(array_filter($sizes, static fn (float $s): bool => $s > $limit)),
        );
    }

    /**
     * @return array{worst: float, at: float, rest: float, trend: float, rms: float, beyond: int}
     */
    public function toArray(): array
    {
        return [
            'worst' => round($this->worst, 6),
            'at' => round($this->at, 3),
            'rest' => round($this->rest, 6),
            'trend' => round($this->trend, 6),
            'rms' => round($this->rms, 6),
            'beyond' => $this->beyond,
        ];
    }
}
