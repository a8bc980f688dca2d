<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** Backlash of an axis: where it stands when it comes from one way, and from the other (C6). */
final class Backlash implements Method
{
    /** Usual on a screw mill: common practice, no source. */
    private const USUAL = 0.025;

    public function key(): string
    {
        return 'backlash';
    }

    public function title(): string
    {
        return 'Backlash';
    }

    public function about(): string
    {
        return 'The same place approached from both ways, several times: the difference of the means is lost motion, the spread of each is how well it repeats.';
    }

    public function asks(): array
    {
        return [
            new Ask('up', 'Readings, coming from below', '0.00 0.01 0.00 mm', true),
            new Ask('down', 'Readings, coming from above', '0.04 0.05 0.04 mm', true),
            new Ask('limit', 'Most it may lose', '0.025 mm', needed: false),
            new Ask('accuracy', 'A division of the instrument', '0.01 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        $up = $given->row('up', 1);
        $down = $given->row('down', 1);
        $lost = array_sum($down) / count($down) - array_sum($up) / count($up);
        $spread = max(max($up) - min($up), max($down) - min($down));
        $doubt = $given->accuracy() * sqrt(1 / count($up) + 1 / count($down));

        return new Outcome(
            [
                Outcome::figure('lost', 'Lost motion', abs($lost), 'mm', $doubt),
                Outcome::figure('spread', 'Spread, one way', $spread, 'mm', $given->accuracy() * sqrt(2)),
            ],
            ['mean coming from above − mean coming from below'],
            [
                abs($lost) <= self::USUAL
                    ? 'Within what is usual on a screw (0.025 mm, common practice, no source).'
                    : 'More than is usual on a screw: grub screws of the coupling first, then the nut, then the bearing of the fixed end.',
                'Compensation in the settings does not hold a table against the pull of a cutter.',
            ],
            [],
            abs($lost),
            $given->has('limit') ? $given->positive('limit') : null,
            $doubt,
        );
    }
}
