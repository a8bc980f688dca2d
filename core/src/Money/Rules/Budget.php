<?php

declare(strict_types=1);

namespace Magpie\Core\Money\Rules;

use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Quantity\Money;

/** S01: everything at the door against what may be spent. */
final class Budget implements Check
{
    public function card(): Card
    {
        return new Card(
            'S01',
            'Landed cost',
            'Does everything, at the door and with what is kept back, stay within the budget?',
            Trade::Supply,
            'Sum of packs, shipping, duty, tax and fees at dated rates',
            topics: [Topic::Scope],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        if ($survey->build->plan->budget !== null) {
            yield new Subject('plan', 'budget', 'The whole build');
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $plan = $inquiry->build->plan;
        $budget = $plan->budget ?? $inquiry->lack('a budget');
        $ledger = MoneyLedger::of($survey)->toArray(false);
        $planned = Money::of($ledger['planned'], $plan->currency);
        $bare = $planned->minus(Money::of($ledger['contingency'], $plan->currency));
        foreach ($ledger['open'] as $open) {
            $inquiry->miss($open);
        }
        $inquiry->remark(
            "Goods and spares {$bare->minus(Money::of($ledger['shipping'], $plan->currency))->minus(
                Money::of($ledger['tax'], $plan->currency),
            )}, shipping {$ledger['shipping']}, duty, tax and fees {$ledger['tax']}, kept back {$ledger['contingency']}.",
        );
        $inquiry->remark("Planned {$planned}, budget {$budget}.");
        $verdict = match (true) {
            $bare->compare($budget) > 0 => Verdict::Fails,
            $planned->compare($budget) > 0 => Verdict::Tight,
            default => Verdict::Holds,
        };
        $says =
            "{$planned} planned of {$budget}".
            match ($verdict) {
                Verdict::Fails => ": {$planned->minus($budget)} too much".
                    ($bare->compare($planned) === 0 ? '.' : ", {$bare->minus($budget)} even with nothing kept back."),
                Verdict::Tight => ': part of it comes out of what was to be kept back.',
                default => ": {$budget->minus($planned)} left.",
            };

        // A sum that leaves something out says so beside itself.
        $says .= $ledger['lacks'] === [] ? '' : ' Left out: '.implode(', ', $ledger['lacks']).'.';

        return $inquiry->conclude(
            $verdict,
            $says,
            $budget->isZero() ? null : $budget->minus($planned)->shareOf($budget)->to('%'),
            "{$budget}",
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $budget): array => Examples::file(
            [Examples::part('rail', 'linear_rail', ['length' => '400 mm'])],
            [
                'build' => [
                    'name' => 'Sample',
                    'kind' => 'sample',
                    'currency' => 'GBP',
                    'budget' => $budget,
                    'contingency' => '10 %',
                ],
                'suppliers' => [
                    [
                        'ref' => 'shop',
                        'name' => 'Shop',
                        'currency' => 'GBP',
                        'shipping' => [['from' => '0', 'cost' => '5']],
                    ],
                ],
                'offers' => [
                    ['ref' => 'o', 'part' => 'rail', 'supplier' => 'shop', 'price' => '40', 'date' => '2026-11-01'],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('40'), static fn (): array => $file('60'), Verdict::Fails);
    }
}
