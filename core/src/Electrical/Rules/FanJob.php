<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Channel;
use Magpie\Core\Electrical\ChannelWish;
use Magpie\Core\Electrical\Cures\FreeChannel;
use Magpie\Core\Electrical\PortAllocation;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Trade;

/** E12-fan: each fan on an output that suits its job. */
final class FanJob implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E12-fan',
            'Fan job',
            'Is each fan on an output that does what its job asks?',
            Trade::Electrical,
            'The hot-end fan never follows the part fan: common practice, no source',
            topics: [Topic::ChannelUse],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Blows) as $ref => $fitted) {
            if (in_array($fitted->part->spec('job')?->choice(), [null, 'hot end', 'part'], true)) {
                yield new Subject('need', $ref, $fitted->need->role, [$ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $fan = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $job = $inquiry->tryChoice($fan, 'job');
        if ($job === null) {
            $inquiry->miss("job of {$fan->need->role}", "parts/{$fan->part->ref}/specs/job");
            throw new InputMissing;
        }
        $mine = $this->channelOf($survey, $inquiry->subject->ref);
        if ($mine === null) {
            return $this->onSupply($inquiry, $job);
        }
        $this->note($inquiry, $mine, 'control', 'pin');
        $inquiry->remark(
            "On {$mine->ref()}".
                ($mine->control === null ? '' : ", {$mine->control}").
                ($mine->pin === null ? '.' : ", pin {$mine->pin}."),
        );
        $shared = $this->shared($inquiry, $survey, $mine, $job);
        if ($shared !== null) {
            return $shared;
        }
        if ($mine->control === null) {
            $inquiry->miss(
                "how {$mine->ref()} is switched",
                "parts/{$inquiry->build->needs[$mine->board]->choice}/ports/{$mine->port}/specs/control",
            );
        }
        $own = $mine->pin === null ? 'an output' : 'a pin';

        return match (true) {
            $job !== 'part' => $inquiry->conclude(
                Verdict::Holds,
                "It has {$own} of its own. Set it to run whenever the hot end is warm.",
            ),
            in_array($mine->control, ['always on', 'switched'], true) => $inquiry->conclude(
                Verdict::Fails,
                "The part fan hangs on an output that is {$mine->control}: its speed cannot be set.",
            ),
            default => $inquiry->conclude(Verdict::Holds, "Its speed can be set, and it has {$own} of its own."),
        };
    }

    /** Fed past any output: it runs as long as there is power. */
    private function onSupply(Inquiry $inquiry, string $job): Finding
    {
        foreach ($inquiry->build->leads as $lead) {
            if ($lead->to->need === $inquiry->subject->ref) {
                $inquiry->remark("Fed from {$inquiry->build->roleOf($lead->from->need)}, so it always runs.");

                return $job === 'part'
                    ? $inquiry->conclude(Verdict::Fails, 'The part fan always runs: nothing can slow or stop it.')
                    : $inquiry->conclude(Verdict::Holds, 'It always runs, which suits a hot end.');
            }
        }
        $inquiry->lack('a lead to it');
    }

    /** Another fan of another job on its output, or on its pin; null where there is none. */
    private function shared(Inquiry $inquiry, Survey $survey, Channel $mine, string $job): ?Finding
    {
        foreach (PortAllocation::of($survey)->wishes as $wish) {
            $other =
                $wish->ref() === $inquiry->subject->ref || $wish->wired === null
                    ? null
                    : $this->channelOf($survey, $wish->ref());
            $its = $this->jobOf($inquiry, $wish);
            if ($other === null || $its === $job) {
                continue;
            }
            $this->note($inquiry, $other, 'pin');
            $together = $mine->pin !== null && $other->pin === $mine->pin && $other->board === $mine->board;
            if ($together || $other->ref() === $mine->ref()) {
                $what = $other->ref() === $mine->ref() ? $mine->ref() : "pin {$mine->pin}";

                return $inquiry->conclude(
                    Verdict::Fails,
                    "It shares {$what} with {$wish->role}: the two switch together.".
                        ($job === 'hot end' ? ' The hot end clogs when the other stops.' : ''),
                );
            }
        }

        return null;
    }

    public function cures(): array
    {
        return [new FreeChannel];
    }

    public function examples(): Examples
    {
        $file = static function (string $pin): array {
            [$part, $need] = Examples::part('board', 'controller_board', []);
            $part['ports'] = array_map(
                static fn (array $p): array => [
                    'name' => $p[0],
                    'kind' => 'outlet',
                    'fed_from' => 'power',
                    'specs' => Examples::sheet(['use' => 'fan', 'pin' => $p[1], 'control' => 'speed']),
                ],
                [['fan0', 'P1'], ['fan1', $pin]],
            );

            return Examples::file(
                [
                    [$part, $need],
                    Examples::part('hot', 'fan', ['job' => 'hot end']),
                    Examples::part('part', 'fan', ['job' => 'part']),
                ],
                [
                    'leads' => [
                        ['ref' => 'W1', 'from' => 'board.fan0', 'to' => 'hot.power'],
                        ['ref' => 'W2', 'from' => 'board.fan1', 'to' => 'part.power'],
                    ],
                ],
            );
        };

        return new Examples(static fn (): array => $file('P1'), static fn (): array => $file('P2'), Verdict::Fails);
    }

    private function channelOf(Survey $survey, string $ref): ?Channel
    {
        foreach (PortAllocation::of($survey)->wishes as $wish) {
            foreach ($wish->ref() === $ref ? PortAllocation::of($survey)->channels : [] as $channel) {
                if ($channel->ref() === $wish->wired) {
                    return $channel;
                }
            }
        }

        return null;
    }

    /** What a check rests on of a channel that a port tells. */
    private function note(Inquiry $inquiry, Channel $channel, string ...$keys): void
    {
        $board = $inquiry->build->fitted($channel->board);
        $port = $board->part->ports[$channel->port] ?? null;
        if ($board === null || $port === null) {
            return;
        }
        foreach ($keys as $key) {
            $inquiry->tryPortWord($board, $port, $key);
        }
    }

    private function jobOf(Inquiry $inquiry, ChannelWish $wish): ?string
    {
        $fan = $wish->wired === null ? null : $inquiry->build->fitted($wish->need);

        return $fan === null ? null : $inquiry->tryChoice($fan, 'job');
    }
}
