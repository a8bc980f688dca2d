<?php

declare(strict_types=1);

namespace Magpie\Core\Routes;

use Magpie\Core\Machine\Account;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Choosing\LineKind;
use Magpie\Core\Machine\Choosing\Route;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Money\Basket;
use Magpie\Core\Money\Exchange;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/**
 * What one route costs in money, hours and days (S04), with the same shipping, duty and packs as any order. Sums are in
 * the build's currency. What has no price is named in `open` and never counted as free.
 */
final readonly class RouteLedger
{
    private const REEL = '1 kg';

    public Money $landed;

    public Money $toll;

    public Money $allIn;

    public Quantity $ownHours;

    public Quantity $machineHours;

    public ?int $waitDays;

    /** @var array<string, Money> by kind of line: box, left out, tool, consumable, spare, parts */
    public array $kinds;

    /** @var list<array<string, mixed>> */
    public array $baskets;

    /** @var list<string> */
    public array $open;

    /** @var list<array{what: string, kind: string, cost: Money|null, evidence: string, owned: int}> dearest first */
    public array $lines;

    public function __construct(private Build $build, public Route $route)
    {
        $zero = Money::zero($build->plan->currency);
        $exchange = new Exchange($build->rates, $build->plan->currency);
        $kinds = array_fill_keys(['parts', ...LineKind::words()], $zero);
        $goods = $open = $lines = [];
        foreach ($this->entries() as [$what, $kind, $own, $supplier, $evidence, $owned, $reason]) {
            $cost = $own === null ? null : $exchange->convert($own)?->cents();
            if ($cost === null) {
                $open[] =
                    $reason ??
                    "{$what} is priced in {$own?->currency}, and no rate to {$build->plan->currency} is given";
            } else {
                $kinds[$kind] = $kinds[$kind]->plus($cost);
            }
            $lines[] = [
                'what' => $what,
                'kind' => $kind,
                'cost' => $cost,
                'evidence' => $evidence->value,
                'owned' => $owned,
            ];
            if ($cost !== null && $own !== null && $supplier !== null) {
                $goods[$supplier] = isset($goods[$supplier]) ? $goods[$supplier]->plus($own) : $own;
            }
        }
        usort($lines, static fn (array $a, array $b): int => ($b['cost'] ?? $zero)->compare($a['cost'] ?? $zero));
        $toll = $zero;
        $baskets = [];
        $wait = $route->waitDays;
        foreach ($goods as $ref => $value) {
            $basket = new Basket($build->suppliers[$ref], $value);
            if ($basket->shipping === null) {
                $open[] = "shipping from {$basket->supplier->name} is not known";
            }
            $landed = $exchange->convert($basket->paid())?->cents() ?? $zero;
            $toll = $toll->plus($exchange->convert($basket->paid()->minus($value->cents()))?->cents() ?? $zero);
            $wait = $basket->supplier->leadDays === null ? $wait : max($wait ?? 0, $basket->supplier->leadDays);
            $baskets[] = [
                'supplier' => $basket->supplier->name,
                'currency' => $basket->supplier->currency,
                'goods' => $value->amount(),
                'shipping' => $basket->shipping?->amount(),
                'duty' => $basket->duty->amount(),
                'tax' => $basket->tax->amount(),
                'fee' => $basket->fee->amount(),
                'total' => $basket->paid()->amount(),
                'landed' => $landed->amount(),
                'lead_days' => $basket->supplier->leadDays,
            ];
        }
        $this->kinds = $kinds;
        $this->lines = $lines;
        $this->baskets = $baskets;
        $this->toll = $toll;
        $this->waitDays = $wait;
        $this->landed = array_reduce($kinds, static fn (Money $sum, Money $m): Money => $sum->plus($m), $toll);
        $this->machineHours = $route->hours['printing'] ?? Quantity::of(0, 'h');
        $guide = Quantity::of(0, 'h');
        foreach ($route->hours as $work => $hours) {
            $guide = $work === 'printing' ? $guide : $guide->plus($hours);
        }
        $this->ownHours = $guide->times($build->plan->pace ?? Quantity::ratio(1))->to('h');
        $this->open = array_values(
            array_unique([...$open, ...$route->hours === [] ? ["hours of {$route->name}"] : []]),
        );
        $hour = $build->brief->hour ?? $zero;
        $this->allIn = $this->landed
            ->minus($route->resale ?? $zero)
            ->plus($hour->times(Quantity::ratio($this->ownHours->in('h'))));
    }

    public function toolCost(): Money
    {
        return $this->kinds['tool'];
    }

    /** Share of the known money whose price rests on a listing or less. */
    public function weakShare(): float
    {
        $known = $weak = Money::zero($this->build->plan->currency);
        foreach ($this->lines as $line) {
            if ($line['cost'] !== null) {
                $known = $known->plus($line['cost']);
                $weak = Evidence::from($line['evidence'])->isWeakerThan(Evidence::Manual)
                    ? $weak->plus($line['cost'])
                    : $weak;
            }
        }

        return round($weak->shareOf($known)->in(''), 4);
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        $filament = $this->route->filament;

        return [
            'ref' => $this->route->ref,
            'name' => $this->route->name,
            'kind' => $this->route->kind->value,
            'in_box' => $this->route->inBox,
            'kinds' => array_map(static fn (Money $m): string => $m->amount(), $this->kinds),
            'toll' => $this->toll->amount(),
            'landed' => $this->landed->amount(),
            'resale' => $this->route->resale?->amount(),
            'own_hours' => round($this->ownHours->in('h'), 1),
            'machine_hours' => round($this->machineHours->in('h'), 1),
            'hours' => array_map(static fn (Quantity $q): string => $q->text(), $this->route->hours),
            'hours_value' => $this->build->brief->hour === null
                    ? null
                    : $this->allIn
                        ->minus($this->landed)
                        ->plus($this->route->resale ?? Money::zero($this->build->plan->currency))
                        ->amount(),
            'all_in' => $this->allIn->amount(),
            'reels' => $filament === null ? null : (int) ceil($filament->over(Quantity::of(1, 'kg'))->in('') - 1e-9),
            'reel' => self::REEL,
            'filament' => $filament?->text(),
            'wait_days' => $this->waitDays,
            'documentation' => $this->route->documentation?->value,
            'support' => $this->route->support?->value,
            'freedom' => $this->route->freedom?->value,
            'weak_share' => $this->weakShare(),
            'baskets' => $this->baskets,
            'lines' => array_map(static fn (array $l): array => ['cost' => $l['cost']?->amount()] + $l, $this->lines),
            'open' => $this->open,
            'notes' => $this->route->notes,
        ];
    }

    /**
     * @return iterable<array{string, string, Money|null, string|null, Evidence, int, string|null}> what, kind, cost in
     * its own currency, supplier, evidence, owned, why it has no price
     */
    private function entries(): iterable
    {
        foreach ($this->route->lines as $line) {
            yield [
                $line->what,
                $line->kind->value,
                $line->price?->times($line->packs()),
                $line->supplier,
                $line->evidence,
                $line->owned,
                $line->price === null ? "{$line->what} has no price" : null,
            ];
        }
        $needs = $this->route->wholeBuild
            ? $this->build->needs
            : array_intersect_key($this->build->needs, array_flip($this->route->needs));
        $part = $this->build->with(['needs' => $needs]);
        foreach ((new MoneyLedger($part))->lines() as $line) {
            if ($line->buy > 0) {
                $kind = match ($line->account) {
                    Account::Tool => 'tool',
                    Account::Consumable => 'consumable',
                    Account::Machine => 'parts',
                };
                yield [
                    $line->name,
                    $kind,
                    $line->own,
                    $line->offer?->supplier,
                    Evidence::Manual,
                    $line->owned,
                    $line->reason,
                ];
            }
        }
    }
}
