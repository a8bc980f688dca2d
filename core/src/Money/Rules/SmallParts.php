<?php

declare(strict_types=1);

namespace Magpie\Core\Money\Rules;

use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Money\Cures\OrderSpares;
use Magpie\Core\Money\PartsBought;
use Magpie\Core\Quantity\Quantity;

/** S07: spares of what is lost, stripped or blown. */
final class SmallParts implements Curable
{
    public function card(): Card
    {
        return new Card(
            'S07',
            'Spares',
            'Are there enough of the small things that are lost, stripped or blown?',
            Trade::Supply,
            'One in ten small screws is stripped or lost, up to one in five: common practice, no source',
            ['least' => Threshold::share('spares on top of what is needed', 0.1)],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::GetsLost) as $ref => $fitted) {
            yield new Subject('need', $ref, $fitted->need->role, [$ref]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $fitted = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $need = $fitted->need;
        $spare = $inquiry->given(
            "pieces to spare of {$need->role}",
            'n_s',
            Quantity::ratio($this->toSpare($survey, $fitted)),
            Evidence::Measured,
            "needs/{$need->ref}/spares",
        );
        $least = Quantity::ratio(ceil($need->quantity * $inquiry->threshold('least')->in('') - 1e-9));
        $least = $inquiry->work(
            'Spares to have',
            'n_min = k × n',
            ['k' => $inquiry->threshold('least'), 'n' => Quantity::ratio($need->quantity)],
            $least,
        );
        $verdict = $spare->isBelow($least) ? Verdict::Tight : Verdict::Holds;
        $inquiry->because('spares');

        return $inquiry->conclude(
            $verdict,
            "{$need->quantity} needed, {$spare} to spare".
                ($verdict === Verdict::Tight ? ": one that is lost or fails stops the work. {$least} would do." : '.'),
        );
    }

    public function cures(): array
    {
        return [new OrderSpares];
    }

    public function examples(): Examples
    {
        $file = static fn (string ...$spares): array => [
            'parts' => [['ref' => 's', 'family' => 'screw', 'name' => 'M5 × 16']],
            'needs' => [
                [
                    'ref' => 's',
                    'role' => 'Screws',
                    'family' => 'screw',
                    'quantity' => 20,
                    'candidates' => ['s'],
                    'choice' => 's',
                ] + $spares,
            ],
        ];

        return new Examples(static fn (): array => $file(), static fn (): array => $file(spares: '15 %'), Verdict::Tight);
    }

    /** What the need orders on top, or what its packs and the drawer leave over where no other need shares the part. */
    private function toSpare(Survey $survey, Fitted $fitted): int
    {
        $need = $fitted->need;
        $ordered = (int) ceil($need->quantity * ($need->spares?->in('') ?? 0) - 1e-9);
        $shelf = PartsBought::of($survey);
        if ($shelf->takers($fitted->part->ref) > 1) {
            return $ordered;
        }
        $packs = array_map(static fn (Offer $o): int => $o->pack, $shelf->offers($fitted->part->ref));
        $pack = $packs === [] ? 1 : min($packs);
        $bought = (int) ceil(max(0, $need->quantity + $ordered - $need->owned) / $pack) * $pack;

        return max(0, $need->owned + $bought - $need->quantity);
    }
}
