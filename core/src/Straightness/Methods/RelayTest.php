<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\CannotAlign;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** A heater loop by the relay test: K_u = 4d/πa, then 0.6 K_u, P_u/2, P_u/8 (C11; Åström and Hägglund 1984). */
final class RelayTest implements Method
{
    public function key(): string
    {
        return 'relay';
    }

    public function title(): string
    {
        return 'Heater loop by a relay test';
    }

    public function about(): string
    {
        return 'The heater switched fully on below a temperature and fully off above it, until it swings evenly: its swing and its period give the gains.';
    }

    public function asks(): array
    {
        return [
            new Ask('power', 'Half of the power it switches, in per cent', '50', dimension: Dimension::Ratio),
            new Ask('peaks', 'Peaks', '202.1 202.0 202.2 °C', true, dimension: Dimension::Temperature),
            new Ask('troughs', 'Troughs', '198.0 198.1 198.0 °C', true, dimension: Dimension::Temperature),
            new Ask('period', 'Time from peak to peak', '21 20.5 20.8 s', true, dimension: Dimension::Time),
        ];
    }

    public function work(Given $given): Outcome
    {
        $power = $given->positive('power', Dimension::Ratio);
        $peaks = $given->row('peaks', 1, Dimension::Temperature);
        $troughs = $given->row('troughs', 1, Dimension::Temperature);
        $periods = $given->row('period', 1, Dimension::Time);
        $swing = (array_sum($peaks) / count($peaks) - array_sum($troughs) / count($troughs)) / 2;
        $period = array_sum($periods) / count($periods);
        if ($swing <= 0 || $period <= 0) {
            throw new CannotAlign($swing <= 0 ? 'peaks' : 'period', 'it does not swing.');
        }
        $ultimate = (4 * $power) / (M_PI * $swing);
        [$kp, $ti, $td] = [0.6 * $ultimate, $period / 2, $period / 8];

        return new Outcome(
            [
                Outcome::figure('p', 'P', $kp, '%/K'),
                Outcome::figure('i', 'I', $kp / $ti, '%/(K s)'),
                Outcome::figure('d', 'D', $kp * $td, '% s/K'),
                Outcome::figure('ultimate', 'Gain at which it swings', $ultimate, '%/K'),
                Outcome::figure('period', 'Period', $period, 's'),
            ],
            [sprintf('K_u = 4·%.3g / (π·%.3g K) = %.4g %%/K', $power, $swing, $ultimate), '0.6 K_u, P_u/2, P_u/8'],
            [
                'By Ziegler and Nichols this overshoots by a tenth to a quarter of the step: for a nozzle halve P, and try.',
                'Never left alone before protection is proven.',
            ],
        );
    }
}
