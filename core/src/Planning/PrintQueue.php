<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Work\Printer;
use Magpie\Core\Machine\Work\PrintRun;
use Magpie\Core\Machine\Work\Sequence;
use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;
use Magpie\Core\Money\ToOrder;
use Magpie\Core\Printing\Recipe;

/**
 * What is still to be printed, on which printer and in which order (S09, M14): given out so that the last is done soon; on
 * each printer a fit piece first, reels changed seldom, what a step wants first before the rest. Times and masses are put
 * right by what that printer took and weighed before.
 *
 * @phpstan-type JobRow array{key: string, part: string|null, name: string, pieces: int, stuff: string, grams: float, hours: float,
 *     from: string, to: string, change: bool, assumed: list<string>}
 * @phpstan-type PrinterRow array{ref: string, name: string, daily: float, hours: float, to: string, pace: float,
 *     weighs: float, assumed: list<string>, jobs: list<JobRow>}
 * @phpstan-type RunRow array{ref: string, part: string, name: string, printer: string|null, date: string, good: int,
 *     failed: int, fit: bool, weighed: float|null, recipe: float|null, share: float|null, state: string}
 *
 * @phpstan-import-type ReelRow from Reels
 */
final readonly class PrintQueue
{
    /** Hours: changing the reel; a fit piece; a day a printer may run where nobody says. Common practice, no source. */
    private const CHANGE = 0.25;

    private const FIT = 0.75;

    private const FIT_GRAMS = 15.0;

    private const DAILY = 8.0;

    /** @var array<string, Printer> those that can print now */
    private array $printers;

    /** @var array<string, array{float, float}> by printer: real hours over planned ones, and weighed over recipe */
    private array $corrections;

    /** @var array<string, Recipe> of all that is printed, by part */
    private array $recipes;

    /** @var list<PrintJob> by printer, in their order */
    public array $jobs;

    /** @var list<array{part: string, name: string, pieces: int, why: string}> what no printer of the workshop can be given */
    public array $waiting;

    /** @var list<array{part: string, name: string, pieces: int, why: string}> what only the finished machine can print */
    public array $apart;

    /** @var list<ReelRow> */
    public array $reels;

    /** @var array<string, string> stuff there is not enough of on the reels at hand → its material */
    public array $lacking;

    private Allotment $allotment;

    public function __construct(private Build $build, public string $today)
    {
        $this->printers = array_filter($build->printers, static fn (Printer $p): bool => ! $p->finished);
        $recipes = $wanted = [];
        foreach ($build->parts as $part) {
            if ($part->can(Ability::Printed)) {
                $recipes[$part->ref] = Recipe::of($part);
            }
        }
        foreach (ToOrder::of($build) as $line) {
            $wanted[$line->part] = $line;
        }
        $this->recipes = $recipes;
        $this->corrections = self::corrections($build, $recipes);
        $kinds = $groups = $waiting = $apart = [];
        foreach ($wanted as $part => $line) {
            if ($line->print() === 0) {
                continue;
            }
            [$hours, $why] = $this->hours($build->parts[$part], $this->printers);
            if ($hours === []) {
                $row = ['part' => $part, 'name' => $line->name, 'pieces' => $line->print(), 'why' => $why];
                $own = array_filter($build->printers, static fn (Printer $p): bool => $p->finished);
                if ($this->hours($build->parts[$part], $own)[0] !== []) {
                    $apart[] = $row;
                } else {
                    $waiting[] = $row;
                }

                continue;
            }
            $kinds[$part] = [
                $line->print(),
                array_combine(
                    array_keys($hours),
                    array_map(
                        fn (string $ref, float $h): float => $h / self::daily($this->printers[$ref]),
                        array_keys($hours),
                        $hours,
                    ),
                ),
            ];
            $groups[$part] = $recipes[$part]->stuff();
        }
        $this->waiting = $waiting;
        $this->apart = $apart;
        $this->allotment = new Allotment(
            $kinds,
            $groups,
            array_map(static fn (Printer $p): float => self::CHANGE / self::daily($p), $this->printers),
        );
        $this->jobs = $this->inOrder($this->allotment->given);
        $each = [];
        foreach (array_keys($recipes) as $part) {
            $grams = $this->grams($part, null);
            if ($grams !== null) {
                $each[$part] = $grams;
            }
        }
        $this->reels = Reels::of($build, $wanted, $recipes, $each);
        $lacking = [];
        foreach ($this->reels as $row) {
            if ($row['held'] < $row['grams'] + $row['used']) {
                $lacking += array_fill_keys([$row['stuff'], ...$row['stuffs']], $row['material']);
            }
        }
        $this->lacking = $lacking;
    }

    private static function daily(Printer $printer): float
    {
        return $printer->daily?->in('h') ?? self::DAILY;
    }

    /**
     * Hours of one piece by printer that can print it, and why not where none can.
     *
     * @param  array<string, Printer>  $printers
     * @return array{array<string, float>, string}
     */
    private function hours(Part $part, array $printers): array
    {
        $recipe = $this->recipes[$part->ref];
        $of = static fn (string $key): ?\Magpie\Core\Quantity\Quantity => $part->spec($key)?->nominal();
        if ($recipe->material === null) {
            return [[], 'its material is not said'];
        }
        $hours = $why = [];
        foreach ($printers as $ref => $printer) {
            $planned = self::planned($part, $recipe, $printer);
            $reason = match (true) {
                $printer->plastics !== [] && ! in_array($recipe->material, $printer->plastics, true) => "{$printer->name} does not print {$recipe->material}",
                $printer->holds($of('length'), $of('width'), $of('height')) === false => "it does not stand in {$printer->name}",
                $planned === null && $recipe->plastic === null => 'neither its print time nor its volume, walls and infill are said',
                $planned === null => "its print time is not said, nor the flow of {$printer->name}",
                default => null,
            };
            if ($reason !== null) {
                $why[] = $reason;

                continue;
            }
            $hours[$ref] = $planned * ($this->corrections[$ref][0] ?? 1.0);
        }

        return [
            $hours,
            match (true) {
                $hours !== [] => '',
                $printers === [] => 'no printer is noted that prints it',
                default => implode('; ', array_unique($why)),
            },
        ];
    }

    /** Hours of one piece as it is planned: told, or its plastic over the flow of the printer. */
    private static function planned(Part $part, Recipe $recipe, Printer $printer): ?float
    {
        $flow = $printer->flow?->in('mm³/s');

        return $part->spec('print_time')?->nominal()?->in('h') ??
            ($recipe->plastic === null || $flow === null ? null : $recipe->plastic / $flow / 3600);
    }

    /** Grams of one piece off the reel, as that printer weighs. */
    private function grams(string $part, ?string $printer): ?float
    {
        $recipe = $this->recipes[$part];
        $factor =
            $this->build->parts[$part]->spec('mass') === null ? $this->corrections[$printer ?? ''][1] ?? 1.0 : 1.0;

        return $recipe->grams() === null ? null : $recipe->grams() * $factor;
    }

    /**
     * @param  array<string, Recipe>  $recipes
     * @return array<string, array{float, float}>
     */
    private static function corrections(Build $build, array $recipes): array
    {
        $sums = [];
        foreach ($build->prints as $run) {
            $recipe = $recipes[$run->part] ?? null;
            $printer = $build->printers[$run->printer ?? ''] ?? null;
            if ($recipe === null || $printer === null || $run->fit) {
                continue;
            }
            $sums[$printer->ref] ??= [0.0, 0.0, 0.0, 0.0];
            $one = self::planned($build->parts[$run->part], $recipe, $printer);
            // A print that failed ended before its time.
            if ($run->time !== null && $one !== null && $run->failed === 0) {
                $sums[$printer->ref][0] += $run->time->in('h');
                $sums[$printer->ref][1] += $one * $run->good;
            }
            $weighed = $run->mass?->in('g');
            if ($weighed !== null && $recipe->byRecipe !== null && ! Recipe::isThin($weighed, $recipe->byRecipe)) {
                $sums[$printer->ref][2] += $weighed;
                $sums[$printer->ref][3] += $recipe->byRecipe;
            }
        }

        return array_map(
            static fn (array $s): array => [
                $s[1] > 0 ? max(0.2, min(5.0, $s[0] / $s[1])) : 1.0,
                $s[3] > 0 ? max(0.85, min(1.5, $s[2] / $s[3])) : 1.0,
            ],
            $sums,
        );
    }

    /**
     * @param  array<string, array<string, int>>  $given  pieces by printer and part
     * @return list<PrintJob>
     */
    private function inOrder(array $given): array
    {
        $wantedAt = $this->wantedAt();
        $jobs = [];
        foreach ($given as $ref => $pieces) {
            $groups = [];
            foreach ($pieces as $part => $count) {
                $groups[$this->recipes[$part]->stuff()][$part] = $count;
            }
            $first = [];
            foreach ($groups as $stuff => $parts) {
                $first[$stuff] = min([PHP_INT_MAX, ...array_values(array_intersect_key($wantedAt, $parts))]);
            }
            uksort($groups, static fn (string $a, string $b): int => [$first[$a], $a] <=> [$first[$b], $b]);
            $jobs = [...$jobs, ...$this->onPrinter((string) $ref, $groups, $wantedAt)];
        }

        return $jobs;
    }

    /**
     * @param  array<string, array<string, int>>  $groups  pieces by what they are printed from, and part
     * @param  array<string, int>  $wantedAt
     * @return list<PrintJob>
     */
    private function onPrinter(string $ref, array $groups, array $wantedAt): array
    {
        $printer = $this->printers[$ref];
        $daily = self::daily($printer);
        $at = 0.0;
        $jobs = [];
        $fitted = $this->fitted($ref);
        foreach ($groups as $stuff => $parts) {
            $stuff = (string) $stuff;
            $change = true;
            $material = $this->recipes[array_key_first($parts) ?? '']->material ?? '';
            if (! isset($fitted[$material])) {
                $fitted[$material] = true;
                $jobs[] = new PrintJob(
                    null,
                    "fit piece in {$material}",
                    $ref,
                    1,
                    $stuff,
                    self::FIT_GRAMS,
                    self::FIT + self::CHANGE,
                    $at / $daily,
                    ($at += self::FIT + self::CHANGE) / $daily,
                    true,
                    ['three quarters of an hour and 15 g for it'],
                );
                $change = false;
            }
            uksort(
                $parts,
                fn (string $a, string $b): int => [$wantedAt[$a] ?? PHP_INT_MAX, $this->build->parts[$a]->name] <=> [
                    $wantedAt[$b] ?? PHP_INT_MAX,
                    $this->build->parts[$b]->name,
                ],
            );
            foreach ($parts as $part => $count) {
                $part = (string) $part;
                $hours =
                    $count * $this->hours($this->build->parts[$part], [$ref => $printer])[0][$ref] +
                    ($change ? self::CHANGE : 0.0);
                $jobs[] = new PrintJob(
                    $part,
                    $this->build->parts[$part]->name,
                    $ref,
                    $count,
                    $stuff,
                    $count * ($this->grams($part, $ref) ?? 0.0),
                    $hours,
                    $at / $daily,
                    ($at += $hours) / $daily,
                    $change,
                    $this->assumed($part, $printer),
                );
                $change = false;
            }
        }

        return $jobs;
    }

    /**
     * @return list<string>
     */
    private function assumed(string $part, Printer $printer): array
    {
        $recipe = $this->recipes[$part];
        $specs = $this->build->parts[$part];
        $size = array_map(static fn (string $key): bool => $specs->spec($key) === null, ['length', 'width', 'height']);

        return [
            ...$specs->spec('mass') === null ? $recipe->assumed : [],
            ...$recipe->grams() === null ? ['its mass is not told'] : [],
            ...in_array(true, $size, true) ? ['that it fits, since its size is not said'] : [],
            ...! in_array(true, $size, true) &&
            $printer->holds(
                $specs->spec('length')?->nominal(),
                $specs->spec('width')?->nominal(),
                $specs->spec('height')?->nominal(),
            ) === null
                ? ["that it fits, since the size of {$printer->name} is not said"]
                : [],
            ...$printer->plastics === [] ? ["that {$printer->name} prints {$recipe->material}"] : [],
        ];
    }

    /**
     * Materials a fit piece of came out well on a printer.
     *
     * @return array<string, true>
     */
    private function fitted(string $printer): array
    {
        $fitted = [];
        foreach ($this->build->prints as $run) {
            $material = ($this->recipes[$run->part] ?? null)?->material;
            if ($run->fit && $run->good > 0 && $run->printer === $printer && $material !== null) {
                $fitted[$material] = true;
            }
        }

        return $fitted;
    }

    /**
     * @return array<string, int> place among the steps that are open of the first that uses a part
     */
    private function wantedAt(): array
    {
        $open = array_filter(
            Sequence::order($this->build->steps),
            static fn (Step $s): bool => $s->state === StepState::Open,
        );
        $at = [];
        foreach (array_values($open) as $i => $step) {
            foreach (array_keys($step->uses) as $need) {
                $part = $this->build->fitted((string) $need)?->part->ref;
                if ($part !== null) {
                    $at[$part] ??= $i;
                }
            }
        }

        return $at;
    }

    /** Days until the last of it is printed. */
    public function end(): float
    {
        return max([0.0, ...array_map(static fn (PrintJob $j): float => $j->ends, $this->jobs)]);
    }

    /**
     * @return list<RunRow> the latest first
     */
    private function runs(): array
    {
        $rows = array_map(function (PrintRun $run): array {
            $recipe = $this->recipes[$run->part]->byRecipe;
            $weighed = $run->mass?->in('g');

            return [
                'ref' => $run->ref,
                'part' => $run->part,
                'name' => $this->build->parts[$run->part]->name,
                'printer' => ($this->build->printers[$run->printer ?? ''] ?? null)?->name,
                'date' => $run->date,
                'good' => $run->good,
                'failed' => $run->failed,
                'fit' => $run->fit,
                'weighed' => $weighed,
                'recipe' => $recipe === null ? null : round($recipe, 1),
                'share' => $weighed === null || $recipe === null ? null : round($weighed / $recipe, 3),
                'state' => match (true) {
                    $run->fit || $run->good === 0 => 'none',
                    $weighed === null => 'weigh',
                    $recipe === null => 'no recipe',
                    Recipe::isThin($weighed, $recipe) => 'thin',
                    default => 'as recipe',
                },
            ];
        }, array_values($this->build->prints));
        usort($rows, static fn (array $a, array $b): int => [$b['date'], $b['ref']] <=> [$a['date'], $a['ref']]);

        return $rows;
    }

    /**
     * @return array{build: string, today: string, finish: string|null, days: float, bound: float, pieces: int, hours: float,
     *     grams: float, printers: list<PrinterRow>, waiting: list<array{part: string, name: string, pieces: int, why: string}>,
     *     apart: list<array{part: string, name: string, pieces: int, why: string}>, reels: list<ReelRow>, runs: list<RunRow>}
     */
    public function toArray(): array
    {
        $sum = fn (callable $of): float => array_sum(array_map($of, $this->jobs));

        return [
            'build' => $this->build->plan->name,
            'today' => $this->today,
            // Nothing is done on a day while something waits for a printer.
            'finish' => $this->waiting === [] && $this->jobs !== [] ? BuildDates::on($this->today, $this->end()) : null,
            'days' => round($this->end(), 2),
            'bound' => round($this->allotment->bound, 2),
            'pieces' => (int) $sum(static fn (PrintJob $j): int => $j->part === null ? 0 : $j->pieces),
            'hours' => round($sum(static fn (PrintJob $j): float => $j->hours), 1),
            'grams' => round($sum(static fn (PrintJob $j): float => $j->grams), 0),
            'printers' => array_values(array_map($this->printer(...), $this->printers)),
            'waiting' => $this->waiting,
            'apart' => $this->apart,
            'reels' => $this->reels,
            'runs' => $this->runs(),
        ];
    }

    /**
     * @return PrinterRow
     */
    private function printer(Printer $printer): array
    {
        $jobs = array_values(array_filter($this->jobs, static fn (PrintJob $j): bool => $j->printer === $printer->ref));
        $last = $jobs === [] ? 0.0 : $jobs[count($jobs) - 1]->ends;
        [$pace, $weighs] = $this->corrections[$printer->ref] ?? [1.0, 1.0];

        return [
            'ref' => $printer->ref,
            'name' => $printer->name,
            'daily' => self::daily($printer),
            'hours' => round(array_sum(array_map(static fn (PrintJob $j): float => $j->hours, $jobs)), 2),
            'to' => BuildDates::on($this->today, $last),
            'pace' => round($pace, 3),
            'weighs' => round($weighs, 3),
            'assumed' => $printer->daily === null ? [sprintf('%g hours a day, since nobody says', self::DAILY)] : [],
            'jobs' => array_map(
                fn (PrintJob $job): array => [
                    'key' => $job->key(),
                    'part' => $job->part,
                    'name' => $job->name,
                    'pieces' => $job->pieces,
                    'stuff' => $job->stuff,
                    'grams' => round($job->grams, 1),
                    'hours' => round($job->hours, 2),
                    'from' => BuildDates::on($this->today, floor($job->begins)),
                    'to' => BuildDates::on($this->today, $job->ends),
                    'change' => $job->change,
                    'assumed' => $job->assumed,
                ],
                $jobs,
            ),
        ];
    }
}
