<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

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
use Magpie\Core\Machine\ScrewStack;
use Magpie\Core\Machine\ThreadIn;
use Magpie\Core\Machine\ThreadMaterial;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Mechanical\Cures\OtherScrew;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Fasteners;

/** M10: is a screw long enough to hold, and short enough not to bottom or stand out into something that moves. */
final class ScrewFit implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M10',
            'Screw length and engagement',
            'Does this screw hold, without bottoming or standing in the way?',
            Trade::Mechanical,
            'ISO 4762 lengths, ISO 4032 nut heights (from memory), ISO 261 pitches; engagement in diameters, half of it in a hole that is no deeper, is common practice, no source',
            topics: [Topic::Joints],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->mates as $mate) {
            foreach ($mate->screws as $i => $stack) {
                $label = "{$mate->kind}: {$survey->build->roleOf($mate->between[0])} to {$survey->build->roleOf(
                    $mate->between[1],
                )}";
                yield new Subject(
                    'mate',
                    "{$mate->ref}/{$i}",
                    $label,
                    array_values(array_filter([...$mate->between, $stack->screw])),
                );
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        [$ref, $index] = explode('/', $inquiry->subject->ref);
        $stack = $inquiry->build->mates[$ref]->screws[(int) $index];
        $where = "mates/{$ref}/screws/{$index}";
        $screw = $stack->screw === null ? null : $inquiry->build->fitted($stack->screw);
        if ($screw === null) {
            $inquiry->lack('the screw');
        }
        $thread = $inquiry->tryChoice($screw, 'thread') ?? $inquiry->lack("thread of {$screw->need->role}");
        $length = $inquiry->read($screw, 'length', 'L');
        if ($inquiry->tryChoice($screw, 'head') === 'countersunk' && $stack->washers !== []) {
            $inquiry->remark('The length of a countersunk screw is counted with its head.');

            return $inquiry->conclude(
                Verdict::Fails,
                'A countersunk head on a washer: it sits on its edge and turns the washer. A cap screw, or no washer.',
            );
        }
        if ($stack->into === null) {
            $inquiry->lack('what the screw goes into');
        }
        $taken = $this->taken($inquiry, $stack, $where);
        $engaged = $inquiry->work(
            'Thread past the clamped parts',
            'e = L − c',
            ['L' => $length, 'c' => $taken],
            $length->minus($taken),
            'mm',
        );
        [$wanted, $why] = $this->wanted($inquiry, $stack, $thread, $where);
        $inquiry->figure('clamped', 'Clamped parts and washers', $taken);
        $inquiry->figure('engaged', 'Thread past them', $engaged);
        $inquiry->figure('wanted', 'Thread wanted', $wanted);
        $most = $this->most($inquiry, $stack, $where, $wanted);
        $hole = $stack->into === ThreadIn::Nut ? null : $stack->depth;
        // A hole that somebody made less deep than is wanted is what there is: of that, enough to hold at all.
        $shallow = $hole?->isBelow($wanted) === true ? $hole : null;
        $least = $shallow === null ? $wanted : Quantity::max(self::diameter($thread), $wanted->over(2));
        $fits = Fasteners::lengthFor($taken->plus($least), $most === null ? null : $taken->plus($most));
        if ($fits !== null) {
            $inquiry->figure('fits', 'Shortest that fits', $fits);
        }
        if ($most !== null && $stack->into !== ThreadIn::Nut) {
            $inquiry->given('usable thread depth', 'd', $most, $stack->evidence, "{$where}/depth");
        }
        // What stands out behind the thread holds nothing.
        $held = $hole === null ? $engaged : Quantity::min($engaged, $hole);
        $advice = $this->advice($thread, $fits, $taken, $least, $most);
        $wrong =
            $this->tooLong($inquiry, $stack->into, $engaged, $most, $advice) ??
            $this->tooShort($inquiry, $held, $least, "{$held} of thread where {$wanted} is wanted ({$why}).{$advice}");
        if ($wrong !== null) {
            return $wrong;
        }
        if ($most === null) {
            $inquiry->miss($stack->into === ThreadIn::Nut ? 'free room behind the nut' : 'usable thread depth');
        }
        $limit = "at least {$least}".($most === null ? '' : ", at most {$most}");

        return $shallow === null
            ? $inquiry->conclude(
                Verdict::Holds,
                "{$thread} × {$length->in('mm')} gives {$engaged} of thread; {$wanted} is wanted ({$why}).",
                $inquiry->margin($wanted, $engaged),
                $limit,
            )
            : $inquiry->conclude(
                Verdict::Tight,
                "{$held} of thread, in a hole of {$shallow}: {$wanted} is usual ({$why}). It holds a light load; tighten it gently.",
                $inquiry->margin($least, $held),
                $limit,
            );
    }

    /** The thread there is room for; null where nobody has said. */
    private function most(Inquiry $inquiry, ScrewStack $stack, string $where, Quantity $wanted): ?Quantity
    {
        return match (true) {
            $stack->into === ThreadIn::Nut => $this->roomPastNut($inquiry, $stack, $where, $wanted),
            $stack->into === ThreadIn::Insert && $stack->depth !== null && $stack->room !== null => $stack->depth->plus(
                $stack->room,
            ),
            default => $stack->depth,
        };
    }

    private function tooLong(Inquiry $inquiry, ThreadIn $into, Quantity $engaged, ?Quantity $most, string $advice): ?Finding
    {
        if ($most === null || ! $engaged->exceeds($most)) {
            return null;
        }
        $excess = $engaged->minus($most);
        $inquiry->figure('excess', 'Too long by', $excess);
        $blocked = $into === ThreadIn::Nut ? 'It stands out into what moves there' : 'It bottoms before it clamps';

        return $inquiry->conclude(
            Verdict::Fails,
            "{$blocked}: {$engaged} past the clamped parts, room for {$most}: {$excess} too long.{$advice}",
            $inquiry->margin($engaged, $most),
            "at most {$most}",
        );
    }

    private function tooShort(Inquiry $inquiry, Quantity $held, Quantity $least, string $says): ?Finding
    {
        if (! $held->isBelow($least)) {
            return null;
        }
        $inquiry->figure('short', 'Too short by', $least->minus($held));

        return $inquiry->conclude(
            Verdict::Fails,
            "Too short by {$least->minus($held)}: {$says}",
            $inquiry->margin($least, Quantity::max($held, Quantity::of(0.01, 'mm'))),
            "at least {$least}",
        );
    }

    /** Which length to take, or what to do where none that is sold goes between too short and too long. */
    private function advice(string $thread, ?Quantity $fits, Quantity $taken, Quantity $least, ?Quantity $most): string
    {
        if ($fits !== null) {
            return " {$thread} × {$fits->in('mm')} fits.";
        }
        $longer = Fasteners::lengthFor($taken->plus($least));

        return match (true) {
            $most?->isBelow($least) === true => " No length fits: {$least} of thread is the least, and there is room for {$most}.",
            $longer !== null && $most !== null => " {$thread} × {$longer->in('mm')} fits with {$longer->minus($taken)->minus($most)} more clamped, such as a washer.",
            default => ' No length sold fits.',
        };
    }

    private static function diameter(string $thread): Quantity
    {
        return Quantity::of(substr($thread, 1), 'mm');
    }

    public function cures(): array
    {
        return [new OtherScrew, new OtherPart];
    }

    public function examples(): Examples
    {
        $with = static fn (string $length): array => Examples::file(
            [
                Examples::part('motor', 'stepper_motor', []),
                Examples::part('plate', 'plate', ['thickness' => '10 mm']),
                Examples::part('screw', 'screw', ['thread' => 'M5', 'length' => $length]),
            ],
            [
                'mates' => [
                    [
                        'ref' => 'm',
                        'kind' => 'motor mount',
                        'between' => ['motor', 'plate'],
                        'screws' => [
                            [
                                'screw' => 'screw',
                                'count' => 4,
                                'clamped' => ['10 mm'],
                                'washers' => ['1 mm'],
                                'into' => 'tapped',
                                'material' => 'aluminium',
                                'depth' => '15 mm',
                                'evidence' => 'measured',
                            ],
                        ],
                    ],
                ],
            ],
        );

        return new Examples(static fn (): array => $with('16 mm'), static fn (): array => $with('25 mm'), Verdict::Fails);
    }

    private function taken(Inquiry $inquiry, ScrewStack $stack, string $where): Quantity
    {
        if ($stack->clamped === []) {
            $inquiry->lack('thickness of what is clamped');
        }
        $sum = Quantity::of(0, 'mm');
        $symbols = [];
        foreach ([...$stack->clamped, ...$stack->washers] as $thickness) {
            $sum = $sum->plus($thickness);
            $symbols['t_'.(count($symbols) + 1)] = $thickness;
        }
        $inquiry->given('thickness of what is clamped', 'c', $sum, $stack->evidence, "{$where}/clamped");

        return $inquiry->work(
            'Clamped parts and washers',
            'c = '.implode(' + ', array_keys($symbols)),
            $symbols,
            $sum,
            'mm',
        );
    }

    /**
     * @return array{Quantity, string} thread wanted and the rule it comes from
     */
    private function wanted(Inquiry $inquiry, ScrewStack $stack, string $thread, string $where): array
    {
        $pitch = Fasteners::pitch($thread) ?? $inquiry->lack("pitch of {$thread}");
        if ($stack->into === ThreadIn::Nut) {
            $nut = Fasteners::nutHeight($thread) ?? $inquiry->lack("height of a nut {$thread}");

            return [
                $inquiry->work(
                    'Through the nut and a pitch past it',
                    'w = m + p',
                    ['m' => $nut, 'p' => $pitch],
                    $nut->plus($pitch),
                    'mm',
                ),
                'nut and one pitch',
            ];
        }
        $material =
            $stack->into === ThreadIn::Tapped || $stack->into === ThreadIn::Insert
                ? $stack->material ?? ($stack->into === ThreadIn::Insert ? ThreadMaterial::Brass : null)
                : ThreadMaterial::Steel;
        if ($material === null) {
            $inquiry->lack('material the thread is in');
        }
        $diameter = self::diameter($thread);
        $factor =
            Fasteners::engagement($material->value) ?? $inquiry->lack("engagement of a thread in {$material->value}");

        return [
            $inquiry->work(
                "Engagement in {$material->value}",
                'w = k × d',
                ['k' => $factor, 'd' => $diameter],
                $diameter->times($factor),
                'mm',
            ),
            "{$factor} × diameter in {$material->value}",
        ];
    }

    private function roomPastNut(Inquiry $inquiry, ScrewStack $stack, string $where, Quantity $nut): ?Quantity
    {
        if ($stack->room === null) {
            return null;
        }
        $room = $inquiry->given('free room behind the nut', 'r', $stack->room, $stack->evidence, "{$where}/room");

        return $inquiry->work(
            'Nut and the room behind it',
            'm = w + r',
            ['w' => $nut, 'r' => $room],
            $nut->plus($room),
            'mm',
        );
    }
}
