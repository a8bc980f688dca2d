<?php

declare(strict_types=1);

// What a search costs that tries many changes of a large build. Started by bin/magpie bench search.

use Magpie\Core\Advice\MeasureFirst;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Remedies\CheapestSet;
use Magpie\Core\Remedies\RemedySearch;
use Tests\Support\LargeBuild;

require __DIR__.'/../vendor/autoload.php';

$took = static function (callable $work): array {
    $start = hrtime(true);

    return [$work(), (hrtime(true) - $start) / 1e6];
};
$shelf = array_map(
    LibraryFile::read(...),
    json_decode((string) file_get_contents(__DIR__.'/../core/reference/starter-library.json'), true),
);
$short = static fn (Standing $standing): array => array_values(
    array_filter(
        $standing->findings(),
        static fn (Finding $f): bool => in_array($f->verdict, [Verdict::Danger, Verdict::Fails, Verdict::Tight], true),
    ),
);

$standing = Standing::of(Rules::inspector(), LargeBuild::of(400));
[$rows, $ms] = $took(static fn (): array => (new MeasureFirst($standing))->toArray());
printf("400 parts, what to measure first: %d rows in %.0f ms (budget 1500)\n", count($rows), $ms);

$standing = Standing::of(Rules::inspector(), LargeBuild::thin(400));
$times = [];
foreach ($short($standing) as $i => $finding) {
    if ($i % 7 === 0) {
        [$found, $ms] = $took(static fn (): array => (new RemedySearch($standing, $shelf))->for($finding));
        $times["{$finding->key()}, {$found['tried']} tried"] = $ms;
    }
}
asort($times);
printf(
    "400 parts, every third lead too thin, fixes for one finding of %d: %.0f ms in the middle (budget 500), %.0f for %s\n",
    count($times),
    array_values($times)[intdiv(count($times), 2)],
    max($times),
    array_key_last($times),
);

// As the screen does it: fixes for each of those that are picked, then the cheapest set of them that cures all.
$standing = Standing::of(Rules::inspector(), LargeBuild::thin(150));
$picked = array_slice($short($standing), 0, 60);
$offers = [];
[, $ms] = $took(static function () use ($picked, $standing, $shelf, &$offers): void {
    foreach ($picked as $finding) {
        foreach ((new RemedySearch($standing, $shelf))->for($finding)['remedies'] as $offer) {
            $offers[] = [
                'says' => $offer['says'],
                'changes' => $offer['changes'],
                'cured' => array_keys($offer['cured']),
                'cost' => (float) $offer['cost'],
                'buys' => $offer['buys'],
            ];
        }
    }
});
$keys = array_map(static fn (Finding $f): string => $f->key(), $picked);
[$set, $more] = $took(static fn (): array => (new CheapestSet($standing))->of($keys, $offers));
printf(
    "150 parts, %d findings: %d offers in %.0f ms, the cheapest set of them in %.0f ms (budget 5000): %d chosen, %s, %d left\n",
    count($picked),
    count($offers),
    $ms,
    $more,
    count($set['chosen']),
    $set['proven'] ? 'proven' : "not proven, gap {$set['gap']}",
    count($set['left']),
);
