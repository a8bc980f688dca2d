<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\External;

use Magpie\Core\Planning\Activity;
use Magpie\Core\Planning\Network;
use Magpie\Core\Planning\Spread;
use PHPUnit\Framework\TestCase;

/** How far the end lies apart, against the same tries made by GNU Octave (Debian package octave). */
final class SpreadPeerTest extends TestCase
{
    public function test_half_and_nine_of_ten_agree(): void
    {
        // Two ways from a to e, and one beside: e waits for b and c, f for a only.
        $points = [
            'a' => [1, 2, 6],
            'b' => [3, 5, 14],
            'c' => [2, 8, 9],
            'd' => [1, 1, 4],
            'e' => [4, 6, 12],
            'f' => [10, 15, 30],
        ];
        $after = ['b' => ['a'], 'c' => ['a'], 'd' => ['b'], 'e' => ['c', 'd'], 'f' => ['a']];
        $list = [];
        foreach ($points as $key => [$least, $likely, $most]) {
            $list[] = new Activity($key, $key, $least, $likely, $most, $after[$key] ?? []);
        }
        $own = new Spread(new Network($list), 5, 40_000);
        $script = "n = 400000; randg('seed', 1);\n";
        foreach ($points as $key => [$least, $likely, $most]) {
            // A beta variate is made of two gamma variates.
            $script .= sprintf(
                "g = randg(%.9f, n, 1); h = randg(%.9f, n, 1); %s = %g + %g * g ./ (g + h);\n",
                1 + (4 * ($likely - $least)) / ($most - $least),
                1 + (4 * ($most - $likely)) / ($most - $least),
                $key,
                $least,
                $most - $least,
            );
        }
        $script .= 'x = sort(max(max(a + c, a + b + d) + e, a + f)); printf("%.4f %.4f", x(n * 0.5), x(n * 0.9));';
        exec('octave-cli --no-gui --quiet --eval '.escapeshellarg($script).' 2>&1', $said, $status);
        self::assertSame(0, $status, implode("\n", $said));
        [$half, $nine] = array_map(floatval(...), explode(' ', (string) end($said)));
        self::assertEqualsWithDelta($half, $own->within(0.5), 0.01 * $half);
        self::assertEqualsWithDelta($nine, $own->within(0.9), 0.01 * $nine);
    }
}
