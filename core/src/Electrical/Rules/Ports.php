<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Cures\MoreChannels;
use Magpie\Core\Electrical\PortAllocation;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\OtherPart;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Trade;

/** E12: a channel of the right kind for everything that needs one. */
final class Ports implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E12',
            'Ports',
            'Is there a channel of the right kind, voltage and pin for everything that needs one?',
            Trade::Electrical,
            'Bipartite matching with shared pins and selectors; the blocking set by the theorem of Hall (1935)',
            topics: [Topic::Channels],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Commands) as $ref => $fitted) {
            if (PortAllocation::of($survey)->wishes !== []) {
                yield new Subject('need', $ref, $fitted->need->role, [$ref]);
            }

            return;
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $ports = PortAllocation::of($survey);
        $board = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        foreach (
            [
                'driver_slots' => 'n_d',
                'heater_outputs' => 'n_h',
                'fan_outputs' => 'n_f',
                'thermistor_inputs' => 'n_t',
                'switch_inputs' => 'n_s',
            ] as $key => $symbol
        ) {
            $inquiry->tryRead($board, $key, $symbol);
        }
        $all = count($ports->wishes);
        $placed = count($ports->found);
        if ($ports->channels === []) {
            $inquiry->lack("the channels of {$inquiry->subject->label}: how many of each kind, or its ports by name");
        }
        foreach ($ports->channels as $channel) {
            if ($channel->support !== null && $channel->support !== 'today') {
                $inquiry->remark(
                    "{$channel->ref()} does not count: ".
                        ($channel->support === 'promised' ? 'only promised.' : 'not with the firmware of today.'),
                );
            }
        }
        $inquiry->remark(
            "{$all} ask for a channel, {$placed} get one.".
                ($ports->matching->exact ? '' : ' Not every way of setting its selectors and pins was tried.'),
        );
        if ($placed < $all) {
            $names = array_map(
                fn (string $ref): string => $inquiry->build->roleOf($ref),
                array_slice($ports->blocked(), 0, 6),
            );
            $more = count($ports->blocked()) - count($names);
            $room = count($ports->matching->contested);
            $says =
                implode(', ', $names).
                ($more > 0 ? " and {$more} more" : '').
                ' share '.
                ($room === 0 ? 'no channel that suits' : ($room === 1 ? 'one channel' : "{$room} channels")).
                ': '.
                ($all - $placed).
                ' get none.';

            return $inquiry->conclude(Verdict::Fails, $says.' '.implode(' ', array_slice($ports->cures(), 0, 2)));
        }
        $spare = [];
        foreach ($ports->spare() as $use => $count) {
            $spare[] = "{$use} {$count}";
        }

        return $inquiry->conclude(
            Verdict::Holds,
            "All {$all} have a channel.".($spare === [] ? ' None is left.' : ' Left: '.implode(', ', $spare).'.'),
        );
    }

    public function cures(): array
    {
        return [new OtherPart, new MoreChannels];
    }

    public function examples(): Examples
    {
        return new Examples(static fn (): array => self::board(2), static fn (): array => self::board(3), Verdict::Fails);
    }

    /**
     * Three drivers and a board with so many slots.
     *
     * @return array<string, mixed>
     */
    public static function board(int $slots): array
    {
        return Examples::file([
            Examples::part('board', 'controller_board', ['driver_slots' => (string) $slots]),
            ...array_map(static fn (string $ref): array => Examples::part($ref, 'motor_driver', []), [
                'drv-x',
                'drv-y',
                'drv-z',
            ]),
        ]);
    }
}
