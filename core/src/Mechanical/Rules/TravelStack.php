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
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\UsableTravel;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Scope\Envelope;

/** M01: the travel that is left when everything has taken its share, against what the workpieces ask for. */
final class TravelStack implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M01',
            'Usable travel',
            'Does the largest workpiece fit into the travel that is really left?',
            Trade::Mechanical,
            'Sum of lengths; the 2 % to spare are common practice, no source',
            ['spare' => Threshold::share('share of the travel that should be to spare', 0.02)],
            topics: [Topic::Scope],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->axes as $axis) {
            yield Subject::ofAxis($axis, $axis->rail === null ? [] : [$axis->rail]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $axis = $inquiry->build->axes[$inquiry->subject->ref];
        $usable = UsableTravel::of($inquiry, $axis);
        if (! $usable->isPositive()) {
            return $inquiry->conclude(
                Verdict::Fails,
                "Nothing is left to travel: blocks and all that takes some of it ask for {$usable->times(-1)->to(
                    'mm',
                )} more than there is. A longer rail, or fewer blocks.",
            );
        }
        $envelope = new Envelope($inquiry->build);
        $along = $axis->along->value;
        $piece = $envelope->deciding[$along] ?? null;
        $wanted = $inquiry
            ->given(
                "size of the largest workpiece along {$along}",
                'L_w',
                $envelope->sizes[$along] ?? null,
                Evidence::Measured,
                $piece === null ? 'workpieces' : "workpieces/{$piece->ref}",
            )
            ->to('mm');
        $spare = $inquiry->work(
            'To spare',
            's = L_u − L_w',
            ['L_u' => $usable, 'L_w' => $wanted],
            $usable->minus($wanted),
            'mm',
        );
        $verdict = match (true) {
            $usable->isBelow($wanted) => Verdict::Fails,
            $spare->isBelow($wanted->times($inquiry->threshold('spare'))) => Verdict::Tight,
            default => Verdict::Holds,
        };
        $says =
            "{$usable} of travel are left; {$piece?->name} with its margins asks for {$wanted}.".
            ($verdict === Verdict::Fails ? " {$wanted->minus($usable)->to('mm')} are missing." : '').
            ($axis->advertised?->exceeds($usable) === true ? " It is sold as {$axis->advertised->to('mm')}." : '');

        return $inquiry->conclude(
            $verdict,
            $says,
            $inquiry->margin($wanted, Quantity::max($usable, Quantity::of(0.1, 'mm'))),
            "{$wanted} for {$piece?->name}",
        );
    }

    public function cures(): array
    {
        return [new OtherPart];
    }

    public function examples(): Examples
    {
        $file = static fn (string $length): array => Examples::file(
            [Examples::part('rail', 'linear_rail', ['length' => $length, 'block_length' => '58 mm'])],
            [
                'axes' => [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'rail' => 'rail',
                        'blocks' => 2,
                        'block_pitch' => '80 mm',
                        'takes' => [['what' => 'Stops', 'length' => '16 mm', 'evidence' => 'measured']],
                        'advertised' => '400 mm',
                    ],
                ],
                'workpieces' => [
                    [
                        'ref' => 'board',
                        'name' => 'Board',
                        'length' => '300 mm',
                        'width' => '100 mm',
                        'height' => '20 mm',
                    ],
                ],
            ],
        );

        return new Examples(
            static fn (): array => $file('400 mm'),
            static fn (): array => $file('500 mm'),
            Verdict::Fails,
        );
    }
}
