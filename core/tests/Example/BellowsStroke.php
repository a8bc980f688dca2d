<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Example;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** An example check: in the core it would be one file in Mechanical/Rules and one line in Assembly/Rules. */
final class BellowsStroke implements Curable
{
    public function card(): Card
    {
        return new Card(
            'X01',
            'Bellows',
            'Do they reach over 300 mm?',
            Trade::Mechanical,
            'common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedOf('bellows') as $ref => $fitted) {
            yield new Subject('need', $ref, $fitted->need->role, [$ref]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $bellows = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $stroke = $inquiry->work(
            'Stroke',
            's = L − l',
            [
                'L' => ($open = $inquiry->read($bellows, 'open', 'L', Bound::Lowest)),
                'l' => ($closed = $inquiry->read($bellows, 'closed', 'l', Bound::Highest)),
            ],
            $open->minus($closed),
            'mm',
        );
        $wanted = Quantity::of(300, 'mm');

        return $inquiry->conclude(
            $stroke->isBelow($wanted) ? Verdict::Fails : Verdict::Holds,
            "{$stroke} of {$wanted}.",
            $inquiry->margin($wanted, $stroke),
        );
    }

    public function cures(): array
    {
        return [new LongerBellows];
    }

    public function examples(): Examples
    {
        return new Examples(static fn (): array => [], static fn (): array => []);
    }
}
