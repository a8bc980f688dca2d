<?php

declare(strict_types=1);

// What buying and building cost in time: splits beside GLPK's solver on the same instances, dates, prints, derived steps, a
// large mesh. Started by bin/magpie bench buy.

use Magpie\Core\Buying\Splitter;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Planning\Activity;
use Magpie\Core\Planning\Derivation;
use Magpie\Core\Planning\LookAhead;
use Magpie\Core\Planning\Network;
use Magpie\Core\Planning\PrintQueue;
use Magpie\Core\Planning\Spread;
use Magpie\Core\Planning\WayBack;
use Magpie\Core\Printing\MeshReader;
use Magpie\Core\Tests\Buying\Instances;
use Tests\Support\LargeBuild;

require __DIR__.'/../vendor/autoload.php';

$middle = static function (array $took): float {
    sort($took);

    return $took[intdiv(count($took), 2)];
};
$folder = sys_get_temp_dir().'/magpie-bench-'.getmypid();
mkdir($folder);
foreach ([[60, 8, true], [120, 12, false]] as [$lines, $suppliers, $beside]) {
    $own = $peer = [];
    $open = 0;
    for ($seed = 1; $seed <= 12; $seed++) {
        [$all, $terms] = Instances::of($lines, $suppliers, $seed);
        $start = hrtime(true);
        $found = (new Splitter($all, $terms, PHP_INT_MAX, 5.0))->solve();
        $own[] = (hrtime(true) - $start) / 1e6;
        $open += $found['proven'] ? 0 : 1;
        if ($beside) {
            file_put_contents("{$folder}/split.lp", Instances::model($all, $terms, PHP_INT_MAX));
            $start = hrtime(true);
            exec("timeout 60 glpsol --lp {$folder}/split.lp -o {$folder}/split.out");
            $peer[] = (hrtime(true) - $start) / 1e6;
        }
    }
    printf(
        "split of %d lines over %d suppliers, 12 instances: middle %.0f ms, most %.0f ms, %d not proven in 5 s%s\n",
        $lines,
        $suppliers,
        $middle($own),
        max($own),
        $open,
        $beside ? sprintf('; glpsol middle %.0f ms, most %.0f ms', $middle($peer), max($peer)) : '',
    );
}
mt_srand(1);
$list = [];
for ($i = 0; $i < 200; $i++) {
    $after = $i > 3 ? ['k'.mt_rand(max(0, $i - 12), $i - 1), 'k'.mt_rand(max(0, $i - 12), $i - 1)] : [];
    $days = mt_rand(1, 9);
    $list[] = new Activity("k{$i}", "k{$i}", 0.7 * $days, $days, 2.0 * $days, array_values(array_unique($after)));
}
$network = new Network($list);
$start = hrtime(true);
new Spread($network);
printf("10,000 samples of 200 activities: %.0f ms (budget 400)\n", (hrtime(true) - $start) / 1e6);

// Fifty printed parts, three of each, over three printers of two speeds.
mt_srand(3);
$file = ['magpie' => BuildFile::VERSION, 'build' => ['name' => 'Prints', 'kind' => 'printer', 'currency' => 'GBP']];
for ($i = 0; $i < 50; $i++) {
    $file['parts'][] = [
        'ref' => "p{$i}",
        'family' => 'printed_part',
        'name' => "Part {$i}",
        'specs' => [
            'material' => ['PLA', 'ASA', 'PETG'][mt_rand(0, 2)],
            'infill' => '30 %',
            'wall_share' => '40 %',
            'volume' => mt_rand(3, 200).' cm³',
            'length' => mt_rand(20, 300).' mm',
            'width' => '40 mm',
            'height' => '30 mm',
        ],
    ];
    $file['needs'][] = ['ref' => "p{$i}", 'role' => "p{$i}", 'family' => 'printed_part', 'quantity' => 3, 'candidates' => ["p{$i}"], 'choice' => "p{$i}"];
}
foreach (['a' => ['320 mm', '8 mm³/s'], 'b' => ['220 mm', '5 mm³/s'], 'c' => ['220 mm', '5 mm³/s']] as $ref => [$length, $flow]) {
    $file['printers'][] = ['ref' => $ref, 'name' => $ref, 'length' => $length, 'width' => '220 mm', 'height' => '250 mm', 'plastics' => ['PLA', 'ASA', 'PETG'], 'flow' => $flow, 'daily' => '10 h'];
}
$prints = BuildFile::build($file);
$start = hrtime(true);
$queue = (new PrintQueue($prints, '2026-01-01'))->toArray();
printf(
    "%d prints over three printers: %.0f ms (budget 500), %.2f days, none under %.2f\n",
    $queue['pieces'],
    (hrtime(true) - $start) / 1e6,
    $queue['days'],
    $queue['bound'],
);
foreach ([[150, 400], [400, 1500]] as [$parts, $budget]) {
    $machine = LargeBuild::of($parts);
    $start = hrtime(true);
    $steps = count((new Derivation($machine))->steps);
    $took = (hrtime(true) - $start) / 1e6;
    $start = hrtime(true);
    new WayBack($machine, (string) array_key_first($machine->needs));
    $back = (hrtime(true) - $start) / 1e6;
    $start = hrtime(true);
    (new LookAhead($machine))->toArray();
    printf(
        "%d steps of %d parts: %.0f ms (budget %d), the way back to one: %.0f ms (budget 50), what each closes in: %.0f ms\n",
        $steps,
        $parts,
        $took,
        $budget,
        $back,
        (hrtime(true) - $start) / 1e6,
    );
}

// A ball of a million triangles, made and read.
$rings = 708;
$at = static fn (int $i, int $j): array => $i === 0 || $i === $rings
    ? [0.0, 0.0, $i === 0 ? 50.0 : -50.0]
    : [
        50 * sin(M_PI * $i / $rings) * cos(2 * M_PI * ($j % $rings) / $rings),
        50 * sin(M_PI * $i / $rings) * sin(2 * M_PI * ($j % $rings) / $rings),
        50 * cos(M_PI * $i / $rings),
    ];
$file = fopen("{$folder}/ball.stl", 'wb+');
fwrite($file, str_pad('', 80).pack('V', 0));
$count = 0;
for ($i = 0; $i < $rings; $i++) {
    $bytes = '';
    for ($j = 0; $j < $rings; $j++) {
        [$a, $b, $c, $d] = [$at($i, $j), $at($i + 1, $j), $at($i + 1, $j + 1), $at($i, $j + 1)];
        foreach ([[$i < $rings - 1, $a, $b, $c], [$i > 0, $a, $c, $d]] as [$there, $x, $y, $z]) {
            if ($there) {
                $bytes .= pack('g12', 0, 0, 0, ...$x, ...$y, ...$z)."\0\0";
                $count++;
            }
        }
    }
    fwrite($file, $bytes);
}
fseek($file, 80);
fwrite($file, pack('V', $count));
rewind($file);
memory_reset_peak_usage();
$start = hrtime(true);
$mesh = MeshReader::read(
    (static function () use ($file): iterable {
        while (! feof($file)) {
            yield (string) fread($file, 262_144);
        }
    })(),
);
printf(
    "%s triangles: %.2f s (budget 6), peak memory %.1f MB (budget 64), %s\n",
    number_format($mesh->triangles),
    (hrtime(true) - $start) / 1e9,
    memory_get_peak_usage() / 1048576,
    $mesh->closed ? 'closed' : 'open',
);
fclose($file);
array_map(unlink(...), glob("{$folder}/*") ?: []);
rmdir($folder);
