<?php

declare(strict_types=1);

namespace Magpie\Core\Commissioning;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Running\AsMeasured;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\Running\Reading;

/**
 * What a reading outside its band points to, the likeliest first, worked from the machine: another part whose band it fits, a
 * heater wound for another voltage, one of a pair, a coil mixed up, paint under a lug. Common practice, no source.
 */
final readonly class Pointers
{
    /** An open circuit, as a meter shows it. */
    private const OPEN = 1e6;

    /**
     * @param  array<string, Expected>  $expectations  all of the machine, by key
     */
    public function __construct(private Build $build, private array $expectations)
    {
    }

    /**
     * @return list<string> empty where the reading is in its band, or has none
     */
    public function of(Expected $expected, Reading $reading): array
    {
        $value = $reading->value->in($reading->value->unit->symbol);
        $low = $expected->low?->in($reading->value->unit->symbol);
        $high = $expected->high?->in($reading->value->unit->symbol);
        $isLow = $low !== null && $value < $low;
        $isHigh = $high !== null && $value > $high;
        if (! $isLow && ! $isHigh) {
            return [];
        }

        return array_values(
            array_unique(
                match ($expected->what) {
                    Measured::ColdResistance => $this->heater($expected, $reading),
                    Measured::PhaseResistance => $this->coil($expected, $reading),
                    Measured::SensorResistance => $this->sensor($expected, $reading),
                    Measured::OutputVoltage, Measured::Voltage => $this->volts($expected, $reading),
                    Measured::Bond => self::bond($reading),
                    Measured::Insulation => [
                        'Damp, or metal dust in a terminal: dry it, clean it, measure again.',
                        'Electronics or a filter still joined to the line: they leak by design.',
                        'A conductor pinched or stripped against metal: go along it.',
                    ],
                    Measured::WallPower => $this->wall($expected, $reading, $isHigh),
                    Measured::Travel => $isLow
                        ? [
                            'A stop, a bracket or a screw head in the way at one end: look at both ends.',
                            'A lead or a chain that is too short pulls before the end.',
                            'It binds: turn the screw by hand and feel where.',
                        ]
                        : ['An end stop or a bracket is not fitted yet.', 'The rail is longer than the list says.'],
                    default => ['Measure once more, with another instrument.'],
                },
            ),
        );
    }

    /**
     * @return list<string>
     */
    private function heater(Expected $expected, Reading $reading): array
    {
        $ohms = $reading->value->in('Ω');
        $says = self::ends($ohms, 'the element, its thermal fuse or the plug is open', 'the element or its lead');
        $fitted = $this->build->fitted($expected->where ?? '');
        $nominal = $expected->nominal?->in('Ω');
        if ($says !== [] || $nominal === null) {
            return $says;
        }
        if (self::isAbout($ohms, 2 * $nominal)) {
            $says[] = 'Twice as much: one element of two, or two in series that belong side by side.';
        }
        if (self::isAbout($ohms, $nominal / 2)) {
            $says[] = 'Half as much: two elements side by side where one belongs. It takes twice the current.';
        }
        $volts = $fitted === null ? null : AsMeasured::sheet($fitted->part, 'rated_voltage')?->nominal()?->in('V');
        foreach ([12, 24, 36, 48, 110, 120, 230] as $other) {
            if (
                $volts !== null &&
                abs($other - $volts) > 1 &&
                self::isAbout($ohms, ($nominal * $other ** 2) / $volts ** 2)
            ) {
                $watts = $volts ** 2 / $ohms;
                $says[] = sprintf(
                    'As one of the same power for %d V: at %s V it gives %d W.',
                    $other,
                    round($volts, 1),
                    (int) round($watts),
                );
            }
        }

        return [
            ...$says,
            ...$this->likeAnother($expected, $reading),
            $ohms > $nominal
                ? 'A bad contact in the way: wiggle the plug and watch the meter.'
                : 'Something else is joined to the same lead: unplug it at both ends.',
            'Another part came than was ordered: read what is printed on it.',
        ];
    }

    /**
     * @return list<string>
     */
    private function coil(Expected $expected, Reading $reading): array
    {
        $ohms = $reading->value->in('Ω');
        if ($ohms >= self::OPEN) {
            return [
                'The two wires are of different coils: try the others, two and two.',
                'A crimp is on the insulation, or a wire is broken near the plug.',
            ];
        }
        $nominal = $expected->nominal?->in('Ω');
        $says = self::ends($ohms, '', 'the winding or its lead');
        if ($nominal !== null && self::isAbout($ohms, 2 * $nominal)) {
            $says[] = 'Twice as much: two coils in series, or the two halves of a coil with a tap.';
        }
        if ($nominal !== null && self::isAbout($ohms, $nominal / 2)) {
            $says[] = 'Half as much: from the tap to one end of a coil, or two halves side by side.';
        }

        return [
            ...$says,
            ...$this->likeAnother($expected, $reading),
            'The resistance of the test leads is in it: short them and take that off.',
        ];
    }

    /**
     * @return list<string>
     */
    private function sensor(Expected $expected, Reading $reading): array
    {
        $ohms = $reading->value->in('Ω');
        $says = self::ends($ohms, 'the sensor or its crimp is open', 'the sensor or its lead');
        $fitted = $this->build->fitted($expected->where ?? '');
        $r25 = $fitted === null ? null : AsMeasured::sheet($fitted->part, 'resistance_25')?->nominal()?->in('Ω');
        $beta = $fitted === null ? null : AsMeasured::sheet($fitted->part, 'beta')?->nominal()?->in('K');
        if ($says === [] && $r25 !== null && $beta !== null && $ohms > 0) {
            $celsius = 1 / (1 / 298.15 + log($ohms / $r25) / $beta) - 273.15;
            if ($celsius > -20 && $celsius < 120) {
                $says[] = sprintf('It reads as %d °C: is it as warm as the room?', (int) round($celsius));
            }
        }

        return [
            ...$says,
            ...$this->likeAnother($expected, $reading),
            'A sensor of another table than the sheet says: read it at two temperatures and compare.',
        ];
    }

    /**
     * @return list<string>
     */
    private function volts(Expected $expected, Reading $reading): array
    {
        $volts = $reading->value->in('V');
        $nominal = $expected->nominal?->in('V') ?? 0.0;

        return match (true) {
            $volts < 0 => ['Plus and minus are swapped: the meter says so before the board does. Switch off.'],
            $volts < 0.1 * $nominal => [
                'Nothing comes: breaker, switch, stop and fuse first, in this order.',
                'Its start line is not joined, or it waits for a load.',
                'Its input selector stands at another voltage.',
            ],
            $volts < $nominal => [
                'Something behind it is joined and takes too much: unplug it and measure again.',
                'A contact or a lead on the way keeps some: measure at both ends of it.',
                'Its trimmer is turned down.',
            ],
            default => [
                ...$this->likeAnother($expected, $reading),
                'Its trimmer is turned up: turn it back before anything is plugged in.',
                'It is a supply of another voltage than the sheet says.',
            ],
        };
    }

    /**
     * @return list<string>
     */
    private static function bond(Reading $reading): array
    {
        $ohms = $reading->value->in('Ω');

        return match (true) {
            $ohms >= 100 => [
                'Not joined at all: follow the earth lead from the inlet, end by end.',
                'The earth pin of the cord itself is open: try another cord.',
            ],
            $ohms >= 1 => [
                'Paint or anodising under the lug: scrape it to bare metal, with a toothed washer.',
                'A lug that is loose, or crimped on the insulation.',
            ],
            default => [
                'The resistance of the test leads is in it: short them and take that off.',
                'Paint or anodising under the lug: scrape it to bare metal, with a toothed washer.',
                'A screw that is only hand-tight: tighten it and measure again.',
            ],
        };
    }

    /**
     * @return list<string>
     */
    private function wall(Expected $expected, Reading $reading, bool $isHigh): array
    {
        $watts = $reading->value->in('W');
        $nominal = $expected->nominal?->in('W') ?? 0.0;
        $says = [];
        foreach ($this->build->allFitted() as $fitted) {
            $power = AsMeasured::sheet($fitted->part, 'rated_power')?->nominal()?->in('W');
            if ($power !== null && $power > 0 && self::isAbout(abs($watts - $nominal), $power)) {
                $says[] = sprintf(
                    'The difference, %d W, is what %s takes: %s.',
                    (int) round(abs($watts - $nominal)),
                    $fitted->need->role,
                    $isHigh ? 'is it on though it should not be' : 'does it run',
                );
            }
        }

        return [
            ...$says,
            $isHigh
                ? 'A heater or motor runs that is not in this scenario, or a part takes more than its sheet says.'
                : 'Something of this scenario does not run: look at each of it in turn.',
        ];
    }

    /**
     * @return list<string> other places of the machine whose band it fits
     */
    private function likeAnother(Expected $expected, Reading $reading): array
    {
        $says = [];
        foreach ($this->expectations as $other) {
            if (
                $other->what === $expected->what &&
                $other->where !== $expected->where &&
                $other->low !== null &&
                $other->high !== null &&
                ! $reading->value->isBelow($other->low) &&
                ! $reading->value->exceeds($other->high)
            ) {
                $says[] = "It fits {$this->build->roleOf($other->where ?? '')}: the two leads may be swapped.";
            }
        }

        return array_slice($says, 0, 2);
    }

    /**
     * @return list<string>
     */
    private static function ends(float $ohms, string $open, string $short): array
    {
        return match (true) {
            $ohms >= self::OPEN && $open !== '' => [
                'No way through: '.$open.'.',
                'The test tips do not touch bare metal: short them on the same terminal first.',
            ],
            $ohms < 0.2 => ["A short: {$short} touches itself. Nothing is switched on before that is found."],
            default => [],
        };
    }

    private static function isAbout(float $value, float $other): bool
    {
        return $other > 0 && abs($value - $other) <= 0.12 * $other;
    }
}
