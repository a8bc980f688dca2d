<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use Magpie\Core\Machine\Build;

/** The print queue with the day each print has to begin by, as data and as text: docs/format/prints.md describes the shape. */
final readonly class PrintReport
{
    public const VERSION = 1;

    private PrintQueue $queue;

    /**
     * @param  string  $today  YYYY-MM-DD
     */
    public function __construct(private Build $build, private string $today)
    {
        $this->queue = new PrintQueue($build, $today);
    }

    /** Whether every piece can be given to a printer. */
    public function whole(): bool
    {
        return $this->queue->waiting === [];
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        $data = $this->queue->toArray();
        $latest = BuildDates::networkOf($this->build, $this->today, $this->queue)->latest;
        foreach ($data['printers'] as $p => $printer) {
            foreach ($printer['jobs'] as $j => $job) {
                $days = $latest[$job['key']] ?? null;
                $data['printers'][$p]['jobs'][$j]['start_by'] =
                    $days === null ? null : BuildDates::on($this->today, max(0.0, floor($days + 1e-9)));
            }
        }

        return ['magpie_prints' => self::VERSION] + $data;
    }

    public function text(): string
    {
        /** @var array{finish: string|null, pieces: int, hours: float, grams: float, bound: float, days: float,
         *     printers: list<array{name: string, to: string, hours: float, assumed: list<string>, jobs: list<array{name: string, pieces: int, stuff: string, hours: float, to: string, start_by: string|null, assumed: list<string>}>}>,
         *     waiting: list<array{name: string, pieces: int, why: string}>, apart: list<array{name: string, pieces: int, why: string}>,
         *     reels: list<array{stuff: string, grams: float, there: int, coming: int, more: int, assumed: list<string>}>,
         *     runs: list<array{name: string, date: string, state: string, share: float|null}>} $data */
        $data = $this->toArray();
        $text = sprintf(
            "%s: %d pieces to print, %.1f h, %.0f g%s\n",
            $this->build->plan->name,
            $data['pieces'],
            $data['hours'],
            $data['grams'],
            $data['finish'] === null ? '' : "; done on {$data['finish']}",
        );
        foreach ($data['printers'] as $printer) {
            $text .= sprintf("\n%s: %.1f h, until %s\n", $printer['name'], $printer['hours'], $printer['to']);
            foreach ($printer['jobs'] as $job) {
                $text .= sprintf(
                    "  %4d × %-32s %-12s %6.1f h  until %s%s\n",
                    $job['pieces'],
                    $job['name'],
                    $job['stuff'],
                    $job['hours'],
                    $job['to'],
                    $job['start_by'] === null ? '' : ", begin by {$job['start_by']}",
                );
                foreach ($job['assumed'] as $assumed) {
                    $text .= "         taken for granted: {$assumed}\n";
                }
            }
            foreach ($printer['assumed'] as $assumed) {
                $text .= "  taken for granted: {$assumed}\n";
            }
        }
        $text .= $data['reels'] === [] ? '' : "\n";
        foreach ($data['reels'] as $reel) {
            $text .= sprintf(
                "  %s: %.0f g with a tenth more, %d reels there, %d on their way%s\n",
                $reel['stuff'],
                $reel['grams'],
                $reel['there'],
                $reel['coming'],
                $reel['more'] === 0 ? '' : "; {$reel['more']} more to buy",
            );
            foreach ($reel['assumed'] as $assumed) {
                $text .= "    taken for granted: {$assumed}\n";
            }
        }
        foreach ($data['waiting'] as $line) {
            $text .= "  waits: {$line['pieces']} × {$line['name']}: {$line['why']}\n";
        }
        foreach ($data['apart'] as $line) {
            $text .= "  for the finished machine: {$line['pieces']} × {$line['name']}: {$line['why']}\n";
        }
        foreach ($data['runs'] as $run) {
            if ($run['state'] === 'thin') {
                $text .= sprintf(
                    "  thin: %s, printed %s, weighs %.0f %% of its recipe\n",
                    $run['name'],
                    $run['date'],
                    100 * ($run['share'] ?? 0.0),
                );
            }
        }

        return $text;
    }
}
