<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E05, plug: a supply with a plug of its own, on the mains of the place it is plugged in. */
final class OwnPlug implements Check
{
    /** What names one mains voltage stands so much either way of it: common practice, no source. */
    private const EITHER_WAY = 1 / 6;

    public function card(): Card
    {
        return new Card(
            'E05-plug',
            'Supply with its own plug',
            'Is this plug-in supply made for the mains of the site?',
            Trade::Electrical,
            'Its label against IEC 60038 (from memory); one mains voltage stands a sixth either way: common practice, no source',
            supposes: false,
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::HasOwnPlug) as $ref => $fitted) {
            yield new Subject('need', (string) $ref, $fitted->need->role, [(string) $ref]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $supply = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $mains = $inquiry->mains();
        [$low, $high] = [
            $inquiry->read($supply, 'input_voltage', 'V_min', Bound::LeastNeeded),
            $inquiry->read($supply, 'input_voltage', 'V_max', Bound::MostStood),
        ];
        if ($low->compare($high) === 0) {
            $low = $this->aside($inquiry, 'Least of one mains voltage', '−', $low, 1 - self::EITHER_WAY);
            $high = $this->aside($inquiry, 'Most of one mains voltage', '+', $high, 1 + self::EITHER_WAY);
        }
        $inquiry->remark('Closed, and nothing on its mains side is wired here. Its plug is its switch: no stop of the machine reaches it.');

        return match (true) {
            $mains->exceeds($high) => $inquiry->conclude(
                Verdict::Danger,
                "It is made for {$high} at the most; on {$mains} it burns, and may start a fire.",
                $inquiry->margin($mains, $high),
                "{$low} to {$high}",
            ),
            $mains->isBelow($low) => $inquiry->conclude(
                Verdict::Fails,
                "It is made for {$low} at the least; on {$mains} it does not run, or not for long.",
                $inquiry->margin($low, $mains),
                "{$low} to {$high}",
            ),
            default => $inquiry->conclude(
                Verdict::Holds,
                "It is made for {$low} to {$high}; here there are {$mains}.",
                Quantity::min($inquiry->margin($mains, $high), $inquiry->margin($low, $mains)),
                "{$low} to {$high}",
            ),
        };
    }

    private function aside(Inquiry $inquiry, string $label, string $sign, Quantity $rated, float $times): Quantity
    {
        return $inquiry->work($label, "V = V_r × (1 {$sign} 1/6)", ['V_r' => $rated], $rated->times($times), 'V');
    }

    public function examples(): Examples
    {
        $for = static fn (string $volts): array => Examples::file(
            [Examples::part('adapter', 'plug_supply', ['input_voltage' => $volts])],
            ['site' => ['mains_voltage' => '230 V']],
        );

        return new Examples(static fn (): array => $for('100 V to 120 V'), static fn (): array => $for('100 V to 240 V'));
    }
}
