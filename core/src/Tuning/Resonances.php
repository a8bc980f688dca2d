<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

/**
 * What a log of acceleration says of each of its signals: peaks with their damping, and the filter that suits the highest, with what it
 * leaves when the machine is a tenth off, and the acceleration it allows (C10 of the handbook).
 *
 * @phpstan-type Suit array{name: string, residual: float, acceleration: float, delay: float}
 * @phpstan-type Row array{signal: string, peaks: list<array{frequency: float, damping: float|null, damping_most: float, share: float}>,
 *     filters: list<Suit>, best: string|null, curve: list<array{float, float}>}
 */
final readonly class Resonances
{
    /** Left of the vibration that is still well: common practice, no source. */
    private const WELL = 0.1;

    /** Samples a second below which no resonance of a machine is seen: those of large gantries begin at about ten hertz. */
    private const LEAST_RATE = 40.0;

    /** Damping a filter is worked with where the log does not tell it: common practice, no source. */
    private const USUAL = 0.05;

    /** Points of the curve that is drawn. */
    private const DRAWN = 300;

    /**
     * @param  float  $accepted  how far a corner may be rounded, mm
     */
    public function __construct(private Log $log, private float $accepted = 0.15)
    {
    }

    /**
     * @return array{rate: float, unevenness: float, accepted: float, signals: list<Row>, says: list<string>}
     *
     * @throws CannotTune
     */
    public function toArray(): array
    {
        if ($this->log->rate() < self::LEAST_RATE) {
            throw new CannotTune(sprintf(
                'there are %.3g samples a second, and 40 are the least for a resonance. Is its time in milliseconds? Its heading says so then: "time ms".',
                $this->log->rate(),
            ));
        }
        $rows = [];
        $taken = Columns::directions(array_map(strval(...), array_keys($this->log->signals)));
        foreach ($taken as $name) {
            $rows[] = $this->row($name, Spectrum::of($this->log->signals[$name], $this->log->rate()));
        }
        $others = array_diff(array_map(strval(...), array_keys($this->log->signals)), $taken);
        $uneven = $this->log->unevenness();

        return [
            'rate' => round($this->log->rate(), 2),
            'unevenness' => round($uneven, 4),
            'accepted' => $this->accepted,
            'signals' => $rows,
            'says' => [
                ...$others === []
                    ? []
                    : ['Taken as directions: '.implode(', ', $taken).'. Left out: '.implode(', ', $others).'.'],
                ...$this->isTooShort($rows)
                    ? ['The log is too short to tell the damping of a peak: what would be read is the width of the window. Log for longer.']
                    : [],
                ...$uneven > 0.5
                    ? ['The time between samples is uneven: some were lost, and the upper frequencies are not to be trusted.']
                    : [],
                'The highest peak counts; a second of a third of its height or more wants the filter with three impulses, or the cause taken away: a loose screw, a slack belt, a soft foot.',
            ],
        ];
    }

    /**
     * @param  list<Row>  $rows
     */
    private function isTooShort(array $rows): bool
    {
        foreach ($rows as $row) {
            if (($row['peaks'][0] ?? null) !== null && $row['peaks'][0]['damping'] === null) {
                return true;
            }
        }

        return false;
    }

    /**
     * @return Row
     */
    private function row(string $name, Spectrum $spectrum): array
    {
        $peaks = $spectrum->peaks(4, 5.0, min(200.0, $this->log->rate() / 2.2));
        $filters = [];
        $best = null;
        $top = $peaks[0] ?? null;
        if ($top !== null) {
            $damping = $top->isDampingKnown ? min(0.3, max(0.0, $top->damping)) : min(self::USUAL, $top->damping);
            foreach ([Shaper::two($top->frequency, $damping), Shaper::three($top->frequency, $damping)] as $shaper) {
                $residual = $shaper->worstAbout($top->frequency, $damping);
                $filters[] = [
                    'name' => $shaper->name,
                    'residual' => round($residual, 4),
                    'acceleration' => round($shaper->acceleration($this->accepted), 0),
                    'delay' => round($shaper->delay(), 5),
                ];
                $best ??= $residual <= self::WELL ? $shaper->name : null;
            }
            $best ??= $filters[1]['name'];
        }

        return [
            'signal' => $name,
            'peaks' => array_map(
                static fn (Peak $p): array => [
                    'frequency' => round($p->frequency, 2),
                    'damping' => $p->isDampingKnown ? round($p->damping, 4) : null,
                    'damping_most' => round($p->damping, 4),
                    'share' => round($p->share, 3),
                ],
                $peaks,
            ),
            'filters' => $filters,
            'best' => $best,
            'curve' => self::curve($spectrum),
        ];
    }

    /**
     * The density up to 200 Hz, against its highest, thinned so that no peak is lost.
     *
     * @return list<array{float, float}>
     */
    private static function curve(Spectrum $spectrum): array
    {
        $last = min(count($spectrum->density) - 1, (int) (200 / $spectrum->step));
        $part = array_slice($spectrum->density, 0, $last + 1);
        $top = max(1e-300, ...$part === [] ? [0.0] : $part);
        $block = max(1, (int) ceil(count($part) / self::DRAWN));
        $curve = [];
        foreach (array_chunk($part, $block) as $i => $chunk) {
            $curve[] = [round($i * $block * $spectrum->step, 3), round(max($chunk) / $top, 5)];
        }

        return $curve;
    }
}
