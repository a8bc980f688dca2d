<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** Two belts that must pull alike, by their notes: tension goes with the square of note and span (T = 4·m·l²·f²). */
final class BeltPair implements Method
{
    /** Tensions of a pair differ by no more than this: common practice, no source. */
    private const ALIKE = 0.05;

    public function key(): string
    {
        return 'belt-pair';
    }

    public function title(): string
    {
        return 'Two belts that pull alike';
    }

    public function about(): string
    {
        return 'Both of one kind, plucked where nothing touches them: how far their tensions are apart, and the note to bring the slacker one to.';
    }

    public function asks(): array
    {
        return [
            new Ask('first', 'Note of the first', '110 Hz', dimension: Dimension::Frequency),
            new Ask('second', 'Note of the second', '104 Hz', dimension: Dimension::Frequency),
            new Ask('first_span', 'Free length of the first', '150 mm'),
            new Ask('second_span', 'Free length of the second', '150 mm'),
            new Ask('mass', 'Mass of one metre of it', '8.4 g', needed: false, dimension: Dimension::Mass),
        ];
    }

    public function work(Given $given): Outcome
    {
        // Twice the free length times the note is the speed at which a pluck runs along the belt.
        $speeds = [
            2 * $given->positive('first_span') * $given->positive('first', Dimension::Frequency),
            2 * $given->positive('second_span') * $given->positive('second', Dimension::Frequency),
        ];
        $slacker = $speeds[0] < $speeds[1] ? 'first' : 'second';
        $apart = 1 - (min($speeds) / max($speeds)) ** 2;
        $note = max($speeds) / (2 * $given->positive("{$slacker}_span"));
        $figures = [
            Outcome::figure('apart', 'Tensions apart', $apart * 100, '%'),
            Outcome::figure('note', "Note for the {$slacker}", $note, 'Hz'),
        ];
        if ($given->has('mass')) {
            foreach (['first', 'second'] as $i => $which) {
                $figures[] = Outcome::figure(
                    "tension_{$which}",
                    "Tension of the {$which}",
                    $given->positive('mass', Dimension::Mass) * $speeds[$i] ** 2 * 1e-9,
                    'N',
                );
            }
        }

        return new Outcome(
            $figures,
            ['T = m·(2·l·f)²', 'apart = 1 − T_slack / T_tight'],
            [
                $apart <= self::ALIKE
                    ? sprintf('They pull alike, to within %.0f %%.', self::ALIKE * 100)
                    : sprintf(
                        'The %s is slacker: bring it to %.1f Hz, a little at a time, and pluck both again.',
                        $slacker,
                        $note,
                    ),
            ],
        );
    }
}
