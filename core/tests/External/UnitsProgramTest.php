<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\External;

use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Conductors;
use PHPUnit\Framework\TestCase;

/** Against GNU units (Debian package units), which has its own tables of gauges and conversions. */
final class UnitsProgramTest extends TestCase
{
    public function test_wire_gauges_10_to_30_have_the_published_area_and_resistance(): void
    {
        for ($gauge = 10; $gauge <= 30; $gauge++) {
            $diameter = $this->units("wiregauge({$gauge})", 'mm');
            $area = (M_PI / 4) * $diameter ** 2;
            self::assertEqualsWithDelta($area, Quantity::of($gauge, 'AWG')->in('mm²'), $area * 1e-5, "{$gauge} AWG");

            // Resistance of annealed copper, 1.7241e-8 Ω·m (IEC 60028), over that area.
            $ohms = $this->units("1.7241e-8 ohm m / ({$area} mm^2)", 'ohm/km');
            self::assertEqualsWithDelta(
                $ohms,
                Conductors::resistance(Quantity::of($gauge, 'AWG'))->in('Ω/km'),
                $ohms * 1e-5,
                "{$gauge} AWG",
            );
        }
    }

    public function test_conversions_agree(): void
    {
        foreach (
            [
                ['283 oz force in', 'N m', Quantity::of(283, 'oz in')->in('N m')],
                ['13 kgf cm', 'N m', Quantity::of(13, 'kgf cm')->in('N m')],
                ['7.5 lbf ft', 'N m', Quantity::of(7.5, 'lbf ft')->in('N m')],
                ['1.25 horsepower', 'W', Quantity::of(1.25, 'hp')->in('W')],
                ['12 in', 'mm', Quantity::of(12, 'in')->in('mm')],
                ['2.75 ft', 'm', Quantity::of(2.75, 'ft')->in('m')],
                ['16 oz', 'g', Quantity::of(16, 'oz')->in('g')],
                ['3.5 lb', 'kg', Quantity::of(3.5, 'lb')->in('kg')],
                ['40 ft^3/min', 'm^3/hour', Quantity::of(40, 'ft³/min')->in('m³/h')],
                ['90 psi', 'bar', Quantity::of(90, 'psi')->in('bar')],
                ['4 m/min', 'mm/s', Quantity::of(4, 'm/min')->in('mm/s')],
                ['300 g cm^2', 'kg m^2', Quantity::of(300, 'g cm²')->in('kg m²')],
                ['2.5 oz in^2', 'kg m^2', Quantity::of(2.5, 'oz in²')->in('kg m²')],
                ['1.44 kilowatt hour', 'J', Quantity::of(1.44, 'kW h')->in('J')],
                ['24000 rpm', 'rev/s', Quantity::of(24000, 'rpm')->in('rev/s')],
            ] as [$from, $to, $ours]
        ) {
            $theirs = $this->units($from, $to);
            self::assertEqualsWithDelta($theirs, $ours, abs($theirs) * 1e-6, "{$from} in {$to}");
        }
    }

    private function units(string $from, string $to): float
    {
        $output = (string) shell_exec('units -t -d 14 '.escapeshellarg($from).' '.escapeshellarg($to).' 2>&1');
        self::assertIsNumeric(trim($output), "units said: {$output}");

        return (float) $output;
    }
}
