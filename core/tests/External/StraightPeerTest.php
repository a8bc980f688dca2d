<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\External;

use Magpie\Core\Straightness\Methods;
use PHPUnit\Framework\TestCase;

/** Planes, lines, harmonics and circles against the same fits by GNU Octave (Debian package octave), 40 seeded cases. */
final class StraightPeerTest extends TestCase
{
    public function test_forty_fits_agree_to_a_tenth_of_a_micrometre(): void
    {
        mt_srand(20261128);
        $some = static fn (float $size): float => round((mt_rand() / mt_getrandmax() - 0.5) * 2 * $size, 4);
        $script = '';
        $own = [];
        for ($case = 0; $case < 10; $case++) {
            $n = 5 + $case;
            $row = static fn (float $size): array => array_map(static fn () => $some($size), range(1, $n));
            [$x, $y, $z] = [$row(300), $row(300), $row(0.5)];
            $text = static fn (array $row): string => implode(' ', $row).' mm';
            $m = static fn (array $row): string => '['.implode(';', $row).']';
            $plane = Methods::work('corners', [
                'x' => $text($x),
                'y' => $text($y),
                'z' => $text($z),
                'pitch' => '0.7 mm',
            ]);
            array_push($own, $plane->value('across'), $plane->value('bend'));
            $script .= "x={$m($x)};y={$m($y)};z={$m($z)};p=[ones(size(x)) x y]\\z;r=z-[ones(size(x)) x y]*p;";
            $script .= 'printf("%.9f\n%.9f\n",p(2)*1000,max(r)-min(r));';
            $at = array_map(static fn (int $i): int => $i * 50, range(0, $n - 1));
            $rail = Methods::work('straight', ['at' => $text($at), 'height' => $text($z)]);
            array_push($own, $rail->value('least'), $rail->value('slope'));
            $script .= "t={$m(
                $at,
            )};p=polyfit(t,z,1);r=z-polyval(p,t);printf(\"%.9f\\n%.9f\\n\",max(r)-min(r),p(1)*1000);";
            $angle = array_map(static fn (int $i): float => $i * (360 / $n), range(0, $n - 1));
            $turn = Methods::work('run-out', [
                'angle' => implode(' ', array_map(static fn (float $a): string => sprintf('%.9f', $a), $angle)).' °',
                'reading' => $text($z),
            ]);
            $own[] = $turn->value('off');
            $script .= "t={$m($angle)}*pi/180;p=[ones(size(t)) cos(t) sin(t)]\\z;printf(\"%.9f\\n\",hypot(p(2),p(3)));";
            $cx = array_map(
                static fn (float $a, float $off): float => round(7 + (40 + $off) * cos(deg2rad($a)), 5),
                $angle,
                $z,
            );
            $cy = array_map(
                static fn (float $a, float $off): float => round(-3 + (40 + $off) * sin(deg2rad($a)), 5),
                $angle,
                $z,
            );
            $circle = Methods::work('circle', ['x' => $text($cx), 'y' => $text($cy)]);
            array_push($own, $circle->value('diameter'), $circle->value('round'));
            $script .= "x={$m($cx)};y={$m($cy)};p=[7;-3;40];";
            $script .= 'for k=1:60,d=hypot(x-p(1),y-p(2));p=p+[(x-p(1))./d (y-p(2))./d ones(size(x))]\\(d-p(3));end;r=hypot(x-p(1),y-p(2));';
            $script .= 'printf("%.9f\n%.9f\n",2*p(3),max(r)-min(r));';
        }
        exec('octave-cli --no-gui --quiet --eval '.escapeshellarg($script).' 2>&1', $said, $status);
        self::assertSame(0, $status, implode("\n", array_slice($said, 0, 5)));
        self::assertCount(count($own), $said, implode("\n", array_slice($said, 0, 12)));
        foreach ($said as $i => $one) {
            self::assertEqualsWithDelta((float) $one, $own[$i], 1e-4, "figure {$i}");
        }
    }
}
