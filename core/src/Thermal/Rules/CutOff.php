<?php

declare(strict_types=1);

namespace Magpie\Core\Thermal\Rules;

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
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** T03: an independent cut-off on every heated plate, and limits nobody may exceed. */
final class CutOff implements Check
{
    public function card(): Card
    {
        return new Card(
            'T03',
            'Cut-off and limits',
            'Does something independent stop this heater, above its work and below what burns?',
            Trade::Thermal,
            'Thermal fuse above the working temperature and below the limit of the material; a lined heat break below its maker\'s figure: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Heats) as $ref => $fitted) {
            yield new Subject('need', $ref, $fitted->need->role, [$ref]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $heater = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $place = $inquiry->tryChoice($heater, 'place') ?? $inquiry->lack("where {$heater->need->role} heats");
        $target = $inquiry->read($heater, 'target', 'T', Bound::Highest);
        if ($place === 'hot end') {
            return $this->lining($inquiry, $heater, $target);
        }
        // It may open as late, and as soon, as its tolerance lets it.
        $latest = $inquiry->read($heater, 'thermal_fuse', 'T_f', Bound::Highest);
        $soonest = $inquiry->read($heater, 'thermal_fuse', 'T_f', Bound::Lowest);
        $limit = $inquiry->read($heater, 'material_limit', 'T_m', Bound::Lowest);
        $above = $inquiry->work(
            'Above the work',
            'ΔT = T_f − T',
            ['T_f' => $soonest, 'T' => $target],
            $soonest->minus($target),
            'K',
        );
        if ($latest->exceeds($limit)) {
            return $inquiry->conclude(
                Verdict::Danger,
                "The thermal fuse opens at {$latest}; the material stands {$limit}. It burns before it is stopped.",
                $inquiry->margin($latest, $limit),
                "{$limit}",
            );
        }
        if ($above->isBelow(Quantity::of(10, 'K'))) {
            return $inquiry->conclude(
                Verdict::Fails,
                "The thermal fuse opens at {$soonest}, and the bed works at {$target}: it goes in normal use.",
                null,
                "10 K above {$target}",
            );
        }

        return $inquiry->conclude(
            Verdict::Holds,
            "A thermal fuse at {$soonest}, {$above} above the work and below the {$limit} the material stands.",
            null,
            "{$target} to {$limit}",
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $fuse): array => Examples::file([
            Examples::part('bed', 'heater', [
                'place' => 'bed',
                'target' => '110 °C',
                'thermal_fuse' => $fuse,
                'material_limit' => '180 °C',
            ]),
        ]);

        return new Examples(static fn (): array => $file('216 °C'), static fn (): array => $file('150 °C'));
    }

    private function lining(Inquiry $inquiry, Fitted $heater, Quantity $target): Finding
    {
        $stands = $burns = [];
        $host = $heater->need->host();
        foreach ($inquiry->build->fittedThat(Ability::Melts) as $ref => $hot) {
            if ($host !== null && $host !== (string) $ref) {
                continue;
            }
            $top = $inquiry->tryRead($hot, 'top_temperature', 'T_top', Bound::Lowest);
            $lined = $inquiry->tryFlag($hot, 'lined');
            $limit = $lined === false ? $top : $inquiry->read($hot, 'lining_limit', 'T_l', Bound::Lowest);
            $limit ??= $inquiry->read($hot, 'top_temperature', 'T_top', Bound::Lowest);
            $inquiry->work(
                "Room below the limit of {$hot->need->role}",
                'ΔT = T_l − T',
                ['T_l' => $limit, 'T' => $target],
                $limit->minus($target),
                'K',
            );
            if ($target->exceeds($limit)) {
                $burns[] = [$hot, $limit, $lined !== false];
            } else {
                $stands[] = $limit;
            }
        }
        if ($stands === [] && $burns === []) {
            $inquiry->lack('the hot end it sits in');
        }
        if ($stands !== [] && $burns !== []) {
            $names = array_map(static fn (array $b): string => $b[0]->need->role, $burns);
            $inquiry->lack('which hot end it sits in: '.implode(' and ', $names)." would not stand {$target}");
        }
        if ($burns !== []) {
            [, $limit, $lined] = $burns[0];

            return $inquiry->conclude(
                Verdict::Danger,
                $lined
                    ? "{$target} in a heat break lined for {$limit}: the lining gives off toxic fumes."
                    : "{$target} on a hot end for {$limit}.",
                $inquiry->margin($target, $limit),
                "{$limit}",
            );
        }
        $limit = Quantity::min(...$stands);

        return $inquiry->conclude(
            Verdict::Holds,
            "{$target} below the {$limit} its hot end stands. Runaway protection is its cut-off: test it.",
            $inquiry->margin($target, $limit),
            "{$limit}",
        );
    }
}
