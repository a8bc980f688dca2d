<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** Turns of a screw that bring a beam or table by a distance. */
final class Cranks implements Method
{
    public function key(): string
    {
        return 'cranks';
    }

    public function title(): string
    {
        return 'Turns of a screw';
    }

    public function about(): string
    {
        return 'How far a screw is turned by hand for a distance, with its motor off.';
    }

    public function asks(): array
    {
        return [new Ask('distance', 'To go', '1.5 mm'), new Ask('lead', 'Lead of the screw, for one turn', '8 mm')];
    }

    public function work(Given $given): Outcome
    {
        $turns = $given->one('distance') / $given->positive('lead');

        return new Outcome(
            [
                Outcome::figure('turns', 'Turns', $turns, 'turns'),
                Outcome::figure('angle', 'That is', $turns * 360, '°'),
            ],
            ['distance / lead'],
            ['Power off before the screw is turned by hand; slowly, since a turned motor feeds its driver.'],
        );
    }
}
