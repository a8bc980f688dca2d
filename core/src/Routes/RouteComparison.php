<?php

declare(strict_types=1);

namespace Magpie\Core\Routes;

use Brick\Math\BigDecimal;
use Closure;
use Magpie\Core\Machine\Account;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Rate;
use Magpie\Core\Machine\Choosing\LineKind;
use Magpie\Core\Machine\Choosing\Route;
use Magpie\Core\Machine\Need;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/**
 * All routes of a build side by side (S04): how each stands to the cheapest, the wage that building one implies, what
 * would bring the two cheapest level, and what moves the answer most.
 */
final readonly class RouteComparison
{
    /** @var array<string, RouteLedger> by route, least all-in cost first */
    public array $ledgers;

    public function __construct(private Build $build)
    {
        $this->ledgers = self::laid($build);
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        $ledgers = array_values($this->ledgers);
        $first = $ledgers[0] ?? null;

        return [
            'currency' => $this->build->plan->currency,
            'hour' => $this->build->brief->hour?->amount(),
            'pace' => round(($this->build->plan->pace ?? Quantity::ratio(1))->in(''), 3),
            'budget' => $this->build->plan->budget?->amount(),
            'routes' => array_map(
                fn (RouteLedger $l): array => $l->toArray() + [
                    'against' => $first === null || $l === $first ? null : self::share($l->landed, $first->landed),
                    'base' => $first?->route->name,
                    'wage' => $this->wage($l),
                ],
                $ledgers,
            ),
            'sentence' => $this->sentence(),
            'level' => isset($ledgers[1]) ? $this->level($ledgers[0], $ledgers[1]) : null,
            'movers' => isset($ledgers[1]) ? $this->movers($ledgers[0]->route->ref, $ledgers[1]->route->ref) : [],
        ];
    }

    /** What decides between the two cheapest, in words. */
    public function sentence(): string
    {
        [$a, $b] = array_values($this->ledgers) + [null, null];
        if ($a === null) {
            return 'No route is described yet.';
        }
        if ($b === null) {
            return "{$a->route->name} is the only route described: {$a->landed} at the door.";
        }
        $share = self::share($b->landed, $a->landed);
        $cost = match (true) {
            $share === null => "{$b->route->name} costs {$b->landed}, {$a->route->name} {$a->landed}",
            $share >= 0.0005 => sprintf(
                '%s costs %s %% more than %s (%s against %s at the door)',
                $b->route->name,
                self::percent($share),
                $a->route->name,
                $b->landed,
                $a->landed,
            ),
            $share <= -0.0005 => sprintf(
                '%s costs %s %% less than %s at the door (%s against %s), but not once your hours and what can be sold are counted',
                $b->route->name,
                self::percent(-$share),
                $a->route->name,
                $b->landed,
                $a->landed,
            ),
            default => "{$b->route->name} and {$a->route->name} cost the same at the door ({$a->landed})",
        };
        $level = $this->level($a, $b);
        $says = [
            ...$level['owned'] !== [] ? ['it breaks even if you already own '.self::listed($level['owned'])] : [],
            ...$level['hour'] !== null
                ? [
                    "both come level when an hour of yours is worth {$this->build->plan->currency}\u{a0}{$level['hour']}",
                ]
                : [],
        ];
        $unknown = count([...$a->open, ...$b->open]);

        return $cost.
            ($says === [] ? '' : '; '.implode(', or ', $says)).
            '.'.
            match ($unknown) {
                0 => '',
                1 => ' One figure is not known yet.',
                default => " {$unknown} figures are not known yet.",
            };
    }

    /**
     * What would bring the dearer of two routes level with the cheaper: the fewest things already owned, or the worth
     * of an hour.
     *
     * @return array{gap: string, owned: list<string>, hour: string|null}
     */
    private function level(RouteLedger $cheap, RouteLedger $dear): array
    {
        $gap = $dear->allIn->minus($cheap->allIn);
        $owned = [];
        $left = $gap;
        foreach ($dear->lines as $line) {
            if ($left->isNegative() || $left->isZero()) {
                break;
            }
            if ($line['cost'] !== null && ! $line['cost']->isZero() && $line['kind'] !== 'box') {
                $owned[] = $line['what'];
                $left = $left->minus($line['cost']);
            }
        }
        $reached = $left->isNegative() || $left->isZero();
        $hours = $dear->ownHours->minus($cheap->ownHours)->in('h');
        $bare = static fn (RouteLedger $l): Money => $l->landed->minus(
            $l->route->resale ?? Money::zero($l->landed->currency),
        );
        $money = $bare($dear)->minus($bare($cheap));
        // Level at an hour worth w: money + hours × w = 0.
        $worth = abs($hours) < 0.05 ? null : -self::float($money) / $hours;

        return [
            'gap' => $gap->amount(),
            'owned' => $reached && count($owned) <= 4 ? $owned : [],
            'hour' => $worth === null || $worth <= 0 ? null : number_format($worth, 2, '.', ''),
        ];
    }

    /**
     * What an hour of building earns: the money saved against the route that asks for the fewest hours, over the hours
     * it takes more.
     *
     * @return array{against: string, amount: string, hours: float}|null
     */
    private function wage(RouteLedger $ledger): ?array
    {
        $least = $ledger;
        foreach ($this->ledgers as $other) {
            $least = $other->ownHours->isBelow($least->ownHours) ? $other : $least;
        }
        $hours = $ledger->ownHours->minus($least->ownHours)->in('h');

        return $hours < 0.05
            ? null
            : [
                'against' => $least->route->name,
                'amount' => number_format(self::float($least->landed->minus($ledger->landed)) / $hours, 2, '.', ''),
                'hours' => round($hours, 1),
            ];
    }

    /**
     * How far each assumption moves the gap between two routes, widest first.
     *
     * @return list<array{what: string, low: string, high: string, low_says: string, high_says: string, flips: bool}>
     */
    private function movers(string $cheap, string $dear): array
    {
        $movers = [];
        foreach ($this->assumptions() as [$what, $lowSays, $low, $highSays, $high]) {
            $gaps = array_map(
                static function (Closure $change) use ($cheap, $dear): Money {
                    $ledgers = self::laid($change());

                    return $ledgers[$dear]->allIn->minus($ledgers[$cheap]->allIn);
                },
                [$low, $high],
            );
            $movers[] = [
                'what' => $what,
                'low' => $gaps[0]->amount(),
                'high' => $gaps[1]->amount(),
                'low_says' => $lowSays,
                'high_says' => $highSays,
                'flips' => $gaps[0]->isNegative() || $gaps[1]->isNegative(),
                'swing' => abs(self::float($gaps[1]) - self::float($gaps[0])),
            ];
        }
        $movers = array_values(array_filter($movers, static fn (array $m): bool => $m['swing'] >= 0.01));
        usort(
            $movers,
            static fn (array $a, array $b): int => $b['swing'] <=> $a['swing'] ?: strcmp($a['what'], $b['what']),
        );

        return array_map(
            static fn (array $m): array => [
                'what' => $m['what'],
                'low' => $m['low'],
                'high' => $m['high'],
                'low_says' => $m['low_says'],
                'high_says' => $m['high_says'],
                'flips' => $m['flips'],
            ],
            $movers,
        );
    }

    /**
     * @return iterable<array{string, string, Closure(): Build, string, Closure(): Build}>
     */
    private function assumptions(): iterable
    {
        $build = $this->build;
        $pace = $build->plan->pace ?? Quantity::ratio(1);
        $withPace = static fn (float $by): Build => $build->with(['plan' => $build->plan->atPace($pace->times($by))]);
        $hour = $build->brief->hour;
        if ($hour !== null) {
            yield [
                'Your hours',
                'a quarter fewer',
                static fn (): Build => $withPace(0.75),
                'a quarter more',
                static fn (): Build => $withPace(1.25),
            ];
            $worth = static fn (?Money $m): Build => $build->with(['brief' => $build->brief->valuing($m)]);
            yield [
                'Worth of an hour',
                'nothing',
                static fn (): Build => $worth(null),
                'double',
                static fn (): Build => $worth($hour->times(2)),
            ];
        }
        foreach ($build->rates as $ref => $rate) {
            $at = static fn (string $by): Build => $build->with([
                'rates' => array_replace($build->rates, [
                    $ref => new Rate(
                        $rate->from,
                        $rate->to,
                        (string) BigDecimal::of($rate->worth)->multipliedBy($by),
                        $rate->date,
                    ),
                ]),
            ]);
            yield [
                "Rate of {$rate->from}",
                '10 % lower',
                static fn (): Build => $at('0.9'),
                '10 % higher',
                static fn (): Build => $at('1.1'),
            ];
        }
        foreach (
            ['Tools' => LineKind::Tool, 'What the box leaves out' => LineKind::LeftOut, 'Spares' => LineKind::Spare] as $title => $kind
        ) {
            $without = $build->with([
                'routes' => array_map(static fn (Route $r): Route => $r->owning($kind), $build->routes),
                'needs' => $kind !== LineKind::Tool
                        ? $build->needs
                        : array_map(
                            static fn (Need $n): Need => $build->fitted($n->ref)?->part->family->account() === Account::Tool
                                ? $n->owning($n->quantity)
                                : $n,
                            $build->needs,
                        ),
            ]);
            yield [
                $title,
                'all owned already',
                static fn (): Build => $without,
                'all to be bought',
                static fn (): Build => $build,
            ];
        }
        yield [
            'Price of the box',
            '10 % lower',
            static fn (): Build => $build->with([
                'routes' => array_map(static fn (Route $r): Route => $r->boxAt('0.9'), $build->routes),
            ]),
            '10 % higher',
            static fn (): Build => $build->with([
                'routes' => array_map(static fn (Route $r): Route => $r->boxAt('1.1'), $build->routes),
            ]),
        ];
        yield [
            'What is left over',
            'cannot be sold',
            static fn (): Build => $build->with([
                'routes' => array_map(static fn (Route $r): Route => $r->unsold(), $build->routes),
            ]),
            'sells as hoped',
            static fn (): Build => $build,
        ];
    }

    /**
     * @return array<string, RouteLedger>
     */
    private static function laid(Build $build): array
    {
        $ledgers = array_map(static fn (Route $r): RouteLedger => new RouteLedger($build, $r), $build->routes);
        uasort(
            $ledgers,
            static fn (RouteLedger $a, RouteLedger $b): int => $a->allIn->compare($b->allIn) ?:
            strcmp($a->route->ref, $b->route->ref),
        );

        return $ledgers;
    }

    private static function share(Money $dear, Money $base): ?float
    {
        return $base->isZero() ? null : round($dear->minus($base)->shareOf($base)->in(''), 4);
    }

    private static function percent(float $share): string
    {
        return (string) round($share * 100, $share < 0.1 ? 1 : 0);
    }

    private static function float(Money $money): float
    {
        return (float) $money->exactAmount();
    }

    /**
     * @param  list<string>  $things
     */
    private static function listed(array $things): string
    {
        $last = array_pop($things);

        return $things === [] ? (string) $last : implode(', ', $things)." and {$last}";
    }
}
