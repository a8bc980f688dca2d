<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\External;

use Magpie\Core\Tuning\Fourier;
use Magpie\Core\Tuning\Shaper;
use Magpie\Core\Tuning\Spectrum;
use Magpie\Core\Tuning\StepResponse;
use PHPUnit\Framework\TestCase;

/** Transforms, spectra, filters and step responses against GNU Octave (Debian package octave), seeded. */
final class TuningPeerTest extends TestCase
{
    /**
     * @return list<float>
     */
    private static function octave(string $script): array
    {
        $file = tempnam(sys_get_temp_dir(), 'magpie');
        file_put_contents((string) $file, $script);
        exec('octave-cli --no-gui --quiet '.escapeshellarg((string) $file).' 2>&1', $said, $status);
        unlink((string) $file);
        self::assertSame(0, $status, implode("\n", array_slice($said, 0, 8)));

        return array_map(floatval(...), $said);
    }

    /**
     * @return list<float>
     */
    private static function some(int $n): array
    {
        return array_map(static fn (): float => round((mt_rand() / mt_getrandmax() - 0.5) * 4, 5), range(1, $n));
    }

    public function test_transforms_and_averaged_spectra(): void
    {
        mt_srand(5);
        $own = [];
        $script = '';
        foreach ([64, 256, 1024] as $n) {
            $x = self::some($n);
            [$re, $im] = [$x, array_fill(0, $n, 0.0)];
            Fourier::transform($re, $im);
            array_push($own, $re[3], $im[3], $re[$n - 5], $im[$n >> 1]);
            $script .=
                'x=['.
                implode(' ', $x).
                '];f=fft(x);printf("%.9f\n",real(f(4)),imag(f(4)),real(f(end-4)),imag(f(end/2+1)));';
        }
        foreach ([64, 128, 256] as $size) {
            $x = self::some(1500);
            $spectrum = Spectrum::of($x, 500, $size);
            array_push($own, $spectrum->density[0], $spectrum->density[7], $spectrum->density[$size >> 1]);
            $script .= 'x=['.implode(' ', $x)."];n={$size};w=0.5-0.5*cos(2*pi*(0:n-1)/n);s=zeros(1,n);k=0;";
            $script .= 'for a=1:n/2:length(x)-n+1,p=x(a:a+n-1);p=(p-mean(p)).*w;s=s+abs(fft(p)).^2;k=k+1;end;';
            $script .= 'd=s/(k*500*sum(w.^2));d(2:n/2)=2*d(2:n/2);printf("%.9f\n",d(1),d(8),d(n/2+1));';
        }
        foreach (self::octave($script) as $i => $one) {
            self::assertEqualsWithDelta($one, $own[$i], 1e-6 * max(1.0, abs($one)), "figure {$i}");
        }
        self::assertCount(21, $own);
    }

    /** What a filter leaves, against the swing of a simulated mass on a spring after its impulses. */
    public function test_residuals_of_filters(): void
    {
        $own = [];
        $script = '';
        foreach ([[40, 0.05, 36], [55, 0.1, 60], [80, 0.02, 80], [30, 0.15, 33]] as [$f, $z, $real]) {
            foreach ([Shaper::two($f, $z), Shaper::three($f, $z)] as $shaper) {
                $own[] = $shaper->residual($real, $z);
                $a = '['.implode(' ', $shaper->amplitudes).']';
                $t = '['.implode(' ', $shaper->times).']';
                $script .= "a={$a};t={$t};w=2*pi*{$real};z={$z};wd=w*sqrt(1-z^2);";
                // The complex swing after the last impulse, each decayed since its own.
                $script .= 'q=sum(a.*exp(-z*w*(t(end)-t)).*exp(i*wd*(t(end)-t)));printf("%.9f\n",abs(q));';
            }
        }
        foreach (self::octave($script) as $i => $one) {
            self::assertEqualsWithDelta($one, $own[$i], 1e-7, "figure {$i}");
        }
    }

    /** The overshoot of a loop, against the same loop stepped ten times finer by Octave. */
    public function test_overshoot_of_a_loop(): void
    {
        $own = [];
        $script = '';
        foreach ([[2, 5, 60, 20], [0.8, 12, 300, 30], [3.5, 2, 25, 100]] as [$k, $l, $t, $target]) {
            $model = new StepResponse($k, $l, $t);
            foreach ([$model->byReactionCurve(), $model->byModel()] as $gains) {
                $own[] = $model->simulated($gains, $target)['overshoot'];
                $script .= "K={$k};L={$l};T={$t};r={$target};kp={$gains['kp']};ti={$gains['ti']};td={$gains['td']};";
                $script .= 'dt=max(0.002,min(T/2500,L/50));d=round(L/dt);q=zeros(1,d+1);y=0;b=0;s=0;m=0;h=1;';
                $script .= 'for i=1:ceil((6*T+10*L)/dt),e=r-y;v=(y-b)/dt;b=y;u=kp*(e+s/ti-td*v);p=max(0,min(100,u));';
                $script .=
                    'if p==u||(u>100&&e<0)||(u<0&&e>0),s=s+e*dt;end;g=q(h);q(h)=p;h=mod(h,d+1)+1;y=y+(K*g-y)/T*dt;m=max(m,y);end;';
                $script .= 'printf("%.6f\n",max(0,m-r));';
            }
        }
        foreach (self::octave($script) as $i => $one) {
            self::assertEqualsWithDelta($one, $own[$i], 0.03 * max(1.0, $one), "loop {$i}");
        }
    }
}
