<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\CannotAlign;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** Steps an extruder takes for one millimetre of filament: new = old × commanded / measured (C6). */
final class ExtruderSteps implements Method
{
    public function key(): string
    {
        return 'extruder';
    }

    public function title(): string
    {
        return 'Steps of the extruder';
    }

    public function about(): string
    {
        return 'A mark on the filament, a slow pull of 100 mm with the nozzle hot or off: what went in against what was told.';
    }

    public function asks(): array
    {
        return [
            new Ask('commanded', 'Told to feed', '100 mm'),
            new Ask('fed', 'Fed, each time', '96.5 96.8 96.4 mm', true),
            new Ask('steps', 'Steps for one millimetre now', '690', needed: false, dimension: Dimension::Ratio),
            new Ask('limit', 'Most it may be off', '1 mm', needed: false),
            new Ask('accuracy', 'A division of the rule', '0.5 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        $told = $given->positive('commanded');
        $fed = $given->row('fed', 1);
        $mean = array_sum($fed) / count($fed);
        if ($mean <= 0) {
            throw new CannotAlign('fed', 'must be more than nothing.');
        }
        $doubt = $given->oneOr('accuracy', 0.5) / sqrt(count($fed));
        $factor = $told / $mean;

        return new Outcome(
            [
                Outcome::figure('factor', 'Times the steps that are set', $factor, '', ($doubt / $mean) * $factor),
                ...$given->has('steps')
                    ? [
                        Outcome::figure(
                            'steps',
                            'Steps for one millimetre to set',
                            $given->positive('steps', Dimension::Ratio) * $factor,
                            '1/mm',
                        ),
                    ]
                    : [],
                Outcome::figure('spread', 'Spread of the tries', max($fed) - min($fed), 'mm'),
            ],
            ['new = old × told / fed'],
            [
                max($fed) - min($fed) > 2
                    ? 'The tries differ by more than two millimetres: it slips. Look at spring, gear and reel before the number is changed.'
                    : 'Set it, and pull once more: it should be within half a millimetre.',
            ],
            [],
            abs($told - $mean),
            $given->has('limit') ? $given->positive('limit') : null,
            $doubt,
        );
    }
}
