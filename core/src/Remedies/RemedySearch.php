<?php

declare(strict_types=1);

namespace Magpie\Core\Remedies;

use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\Changes;
use Magpie\Core\Format\Reading;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspector;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Library\Entry;
use Magpie\Core\Machine\Build;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Quantity\Money;

/**
 * The cheapest fix: every proposal is made to the whole build and the whole build is inspected again. Kept is what
 * betters the finding and leaves no verdict anywhere worse than it was.
 *
 * @phpstan-import-type Change from Changes
 *
 * @phpstan-type Offer array{changes: list<Change>, ...}
 */
final readonly class RemedySearch
{
    /** Remedies handed on. */
    private const MOST = 8;

    /** Other parts for one place that are handed on before everything else is. */
    private const ALIKE = 4;

    /** Remedies that spoil something, of which what mends that is looked for. */
    private const PAIRED = 3;

    /** Proposals inspected at the most; what is beyond is said. */
    public const TRIED = 60;

    /**
     * @param  list<Entry>  $shelf  entries of the workshop's library
     */
    public function __construct(private Standing $standing, private array $shelf = [])
    {
    }

    /**
     * Families of the library in which a cure for a finding may be found.
     *
     * @return list<string>
     */
    public static function families(Inspector $inspector, Build $build, Finding $finding): array
    {
        return array_values(
            array_unique(
                array_merge(
                    ...array_map(
                        static fn (Cure $c): array => $c->families($finding, $build),
                        $inspector->curesOf($finding),
                    ),
                ),
            ),
        );
    }

    /**
     * @return iterable<Remedy>
     */
    private function proposals(Finding $finding): iterable
    {
        $at = new Repair($this->standing->survey(), $this->shelf);
        foreach ($this->standing->inspector->curesOf($finding) as $cure) {
            yield from $cure->remedies($finding, $at);
        }
    }

    /**
     * @return array{tried: int, remedies: list<array<string, mixed>>, left_out: int} best first: verdicts cured,
     * nothing to buy, cost, days
     */
    public function for(Finding $finding): array
    {
        $build = $this->standing->build();
        $reading = Reading::of($build);
        $now = $this->standing->findings();
        $money = MoneyLedger::of($this->standing->survey())->toArray(false);
        $kept = $spoiling = $spoilt = [];
        $tried = $left = 0;
        $try = function (Remedy $remedy) use (
            $reading,
            $finding,
            $now,
            $money,
            &$kept,
            &$spoiling,
            &$spoilt,
            &$tried,
            &$left,
        ): void {
            if ($tried >= self::TRIED) {
                $left++;

                return;
            }
            $tried++;
            // What others like it spoilt is looked at first, unless what it spoils is still to be looked for.
            $after = $this->carriedOut(
                $reading,
                $finding,
                $remedy,
                count($spoiling) < self::PAIRED ? [] : array_keys($spoilt),
            );
            if ($after === null) {
                return;
            }
            $fitted = Remedy::toBeFitted($remedy->changes);
            $turned = self::turned($now, $after->findings(), $fitted);
            if ($turned === null) {
                $spoilt += self::worse($now, $after->findings(), $fitted);
                $spoiling[] = [$remedy, $after];
            } elseif (isset($turned[$finding->key()])) {
                $kept[] = ['order' => $tried] + $this->offer($finding, $remedy, $turned, $money, $after);
            }
        };
        $short = in_array($finding->verdict, [Verdict::Danger, Verdict::Fails, Verdict::Tight], true);
        foreach ($short ? $this->proposals($finding) : [] as $remedy) {
            $try($remedy);
        }
        if ($kept === []) {
            // Nothing does it alone: what spoils one thing elsewhere may do it together with what mends that.
            foreach ($this->pairs($spoiling, $now) as $pair) {
                $try($pair);
            }
        }
        usort($kept, self::better(...));

        return [
            'tried' => $tried,
            'remedies' => array_map(
                static fn (array $r): array => array_diff_key($r, ['order' => 0]),
                array_slice(self::varied($kept), 0, self::MOST),
            ),
            'left_out' => $left,
        ];
    }

    /**
     * Of other parts for one place the first few, so that other ways are seen beside them; the rest come last.
     *
     * @param  list<Offer>  $kept  the best first
     * @return list<Offer>
     */
    private static function varied(array $kept): array
    {
        $first = $last = $parts = [];
        foreach ($kept as $offer) {
            $place = self::placeOf($offer['changes']);
            $parts[$place] = ($parts[$place] ?? 0) + 1;
            if ($place !== '' && $parts[$place] > self::ALIKE) {
                $last[] = $offer;
            } else {
                $first[] = $offer;
            }
        }

        return [...$first, ...$last];
    }

    /**
     * The need that gets another part; '' where none does.
     *
     * @param  list<Change>  $changes
     */
    private static function placeOf(array $changes): string
    {
        foreach ($changes as $change) {
            foreach ($change['set'] ?? [] as $set) {
                if ($change['section'] === 'needs' && $set['path'] === ['choice']) {
                    return $change['ref'] ?? '';
                }
            }
        }

        return '';
    }

    /**
     * The build with a remedy carried out; null where that betters nothing or the format refuses it.
     *
     * @param  list<string>  $spoilt  findings that it must not spoil, to begin with
     */
    private function carriedOut(Reading $reading, Finding $finding, Remedy $remedy, array $spoilt): ?Standing
    {
        try {
            $changed = $reading->changed($remedy->changes);

            return $this->betters($finding, $changed, Remedy::toBeFitted($remedy->changes), $spoilt)
                ? $this->standing->after($changed)
                : null;
        } catch (CannotReadBuildFile) {
            // What the format itself refuses, such as a part without the port a lead ends at, is no remedy.
            return null;
        }
    }

    /**
     * Remedies that spoil one other thing, each with what mends that.
     *
     * @param  list<array{Remedy, Standing}>  $spoiling  with the build after them
     * @param  array<string, Finding>  $now
     * @return iterable<Remedy>
     */
    private function pairs(array $spoiling, array $now): iterable
    {
        foreach (array_slice($spoiling, 0, self::PAIRED) as [$first, $after]) {
            $spoilt = array_values(
                array_filter(
                    $after->findings(),
                    static fn (Finding $is): bool => $is->verdict->rank() <
                        ($now[$is->key()]->verdict ?? Verdict::Tight)->rank(),
                ),
            );
            if (count($spoilt) !== 1) {
                continue;
            }
            $at = new Repair($after->survey(), $this->shelf);
            foreach ($this->standing->inspector->curesOf($spoilt[0]) as $cure) {
                foreach ($cure->remedies($spoilt[0], $at) as $second) {
                    yield new Remedy(
                        "{$first->says}; and with it: ".lcfirst($second->says),
                        Changes::merged([$first->changes, $second->changes]),
                        $first->buys || $second->buys,
                    );
                }
            }
        }
    }

    /**
     * @param  array<string, Verdict>  $turned
     * @param  array{planned: string, open: list<mixed>, baskets: list<array<string, mixed>>, ...}  $money  of the build as
     *     it is
     * @return Offer
     */
    private function offer(Finding $finding, Remedy $remedy, array $turned, array $money, Standing $after): array
    {
        $currency = $this->standing->build()->plan->currency;
        $then = MoneyLedger::of($after->survey())->toArray(false);

        return [
            'says' => $remedy->says,
            'changes' => $remedy->changes,
            'to' => $turned[$finding->key()]->value,
            'cured' => array_map(static fn (Verdict $v): string => $v->value, $turned),
            'cost' => Money::of($then['planned'], $currency)->minus(Money::of($money['planned'], $currency))->amount(),
            'buys' => $remedy->buys,
            'to_be_fitted' => Remedy::toBeFitted($remedy->changes) !== [],
            'unpriced' => count($then['open']) > count($money['open']),
            'days' => self::days($then['baskets']) - self::days($money['baskets']),
        ];
    }

    /**
     * Whether a change betters the finding itself and spoils none of some others, before all are looked at. What still
     * fails is no cure.
     *
     * @param  list<string>  $fitted
     * @param  list<string>  $spoilt
     */
    private function betters(Finding $finding, Build $changed, array $fitted, array $spoilt): bool
    {
        $key = $finding->key();
        $trial = $this->standing->trial($changed, [$key, ...$spoilt]);
        $then = $trial[$key] ?? null;
        if (self::worse($this->standing->findings(), array_filter($trial), $fitted) !== []) {
            return false;
        }
        if ($then === null) {
            return $finding->card->mayGo && array_key_exists($key, $trial);
        }

        return $then->onceFitted($fitted)->rank() > max($finding->verdict->rank(), Verdict::Fails->rank()) &&
            ! self::isAtItsLimit($then);
    }

    /** What comes out exactly at a limit is no cure: the next part is not just like the last. */
    private static function isAtItsLimit(Finding $then): bool
    {
        return $then->verdict === Verdict::Tight && $then->margin !== null && $then->margin->in('') < 1e-3;
    }

    /**
     * Findings that are better for it; null when any is worse, or a new one is a danger or fails.
     *
     * @param  array<string, Finding>  $now
     * @param  array<string, Finding>  $after
     * @param  list<string>  $fitted  values that are to be fitted yet and are judged as if they were
     * @return array<string, Verdict>|null by key
     */
    public static function turned(array $now, array $after, array $fitted): ?array
    {
        $turned = [];
        foreach ($after as $key => $finding) {
            if ($finding === ($now[$key] ?? null)) {
                continue;
            }
            $was = ($now[$key] ?? null)?->verdict;
            $is = $finding->onceFitted($fitted);
            if (self::isWorse($was, $is)) {
                return null;
            }
            if ($was !== null && $is->rank() > $was->rank()) {
                $turned[$key] = $is;
            }
        }

        foreach ($now as $key => $finding) {
            if (! isset($after[$key]) && $finding->card->mayGo) {
                $turned[$key] = Verdict::Holds;
            }
        }

        return $turned;
    }

    /**
     * Findings that were there and are worse.
     *
     * @param  array<string, Finding>  $now
     * @param  array<string, Finding>  $after  those that were looked at
     * @param  list<string>  $fitted
     * @return array<string, true> by key
     */
    private static function worse(array $now, array $after, array $fitted): array
    {
        return array_fill_keys(
            array_keys(
                array_filter(
                    array_intersect_key($after, $now),
                    static fn (Finding $f, string $key): bool => $f !== $now[$key] &&
                        self::isWorse($now[$key]->verdict, $f->onceFitted($fitted)),
                    ARRAY_FILTER_USE_BOTH,
                ),
            ),
            true,
        );
    }

    /** Whether what is now is worse than what was; of what was not there, whether it does not even hold narrowly. */
    private static function isWorse(?Verdict $was, Verdict $is): bool
    {
        return $was === null ? $is->rank() < Verdict::Tight->rank() : $is->rank() < $was->rank();
    }

    /**
     * @param  list<array<string, mixed>>  $baskets
     */
    private static function days(array $baskets): int
    {
        return array_reduce(
            $baskets,
            static fn (int $most, array $b): int => is_int($b['lead_days']) ? max($most, $b['lead_days']) : $most,
            0,
        );
    }

    /**
     * @param  array<string, mixed>  $a
     * @param  array<string, mixed>  $b
     */
    private static function better(array $a, array $b): int
    {
        $order = static fn (array $r): array => [
            -Verdict::from($r['to'])->rank(),
            -count($r['cured']),
            $r['buys'] ? 1 : 0,
            $r['unpriced'] ? 1 : 0,
            (float) $r['cost'],
            $r['days'],
            $r['order'],
        ];

        return $order($a) <=> $order($b);
    }
}
