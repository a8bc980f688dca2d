<?php

declare(strict_types=1);

// Figures of Run: the ladder after a reading, a spectrum, a program of 50 MB, the book. `bin/magpie bench run`.

use App\Books\Pdf;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Book\Book;
use Magpie\Core\Commissioning\Ladder;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\Running\Reading;
use Magpie\Core\Programs\Caps;
use Magpie\Core\Programs\ProgramReader;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Simulation\SimulatedLog;
use Magpie\Core\Tuning\Log;
use Magpie\Core\Tuning\Spectrum;
use Tests\Support\LargeBuild;

require __DIR__.'/../vendor/autoload.php';

$took = static fn (int $start): float => (hrtime(true) - $start) / 1e6;

$machine = LargeBuild::of(150);
$standing = Standing::of(Rules::inspector(), $machine);
new Ladder($standing->survey(), $standing->inspection()->open());
$times = [];
for ($i = 0; $i < 9; $i++) {
    $need = (string) array_keys($machine->needs)[$i];
    $reading = new Reading("R{$i}", Measured::Temperature, Quantity::of(30 + $i, '°C'), $need, at: $i);
    $start = hrtime(true);
    $next = $standing->after($machine->with(['readings' => [$reading->ref => $reading]]));
    (new Ladder($next->survey(), $next->inspection()->open()))->toArray();
    $times[] = $took($start);
}
sort($times);
printf("ladder of 150 parts judged again after a reading: %.0f ms (budget 60)\n", $times[4]);

$csv = (new SimulatedLog(1))->acceleration(3200, 120);
$log = Log::read(explode("\n", $csv));
$start = hrtime(true);
foreach ($log->signals as $signal) {
    Spectrum::of($signal, $log->rate());
}
printf("spectrum of 120 s at 3.2 kHz on three axes: %.2f s (budget 2)\n", $took($start) / 1000);
unset($csv, $log);

memory_reset_peak_usage();
$start = hrtime(true);
$program = ProgramReader::read((static function (): iterable {
    $size = 0;
    yield "G21 G90\nS8000 M3\nG0 Z5\nF1800\n";
    for ($i = 0; $size < 50_000_000; $i++) {
        $line = sprintf("G1 X%.3f Y%.3f Z-0.5\n", 150 + 140 * cos($i * 0.01), 150 + 140 * sin($i * 0.013));
        $size += strlen($line);
        yield $line;
    }
    yield "G0 Z5\nM5\nM30\n";
})(), new Caps(['X' => 6000.0, 'Y' => 6000.0, 'Z' => 1200.0], ['X' => 500.0, 'Y' => 500.0, 'Z' => 200.0]));
printf("program of 50 MB, %d lines: %.1f s (budget 20), %d MB at the most (budget 64)\n", $program->lines, $took($start) / 1000, memory_get_peak_usage() / 1e6);

memory_reset_peak_usage();
$start = hrtime(true);
$build = BuildFile::read((string) file_get_contents(__DIR__.'/../demo/dunlin.json'));
$pdf = Pdf::of(new Book(Rules::inspector()->inspect($build), 1_795_000_000), static fn (): null => null, 'http://127.0.0.1/');
printf("book of Dunlin, %d kB: %.1f s (budget 6), %d MB at the most (budget 128)\n", strlen($pdf) / 1000, $took($start) / 1000, memory_get_peak_usage() / 1e6);
