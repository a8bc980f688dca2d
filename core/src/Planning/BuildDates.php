<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use DateTimeImmutable;
use Magpie\Core\Buying\Split;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Purchase;
use Magpie\Core\Machine\Work\Sequence;
use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;
use Magpie\Core\Money\OrderLine;
use Magpie\Core\Printing\Recipe;
use Magpie\Core\Work\Forecast;

/**
 * When the machine can be done (S08): what is to come of parts, and the steps at the builder's hours a week and own pace, one
 * after another, since there is one pair of hands; each step when its parts are here and what it comes after is done. Parts
 * still to be ordered are ordered today, where the cheapest split buys them; what is printed goes through the printers, one
 * after another, once there is plastic for it.
 *
 * How far an estimate may be off is common practice, no source: a delivery from four fifths to twice of what is promised, a
 * step from seven tenths to twice of what is planned, a print from nine tenths to one and a half times.
 *
 * @phpstan-type ActivityDates array{key: string, label: string, kind: string, days: float, begins: float, from: string,
 *     to: string, latest: string, slack: float, critical: bool, assumed: list<string>}
 * @phpstan-type Wait array{from: string, to: string, days: int, for: string}
 * @phpstan-type Dates array{build: string, today: string, planned: string, p50: string, p90: string, critical: list<string>,
 *     activities: list<ActivityDates>, drivers: list<array{key: string, share: float}>, waits: list<Wait>,
 *     assumed: list<string>}
 */
final readonly class BuildDates
{
    /** Hours a week where the builder does not say. */
    private const WEEKLY = 5.0;

    /** Hours of a step without a guide, days of a delivery nobody promises a day for. */
    private const STEP = 1.0;

    private const DELIVERY = 14.0;

    public Network $network;

    public Spread $spread;

    /** @var array<string, list<string>> what is taken for granted, by activity */
    public array $assumed;

    /**
     * @param  string  $today  YYYY-MM-DD
     */
    public function __construct(
        private Build $build,
        public string $today,
        int $seed = 1,
        int $samples = Spread::SAMPLES,
    ) {
        [$activities, $this->assumed] = self::activities($build, $today, new PrintQueue($build, $today));
        $this->network = new Network($activities);
        $this->spread = new Spread($this->network, $seed, $samples);
    }

    /** What hangs on what, without the spread: for who asks only how late something may begin. */
    public static function networkOf(Build $build, string $today, PrintQueue $queue): Network
    {
        return new Network(self::activities($build, $today, $queue)[0]);
    }

    /**
     * @return array{list<Activity>, array<string, list<string>>}
     */
    private static function activities(Build $build, string $today, PrintQueue $queue): array
    {
        [$list, $arrivals, $assumed] = self::deliveries($build, $today);
        [$list, $arrivals, $assumed] = self::prints($queue, $build, $list, $arrivals, $assumed);
        $weekly = $build->plan->weekly?->in('h') ?? self::WEEKLY;
        $pace = Forecast::of($build->steps, $build->plan, new DateTimeImmutable($today))->pace->in('');
        // What comes first comes first, whatever its number; the order the steps are shown in.
        $steps = array_filter(
            Sequence::order($build->steps),
            static fn (Step $s): bool => $s->state === StepState::Open,
        );
        $hands = null;
        foreach ($steps as $step) {
            $after = array_map(static fn (string $ref): string => "step/{$ref}", $step->after);
            foreach (array_keys($step->uses) as $need) {
                $part = $build->fitted((string) $need)?->part->ref;
                $after = $part !== null && isset($arrivals[$part]) ? [...$after, ...$arrivals[$part]] : $after;
            }
            if ($hands !== null) {
                $after[] = $hands;
            }
            $key = "step/{$step->ref}";
            $days = ((($step->guide?->in('h') ?? self::STEP) * $pace) / max(0.1, $weekly)) * 7;
            if ($step->guide === null) {
                $assumed[$key][] = sprintf('%g h, since no guide time is given', self::STEP);
            }
            $list[] = new Activity(
                $key,
                $step->title,
                0.7 * $days,
                $days,
                2 * $days,
                array_values(array_unique($after)),
            );
            $hands = $key;
        }
        if ($build->plan->weekly === null && $steps !== []) {
            $assumed[''][] = sprintf('%g hours a week, since the brief does not say', self::WEEKLY);
        }

        return [$list, $assumed];
    }

    /**
     * @return array{list<Activity>, array<string, list<string>>, array<string, list<string>>} deliveries; their keys by
     * part; what is taken for granted, by delivery
     */
    private static function deliveries(Build $build, string $today): array
    {
        $list = $arrivals = $assumed = [];
        $add = static function (string $key, string $part, ?float $days, string $kind) use (
            &$list,
            &$arrivals,
            &$assumed,
            $build,
        ): void {
            if ($days === null) {
                $assumed[$key][] = sprintf('%g days, since no supplier says how long it takes', self::DELIVERY);
            }
            $days ??= self::DELIVERY;
            $list[] = new Activity($key, $build->parts[$part]->name, 0.8 * $days, $days, 2 * $days, [], $kind);
            $arrivals[$part][] = $key;
        };
        foreach ($build->purchases as $purchase) {
            if ($purchase->onTheWay() > 0) {
                $add("come/{$purchase->ref}", $purchase->part, self::daysLeft($build, $purchase, $today), 'coming');
            }
        }
        $split = new Split($build);
        foreach ($split->lines as $line) {
            $add("order/{$line->part}", $line->part, self::promised($build, $split, $line), 'order');
        }

        return [$list, $arrivals, $assumed];
    }

    /**
     * @param  list<Activity>  $list
     * @param  array<string, list<string>>  $arrivals
     * @param  array<string, list<string>>  $assumed
     * @return array{list<Activity>, array<string, list<string>>, array<string, list<string>>} with what is printed
     */
    private static function prints(PrintQueue $queue, Build $build, array $list, array $arrivals, array $assumed): array
    {
        $plastic = [];
        foreach ($build->parts as $part) {
            if ($part->can(Ability::Feedstock) && isset($arrivals[$part->ref])) {
                $material = Recipe::of($part)->material ?? '';
                $plastic[$material] = [...$plastic[$material] ?? [], ...$arrivals[$part->ref]];
            }
        }
        $before = [];
        foreach ($queue->jobs as $job) {
            $key = $job->key();
            $days = $job->ends - $job->begins;
            $lacks = $queue->lacking[$job->stuff] ?? null;
            $reels = $lacks === null ? [] : $plastic[$lacks] ?? [];
            // What lies on a reel already is not told apart from what comes: the print waits for the reel.
            $after = isset($before[$job->printer]) ? [$before[$job->printer], ...$reels] : $reels;
            $list[] = new Activity($key, $job->name, 0.9 * $days, $days, 1.5 * $days, $after, 'print');
            $before[$job->printer] = $key;
            $taken =
                $lacks !== null && $reels === []
                    ? [
                        ...$job->assumed,
                        "that there is {$job->stuff}: what is on its reels is not enough, and no more is on the list",
                    ]
                    : $job->assumed;
            if ($taken !== []) {
                $assumed[$key] = $taken;
            }
            if ($job->part !== null) {
                $arrivals[$job->part][] = $key;
            }
        }
        foreach ($queue->waiting as $lost) {
            $key = "print/{$lost['part']}";
            $list[] = new Activity(
                $key,
                $lost['name'],
                self::DELIVERY,
                self::DELIVERY,
                2 * self::DELIVERY,
                [],
                'print',
            );
            $assumed[$key][] = sprintf(
                '%g days, since it cannot be given to a printer: %s',
                self::DELIVERY,
                $lost['why'],
            );
            $arrivals[$lost['part']][] = $key;
        }

        return [$list, $arrivals, $assumed];
    }

    private static function promised(Build $build, Split $split, OrderLine $line): ?float
    {
        $longest = null;
        foreach ($split->bought[$line->part] ?? [] as $supplier => $lots) {
            foreach ($lots as $lot) {
                $days = $lot->offer->leadDays ?? $build->suppliers[$supplier]->leadDays;
                if ($days === null) {
                    return null;
                }
                $longest = max($longest ?? 0.0, (float) $days);
            }
        }

        return $longest;
    }

    /** Days until what is ordered is due; from its supplier's usual time where no day is said. */
    private static function daysLeft(Build $build, Purchase $purchase, string $today): ?float
    {
        $lead = $build->suppliers[$purchase->supplier]->leadDays;
        $due = $purchase->due ?? ($lead === null ? null : self::on($purchase->date, (float) $lead));

        // What is overdue comes tomorrow at the earliest.
        return $due === null ? null : max(1.0, (float) self::between($today, $due));
    }

    /** The day so many days after another. */
    public static function on(string $day, float $days): string
    {
        return (new DateTimeImmutable($day))->modify(sprintf('+%d days', (int) ceil($days - 1e-9)))->format('Y-m-d');
    }

    private static function between(string $from, string $to): int
    {
        return (int) (new DateTimeImmutable($from))->diff(new DateTimeImmutable($to))->format('%r%a');
    }

    /**
     * @return Dates
     */
    public function toArray(): array
    {
        $on = fn (float $days): string => self::on($this->today, $days);
        $critical = array_map(static fn (Activity $a): string => $a->key, $this->network->critical());

        return [
            'build' => $this->build->plan->name,
            'today' => $this->today,
            'planned' => $on($this->network->end),
            'p50' => $on($this->spread->within(0.5)),
            'p90' => $on($this->spread->within(0.9)),
            'activities' => array_map(
                fn (Activity $a): array => [
                    'key' => $a->key,
                    'label' => $a->label,
                    'kind' => $a->kind,
                    'days' => round($a->mean(), 2),
                    'begins' => round($this->network->begins[$a->key], 2),
                    'from' => $on($this->network->begins[$a->key]),
                    'to' => $on($this->network->begins[$a->key] + $a->mean()),
                    // What begins later than this moves the end: for a part, the day to order it by.
                    'latest' => self::on($this->today, max(0.0, floor($this->network->latest[$a->key] + 1e-9))),
                    'slack' => round($this->network->slack($a->key), 2),
                    'critical' => in_array($a->key, $critical, true),
                    'assumed' => $this->assumed[$a->key] ?? [],
                ],
                $this->network->order,
            ),
            'critical' => $critical,
            'drivers' => array_map(
                static fn (string $key, float $share): array => ['key' => $key, 'share' => round($share, 4)],
                array_keys(array_slice($this->spread->drivers, 0, 5)),
                array_values(array_slice($this->spread->drivers, 0, 5)),
            ),
            'waits' => $this->waits(),
            'assumed' => $this->assumed[''] ?? [],
        ];
    }

    /**
     * Whole days in which hands are idle since a part is not here yet.
     *
     * @return list<Wait>
     */
    private function waits(): array
    {
        $free = 0.0;
        $waits = [];
        foreach ($this->network->order as $activity) {
            if ($activity->kind !== 'work') {
                continue;
            }
            $begins = $this->network->begins[$activity->key];
            if ($begins - $free >= 1.0) {
                $waits[] = [
                    'from' => self::on($this->today, $free),
                    'to' => self::on($this->today, $begins),
                    'days' => (int) floor($begins - $free),
                    'for' => $activity->label,
                ];
            }
            $free = $begins + $activity->mean();
        }

        return $waits;
    }
}
