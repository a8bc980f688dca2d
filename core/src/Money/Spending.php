<?php

declare(strict_types=1);

namespace Magpie\Core\Money;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Purchase;
use Magpie\Core\Machine\Buying\PurchaseState;
use Magpie\Core\Quantity\Money;

/**
 * What the money of a build has become, from its purchases, in the build's currency. Paid is in all of them, whatever
 * became of it; owed is still to be paid for what is ordered. Of what is ordered, here and coming are the worth of the
 * pieces that arrived and of those that are to, moved that of those another build has now; abandoned is what was paid for
 * what is not wanted any more, fetched what came back for what was sold on. A purchase that says what its currency was worth
 * on its day is reckoned by that, the others by the rate of the build.
 */
final readonly class Spending
{
    public Money $paid;

    public Money $owed;

    public Money $here;

    public Money $coming;

    public Money $abandoned;

    public Money $moved;

    public Money $fetched;

    /** What is in the basket, ordered by nobody: no money yet. */
    public Money $considered;

    /** @var list<string> */
    public array $open;

    public function __construct(Build $build, Exchange $exchange)
    {
        $sums = array_fill_keys(
            ['paid', 'owed', 'here', 'coming', 'moved', 'abandoned', 'considered', 'fetched'],
            Money::zero($build->plan->currency),
        );
        $open = [];
        foreach ($build->purchases as $purchase) {
            foreach (self::parts($purchase) as $what => $amount) {
                $own =
                    $purchase->rate === null || $amount->currency === $exchange->currency
                        ? $exchange->convert($amount)
                        : $amount->at($purchase->rate, $exchange->currency);
                if ($own === null) {
                    $open[$purchase->ref] = "{$purchase->ref} is in {$purchase->paid->currency}, and no rate is given";
                } else {
                    $sums[$what] = $sums[$what]->plus($own->cents());
                }
            }
        }
        $this->paid = $sums['paid'];
        $this->owed = $sums['owed'];
        $this->here = $sums['here'];
        $this->coming = $sums['coming'];
        $this->moved = $sums['moved'];
        $this->fetched = $sums['fetched'];
        $this->abandoned = $sums['abandoned'];
        $this->considered = $sums['considered'];
        $this->open = array_values($open);
    }

    /**
     * @return array<string, Money>
     */
    private static function parts(Purchase $purchase): array
    {
        $whole = $purchase->agreed ?? $purchase->paid;
        // A share of pieces, exact to a millionth of the amount.
        $share = static fn (int $pieces): Money => $whole
            ->times($pieces)
            ->against((string) $purchase->pieces, $whole->currency);

        return match ($purchase->state) {
            PurchaseState::Considered => ['considered' => $whole, 'paid' => $purchase->paid],
            PurchaseState::Abandoned => ['abandoned' => $purchase->paid, 'paid' => $purchase->paid],
            default => [
                'paid' => $purchase->paid,
                'owed' => $purchase->owed(),
                'here' => $share($purchase->here()),
                'coming' => $share($purchase->onTheWay()),
                'moved' => $share($purchase->moved),
                'fetched' => $purchase->fetched ?? Money::zero($whole->currency),
            ],
        };
    }

    /**
     * @return list<array<string, mixed>> one a purchase, amounts in the supplier's currency
     */
    public function rows(Build $build): array
    {
        return array_values(
            array_map(
                static fn (Purchase $p): array => [
                    'ref' => $p->ref,
                    'part' => $p->part,
                    'name' => $build->part($p->part)->name ?? $p->part,
                    'supplier' => $build->suppliers[$p->supplier]->name,
                    'order' => $p->order,
                    'state' => $p->state->value,
                    'pieces' => $p->pieces,
                    'received' => $p->received,
                    'accepted' => $p->accepted,
                    'returned' => $p->returned,
                    'unseen' => $p->unseen(),
                    'paid' => $p->paid->amount(),
                    'agreed' => $p->agreed?->amount(),
                    'owed' => $p->owed()->amount(),
                    'currency' => $p->paid->currency,
                    'date' => $p->date,
                    'due' => $p->due,
                    'rate' => $p->rate,
                    'moved' => $p->moved,
                    'sold' => $p->sold,
                    'fetched' => $p->fetched?->amount(),
                ],
                $build->purchases,
            ),
        );
    }
}
