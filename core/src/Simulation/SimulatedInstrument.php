<?php

declare(strict_types=1);

namespace Magpie\Core\Simulation;

use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Straightness\Method;

/**
 * Stands in for a multimeter, watt meter, tape or thermometer: reads what should be there, with the noise of its kind, and with the
 * faults that were planted. The same seed always reads the same.
 */
final readonly class SimulatedInstrument
{
    /**
     * @param  array<string, float>  $faults  what a reading is of → times what it should be
     */
    public function __construct(private int $seed, private array $faults = [])
    {
    }

    public static function name(Measured $what): string
    {
        return match ($what) {
            Measured::WallPower => 'simulated watt meter',
            Measured::Temperature => 'simulated thermometer',
            Measured::Travel => 'simulated tape measure',
            Measured::Backlash, Measured::RunOut => 'simulated dial indicator',
            Measured::TurningTorque, Measured::PullingForce => 'simulated spring balance',
            Measured::HeatUp => 'simulated stop watch',
            Measured::BeltNote => 'simulated microphone',
            Measured::SpindleSpeed => 'simulated tachometer',
            default => 'simulated multimeter',
        };
    }

    /** Share of the value that an instrument of its kind may be off. */
    public static function accuracy(Measured $what): float
    {
        return match ($what) {
            Measured::WallPower => 0.02,
            Measured::OutputVoltage, Measured::Voltage => 0.005,
            Measured::Travel => 0.002,
            default => 0.01,
        };
    }

    /**
     * @param  string  $of  what it is a reading of
     * @param  Quantity  $right  what should be there
     */
    public function read(string $of, Measured $what, Quantity $right): Quantity
    {
        $noise = (crc32("{$this->seed}/{$of}") % 2001) / 1000 - 1;
        $symbol = $right->unit->symbol;
        $value = $right->in($symbol) * (1 + $noise * self::accuracy($what)) * ($this->faults[$of] ?? 1.0);
        $digits = abs($value) < 1e-12 ? 3 : max(0, 3 - (int) floor(log10(abs($value))));

        return Quantity::of(round($value, min(6, $digits)), $symbol);
    }

    /**
     * Readings of an alignment as a simulated dial, tape or thermometer would give them: about those of its example.
     *
     * @return array<string, string> by name
     */
    public function given(Method $method): array
    {
        $given = [];
        foreach ($method->asks() as $ask) {
            if (! $ask->needed) {
                continue;
            }
            $given[$ask->key] = $ask->row
                ? (string) preg_replace_callback(
                    '/-?\d+\.\d+/',
                    function (array $m) use ($method, $ask): string {
                        $digits = strlen(explode('.', $m[0])[1]);
                        $noise = (crc32("{$this->seed}/{$method->key()}/{$ask->key}/{$m[0]}") % 5) - 2;

                        return number_format((float) $m[0] + $noise * 10 ** -$digits, $digits, '.', '');
                    },
                    $ask->example,
                )
                : $ask->example;
        }

        return $given;
    }
}
