<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Quantity\Quantity;

/** One piece of work at the survey. */
final readonly class Step
{
    /**
     * @param  list<string>  $after  refs of steps that come first
     * @param  list<string>  $tools
     * @param  list<string>  $cautions  keys of the standing cautions to show
     * @param  array<string, int>  $uses  need ref → pieces fitted here
     * @param  Quantity|null  $guide  time a practised builder takes
     * @param  list<Timing>  $timings
     * @param  string|null  $waived  why it was done though something kept it
     * @param  string|null  $derived  what of the model it follows from: "lead/W3"
     * @param  Act|null  $act  what of it cannot be taken back
     * @param  Quantity|null  $sets  how long glue or paint takes after it, before anything may come on it
     * @param  bool  $optional  may be left out; what it uses explains what is short later
     * @param  list<Guess>  $guesses
     * @param  bool  $energises  power is switched on at it
     * @param  string|null  $base  what it was taken as from the model, as JSON
     * @param  list<string>  $also  what else of the model it does, since other steps were merged into it
     */
    public function __construct(
        public string $ref,
        public int $position,
        public string $section,
        public string $title,
        public array $after = [],
        public array $tools = [],
        public array $cautions = [],
        public array $uses = [],
        public ?string $notes = null,
        public ?Quantity $guide = null,
        public ?StepCheck $check = null,
        public StepState $state = StepState::Open,
        public array $timings = [],
        public ?string $waived = null,
        public ?string $derived = null,
        public ?Act $act = null,
        public ?Quantity $sets = null,
        public bool $optional = false,
        public array $guesses = [],
        public bool $energises = false,
        public ?string $base = null,
        public array $also = [],
    ) {
    }

    /**
     * @return list<string> all of the model that it does
     */
    public function follows(): array
    {
        return [...$this->derived === null ? [] : [$this->derived], ...$this->also];
    }

    /** Seconds worked, up to a given moment for a timer that still runs. */
    public function worked(int $now): Quantity
    {
        $seconds = 0;
        foreach ($this->timings as $timing) {
            $seconds += max(0, ($timing->stop ?? $now) - $timing->start);
        }

        return Quantity::of($seconds, 's');
    }
}
