<?php

declare(strict_types=1);

namespace Magpie\Core\Commissioning;

use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Running\Reading;
use Magpie\Core\Machine\Running\RungRecord;

/**
 * One rung of the power-up: what has to be so before it, what is done at it, what instruments should show, what may be live.
 *
 * @phpstan-type Shown array{expected: Expected, reading: Reading|null, verdict: Verdict, points: list<string>}
 */
final readonly class Rung
{
    public const PASSED = 'passed';

    public const WAIVED = 'waived';

    public const OUT = 'out of band';

    public const OPEN = 'open';

    public const CLOSED = 'closed';

    public string $state;

    /**
     * @param  string  $key  "dry", "supply-psu0"
     * @param  string  $stage  group it belongs to: "supplies alone"
     * @param  list<string>  $live  what may be under power at it
     * @param  list<string>  $gates  what keeps it closed, apart from the rungs before it
     * @param  list<Look>  $looks
     * @param  list<Shown>  $readings
     * @param  list<string>  $cautions  keys of the standing cautions
     * @param  string|null  $after  the rung before it that is not passed
     */
    public function __construct(
        public string $key,
        public string $stage,
        public string $title,
        public string $does,
        public array $live,
        public array $gates,
        public array $looks,
        public array $readings,
        public array $cautions,
        public ?RungRecord $record,
        public ?string $after,
    ) {
        $this->state = $this->stateOf();
    }

    public function isPassed(): bool
    {
        return $this->state === self::PASSED || $this->state === self::WAIVED;
    }

    /**
     * @return list<string> what is still to be done at it
     */
    public function left(): array
    {
        $left = [];
        foreach ($this->looks as $look) {
            if (! $look->done) {
                $left[] = $look->says;
            }
        }
        foreach ($this->readings as $shown) {
            if ($shown['expected']->asked && ! in_array($shown['verdict'], [Verdict::Holds, Verdict::Tight], true)) {
                $left[] =
                    $shown['reading'] === null
                        ? "{$shown['expected']->label}: not read"
                        : ($shown['verdict'] === Verdict::Fails
                            ? "{$shown['expected']->label}: {$shown['reading']->value} is out of {$shown['expected']->band()}"
                            : "{$shown['expected']->label}: read, but not known: ".
                                (implode(', ', $shown['expected']->missing) ?: 'what it should be'));
            }
        }

        return $left;
    }

    /**
     * @return list<string> all that keeps it from being passed, rungs before it apart
     */
    public function keeps(): array
    {
        return array_values(array_unique([...$this->gates, ...$this->left()]));
    }

    private function isOut(): bool
    {
        foreach ($this->readings as $shown) {
            if ($shown['verdict'] === Verdict::Fails) {
                return true;
            }
        }

        return false;
    }

    private function stateOf(): string
    {
        $keeps = $this->keeps();

        return match (true) {
            $this->after !== null => $this->isOut() ? self::OUT : self::CLOSED,
            $keeps === [] => self::PASSED,
            $this->record?->override !== null && array_diff($keeps, $this->record->over) === [] => self::WAIVED,
            $this->isOut() => self::OUT,
            $this->gates !== [] => self::CLOSED,
            default => self::OPEN,
        };
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        return [
            'key' => $this->key,
            'stage' => $this->stage,
            'title' => $this->title,
            'does' => $this->does,
            'state' => $this->state,
            'live' => $this->live,
            'gates' => $this->gates,
            'after' => $this->after,
            'looks' => array_map(
                static fn (Look $l): array => ['key' => $l->key, 'says' => $l->says, 'done' => $l->done],
                $this->looks,
            ),
            'readings' => array_map(
                static fn (array $shown): array => $shown['expected']->toArray() + [
                    'reading' => $shown['reading']?->ref,
                    'value' => $shown['reading']?->value->text(),
                    'simulated' => $shown['reading']->simulated ?? false,
                    'verdict' => $shown['verdict']->value,
                    'points' => $shown['points'],
                ],
                $this->readings,
            ),
            'left' => $this->left(),
            'keeps' => $this->keeps(),
            'cautions' => $this->cautions,
            'override' => $this->record?->override,
            'by' => $this->record?->by,
            'at' => $this->record?->at,
            'note' => $this->record?->note,
        ];
    }
}
