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
            file_put_contents($model, self::model($lines, $terms, $most));
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

    /**
     * In CPLEX's LP format, amounts in whole money.
     *
     * @param  list<list<array<int, int>>>  $lines
     * @param  list<list<array{int, int, float, float}>>  $terms
     */
    private static function model(array $lines, array $terms, int $most): string
    {
        $costs = $rows = $whole = $open = [];
        foreach ($lines as $i => $ways) {
            $names = array_map(static fn (int $w): string => "x_{$i}_{$w}", array_keys($ways));
            $rows[] = implode(' + ', $names).' = 1';
            $whole = [...$whole, ...$names];
        }
        foreach ($terms as $s => $stretches) {
            $most0 = 0;
            $bought = '';
            foreach ($lines as $i => $ways) {
                foreach ($ways as $w => $way) {
                    if (isset($way[$s])) {
                        $bought .= sprintf(' - %.6f x_%d_%d', $way[$s] / 1e6, $i, $w);
                        $most0 += $way[$s];
                    }
                }
            }
            $goods = $taken = [];
            foreach ($stretches as $k => [$from, $to, $fixed, $slope]) {
                [$g, $z] = ["g_{$s}_{$k}", "z_{$s}_{$k}"];
                $costs[] = sprintf('%+.9f %s %+.9f %s', $fixed, $z, $slope * 1e6, $g);
                $rows[] = sprintf('%s - %.6f %s >= 0', $g, $from / 1e6, $z);
                $rows[] = sprintf('%s - %.6f %s <= 0', $g, min($to, $most0) / 1e6, $z);
                [$goods[], $taken[], $whole[]] = [$g, $z, $z];
            }
            $rows[] = implode(' + ', $goods)."{$bought} = 0";
            $rows[] = implode(' + ', $taken).' <= 1';
            $open = [...$open, ...$taken];
        }
        if ($most < PHP_INT_MAX) {
            $rows[] = implode(' + ', $open)." <= {$most}";
        }
        $named = array_map(static fn (int $n, string $row): string => " r{$n}: {$row}", array_keys($rows), $rows);

        return "Minimize\n obj: ".
            implode("\n ", $costs).
            "\nSubject To\n".
            implode("\n", $named).
            "\nBinary\n ".
            implode("\n ", $whole).
            "\nEnd\n";
    }
}
