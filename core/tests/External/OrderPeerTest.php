<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\External;

use Magpie\Core\Planning\Derivation;
use Magpie\Core\Tests\Planning\Machines;
use PHPUnit\Framework\TestCase;

/** That steps wait for one another without a circle, told by coreutils' tsort. */
final class OrderPeerTest extends TestCase
{
    public function test_tsort_finds_an_order_and_ours_breaks_none_of_its_pairs(): void
    {
        for ($seed = 1; $seed <= 500; $seed += 5) {
            $steps = (new Derivation(Machines::random($seed)))->steps;
            $pairs = '';
            foreach ($steps as $step) {
                // A name twice is a name that waits for nothing.
                $pairs .= "{$step->key} {$step->key}\n";
                foreach ($step->after as $before) {
                    $pairs .= "{$before} {$step->key}\n";
                }
            }
            $process = proc_open(['tsort'], [0 => ['pipe', 'r'], 1 => ['pipe', 'w'], 2 => ['pipe', 'w']], $pipes);
            self::assertIsResource($process);
            fwrite($pipes[0], $pairs);
            fclose($pipes[0]);
            $order = explode("\n", trim((string) stream_get_contents($pipes[1])));
            self::assertSame('', stream_get_contents($pipes[2]), "{$seed}: no loop");
            self::assertSame(0, proc_close($process));
            $own = array_map(static fn ($s): string => $s->key, $steps);
            sort($order);
            sort($own);
            self::assertSame($own, $order, "{$seed}: the same steps");
        }
    }
}
