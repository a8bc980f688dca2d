<?php

declare(strict_types=1);

namespace Magpie\Core\Advice;

use DateTimeImmutable;
use Magpie\Core\Choice\DecisionReview;
use Magpie\Core\Electrical\Views\PowerLedger;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Machine\Doubt;
use Magpie\Core\Machine\Doubts;
use Magpie\Core\Machine\Work\Sequence;
use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Scope\BriefFigures;
use Magpie\Core\Work\Forecast;
use Magpie\Core\Work\Gate;
use Magpie\Core\Work\Reading;

/**
 * What a builder sees of a build at one glance: verdicts, money, the worst supply, hours, and what waits in each stage.
 */
final readonly class Overview
{
    private Inspection $inspection;

    public function __construct(Inspection $inspection, private DateTimeImmutable $now)
    {
        $this->inspection = $inspection->on($now->format('Y-m-d'));
    }

    /**
     * @param  bool  $withFindings  false for all the rest, where the findings are known
     * @return array<string, mixed>
     */
    public function toArray(bool $withFindings = true): array
    {
        $build = $this->inspection->survey->build;
        $money = MoneyLedger::of($this->inspection->survey)->toArray(false);
        $doubts = Doubts::aboutAll($build);
        $tally = $this->inspection->tally();
        $steps = Sequence::order($build->steps);
        $ready = array_values(
            array_filter(
                $steps,
                static fn (Step $s): bool => $s->state === StepState::Open &&
                    Sequence::waitsFor($s, $build->steps) === [],
            ),
        );
        $here = Gate::here($build);
        $undecided = count(array_filter($build->needs, static fn ($n): bool => $n->choice === null));
        $decisions = new DecisionReview($this->inspection);
        $openFaults = count(array_filter($build->faults, static fn ($f): bool => $f->isOpen()));

        return [
            'tally' => $tally,
            'power_forbidden' => $build->forbidsPower() || $tally['danger'] > 0,
            'danger_faults' => count(array_filter($build->faults, static fn ($f): bool => $f->forbidsPower())),
            'open_faults' => $openFaults,
            'money' => array_intersect_key(
                $money,
                array_flip(['currency', 'planned', 'budget', 'budget_left', 'budget_used', 'paid', 'lacks', 'without_rate']),
            ) + ['open' => count($money['open'])],
            'supply' => (new PowerLedger($this->inspection->survey))->worst(),
            'forecast' => Forecast::of($build->steps, $build->plan, $this->now)->toArray(),
            'doubts' => array_map(static fn (Doubt $d): array => $d->toArray(), $doubts),
            'steps' => array_map(
                fn (Step $s): array => [
                    'ref' => $s->ref,
                    'waits_for' => Sequence::waitsFor($s, $build->steps),
                    'verdict' => $s->check === null ? null : Reading::verdict($s->check)->value,
                    'gates' => $s->state !== StepState::Open
                        ? []
                        : array_map(
                            static fn (Gate $g): array => $g->toArray(),
                            Gate::closed($build, $s, $here, $this->now->getTimestamp()),
                        ),
                ],
                $steps,
            ),
            'decisions' => $decisions->toArray(),
            'waiting' => [
                'scope' => count(
                    array_filter(
                        (new BriefFigures($build))->toArray(),
                        static fn (array $f): bool => $f['missing'] !== [],
                    ),
                ),
                'choose' => $undecided + count($doubts) + $decisions->waiting(),
                'prove' => $tally['danger'] + $tally['fails'] + $tally['unproven'],
                'buy' => count($money['open']),
                'build' => count($ready) + $openFaults,
            ],
            'causes' => array_map(static fn (Cause $c): array => $c->toArray(), Causes::of($this->inspection)),
            'later' => count($this->inspection->later()),
            'accepted' => InspectionReport::accepted($this->inspection),
            'findings' => array_map(
                static fn (Finding $f): array => $f->summary(),
                $withFindings ? $this->inspection->findings : [],
            ),
        ];
    }
}
