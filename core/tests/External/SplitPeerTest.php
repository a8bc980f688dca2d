<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\External;

use Magpie\Core\Buying\Splitter;
use Magpie\Core\Tests\Buying\Instances;
use PHPUnit\Framework\TestCase;

/**
 * Splits against GLPK's solver of mixed-integer programs (Debian's glpsol), from a model written here: a way of each
 * line, a stretch of each supplier's terms, and goods between its ends.
 */
final class SplitPeerTest extends TestCase
{
    public function test_sixty_splits_cost_what_the_peer_finds_to_the_cent(): void
    {
        $model = (string) tempnam(sys_get_temp_dir(), 'split');
        $infeasible = 0;
        for ($seed = 1; $seed <= 64; $seed++) {
            [$lines, $terms] = Instances::of(8 + ($seed % 17), 3 + ($seed % 4), $seed);
            $most = [PHP_INT_MAX, 2, 1][$seed % 3];
            // With one supplier only, the first line is not to be had where all the others are.
            $lines[0] = $most === 1 && $seed % 2 === 0 ? array_slice($lines[0], 1) : $lines[0];
            $found = (new Splitter($lines, $terms, $most))->solve();
            file_put_contents($model, Instances::model($lines, $terms, $most));
            exec('glpsol --lp '.escapeshellarg($model).' -o '.escapeshellarg("{$model}.out"), $said, $status);
            self::assertSame(0, $status, implode("\n", array_slice($said, -3)));
            $report = (string) file_get_contents("{$model}.out");
            self::assertTrue($found['proven'], "seed {$seed}");
            if (preg_match('/Status:\s+INTEGER OPTIMAL/', $report) === 1) {
                preg_match('/Objective:\s+obj = (\S+)/', $report, $m);
                self::assertEqualsWithDelta((float) ($m[1] ?? NAN), $found['cost'], 0.0051, "seed {$seed}");
            } else {
                $infeasible++;
                self::assertNull($found['ways'], "seed {$seed} cannot be had, says the peer");
            }
        }
        unlink($model);
        unlink("{$model}.out");
        self::assertGreaterThan(3, $infeasible, 'some cannot be had, and both say so');
    }
}
